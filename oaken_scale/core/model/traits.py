"""What can be said of every part at once, for arithmetic over all of them."""

from dataclasses import dataclass

import numpy as np

from oaken_scale.core.model.arrays import Flags
from oaken_scale.core.model.build import Item, Pedigree
from oaken_scale.core.model.recall import recalled


@dataclass(frozen=True, slots=True, eq=False)
class Traits:
    """Of a list of parts: ``at`` is each one's place by its id; all else has shape (N,).

    ``there`` are those not taken off, ``joint`` glue seams, ``done`` what was done to
    another part, ``host`` the parts that it was done to.
    """

    at: dict[str, int]
    there: Flags
    joint: Flags
    done: Flags
    host: Flags
    joints: tuple[int, ...]
    """The places of the seams that are there."""


def traits(items: tuple[Item, ...]) -> Traits:
    """What can be said of every part at once.

    >>> parts = (Item("w", "Wing", Pedigree.GUESS), Item("p", "Patch", Pedigree.JOINT, host="w"))
    >>> found = traits(parts)
    >>> found.at["p"], found.joint.tolist(), found.host.tolist()
    (1, [False, True], [True, False])
    """
    return _traits(items)


@recalled(keep=8)
def _traits(items: tuple[Item, ...]) -> Traits:
    hosts = {item.host for item in items if not item.retired}
    rows = [
        (
            not item.retired,
            item.pedigree is Pedigree.JOINT,
            item.host is not None,
            item.id in hosts and not item.retired,
        )
        for item in items
    ]
    there, joint, done, host = np.array(rows, dtype=bool).reshape(-1, 4).T.copy()
    return Traits(
        at={item.id: i for i, item in enumerate(items)},
        there=there,
        joint=joint,
        done=done,
        host=host,
        joints=tuple(np.flatnonzero(there & joint).tolist()),
    )
