"""A scale on a cable: its lines are read as they come, and an unplugged one is told at once."""

import threading
import time
from collections import deque
from typing import Final

from oaken_scale.devices.line_pattern import LinePattern, line_pattern
from oaken_scale.devices.scale_line import ScaleLine
from oaken_scale.devices.serial_lines import SerialLines

SILENT_S: Final = 2.5
"""A scale that says nothing for so long is not there [s]."""

STEADY_S: Final = 0.8
"""A scale that does not say so itself is steady after so long without a change [s]."""

GONE: Final = ScaleLine(0.0, steady=False, gone=True)


class SerialScale:
    """Reads one serial port in a thread of its own, until it is closed.

    The scale does not know what is on it; :meth:`tare` takes what it shows as zero from then on.
    """

    def __init__(self, port: str, line: str = "", baud: int = 9600, step_g: float = 0.1) -> None:
        """Begin to listen. Raises ValueError for a line pattern that cannot be."""
        self.port, self.baud, self.step_g = port, baud, step_g
        self.asked = (port, line, baud)
        self._pattern: LinePattern = line_pattern(line)
        self._latest: tuple[float, ScaleLine] | None = None
        self._shown: deque[tuple[float, float]] = deque()
        self._zero_g = 0.0
        self._changed_at = 0.0
        self._turn = threading.Lock()
        self._lines = SerialLines(port, baud, self._take, self._lost)

    @property
    def is_tared(self) -> bool:
        """Whether something was tared away here: closed, it would be forgotten."""
        return self._zero_g != 0.0

    @property
    def ended(self) -> bool:
        """Whether it no longer looks for its port."""
        return self._lines.ended

    def put(self, load_g: float) -> None:
        """Something else is on the pan now: what it showed before does not count as steady."""
        with self._turn:
            self._shown.clear()
            self._changed_at = time.monotonic()

    def tare(self) -> None:
        """Take what the scale shows now as zero."""
        with self._turn:
            if self._latest is not None:
                self._zero_g = self._latest[1].reading_g
            self._shown.clear()
            self._changed_at = time.monotonic()

    def line(self, now_s: float) -> ScaleLine:
        """What it shows now; ``gone`` while it is unplugged or silent."""
        with self._turn:
            if self._latest is None or now_s - self._latest[0] > SILENT_S:
                return GONE
            at, shown = self._latest
            if shown.over:
                return shown
            net = round(shown.reading_g - self._zero_g, 6) + 0.0
            fresh = at > self._changed_at
            return ScaleLine(net, steady=fresh and shown.steady and self._is_still(now_s))

    def close(self) -> None:
        """Stop listening."""
        self._lines.close()

    def _is_still(self, now_s: float) -> bool:
        if self._pattern.tells_steady:
            return True
        values = [grams for _, grams in self._shown]
        if not values or now_s - self._shown[0][0] < STEADY_S * 0.8:
            return False
        return max(values) - min(values) <= self.step_g * 1.01

    def _lost(self) -> None:
        with self._turn:
            self._latest = None
            self._shown.clear()

    def _take(self, text: str) -> None:
        told = self._pattern.read(text)
        if told is None:
            return
        now = time.monotonic()
        with self._turn:
            self._latest = (now, told)
            self._shown.append((now, told.reading_g))
            while self._shown[0][0] < now - STEADY_S:
                self._shown.popleft()
