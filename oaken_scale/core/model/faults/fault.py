"""What is wrong with a build: a field, what is wrong there, and what would be right."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from dataclasses import field as derived
from typing import Final

from oaken_scale.core.model.amount import Amount

Fact = str | Amount
"""A name or an amount that a fault speaks of."""

GOES_ON: Final = frozenset(
    {"is", "are", "was", "were", "has", "have", "holds", "lies", "says", "stands", "takes", "uses"}
    | {"comes", "come", "reaches", "overlaps", "leave", "name", "should", "must", "cannot", "needs"}
    | {"unpacks", "declares", "copies", "agrees"}
)
"""Words that begin with one of these go on from the name of their field, as those that begin with
its amount do: "reading 900 g is over what the scale can weigh"."""


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong: the field (a path), what is wrong there and what would be right, and the
    names and amounts that it speaks of, each where ``{}`` stands; without any the text is plain.

    ``alone``: the words are a sentence of their own, after a colon: "mass: give one".

    >>> from oaken_scale.core.model.amount import mm
    >>> Fault("board_mm", "is {}; it must be under {}", (mm(5.0), mm(4.5))).words
    'is 5 mm; it must be under 4.5 mm'
    >>> Fault("name", "is empty").sentence, Fault("mass", "give one").sentence
    ('name is empty', 'mass: give one')
    """

    field: str
    text: str
    facts: tuple[Fact, ...] = ()
    alone: bool = derived(init=False, default=False)

    def __post_init__(self) -> None:
        """See how the words begin."""
        first = self.text.split(" ", 1)[0]
        is_amount = first == "{}" and isinstance(next(iter(self.facts), None), Amount)
        object.__setattr__(self, "alone", first not in GOES_ON and not is_amount)

    @property
    def words(self) -> str:
        """The text with its facts, amounts in base units."""
        return self.text.format(*self.facts) if self.facts else self.text

    @property
    def sentence(self) -> str:
        """The field and the words about it."""
        return f"{self.field}{':' if self.alone else ''} {self.words}"


class BuildFaultError(ValueError):
    """A build, or a change to one, that cannot stand. Carries its faults."""

    def __init__(self, faults: Iterable[Fault]) -> None:
        """Keep the faults and join them into one message."""
        self.faults = tuple(faults)
        super().__init__("; ".join(f"{fault.field}: {fault.words}" for fault in self.faults))


def twice(path: str, ids: list[str]) -> Iterator[Fault]:
    """Ids that stand in a list more than once, each at its place.

    >>> [fault.field for fault in twice("lots", ["sheet", "tape", "sheet"])]
    ['lots.2']
    """
    seen: set[str] = set()
    for k, each in enumerate(ids):
        if each in seen:
            yield Fault(f"{path}.{k}", f'"{each}" is there twice; each may stand once')
        seen.add(each)


def unknown(what: str, given: str, known: list[str]) -> str:
    """The words for an id that a build does not know.

    >>> unknown("lot", "sheet-c", ["sheet-a", "sheet-b"])
    'no lot "sheet-c" in this build; it has sheet-a, sheet-b'
    """
    has = ", ".join(known[:8]) + (" ..." if len(known) > 8 else "") if known else "none"
    return f'no {what} "{given}" in this build; it has {has}'
