"""The plain ASCII lines that the simulated scale speaks, and their reader."""

import re
from dataclasses import dataclass

_LINE = re.compile(r"(?P<state>steady|moving|over)(?: (?P<reading>-?\d+(?:\.\d+)?) g)?\r?\n?")


@dataclass(frozen=True, slots=True)
class ScaleLine:
    """One line: what the display shows [g], whether it is steady, whether it is overloaded.

    ``gone`` stands for the lines of a scale that sends none.
    """

    reading_g: float
    steady: bool
    over: bool = False
    gone: bool = False

    def text(self, decimals: int) -> str:
        """The line as the scale sends it.

        >>> ScaleLine(46.3, steady=True).text(1)
        'steady 46.3 g\\r\\n'
        """
        if self.over:
            return "over\r\n"
        return f"{'steady' if self.steady else 'moving'} {self.reading_g:.{decimals}f} g\r\n"


def read_line(text: str) -> ScaleLine:
    """Read one line. Raises ValueError when it is none of the scale's.

    >>> read_line("moving 46.1 g\\r\\n")
    ScaleLine(reading_g=46.1, steady=False, over=False, gone=False)
    """
    match = _LINE.fullmatch(text)
    if match is None or (match["state"] != "over" and match["reading"] is None):
        raise ValueError(f"{text!r} is not a line of the scale, like 'steady 46.3 g'")
    if match["state"] == "over":
        return ScaleLine(0.0, steady=False, over=True)
    return ScaleLine(float(match["reading"]), steady=match["state"] == "steady")
