"""What lies on the pans: each set of things weighed as a row over lots, factors and parts.

Most pans hold a few things of many, so sums over their rows run over what is there alone.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.model.arrays import Flags, Matrix, Vector

Pairs = tuple[NDArray[np.intp], NDArray[np.intp], Vector]
"""Every pair of things that a set has on the pan: the set, their place in a matrix over lots,
factors and parts, and the product of their amounts."""


@dataclass(frozen=True, eq=False)
class Loading:
    """How each set loads lots, factors and parts: ``rows`` (M, K+P+N), the ``h`` of ``y = h . z``.

    >>> pans = Loading(np.array([[1.0, 0.0, 2.0], [0.0, 0.0, 1.0]]))
    >>> pans.alone.tolist(), pans.felt.tolist(), pans.squares(np.eye(3)).tolist()
    ([False, True], [True, False, True], [5.0, 1.0])
    """

    rows: Matrix

    @cached_property
    def loaded(self) -> Flags:
        """What each set has on the pan, shape (M, K+P+N)."""
        return np.asarray(self.rows != 0)

    @cached_property
    def many(self) -> NDArray[np.intp]:
        """How many kinds of things each set has on the pan, shape (M,)."""
        return np.asarray(np.count_nonzero(self.rows, axis=1), dtype=np.intp)

    @cached_property
    def most(self) -> int:
        """How many kinds of things the fullest pan held."""
        return int(self.many.max(initial=0))

    @property
    def alone(self) -> Flags:
        """Which sets hold one kind of thing only, shape (M,)."""
        return np.asarray(self.many == 1)

    @property
    def empty(self) -> Flags:
        """Which sets hold nothing that is to be weighed, shape (M,)."""
        return np.asarray(self.many == 0)

    @cached_property
    def felt(self) -> Flags:
        """What was on a pan in some set, shape (K+P+N,)."""
        return np.asarray(self.loaded.any(axis=0))

    def felt_in(self, sets: Flags) -> Flags:
        """What was on a pan in some of the sets (M,), shape (K+P+N,)."""
        return self.felt if sets.all() else np.asarray(self.loaded[sets].any(axis=0))

    @cached_property
    def felt_alone(self) -> Flags:
        """What was on a pan with nothing beside it, shape (K+P+N,)."""
        return self.felt_in(self.alone)

    def loads(self, states: Vector) -> Vector:
        """``H z``: what every set weighs where lots, factors and parts are ``states`` (K+P+N,),
        shape (M,)."""
        at, column, amount = self._things
        return np.bincount(at, amount * states[column], len(self.rows)).astype(float)

    def pulls(self, sets: Vector) -> Vector:
        """``H' a``: how figures of the sets (M,) add up at each lot, factor and part, shape
        (K+P+N,)."""
        at, column, amount = self._things
        return np.bincount(column, amount * sets[at], self.rows.shape[1]).astype(float)

    def product(self, weight: Vector) -> Matrix:
        """``H' W H``, shape (K+P+N square); ``weight`` (M,)."""
        if self._pairs is None:
            return (self.rows * weight[:, None]).T @ self.rows
        states = self.rows.shape[1]
        at, place, amounts = self._pairs
        summed = np.bincount(place, weight[at] * amounts, states * states)
        return summed.astype(float).reshape(states, states)

    def squares(self, middle: Matrix) -> Vector:
        """``h' A h`` of every set's row, shape (M,); ``middle`` (K+P+N square)."""
        if self._pairs is None:
            squares: Vector = np.einsum("ij,ij->i", self.rows @ middle, self.rows)
            return squares
        at, place, amounts = self._pairs
        terms = amounts * np.ascontiguousarray(middle).reshape(-1)[place]
        return np.bincount(at, terms, len(self.rows)).astype(float)

    @cached_property
    def _things(self) -> tuple[NDArray[np.intp], NDArray[np.intp], Vector]:
        """Everything that lay on a pan: its set, its column and its amount."""
        at, column = np.nonzero(self.rows)
        return at, column, self.rows[at, column]

    @cached_property
    def _pairs(self) -> Pairs | None:
        """None where so much lies on the pans that whole rows are less work."""
        many, states = self.many, self.rows.shape[1]
        if int(many @ many) > self.rows.size:
            return None
        at, column, amount = self._things
        # Each thing on a pan beside every one on the same pan, which stand one after another.
        one = np.repeat(np.arange(len(at)), many[at])
        ends = np.cumsum(many[at])
        first = np.cumsum(many) - many
        other = np.arange(len(one)) - np.repeat(ends - many[at] - first[at], many[at])
        return at[one], column[one] * states + column[other], amount[one] * amount[other]
