"""A thrust stand on a cable: its lines are read as they come, and an unplugged one is told."""

import threading
import time
from typing import Final

from oaken_scale.devices.serial_lines import SerialLines
from oaken_scale.devices.stand_line import StandLine, stand_pattern

SILENT_S: Final = 2.5
"""A stand that says nothing for so long is not there [s]."""

GONE: Final = StandLine(gone=True)


class SerialStand:
    """Reads one serial port in a thread of its own, until it is closed."""

    def __init__(self, port: str, line: str = "", baud: int = 9600) -> None:
        """Begin to listen. Raises ValueError for a line pattern that cannot be."""
        self._pattern = stand_pattern(line)
        self._latest: tuple[float, StandLine] | None = None
        self._turn = threading.Lock()
        self._lines = SerialLines(port, baud, self._take, self._lost)

    def line(self, now_s: float) -> StandLine:
        """What it shows now; ``gone`` while it is unplugged or silent."""
        with self._turn:
            if self._latest is None or now_s - self._latest[0] > SILENT_S:
                return GONE
            return self._latest[1]

    def close(self) -> None:
        """Stop listening."""
        self._lines.close()

    def _take(self, text: str) -> None:
        told = self._pattern.read(text)
        if told is not None:
            with self._turn:
                self._latest = (time.monotonic(), told)

    def _lost(self) -> None:
        with self._turn:
            self._latest = None
