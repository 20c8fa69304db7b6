"""The stand-in scale on a cable: it speaks its lines over a pseudo-terminal, as a real one does."""

import os
import threading
import time
import tty
from collections.abc import Callable
from contextlib import suppress

from oaken_scale.devices.simulated_scale import SimulatedScale


class SimulatedPort:
    """A serial port with the stand-in scale at its other end, until it is unplugged.

    ``dress`` makes a line of the stand-in's look like another scale's.
    """

    def __init__(
        self, scale: SimulatedScale, lines_per_s: float = 10.0, dress: Callable[[str], str] = str
    ) -> None:
        """Plug it in; its name is :attr:`port`."""
        self.scale = scale
        self._dress = dress
        self._every_s = 1 / lines_per_s
        self._ours, self._theirs = os.openpty()
        tty.setraw(self._theirs)
        os.set_blocking(self._ours, False)
        self.port = os.ttyname(self._theirs)
        self._pulled = threading.Event()
        self._thread = threading.Thread(target=self._speak, daemon=True)
        self._thread.start()

    def unplug(self) -> None:
        """Pull the cable."""
        self._pulled.set()
        self._thread.join(timeout=2)
        for end in (self._ours, self._theirs):
            with suppress(OSError):
                os.close(end)

    def _speak(self) -> None:
        while not self._pulled.wait(self._every_s):
            line = self._dress(self.scale.line(time.monotonic()))
            # Nobody reads: the line is lost, as on a real cable.
            with suppress(BlockingIOError):
                os.write(self._ours, line.encode("ascii"))
