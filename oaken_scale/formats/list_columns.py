"""Which column of a spreadsheet holds what, of weighings, throws, runs and loadouts: by its
heading, in English or German."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault


class ListName(StrEnum):
    """The lists that come in, besides parts."""

    WEIGHINGS = "weighings"
    LOADOUTS = "loadouts"
    THROWS = "throws"
    RUNS = "runs"


COLUMNS: Final[dict[ListName, dict[str, str]]] = {
    ListName.WEIGHINGS: {
        "time": r"time|date|when|zeit|datum|uhrzeit",
        "reading": r"reading|weight|mass|grams?|gewicht|masse|anzeige|g|oz",
        "pan": r"on the pan|pan|parts?|parts?|what|teile?|bauteile?|was",
        "scale": r"scale|waage|balance",
        "typed": r"as typed|typed",
        "set_aside": r"set aside|aside|ignored",
        "accepted": r"accepted",
        "note": r"note|notes|comment|bemerkung|notiz",
        "id": r"id",
    },
    ListName.LOADOUTS: {
        "name": r"loadout|name|beladung",
        "carries": r"carries|options|with|traegt|trägt|mit",
    },
    ListName.THROWS: {
        "time": r"time|date|when|zeit|datum",
        "settings": r"settings?|tabs|controls?|einstellung(?:en)?",
        "seen": r"what it did|seen|result|verhalten",
        "distance": r"distance|far|weite|strecke",
        "height": r"height|from|h[öo]he",
        "seconds": r"seconds|time aloft|duration|sekunden|dauer",
        "wind": r"wind",
        "auw": r"all-up weight|auw|abfluggewicht",
        "cg": r"cg from nose|cg|schwerpunkt",
        "set_aside": r"set aside|aside",
        "note": r"note|notes|comment|notiz",
        "id": r"id",
    },
    ListName.RUNS: {
        "time": r"time|date|when|zeit|datum",
        "pack": r"pack|battery|akku",
        "propeller": r"propeller|prop|luftschraube",
        "throttle": r"throttle|gas",
        "thrust": r"thrust|schub|pull",
        "amps": r"current|amps?|strom",
        "volts": r"voltage|volts?|spannung",
        "drawn": r"drawn|used|entnommen",
        "set_aside": r"set aside|aside",
        "run": r"run|lauf|id",
    },
}
"""The words that a heading of each may be, unit and brackets apart; English and German."""

NEEDED: Final = {
    ListName.WEIGHINGS: ("reading", "pan"),
    ListName.LOADOUTS: ("name",),
    ListName.THROWS: ("distance",),
    ListName.RUNS: ("pack", "propeller", "throttle"),
}


@dataclass(frozen=True, slots=True)
class ListColumn:
    """A column of the file: where it stands, what it is headed, what it was taken for."""

    at: int
    heading: str
    field: str | None


def columns_of(what: ListName, rows: Sequence[Sequence[str]]) -> tuple[int, tuple[ListColumn, ...]]:
    """Where the headings stand, and what each column holds. Raises BuildFaultError on ``file``
    where those that are needed cannot be made out."""
    best: tuple[int, tuple[ListColumn, ...]] = (-1, ())
    for at, row in enumerate(rows[:10]):
        found, taken = [], set()
        for place, heading in enumerate(row):
            bare = re.sub(r"[(\[{].*?[)\]}]", " ", heading.lower())
            bare = re.sub(r"\b(g|oz|kg|lb|mm|cm|m|in|gf|a|v|mah|m/s)\s*$", "", bare.strip()).strip()
            field = next(
                (
                    name
                    for name, words in COLUMNS[what].items()
                    if name not in taken
                    and re.fullmatch(words, bare or heading.lower().strip(), re.I)
                ),
                None,
            )
            if field:
                taken.add(field)
            found.append(ListColumn(place, heading, field))
        if set(NEEDED[what]) <= taken and len(taken) > sum(1 for c in best[1] if c.field):
            best = (at, tuple(found))
    if best[0] < 0:
        names = " and ".join(f'"{each}"' for each in NEEDED[what])
        words = f"has no columns of {what.value}; they need the headings {names}"
        raise BuildFaultError([Fault("file", words)])
    return best
