"""What is wrong with a build: a field, and words that say what would be right."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong: the field (a path), and words for what is wrong and what would be right."""

    field: str
    words: str


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
