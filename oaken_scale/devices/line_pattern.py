"""What the lines of a scale on a cable look like, as its owner writes it down once.

``"ST,GS,{reading} g"`` reads as it looks: ``{reading}`` is the figure, ``{unit}`` its unit (grams
where there is none), ``{state}`` the word for steady or moving, ``{any}`` what does not matter; a
space stands for any room, and everything else for itself.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.model.quantity import OUNCE_G
from oaken_scale.devices.scale_line import ScaleLine

USUAL: Final = "{state} {reading} {unit}"
"""How a line reads where nobody said: the stand-in scale speaks so."""

LONGEST: Final = 120
"""A longer line is noise [characters]."""

_FIELDS: Final = {
    "reading": r"(?P<reading>[+-]? *\d{1,7}(?:[.,]\d{1,5})?)",
    "unit": r"(?P<unit>kg|g|oz|lb)",
    "state": r"(?P<state>[A-Za-z?*]{1,10})",
    "any": r"[^\r\n]{0,40}?",
}
_FIELD: Final = re.compile(r"\{([a-z]*)\}")
_GRAMS: Final = {"g": 1.0, "kg": 1000.0, "oz": OUNCE_G, "lb": 16 * OUNCE_G}
_MOVING: Final = frozenset({"us", "u", "d", "m", "moving", "unstable", "dynamic", "?", "*"})
_OVER: Final = re.compile(r"\b(over|ol|overload|err)\b", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class LinePattern:
    """How the lines of one scale are read; ``tells_steady`` where they say it themselves."""

    matcher: re.Pattern[str]
    tells_steady: bool

    def read(self, text: str) -> ScaleLine | None:
        """One line as a reading; None for one that is none of the scale's.

        >>> line_pattern("ST,GS,{reading} g").read("ST,GS,+  46.3 g")
        ScaleLine(reading_g=46.3, steady=True, over=False, gone=False)
        >>> line_pattern("{state},{reading}{unit}").read("US,0.44oz").steady
        False
        """
        text = text.strip()
        if len(text) > LONGEST:
            return None
        match = self.matcher.fullmatch(text)
        if match is None:
            return ScaleLine(0.0, steady=False, over=True) if _OVER.search(text) else None
        found = match.groupdict()
        figure = float(found["reading"].replace(" ", "").replace(",", "."))
        state = (found.get("state") or "").lower()
        if _OVER.fullmatch(state):
            return ScaleLine(0.0, steady=False, over=True)
        grams = round(figure * _GRAMS[(found.get("unit") or "g").lower()], 6)
        return ScaleLine(grams, steady=state not in _MOVING)


def line_pattern(written: str) -> LinePattern:
    """The pattern that somebody wrote down. Raises ValueError in words where it cannot be.

    >>> line_pattern("{weight} g")
    Traceback (most recent call last):
    ...
    ValueError: "{weight}" is none of {reading}, {unit}, {state} and {any}
    """
    matcher, seen = compiled(written or USUAL, _FIELDS)
    if "reading" not in seen:
        raise ValueError('say where the figure is, with "{reading}", like "ST,GS,{reading} g"')
    return LinePattern(matcher, "state" in seen)


def compiled(written: str, fields: Mapping[str, str]) -> tuple[re.Pattern[str], tuple[str, ...]]:
    """What was written down as a matcher of lines, and which of the fields it names, each a regular
    expression. Raises ValueError in words where it cannot be."""
    parts, at = [], 0
    seen: list[str] = []
    for field in _FIELD.finditer(written):
        name = field[1]
        if name not in fields:
            *others, last = (f"{{{each}}}" for each in fields)
            raise ValueError(f'"{field[0]}" is none of {", ".join(others)} and {last}')
        if name in seen and name != "any":
            raise ValueError(f'"{field[0]}" is there twice; each may stand once')
        parts += [_literal(written[at : field.start()]), fields[name]]
        seen.append(name)
        at = field.end()
    parts.append(_literal(written[at:]))
    return re.compile("".join(parts), re.IGNORECASE), tuple(seen)


def _literal(text: str) -> str:
    """Text that stands for itself, but for room: as much of it as there is."""
    return " *".join(re.escape(piece) for piece in re.split(r" +", text))
