"""What a part weighs, as its line says it: "Motor 28 g 2300 Kv", "4 9 g servos"."""

import re
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.quantity import (
    COUNTS,
    NUMBER,
    SPELLINGS,
    QuantityError,
    parse,
    spellings_of,
)

FIELD: Final = "line"

_MASS_UNIT: Final = "|".join(sorted(spellings_of("mass"), key=len, reverse=True))
_LENGTH_UNIT: Final = "|".join(map(re.escape, sorted(spellings_of("length"), key=len)))
_TIMES: Final = r"(?:\d{1,3}\s*[x×*]\s*)?"  # "2 x 9 g"
_ONE: Final = rf"(?:{NUMBER})\s*(?:{_MASS_UNIT})(?![\w/²])"
_LARGE: Final = "kg|lb|" + "|".join(
    typed for typed, unit in SPELLINGS.items() if unit in ("kg", "lb")
)
_MASS: Final = rf"{_TIMES}(?:(?:{NUMBER})\s*(?:{_LARGE})\s*)?{_ONE}"  # "1 lb 2 oz"
_FIGURE: Final = rf"(?:{_TIMES}(?:{NUMBER})(?:\s*(?:{_MASS_UNIT}))?\s*\+\s*)*{_MASS}"
_EACH: Final = r"(?:each|apiece)"
_SUM: Final = r"(?:(?:all\s+)?together|altogether|in\s+(?:all|total)|all\s+told)"
_ALL: Final = (
    rf"(?:{_SUM}|(?:for\s+)?(?:the|a)\s+pair"
    r"|for\s+(?:both|the\s+(?:lot|set)|(?:them\s+)?all(?:\s+(?:of\s+them|\d{1,3}))?))"
)
_IN_ALL: Final = re.compile(
    rf"(?<=\s)(?:(?P<mass>{_ONE}(?:\s+{_EACH})?(?:\s*[x×*]\s*\d{{1,3}})?)\s+{_ALL}(?![\w-])"
    rf"|(?:{_SUM}|total)\s+(?P<after>{_ONE}))",
    re.IGNORECASE,
)
"""A mass that is said to be of all the pieces: "18 g in all", "together 18 g"."""

_AT_THE_END: Final = re.compile(
    rf"^(?P<before>.*?\S)\s+(?P<figure>{_FIGURE})"
    rf"(?P<each>\s+{_EACH})?(?:\s*[x×*]\s*(?P<times>\d{{1,3}}))?(?P<after>)$",
    re.IGNORECASE,
)
_WITHIN: Final = re.compile(
    rf"(?<!\S)(?P<figure>{_FIGURE})(?P<each>\s+{_EACH})?"
    r"(?:\s*[x×*]\s*(?P<times>\d{1,3})(?!\S))?(?=[\s,;])",
    re.IGNORECASE,
)
_SUM_OF: Final = re.compile(r"(?P<count>\d{1,3})\s*[x×*]\s*[^+]*$", re.IGNORECASE)
_IN_BRACKETS: Final = re.compile(
    rf"[(\[]\s*(?P<inside>{_FIGURE}(?:\s+{_EACH})?)\s*[)\]]", re.IGNORECASE
)
_ABOUT: Final = re.compile(
    rf"(?:[~≈]|(?<!\S)(?:about|approx\.?|roughly|circa|ca\.?)\s)\s*(?={_FIGURE})", re.IGNORECASE
)
_AND_MORE: Final = re.compile(rf"{_ONE}\s*(?:[+&,;/]|(?:with|and|plus)\s)", re.IGNORECASE)
"""Another mass that is meant too: "Motor 28 g and prop 5 g"; a "9g servo" is called so."""
_PLACE: Final = re.compile(rf"^(?:{NUMBER})\s*(?:{_LENGTH_UNIT})?$", re.IGNORECASE)
_OF_MASS: Final = re.compile(rf"^{_MASS}(?:\s+{_EACH})?$", re.IGNORECASE)
_LAST: Final = re.compile(rf"^(?P<rest>.*?\S)[\s,;]+(?P<mass>{_FIGURE}(?:\s+{_EACH})?)$", re.I)

