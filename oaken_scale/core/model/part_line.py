"""A whole part typed on one line: "Left panel 13 dm2 of sheet b in Wing at 266"."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.named import named
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.quantity import (
    COUNTS,
    NUMBER,
    SHARE,
    WHOLES,
    QuantityError,
    figures_as_typed,
    parse,
    spellings_of,
)

FIELD: Final = "line"

KNOWN_BY: Final = dict.fromkeys(LotKind, Pedigree.CALCULATED) | {
    LotKind.ADHESIVE: Pedigree.JOINT,
    LotKind.PAINT: Pedigree.JOINT,
    LotKind.TAPE: Pedigree.COVERING,
    LotKind.FILM: Pedigree.COVERING,
}
"""How a part of each kind of lot is usually known."""

AMOUNT_OF: Final = {LotUnit.DM2: "area", LotUnit.M: "run", LotUnit.PIECE: "pieces"}

_INCHES: Final = r"(?<=[\d/])\sin\s(?:(?:of|in|at|side|up|x|×|\+)\s|$)"
_WORDS: Final = re.compile(rf"(?!{_INCHES})\s(of|in|at|side|up)\s", re.IGNORECASE)
"""The words that divide a line. "in" after a number is the unit where another of them follows, a
second side, or nothing: "18 in x 6 in of foam board", "at 3 in"."""

_MASS_UNIT: Final = "|".join(sorted(spellings_of("mass"), key=len, reverse=True))
_TIMES: Final = r"(?:\d{1,3}\s*[x×]\s*)?"  # "2 x 9 g"
_GRAMS: Final = rf"{_TIMES}(?:{NUMBER})\s*(?:{_MASS_UNIT})(?:\s*(?:{NUMBER})\s*(?:{_MASS_UNIT}))?"
_MASS: Final = re.compile(
    rf"^(?P<name>.*?\S)\s+(?P<figure>(?:{_TIMES}(?:{NUMBER})\s*(?:{_MASS_UNIT})?\s*\+\s*)*{_GRAMS})"
    r"(?P<each>\s+each)?$",
    re.IGNORECASE,
)
_UNIT: Final = "|".join(spellings_of("length") + spellings_of("mass"))
_SIDE: Final = (
    rf"(?:(?:{NUMBER})\s*(?:ft|')\s*)?(?:{NUMBER})\s*(?:[a-z]{{0,12}}[2²]?|[\"'])"  # "3 ft 6 in"
)
_AMOUNT: Final = rf"(?:{_SIDE}(?:\s*[x×]\s*{_SIDE})?|{SHARE})"
_OF_LOT: Final = re.compile(
    rf"^(?P<name>.*?\S)\s+(?P<figure>{_AMOUNT}(?:\s*\+\s*{_AMOUNT})*)$", re.IGNORECASE
)
_OF_ONE: Final = re.compile(
    rf"\sof\s+(?:an?|one|the)\s+(?=(?:{'|'.join(WHOLES)})\s)", re.IGNORECASE
)
"""An "of" that belongs to the figure: two thirds *of a* sheet."""
_COUNTS: Final = "|".join(COUNTS)
_SO_MANY: Final = (
    re.compile(rf"^(?P<count>{_COUNTS})\s+\S", re.IGNORECASE),
    re.compile(rf"^(?P<count>\d{{1,3}})\s+(?!(?:{_UNIT})\s)(?:(?i:[a-z].*s$)|[A-Z]{{2}})"),
    re.compile(rf"^.*\S,?\s+(?P<count>{_COUNTS})$", re.IGNORECASE),
    re.compile(r"^.*\S,\s*(?P<count>\d{1,3})$"),
)
"""A name that says how many: "Two servos", "2 ESC", "Motor screws, four"; "5 mm strips" does
not."""

_OF_MASS: Final = re.compile(rf"^{_GRAMS}(?:\s+each)?$", re.IGNORECASE)
_SURE: Final = re.compile(r"\s(?P<word>guess|listing|listed|calculated)$", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Units:
    """The units that are meant where none is typed."""

    mass: str = "g"
    length: str = "mm"
    area: str = "dm2"
    run: str = "m"


METRIC: Final = Units()
"""Grams and millimetres are meant where no unit is typed."""


def part_of_line(
    line: str, lots: Sequence[Lot], units: Units = METRIC, shelf: Sequence[Lot] = ()
) -> Part:
    """The part that a line says: its name, then what it weighs or how much of which lot it is, and
    after the words *in*, *at*, *side* and *up* its assembly and its station.

    "at" is from the nose, "at le" from the root leading edge; a lot is named by any part of its
    name that no other has, one of ``shelf`` where none of ``lots`` is meant; "2 x 9 g", "two
    servos 9 g each" and "4 of 0.5 g" are so many pieces. The part has no id yet (``""``).

    Raises BuildFaultError on ``line``, in words that say what was not understood.

    >>> motor = part_of_line("Motor 28 g listing at 20", ())
    >>> motor.name, motor.pedigree.value, motor.stated_g, motor.station.x_mm
    ('Motor', 'listing', 28.0, 20.0)
    >>> sheet = Lot("b", "Sheet B, one paper", LotUnit.DM2, 3.2, 0.3, kind=LotKind.FOAM)
    >>> panel = part_of_line("Left panel 540 x 190 of sheet b in Wing at le 80", (sheet,))
    >>> panel.name, panel.uses, panel.assembly, panel.station.reference.value
    ('Left panel', (Use(lot='b', amount=10.26),), 'Wing', 'leading_edge')
    """
    head, said = _divided(_OF_ONE.sub(" ", figures_as_typed(line)))
    if not head:
        raise BuildFaultError([Fault(FIELD, "begin with the part's name")])
    part = _measured(head, said.get("of"), (lots, shelf), units)
    station = None
    if "at" in said:
        station = _station(said, units)
    elif "side" in said or "up" in said:
        raise BuildFaultError([Fault(FIELD, "say where it sits along the plane too: at 240")])
    return replace(part, assembly=said.get("in", ""), station=station)


def _divided(line: str) -> tuple[str, dict[str, str]]:
    """What stands before the first of the words, and what follows each."""
    pieces = _WORDS.split(f" {' '.join(line.split())} ")
    head, said = pieces[0].strip(), dict[str, str]()
    for typed, text in zip(pieces[1::2], pieces[2::2], strict=True):
        word = typed.lower()
        quantity = word in ("at", "side", "up")
        if word in said or (quantity and not re.search(r"\d", text)) or not text.strip():
            # "Wheel in foam" or "Rest of it": a word of the name, not ours.
            if not said:
                head = f"{head} {word} {text.strip()}".strip()
                continue
            words = f'"{word} {text.strip()}" is not understood; say of, in, at, side, up once each'
            raise BuildFaultError([Fault(FIELD, words)])
        said[word] = text.strip()
    return head, said


def _measured(
    head: str, of: str | None, lots: tuple[Sequence[Lot], Sequence[Lot]], units: Units
) -> Part:
    """The part with its figure."""
    sure = _SURE.search(head)
    known = None
    if sure:
        head = head[: sure.start()].strip()
        known = Pedigree("listing" if sure["word"].lower() == "listed" else sure["word"].lower())
    if of is not None and _OF_MASS.match(of) and (counted := re.search(r"\s\d{1,3}$", head)):
        # "Screws 4 of 0.5 g"
        head = f"{head[: counted.start()]} {counted.group().strip()} x {of}"
        of = None
    if of is None:
        told = _MASS.match(head)
        if told is None:
            return Part("", _name(head), known or Pedigree.GUESS)
        figure, pieces = told["figure"], 1
        times = re.match(r"(\d{1,3})\s*[x×]\s*[^+]*$", figure)
        grams = _parsed(figure, "mass", units.mass)
        name = _name(told["name"])
        if times:
            pieces = int(times[1])
        elif told["each"]:
            pieces = _counted(name)
            grams *= pieces
        return Part("", name, known or Pedigree.GUESS, stated_g=grams, pieces=pieces)
    lot = _lot(of, lots)
    told = _OF_LOT.match(head)
    if told is None:
        much = {LotUnit.DM2: f"12 {units.area}", LotUnit.M: f"2 {units.run}"}.get(lot.unit, "2")
        words = f'say how much of {lot.name}: "{head} {much} of {of}"'
        raise BuildFaultError([Fault(FIELD, words)])
    kind = AMOUNT_OF[lot.unit]
    usual = {"area": units.area, "run": units.run}.get(kind)
    use = Use(lot.id, _parsed(told["figure"], kind, usual, lot.size))
    pedigree = known or KNOWN_BY[lot.kind]
    return Part("", _name(told["name"]), pedigree, uses=(use,))


def _counted(name: str) -> int:
    """How many a name says there are; 1 where it says nothing of it."""
    said = next((told["count"].lower() for each in _SO_MANY if (told := each.match(name))), "1")
    return COUNTS.get(said) or max(1, int(said))


def _name(typed: str) -> str:
    """A name as it was typed, without the comma before its figure: "Pack, 110 g"."""
    name = typed.rstrip(" ,;:")
    if not name:
        raise BuildFaultError([Fault(FIELD, "begin with the part's name")])
    return name


def _lot(text: str, lots: tuple[Sequence[Lot], Sequence[Lot]]) -> Lot:
    for those in lots:
        found = named(text, those, FIELD)
        if found is not None:
            return found
    names = ", ".join(lot.name for lot in [*lots[0], *lots[1]][:6]) or "none yet"
    raise BuildFaultError([Fault(FIELD, f'no lot "{text}"; there is {names}')])


def _station(said: dict[str, str], units: Units) -> Station:
    text, reference = said["at"], Reference.NOSE
    edge = re.search(r"\b(le|leading edge)\b", text, re.IGNORECASE)
    if edge:
        reference = Reference.LEADING_EDGE
        text = (text[: edge.start()] + text[edge.end() :]).strip()
    x, y, z = (
        _parsed(each, "station", units.length) if each else 0.0
        for each in (text, said.get("side"), said.get("up"))
    )
    return Station(x, y, z, reference)


def _parsed(text: str, kind: str, unit: str | None, whole: float | None = None) -> float:
    try:
        return parse(text, kind, unit, whole).value
    except QuantityError as error:
        raise BuildFaultError([Fault(FIELD, str(error))]) from error
