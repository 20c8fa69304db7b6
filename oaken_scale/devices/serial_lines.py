"""A serial port that is listened to: its lines as they come, until it is closed."""

import threading
from collections.abc import Callable
from contextlib import suppress
from typing import Final

import serial

AGAIN_S: Final = 0.5
"""How often an unplugged device is looked for [s]."""

PSEUDO_TERMINALS: Final = "/dev/pts/"

LONGEST_PENDING: Final = 400
"""A line that does not end is cut to so many bytes."""


class SerialLines:
    """Reads one port in a thread of its own; ``take`` gets each line, ``lost`` is called when the
    port fails. It is looked for again until :meth:`close`, unless its name is a pseudo-terminal's:
    once that is gone its name goes to the next that is opened, which is another device.

    The port is this reader's alone: two readers of one cable would each get pieces of its lines,
    and "steady " of one with "40.2 g" of the next makes a reading that was never there.
    """

    def __init__(
        self, port: str, baud: int, take: Callable[[str], None], lost: Callable[[], None]
    ) -> None:
        """Begin to listen."""
        self._port, self._baud = port, baud
        self._take, self._lost = take, lost
        self._was_open = False
        self._closed = threading.Event()
        self._thread = threading.Thread(target=self._listen, daemon=True)
        self._thread.start()

    @property
    def ended(self) -> bool:
        """Whether the port is no longer looked for."""
        return not self._thread.is_alive()

    def close(self) -> None:
        """Stop listening."""
        self._closed.set()
        self._thread.join(timeout=2)

    def _listen(self) -> None:
        while not self._closed.is_set():
            with suppress(serial.SerialException, OSError):
                self._read_port()
            self._lost()
            if self._was_open and self._port.startswith(PSEUDO_TERMINALS):
                return
            self._closed.wait(AGAIN_S)

    def _read_port(self) -> None:
        """Read lines until the port fails."""
        with serial.Serial(self._port, self._baud, timeout=0.2, exclusive=True) as port:
            self._was_open = True
            pending, whole = b"", False
            while not self._closed.is_set():
                pending += port.read(port.in_waiting or 1)
                *lines, pending = pending.replace(b"\r", b"\n").split(b"\n")
                pending = pending[-LONGEST_PENDING:]
                if lines and not whole:
                    # What was on its way when the port opened may lack its beginning: of
                    # "moving 40.2 g" would be left "ing 40.2 g", and that word means nothing.
                    lines, whole = lines[1:], True
                for line in lines:
                    self._take(line.decode("ascii", "replace"))