_UNIT: Final = rf"{_LENGTH_UNIT}|{_MASS_UNIT}"
_COUNTS: Final = "|".join(COUNTS)
_SURELY_SO_MANY: Final = (
    re.compile(rf"^(?P<count>{_COUNTS})\s+\S", re.IGNORECASE),
    re.compile(r"^(?:an?\s+)?(?P<count>pair)\s+of\s", re.IGNORECASE),
    re.compile(rf"^(?P<count>\d{{1,3}})\s+(?!(?:{_UNIT})\s)(?:(?i:[a-z].*s$)|[A-Z]{{2}})"),
    re.compile(r"^.*\S\s+[x×*]\s*(?P<count>\d{1,3})$", re.IGNORECASE),
    re.compile(
        rf"^.*\S\s*\(\s*(?:[x×*]\s*)?(?P<count>\d{{1,3}}|{_COUNTS})(?:\s*[x×*])?\s*\)$",
        re.IGNORECASE,
    ),
)
"""A name that says how many: "Two servos", "2 ESC", "Servos (2)"; "5 mm strips" does not."""
_SO_MANY: Final = (
    *_SURELY_SO_MANY,
    re.compile(rf"^.*\S,?\s+(?P<count>{_COUNTS})$", re.IGNORECASE),
    re.compile(r"^.*\S,\s*(?P<count>\d{1,3})$"),
)
"""One that does so beside *each*: "Motor screws, four"; by itself "Motor two" is the second."""

WEIGHED: Final = re.compile(r"[\s,]+weighed$", re.IGNORECASE)
"""How a name ends that says that its mass was on a pan."""

_LEAD: Final = re.compile(rf"^(?P<count>[1-9]\d{{0,2}})\s+(?!(?:{_UNIT})\s)(?P<thing>\D.*)$")


@dataclass(frozen=True, slots=True)
class SaidMass:
    """A name; the mass of all pieces [g], None where none is said; how many pieces. ``is_open``:
    nothing says whether it is of them all, as it is taken, or of each."""

    name: str
    grams: float | None = None
    pieces: int = 1
    is_open: bool = False


def mass_in_words(words: str, unit: str = "g", in_all: bool = False) -> SaidMass:
    """What a part is called, what it weighs, and how many it is. The mass stands where it likes:
    after the name, before it, or within it; ``unit`` is meant where the sum that it ends has none.
    After a name that says how many there are, it is of them all; ``in_all`` where that is said.

    Raises BuildFaultError on ``line`` where there is no name, where more than one mass is said,
    where "each" stands and nothing says how many, or that it is of all, and where a bare length
    follows the mass: it may be a size, or a place.

    >>> mass_in_words("Motor 28 g 2300 Kv")
    SaidMass(name='Motor 2300 Kv', grams=28.0, pieces=1, is_open=False)
    >>> mass_in_words("Two motors 68 g")
    SaidMass(name='Two motors', grams=68.0, pieces=2, is_open=True)
    >>> mass_in_words("4 9 g servos").grams, mass_in_words("Screws 0.6 g x 4").grams
    (36.0, 2.4)
    """
    plain = _plain(words)
    found = _AT_THE_END.match(plain)
    before, after = (found["before"], "") if found else ("", "")
    within = list(_WITHIN.finditer(f"{plain} "))
    if len(within) > 1 and (found is None or _AND_MORE.search(before)):
        figures = " + ".join(each["figure"] for each in within)
        raise BuildFaultError([Fault(FIELD, f'says more than one mass; add them: "{figures}"')])
    if found is None:
        if not within:
            return SaidMass(_name(words))
        found = within[0]
        before, after = plain[: found.start()], plain[found.end() :].strip(" ,;:")
        if _PLACE.match(after):
            name = before.strip(" ,;:") or "Motor"
            raise BuildFaultError(
                [Fault(FIELD, f'where is it? "{name} {found["figure"].strip()} at {after}"')]
            )
    name = _name(f"{_bare(before)} {after}".strip())
    grams = _grams(found["figure"], unit)
    if times := _SUM_OF.match(found["figure"]):  # the figure is of them all already
        return SaidMass(name, grams, max(1, int(times["count"])))
    if in_all and found["each"]:
        raise BuildFaultError([Fault(FIELD, "is it of each, or of all? Say one of them")])
    is_of_each = bool(found["each"] or found["times"]) or _is_of_each(_bare(before), after)
    pieces = max(1, int(found["times"])) if found["times"] else counted(name, is_of_each)
    if found["each"] and pieces == 1:
        raise BuildFaultError([Fault(FIELD, _how_many(name, found["figure"].strip()))])
    is_open = pieces > 1 and not is_of_each and not in_all
    return SaidMass(name, pieces * grams if is_of_each else grams, pieces, is_open)


