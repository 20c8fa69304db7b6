"""The stand-ins on a cable: they speak their lines over a pseudo-terminal, as real ones do."""

import os
import threading
import time
import tty
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import Generic, Protocol, TypeVar


class Speaks(Protocol):
    """A stand-in that has a line to say at any time [s]."""

    def line(self, now_s: float) -> str:
        """Its line at a time."""
        ...


Device = TypeVar("Device", bound=Speaks)


class SimulatedPort(Generic[Device]):
    """A serial port with a stand-in at its other end, until it is unplugged.

    ``dress`` makes a line of the stand-in's look like another device's. ``name`` is a path under
    which it can be found each time that it is plugged in; the system's name of a terminal goes to
    the next that is opened.
    """

    def __init__(
        self,
        device: Device,
        lines_per_s: float = 10.0,
        dress: Callable[[str], str] = str,
        name: Path | None = None,
    ) -> None:
        """Plug it in; its name is :attr:`port`."""
        self.device = device
        self._dress = dress
        self._every_s = 1 / lines_per_s
        self._ours, self._theirs = os.openpty()
        tty.setraw(self._theirs)
        os.set_blocking(self._ours, False)
        self._name = name
        self.port = os.ttyname(self._theirs)
        if name is not None:
            name.symlink_to(self.port)
            self.port = str(name)
        self._pulled = threading.Event()
        self._thread = threading.Thread(target=self._speak, daemon=True)
        self._thread.start()

    def unplug(self) -> None:
        """Pull the cable."""
        self._pulled.set()
        self._thread.join(timeout=2)
        if self._name is not None:
            self._name.unlink(missing_ok=True)
        for end in (self._ours, self._theirs):
            with suppress(OSError):
                os.close(end)

    def _speak(self) -> None:
        while not self._pulled.wait(self._every_s):
            line = self._dress(self.device.line(time.monotonic()))
            # Nobody reads: the line is lost, as on a real cable.
            with suppress(BlockingIOError):
                os.write(self._ours, line.encode("ascii"))
