"""A whole part typed on one line: "Left panel 13 dm2 of sheet b in Wing at 266"."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

from oaken_scale.core.model.amount import Amount
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.mass_in_words import (
    FIELD,
    counted,
    is_mass,
    mass_in_words,
    without_in_all,
    without_mass,
)
from oaken_scale.core.model.named import alike, is_wholly, named
from oaken_scale.core.model.part import Part, Pedigree, Reference, Slide, Station
from oaken_scale.core.model.quantity import (
    NUMBER,
    SHARE,
    WHOLES,
    QuantityError,
    figures_as_typed,
    parse,
    spellings_of,
)

KNOWN_BY: Final = dict.fromkeys(LotKind, Pedigree.CALCULATED) | {
    LotKind.ADHESIVE: Pedigree.JOINT,
    LotKind.PAINT: Pedigree.JOINT,
    LotKind.TAPE: Pedigree.COVERING,
    LotKind.FILM: Pedigree.COVERING,
}
"""How a part of each kind of lot is usually known."""

AMOUNT_OF: Final = {LotUnit.DM2: "area", LotUnit.M: "run", LotUnit.PIECE: "pieces"}

_THE: Final = re.compile(r"^the\s+", re.IGNORECASE)
_WAYS: Final = {
    "left": ("side", "-"),
    "port": ("side", "-"),
    "right": ("side", ""),
    "starboard": ("side", ""),
    "down": ("up", "-"),
}
"""Which way a figure goes, said by another word: of which of ours it is, with which sign."""
_WAY: Final = "|".join(_WAYS)
_INCHES: Final = (
    r"(?<=[\d/])\sin\s(?:(?:of|in|at|side|up|from|behind|aft|x|×|\+)\s"
    rf"|(?:{_WAY})\s+[\d.]|$)"
)
_WORDS: Final = re.compile(rf"(?!{_INCHES})\s(of|in|at|side|up|{_WAY})\s", re.IGNORECASE)
"""The words that divide a line. "in" after a number is the unit where another of them follows, a
second side, or nothing: "18 in x 6 in of foam board", "at 3 in"."""

_MASS_UNIT: Final = "|".join(spellings_of("mass"))
_MASS_FIRST: Final = re.compile(rf"(?:{NUMBER})\s*(?:{_MASS_UNIT})\s", re.IGNORECASE)
_LENGTH_UNIT: Final = "|".join(map(re.escape, spellings_of("length")))
_SIDE: Final = (
    # "3 ft 6 in"
    rf"(?:(?:{NUMBER})\s*(?:ft|')\s*)?(?:{NUMBER})"
    rf"(?:\s*(?:(?!(?:{'|'.join(WHOLES)})s?\b)[a-z]{{1,12}}[2²]?|[\"']))?"
)
_AMOUNT: Final = rf"(?:{_SIDE}(?:\s*[x×*]\s*{_SIDE})?|{SHARE})"
_OF_LOT: Final = re.compile(
    rf"^(?P<name>.*?\S)\s+(?P<figure>{_AMOUNT}(?:\s*\+\s*+{_AMOUNT})*)$", re.IGNORECASE
)
_OF_ONE: Final = re.compile(
    rf"\sof\s+(?:an?|one|the)\s+(?=(?:{'|'.join(WHOLES)})\s)", re.IGNORECASE
)
"""An "of" that belongs to the figure: two thirds *of a* sheet."""
_SURE: Final = re.compile(r"[\s,]+(?P<word>guess|listing|listed|calculated)$", re.IGNORECASE)
_OPTION: Final = re.compile(r"[\s,]+(?:as\s+an\s+|an\s+)?option(?:al)?$", re.IGNORECASE)
"""Said of what flies only with some loadouts: "Camera 85 g at 40, optional"."""
_SLIDES: Final = re.compile(
    r"[\s,;]+(?:(?:may|can)\s+)?slid(?:es?|ing)\s+(?:from\s+)?"
    rf"(?:(?P<low>[-−]?(?:{NUMBER})(?:\s*(?:{_LENGTH_UNIT}))?)\s*(?:to|-|–|\.\.+)"
    rf"\s*(?P<high>[-−]?(?:{NUMBER}))"
    rf"|(?:\+/?-|±)?\s*(?P<far>{NUMBER}))"
    rf"(?:\s*(?P<unit>{_LENGTH_UNIT})(?![a-z]))?(?:\s+(?:either|each|both)\s+ways?)?"
    rf"(?=\s*(?:[,;]|$)|\s+(?:at|in|of|side|up|{_WAY})\s)",
    re.IGNORECASE,
)
"""How far it may be moved: "slides 80 to 180", "slides 30 either way"."""
_EDGE: Final = re.compile(
    r"(?:(?:from|behind|aft\s+of)\s+)?(?:the\s+)?"
    r"\b(?:(?P<edge>le|leading\s+edge)|nose(?:\s+tip)?)\b",
    re.IGNORECASE,
)
_PLACED: Final = re.compile(
    rf"(?<!\sat)(?<!\sle)[\s,]+(?=(?:{NUMBER})\s*(?:{_LENGTH_UNIT})?\s+(?:from|behind|aft\s+of)\s+"
    r"(?:the\s+)?(?:nose|le|leading\s+edge)\b)|\s@\s*"
    rf"|[\s,]+on(?=\s+(?:the\s+)?nose(?:\s*,|\s+(?:{NUMBER})|$))",
    re.IGNORECASE,
)
"""Where a place begins that is said without its word: "Receiver 4 g, 250 mm from the nose",
"Clip on the nose 1 g"."""
_FAR: Final = (
    rf"(?>(?:{NUMBER})(?:\s*(?:{'|'.join(sorted(_LENGTH_UNIT.split('|'), key=len, reverse=True))})"
    r"(?![a-z]))?)"
)
_CALLED: Final = {
    "above": "up",
    "higher": "up",
    "high": "up",
    "below": "down",
    "lower": "down",
    "low": "down",
}
_FAR_WAY: Final = rf"{_FAR}\s+(?:to\s+)?(?:the\s+)?(?:up|{_WAY}|{'|'.join(_CALLED)})\b"
_DATUM: Final = r"(?:the\s+)?(?:le|leading\s+edge|nose(?:\s+tip)?)"
_EITHER: Final = (
    r"(?:(?:on|to|at)\s+)?(?:(?:either|each|both)\s+(?:sides?|wings?)"
    r"|(?:the\s+)?left\s+and\s+(?:the\s+)?right)\b"
)
_ON_BOTH: Final = re.compile(
    rf"(?<=\s)(?:(?:\+/?-|±)\s*{_FAR}|(?P<far>{_FAR}(?<![.,])\s+)(?:out\s+)?{_EITHER}"
    rf"|{_EITHER}(?:\s+{_FAR}(?!\s*(?:to\s|the\s|up\b|{_WAY}|{'|'.join(_CALLED)}|{_MASS_UNIT})))?"
    rf"|(?P<out>{_FAR}\s+out(?:board)?)\b)",
    re.IGNORECASE,
)
"""Said of what sits as far to the left as to the right: "at 170, 250 either side"."""
_FIGURES_FIRST: Final = re.compile(
    rf"(?P<before>,\s*(?:and\s+)?|\s+and\s+|\sat\s+(?:{_DATUM}\s+)?{_FAR},?\s+|\sat\s+{_DATUM}\s+)"
    rf"(?P<ways>{_FAR_WAY}(?:(?:\s*,\s*|\s+)(?:and\s+)?{_FAR_WAY})*)"
    rf"(?!\s+{_FAR}(?!\s*(?:{_MASS_UNIT})\b))",
    re.IGNORECASE,
)
"""Figures that stand before which way they go: "at 240, 140 up", "at 450 300 left 20 down"."""
_ONE_WAY: Final = re.compile(
    rf"(?P<far>{_FAR})\s+(?:to\s+)?(?:the\s+)?(?P<way>[a-z]+),?(?:\s+and\b)?", re.IGNORECASE
)
_ACROSS_OR_UP: Final = re.compile(
    rf"(?:to\s+)?(?:the\s+)?(?:{_WAY})?\s*[-+]?\s*(?=[\d.])(?!(?:{NUMBER})\s*(?:{_MASS_UNIT})\b)",
    re.IGNORECASE,
)
"""What follows *side* or *up* where it is a figure, and not the rest of a name: "Left side 4 g"."""
_TO_ONE_SIDE: Final = re.compile(
    rf"^(?:(?P<before>{_WAY})\s+)?(?P<far>[-+\d.].*?)(?:\s+(?:to\s+)?(?:the\s+)?(?P<after>{_WAY}))?$",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Units:
    """The units that are meant where none is typed."""

    mass: str = "g"
    length: str = "mm"
    area: str = "dm2"
    run: str = "m"


METRIC: Final = Units()
"""Grams and millimetres are meant where no unit is typed."""


@dataclass(frozen=True, slots=True)
class SaidPart:
    """A part that a line says; ``is_open`` where it says how many pieces it is, and not whether its
    mass is of them all, as it is taken, or of each."""

    part: Part
    is_open: bool = False


def part_of_line(
    line: str, lots: Sequence[Lot], units: Units = METRIC, shelf: Sequence[Lot] = ()
) -> Part:
    """The part that a line says, as :func:`said_part` reads it.

    >>> part_of_line("Motor 28 g", ()).stated_g
    28.0
    """
    return said_part(line, lots, units, shelf).part


def said_part(
    line: str, lots: Sequence[Lot], units: Units = METRIC, shelf: Sequence[Lot] = ()
) -> SaidPart:
    """The part that a line says: its name, then what it weighs or how much of which lot it is, and
    after the words *in*, *at*, *side* and *up* its assembly and its station.

    "at" is from the nose, "at le" from the root leading edge, "left" and "right" after it are to
    the side; a lot is named by any part of its name that no other has, one of ``shelf`` where none
    of ``lots`` is meant; "2 x 9 g", "two servos 9 g each" and "4 of 0.5 g" are so many pieces, "2
    servos 18 g in all" too. The
    mass may stand anywhere, as mass_in_words reads it; "slides 80 to 180" says how far it may be
    moved. What sits "either side" balances across. The
    part has no id yet (``""``).

    Raises BuildFaultError on ``line``, in words that say what was not understood.

    >>> motor = said_part("Motor 28 g listing at 20", ()).part
    >>> motor.name, motor.pedigree.value, motor.stated_g, motor.station.x_mm
    ('Motor', 'listing', 28.0, 20.0)
    >>> sheet = Lot("b", "Sheet B, one paper", LotUnit.DM2, 3.2, 0.3, kind=LotKind.FOAM)
    >>> panel = said_part("Left panel 540 x 190 of sheet b in Wing at le 80", (sheet,)).part
    >>> panel.name, panel.uses, panel.assembly, panel.station.reference.value
    ('Left panel', (Use(lot='b', amount=10.26),), 'Wing', 'leading_edge')
    """
    plain, far = _without_slide(figures_as_typed(line).rstrip(" ?"))
    whole, in_all = without_in_all(plain)
    option = _OPTION.search(whole)
    typed, known = _known(whole[: option.start()] if option else whole)
    head, said = _divided(_OF_ONE.sub(" ", typed))
    if not head:
        raise BuildFaultError([Fault(FIELD, "begin with the part's name")])
    if "of" not in said and mass_in_words(head, units.mass).grams is None:
        head, said = _with_its_mass(head, said)
    part, is_open = _measured(head, said.get("of"), (lots, shelf), units, in_all)
    _check_sides(said, part.pieces)
    if known:
        part = replace(part, pedigree=known)
    station = None
    if "at" in said:
        station = _station(said, units)
    elif "side" in said or "up" in said:
        words = "say where it sits along the plane too: at {}"
        raise BuildFaultError([Fault(FIELD, words, (Amount(240.0, "mm"),))])
    slide = _slide(far, station, units) if far else None
    assembly = _THE.sub("", said.get("in", ""))
    placed = replace(part, assembly=assembly, station=station, slide=slide)
    return SaidPart(replace(placed, option=option is not None), is_open)


def _without_slide(line: str) -> tuple[str, re.Match[str] | None]:
    """The line without how far it may be moved, and how that was said."""
    found = _SLIDES.search(line)
    return (line[: found.start()] + line[found.end() :], found) if found else (line, None)


def _slide(said: re.Match[str], station: Station | None, units: Units) -> Slide:
    """How far it may be moved, from what its station is measured from [mm]."""
    typed, unit = said.group().strip(" ,;"), said["unit"] or ""

    def read(end: str, kind: str) -> float:
        own = unit if said[end][-1].isdigit() else ""
        return _parsed(said[end] + own, kind, units.length)

    if said["far"]:
        at = station.x_mm if station else 120.0
        far = read("far", "length")
        low, high = at - far, at + far
    else:
        low, high = sorted(read(end, "station") for end in ("low", "high"))
    if station is None:
        words = f"say where it sits too: at {{}}, {typed}"
        raise BuildFaultError([Fault(FIELD, words, (Amount((low + high) / 2, "mm"),))])
    if not low <= station.x_mm <= high:
        words = f'sits at {{}}, which is not within "{typed}"'
        raise BuildFaultError([Fault(FIELD, words, (Amount(station.x_mm, "mm"),))])
    return Slide(low, high)


def _divided(line: str) -> tuple[str, dict[str, str]]:
    """What stands before the first of the words, and what follows each."""
    plain, both = _without_both(f" {' '.join(_PLACED.sub(' at ', line).split())} ")
    pieces = _WORDS.split(_ways_first(plain))
    said, last = {"": pieces[0].strip()}, ""
    for typed, text in zip(pieces[1::2], pieces[2::2], strict=True):
        word, what = typed.lower(), text.strip()
        if word in _WAYS and "at" in said and re.match(r"[\d.]", what):
            word, sign = _WAYS[word]
            what = sign + what
        elif word in _WAYS or not _is_said(word, what):
            # "Wing left", "Wheel in foam" or "Rest of it": a word of the name, not ours.
            if word not in _WAYS and last:
                raise _not_understood(word, what)
            said[last] = f"{said[last]} {typed} {what}".strip()
            continue
        if word in said:
            raise _not_understood(word, what)
        said[word], last = what, word
    return said.pop(""), said | both


def _without_both(line: str) -> tuple[str, dict[str, str]]:
    """The line without that it sits on both sides, said after *at*, and how that was said: *both*,
    or *out*, which leaves open to which."""
    placed = re.search(r"\sat\s", line)
    found = _ON_BOTH.search(line, placed.start()) if placed else None
    if placed is None or found is None:
        return line, {}
    begins = found.start()
    if not re.search(r"\d", line[placed.end() : begins]):  # The first figure is the station.
        if found["out"]:
            return line, {}
        begins = found.end("far") if found["far"] else begins
    rest = line[:begins].rstrip(" ,") + line[found.end() :]
    return rest, {"out" if found["out"] else "both": line[begins : found.end()]}


def _ways_first(line: str) -> str:
    """The line with which way a figure goes before it, after the word *at*."""
    placed = re.search(r"\sat\s", line)
    if placed is None:
        return line

    def turned(found: re.Match[str]) -> str:
        ways = _ONE_WAY.sub(
            lambda one: f"{_CALLED.get(one['way'].lower(), one['way'])} {one['far']}", found["ways"]
        )
        return f"{found['before'].rstrip(' ,').removesuffix(' and').rstrip(',')} {ways}"

    return line[: placed.start()] + _FIGURES_FIRST.sub(turned, line[placed.start() :])


def _is_said(word: str, what: str) -> bool:
    """Whether what follows a word is a place after at, a figure after side and up, and anything
    after the rest."""
    if word == "at" and _EDGE.match(what):
        return True
    if word in ("side", "up"):
        return _ACROSS_OR_UP.match(what) is not None
    return bool(re.search(r"\d", what) if word == "at" else what)


def _not_understood(word: str, what: str) -> BuildFaultError:
    words = f'"{word} {what}" is not understood; say of, in, at, side, up once each'
    return BuildFaultError([Fault(FIELD, words)])


def _check_sides(said: dict[str, str], pieces: int) -> None:
    """Raises BuildFaultError where a side is said beside both, or one piece goes *out*."""
    out = said.get("out", "")
    both = said.get("both", out)
    if both and "side" in said:
        words = f'says "{both}" and one side too; say one of them'
        raise BuildFaultError([Fault(FIELD, words)])
    if out and pieces % 2:
        far = out.rsplit(" ", 1)[0]
        raise BuildFaultError([Fault(FIELD, f'to which side? "{far} left" or "{far} right"')])


def _with_its_mass(head: str, said: dict[str, str]) -> tuple[str, dict[str, str]]:
    """The head with a mass that is said last: "Motor at 40, 28 g"."""
    if is_mass(at := said.get("at", "")):  # "4 sticks at 1 g"
        others = {word: what for word, what in said.items() if word != "at"}
        each = " each" if counted(head) > 1 and not at.endswith("each") else ""
        return f"{head} {at}{each}", others
    for word, what in said.items():
        rest, mass = without_mass(what)
        if mass:
            return f"{head} {mass}", {**said, word: rest}
    return head, said


def _measured(
    head: str,
    of: str | None,
    lots: tuple[Sequence[Lot], Sequence[Lot]],
    units: Units,
    in_all: bool,
) -> tuple[Part, bool]:
    """The part with its figure; whether a mass is open to be of each piece."""
    head, known = _known(head)
    if of is not None and is_mass(of) and (counted := re.search(r"\s\d{1,3}$", head)):
        # "Screws 4 of 0.5 g"
        head = f"{head[: counted.start()]} {counted.group().strip()} x {of}"
        of = None
    elif of is not None and _says_mass(of) and not _OF_LOT.match(head):
        head, of = f"{head} of {of}", None  # "Pair of wheels 6 g", "Pair of 9 g servos"
    if of is None:
        told = mass_in_words(head, units.mass, in_all)
        name, listed = _known(told.name)
        pedigree = known or listed or Pedigree.GUESS
        part = Part("", name, pedigree, stated_g=told.grams, pieces=told.pieces)
        return part, told.is_open
    lot = _lot(of, lots)
    measured = _OF_LOT.match(head)
    if measured is None:
        much = {LotUnit.DM2: f"12 {units.area}", LotUnit.M: f"2 {units.run}"}.get(lot.unit, "2")
        words = f'say how much of {lot.name}: "{head} {much} of {of}"'
        raise BuildFaultError([Fault(FIELD, words)])
    kind = AMOUNT_OF[lot.unit]
    usual = {"area": units.area, "run": units.run}.get(kind)
    use = Use(lot.id, _parsed(measured["figure"], kind, usual, lot.size))
    pedigree = known or KNOWN_BY[lot.kind]
    return Part("", measured["name"].rstrip(" ,;:"), pedigree, uses=(use,)), False


def _says_mass(words: str) -> bool:
    """Whether words begin or end with a mass."""
    return bool(_MASS_FIRST.match(words) or without_mass(words)[1])


def _known(words: str) -> tuple[str, Pedigree | None]:
    """Words without how the mass is known, and how."""
    sure = _SURE.search(words)
    if not sure:
        return words, None
    word = sure["word"].lower()
    return words[: sure.start()].strip(), Pedigree("listing" if word == "listed" else word)


def _lot(text: str, lots: tuple[Sequence[Lot], Sequence[Lot]]) -> Lot:
    called = [lot for those in lots for lot in those if is_wholly(text, lot)]
    if called:
        return called[0]
    for those in lots:
        found = named(text, those, FIELD)
        if found is not None:
            return found
    names = ", ".join(lot.name for lot in alike(text, [*lots[0], *lots[1]])[:6]) or "none yet"
    raise BuildFaultError([Fault(FIELD, f'no lot "{text}"; there is {names}')])


def _station(said: dict[str, str], units: Units) -> Station:
    text, reference = said["at"], Reference.NOSE
    datum = _EDGE.search(text)
    if datum:
        reference = Reference.LEADING_EDGE if datum["edge"] else Reference.NOSE
        text = (text[: datum.start()] + text[datum.end() :]).strip(" ,") or "0"
    x, y, z = (
        _parsed(each, "station", units.length) if each else 0.0
        for each in (text, _signed(said.get("side")), _signed(said.get("up")))
    )
    return Station(x, y, z, reference)


def _signed(text: str | None) -> str | None:
    """A figure to port or down as one below zero: "left 300", "300 to the left"."""
    told = _TO_ONE_SIDE.match(text) if text else None
    way = told and (told["before"] or told["after"])
    return f"{_WAYS[way.lower()][1]}{told['far']}" if told and way else text


def _parsed(text: str, kind: str, unit: str | None, whole: float | None = None) -> float:
    try:
        return parse(text, kind, unit, whole).value
    except QuantityError as error:
        raise BuildFaultError([Fault(FIELD, str(error))]) from error