def is_mass(words: str) -> bool:
    """Whether it is a mass and nothing else: "0.5 g", "9 g each".

    >>> is_mass("9 g each"), is_mass("a 9 g servo")
    (True, False)
    """
    return bool(_OF_MASS.match(words))


def without_mass(words: str) -> tuple[str, str]:
    """What stands before a mass at the end, and the mass; all of it and nothing where none is.

    >>> without_mass("40, 28 g"), without_mass("left wing")
    (('40', '28 g'), ('left wing', ''))
    """
    told = _LAST.match(_plain(words))
    return (told["rest"], told["mass"]) if told else (words, "")


def without_in_all(words: str) -> tuple[str, bool]:
    """Words without that their mass is of all the pieces, and whether they said it.

    >>> without_in_all("2 servos 18 g in all at 40"), without_in_all("2 servos, together 18 g")
    (('2 servos 18 g at 40', True), ('2 servos, 18 g', True))
    """
    said = _IN_ALL.search(words)
    if said is None:
        return words, False
    return words[: said.start()] + (said["mass"] or said["after"]) + words[said.end() :], True


def _plain(words: str) -> str:
    """A mass without its brackets, and without "about"."""
    return _ABOUT.sub("", _IN_BRACKETS.sub(r" \g<inside> ", words)).strip()


def _how_many(name: str, figure: str) -> str:
    """What is asked where each weighs so much, and nothing says how many there are."""
    lead = _LEAD.match(name)
    thing, some = (lead["thing"], lead["count"]) if lead else (name, "2")
    return f'each of how many? "{thing} {some} x {figure}"'


def counted(name: str, each: bool = True) -> int:
    """How many a name says there are, beside *each* or by itself; 1 where it says nothing of it.

    >>> counted("Two servos"), counted("Servos (2)"), counted("5 mm strips")
    (2, 2, 1)
    >>> counted("Motor two"), counted("Motor two", each=False)
    (2, 1)
    """
    ways = _SO_MANY if each else _SURELY_SO_MANY
    said = next((told["count"].lower() for way in ways if (told := way.match(name))), "1")
    return COUNTS.get(said) or (2 if said == "pair" else max(1, int(said)))


def _is_of_each(before: str, after: str) -> bool:
    """Whether a mass before what it is of is each one's: "4 9 g servos", "9 g servo x 2"; of "2
    servos 18 g black" it is not."""
    return not before.endswith("s") and (after.endswith("s") or counted(f"a {after}") > 1)


def _bare(text: str) -> str:
    return text.strip(" ,;:")


def _name(typed: str) -> str:
    """A name as it was typed, without the comma before its figure: "Pack, 110 g"."""
    name = typed.rstrip(" ,;:")
    if not name:
        raise BuildFaultError([Fault(FIELD, "begin with the part's name")])
    return name


def _grams(text: str, unit: str) -> float:
    try:
        return parse(text, "mass", unit).value
    except QuantityError as error:
        raise BuildFaultError([Fault(FIELD, str(error))]) from error
