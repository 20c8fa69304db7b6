"""The plain lines that the simulated thrust stand speaks, and what those of another look like.

``"{thrust},{amps},{volts}"`` reads as it looks, as a scale's pattern does: ``{throttle}`` in per
cent, ``{thrust}`` in ``{unit}`` (grams where there is none), ``{amps}``, ``{volts}``, ``{mah}``
drawn so far, ``{any}`` what does not matter.
"""

import re
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.model.quantity import OUNCE_G
from oaken_scale.devices.line_pattern import LONGEST, compiled

USUAL: Final = "throttle {throttle} % thrust {thrust} {unit} {amps} A {volts} V {mah} mAh"
"""How a line reads where nobody said: the stand-in stand speaks so."""

_FIGURE: Final = r"[+-]? *\d{1,6}(?:[.,]\d{1,4})?"
_FIELDS: Final = {
    "throttle": rf"(?P<throttle>{_FIGURE})",
    "thrust": rf"(?P<thrust>{_FIGURE})",
    "unit": r"(?P<unit>kg|gf|g|oz|lb|N)",
    "amps": rf"(?P<amps>{_FIGURE})",
    "volts": rf"(?P<volts>{_FIGURE})",
    "mah": rf"(?P<mah>{_FIGURE})",
    "any": r"[^\r\n]{0,40}?",
}
_GRAMS: Final = {
    "g": 1.0,
    "gf": 1.0,
    "kg": 1000.0,
    "oz": OUNCE_G,
    "lb": 16 * OUNCE_G,
    "n": 101.97,
}


@dataclass(frozen=True, slots=True)
class StandLine:
    """What a stand shows: throttle 0 to 1, thrust [gf], current [A], voltage [V], what was drawn
    [mAh], any of them not. ``gone`` stands for a stand that says nothing."""

    throttle: float | None = None
    thrust_gf: float | None = None
    pack_a: float | None = None
    pack_v: float | None = None
    drawn_mah: float | None = None
    gone: bool = False


@dataclass(frozen=True, slots=True)
class StandPattern:
    """How the lines of one stand are read."""

    matcher: re.Pattern[str]

    def read(self, text: str) -> StandLine | None:
        """One line; None for one that is none of the stand's.

        >>> found = stand_pattern("").read("throttle 60 % thrust 299 g 4.72 A 11.26 V 12 mAh")
        >>> found == StandLine(0.6, 299.0, 4.72, 11.26, 12.0)
        True
        >>> stand_pattern("{thrust} {unit};{amps}").read("10 oz;3,5").pack_a
        3.5
        """
        text = text.strip()
        match = self.matcher.fullmatch(text) if len(text) <= LONGEST else None
        if match is None:
            return None
        found = match.groupdict()

        def figure(name: str, span: float = 1.0) -> float | None:
            given = found.get(name)
            if given is None:
                return None
            return round(float(given.replace(" ", "").replace(",", ".")) * span, 6)

        grams = _GRAMS[(found.get("unit") or "g").lower()]
        throttle = figure("throttle", 0.01)
        return StandLine(
            None if throttle is None else min(max(throttle, 0.0), 1.0),
            figure("thrust", grams),
            figure("amps"),
            figure("volts"),
            figure("mah"),
        )


def stand_pattern(written: str) -> StandPattern:
    """The pattern that somebody wrote down. Raises ValueError in words where it cannot be.

    >>> stand_pattern("{power} W")
    Traceback (most recent call last):
    ...
    ValueError: "{power}" is none of {throttle}, {thrust}, {unit}, {amps}, {volts}, {mah} and {any}
    """
    matcher, seen = compiled(written or USUAL, _FIELDS)
    if not {"thrust", "amps", "volts"} & set(seen):
        raise ValueError('say where a figure is, like "{thrust} g {amps} A {volts} V"')
    return StandPattern(matcher)
