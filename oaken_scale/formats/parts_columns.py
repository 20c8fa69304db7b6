"""What the columns of a builder's own list hold, by their headings and by what stands in them."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

LOOKED_AT: Final = 200
"""So many lines tell what a column holds."""


class Field(StrEnum):
    """What a column holds; a mass is of all the pieces of its line, or of each."""

    NAME = "name"
    ASSEMBLY = "assembly"
    MASS = "mass"
    MASS_EACH = "mass_each"
    PIECES = "pieces"
    STATION = "station"
    SIDE = "side"
    HEIGHT = "height"


HEADINGS: Final = {
    Field.NAME: (
        r"names?|parts?|items?|components?|piece|thing|element|description|desc|what|was"
        r"|teile?|bauteile?|bezeichnung|benennung|beschreibung|artikel|gegenstand"
    ),
    Field.ASSEMBLY: r"assembly|group|section|baugruppe|gruppe|where|wo|category",
    Field.MASS: r"mass|weight|grams?|ounces?|gewicht|masse|gramm|unzen|g|oz|wt",
    Field.PIECES: r"pieces|pcs|qty|quantity|count|number|anzahl|st[üu]ck|stk|menge|no",
    Field.STATION: (
        r"station|arm|position|pos|location|distance|dist|x|from nose|nose|cg"
        r"|lage|hebelarm|abstand|nase"
    ),
    Field.SIDE: r"side|y|seite|starboard|quer",
    Field.HEIGHT: r"height|z|h[öo]he|up",
}
"""The words that a heading of each may be, unit and brackets apart; English and German."""

UNITS: Final = {
    Field.MASS: {
        "g": "g",
        "gram": "g",
        "grams": "g",
        "gramm": "g",
        "kg": "kg",
        "oz": "oz",
        "ounces": "oz",
        "ounce": "oz",
        "unzen": "oz",
        "lb": "lb",
        "mg": "mg",
    },
    Field.STATION: {
        "mm": "mm",
        "cm": "cm",
        "m": "m",
        "in": "in",
        "inch": "in",
        "inches": "in",
        "zoll": "in",
        "ft": "ft",
    },
}
KINDS: Final = {
    Field.MASS: "mass",
    Field.MASS_EACH: "mass",
    Field.STATION: "station",
    Field.SIDE: "station",
    Field.HEIGHT: "station",
}
MASSES: Final = frozenset((Field.MASS, Field.MASS_EACH))
EACH: Final = re.compile(r"\b(each|ea|per piece|unit|single|apiece|je|pro|einzel\w*)\b", re.I)
OTHER_DATUM: Final = re.compile(r"\b(le|leading edge|vorderkante)\b", re.I)
"""What a station is measured from that the file does not place: it is not taken by itself."""


@dataclass(frozen=True, slots=True)
class Column:
    """A column of the file: where it stands, what it is headed, what it was taken for (None:
    nothing), and the unit of its figures."""

    at: int
    heading: str
    field: Field | None
    unit: str | None


def unit_of(heading: str) -> str | None:
    """The unit of mass or length that a heading names.

    >>> unit_of("reading oz"), unit_of("CG from nose mm"), unit_of("note")
    ('oz', 'mm', None)
    """
    units = {**UNITS[Field.STATION], **UNITS[Field.MASS]}
    return next(
        (units[w] for w in re.findall(r"[a-zäöü]+", heading.lower())[::-1] if w in units), None
    )


def columns_of(rows: Sequence[Sequence[str]]) -> tuple[int, tuple[Column, ...]]:
    """Where the headings stand (0: the first line; -1: there are none), and the columns.

    >>> rows = [["Bauteil", "Gewicht (g)", "Hebelarm [cm]"], ["Motor", "28,5", "4"]]
    >>> [(c.field.value, c.unit) for c in columns_of(rows)[1]]
    [('name', None), ('mass', 'g'), ('station', 'cm')]
    """
    best: tuple[int, tuple[Column, ...]] = (-1, ())
    for at, row in enumerate(rows[:10]):
        columns = _headed(row, rows[at + 1 : at + 1 + LOOKED_AT])
        fields = [c.field for c in columns if c.field]
        if Field.NAME in fields and len(fields) > len([c for c in best[1] if c.field]):
            best = (at, columns)
    if best[1]:
        return best
    wide = max(map(len, rows))
    usual = (Field.NAME, Field.MASS, Field.STATION)
    return -1, tuple(
        Column(k, f"column {k + 1}", usual[k] if k < len(usual) else None, None)
        for k in range(wide)
    )


def _headed(row: Sequence[str], below: Sequence[Sequence[str]]) -> tuple[Column, ...]:
    """The columns as the cells of a row head them, over the rows below it. Where none is headed as
    the names', they are in the first of words that is taken for nothing else."""
    taken: set[Field] = set()
    columns = []
    for place, heading in enumerate(row):
        field, unit = meant(heading, taken)
        if field is Field.PIECES and _is_line_number(heading, _filled(below, place)):
            field = unit = None
        if field is not None:
            taken.add(field)
        columns.append(Column(place, heading, field, unit))
    names = next((c for c in columns if c.field is Field.NAME), None)
    if names is None and (taken.isdisjoint(MASSES) or any(re.search(r"\d", each) for each in row)):
        return tuple(columns)  # "Motor, 28 g" heads nothing.
    others = (c for c in columns if c.field is None and _is_of_words(_filled(below, c.at)))
    if names is not None:  # "Item, Description": the first may number, and the second name.
        is_numbered = all(map(str.isdecimal, _filled(below, names.at)))
        others = (c for c in others if is_numbered and meant(c.heading, set())[0] is Field.NAME)
    column = next(others, None)
    if column is not None:
        columns = [replace(c, field=None) if c is names else c for c in columns]
        columns[column.at] = replace(column, field=Field.NAME)
    return tuple(columns)


def _filled(rows: Sequence[Sequence[str]], place: int) -> list[str]:
    """What stands in a column."""
    return [row[place].strip() for row in rows if place < len(row) and row[place].strip()]


def _is_of_words(cells: Sequence[str]) -> bool:
    return bool(cells) and not any(re.match(r"[-+.\d]", each) for each in cells)


def _is_line_number(heading: str, cells: Sequence[str]) -> bool:
    """Whether a column under "No." counts its lines, and not their pieces."""
    figures = [each.rstrip(".)") for each in cells]
    if len(figures) < 2 or re.search(r"\b(no|number)\b", heading, re.I) is None:
        return False
    first = int(figures[0]) if figures[0].isdecimal() else 0
    return figures == [str(first + k) for k in range(len(figures))]


def meant(heading: str, taken: set[Field]) -> tuple[Field | None, str | None]:
    """What a heading is of, and the unit that it names."""
    bare = heading.lower().strip()
    words = re.findall(r"[a-zäöü]+", bare)
    outside = re.sub(r"[(\[{].*?[)\]}]", " ", bare)
    of_mass = Field.MASS_EACH if EACH.search(bare) else Field.MASS
    for headed, pattern in HEADINGS.items():
        field = of_mass if headed is Field.MASS else headed
        if field in taken or (field is Field.STATION and OTHER_DATUM.search(bare)):
            continue
        hit = re.fullmatch(pattern, outside.strip(" .:,")) or any(
            re.fullmatch(pattern, word) for word in re.findall(r"[a-zäöü]+", outside)
        )
        if hit and not re.search(r"doubt|stated|typed|zweifel", bare):
            units = UNITS[Field.MASS if field in MASSES else Field.STATION]
            unit = next((units[word] for word in words if word in units), None)
            return field, unit if field in KINDS else None
    return None, None
