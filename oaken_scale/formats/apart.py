"""Reading what somebody hands in, in a process of its own that can be ended.

A drawing of two hundred bytes can keep a reader busy for ever, and a large one keeps everybody else
waiting. So files are read by a child process, one after another, with a limit of time and memory;
one that takes too long is ended, and the next file gets a fresh reader.
"""

import os
import pickle
import struct
import subprocess
import sys
import threading
from contextlib import suppress
from typing import IO, Any, Final

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.geometry.outline import Outlines, outlines
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

SECONDS: Final = 12.0
"""What takes longer to read is no drawing of a plane's parts."""

MEMORY: Final = 2 * 1024**3
"""The most that a reader may take [bytes]."""

WAITING: Final = 6
"""So many files may wait for the reader; more are told to come again."""

_LENGTH: Final = struct.Struct(">Q")


class BusyError(RuntimeError):
    """Too many files wait to be read."""


class Reader:
    """A child process that reads one file at a time; started when the first one comes."""

    def __init__(self, seconds: float = SECONDS, waiting: int = WAITING) -> None:
        """Nothing runs yet. ``seconds`` is how long one file may take; ``waiting`` so many may wait
        for the reader or be read at once."""
        self.seconds = seconds
        self._turn = threading.Lock()
        self._room = threading.BoundedSemaphore(waiting)
        self._child: subprocess.Popen[bytes] | None = None

    def outlines(
        self,
        data: bytes,
        close_within_mm: float,
        mm_per_unit: float | None,
        columns: int | None = None,
        overlap_mm: float = 0.0,
        is_to_cut: bool = False,
    ) -> Outlines:
        """The parts that a drawing offers. Raises BuildFaultError, BusyError."""
        tiles = (columns, overlap_mm, is_to_cut)
        told: Outlines = self._ask("outlines", data, close_within_mm, mm_per_unit, *tiles)
        return told

    def build(self, data: bytes) -> tuple[Build, Assessment]:
        """A build file, and what is told about it. Raises BuildFaultError, BusyError."""
        told: tuple[Build, Assessment] = self._ask("build", data)
        return told

    def cells(self, data: bytes, sheet: str = "") -> list[list[str]]:
        """The cells of a spreadsheet, CSV or xlsx. Raises BuildFaultError, BusyError."""
        told: list[list[str]] = self._ask("cells", data, sheet)
        return told

    def close(self) -> None:
        """End the child."""
        with self._turn:
            self._end()

    def _ask(self, *question: Any) -> Any:
        if not self._room.acquire(blocking=False):
            raise BusyError("several files are being read; try again in a moment")
        try:
            with self._turn:
                return self._answered(question)
        finally:
            self._room.release()

    def _answered(self, question: tuple[Any, ...]) -> Any:
        child = self._started()
        alarm = threading.Timer(self.seconds, child.kill)
        alarm.start()
        try:
            if child.stdin is None or child.stdout is None:
                raise EOFError
            send(child.stdin, question)
            kind, told = received(child.stdout)
        except (EOFError, OSError, pickle.UnpicklingError) as error:
            self._end()
            words = (
                f"takes longer than {self.seconds:.0f} seconds or more memory than there is to "
                "read; simplify it, or export the outlines alone"
            )
            raise BuildFaultError([Fault("file", words)]) from error
        finally:
            alarm.cancel()
        if kind == "refused":
            raise BuildFaultError(told)
        return told

    def _started(self) -> "subprocess.Popen[bytes]":
        if self._child is None or self._child.poll() is not None:
            self._child = subprocess.Popen(
                [sys.executable, "-m", "oaken_scale.formats.apart"],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
            )
            if self._child.stdout is not None:
                received(self._child.stdout)  # it is up: only then does its time begin
        return self._child

    def _end(self) -> None:
        if self._child is not None:
            self._child.kill()
            self._child.wait()
            for pipe in (self._child.stdin, self._child.stdout):
                if pipe is not None:
                    with suppress(OSError):
                        pipe.close()
            self._child = None


READER: Final = Reader()
"""The one that the server's routes share."""


def send(pipe: IO[bytes], what: Any) -> None:
    """Write a value to a pipe to a process of ours."""
    data = pickle.dumps(what)
    pipe.write(_LENGTH.pack(len(data)) + data)
    pipe.flush()


def received(pipe: IO[bytes]) -> Any:
    """The next value from a process of ours. Raises EOFError where it ended."""
    head = pipe.read(_LENGTH.size)
    if len(head) < _LENGTH.size:
        raise EOFError
    (length,) = _LENGTH.unpack(head)
    data = pipe.read(length)
    if len(data) < length:
        raise EOFError
    return pickle.loads(data)


def _told(question: tuple[Any, ...]) -> Any:
    what, *given = question
    if what == "build":
        from oaken_scale.formats.build_file import load  # noqa: PLC0415

        build = load(given[0])
        return build, assess(build)
    if what == "cells":
        from oaken_scale.formats.parts_list import cells  # noqa: PLC0415

        return cells(*given)
    from oaken_scale.formats.drawing import read_drawing  # noqa: PLC0415

    data, close_within_mm, mm_per_unit, columns, overlap_mm, is_to_cut = given
    drawing = read_drawing(data, columns, overlap_mm)
    return outlines(drawing, close_within_mm, mm_per_unit, is_to_cut)


def main() -> None:
    """Answer questions on standard input until it ends."""
    with suppress(ImportError, ValueError, OSError):
        import resource  # noqa: PLC0415

        resource.setrlimit(resource.RLIMIT_AS, (MEMORY, MEMORY))
    into, out = sys.stdin.buffer, os.fdopen(os.dup(sys.stdout.fileno()), "wb")
    sys.stdout = sys.stderr  # whatever a library prints is no answer
    send(out, ("up", None))
    while True:
        try:
            question = received(into)
        except EOFError:
            return
        try:
            answer = ("told", _told(question))
        except BuildFaultError as error:
            answer = ("refused", error.faults)
        except MemoryError:
            words = "takes more memory than there is to read; export the outlines alone"
            answer = ("refused", (Fault("file", words),))
        except Exception as error:  # whatever it is, the file is what it is about
            words = f"cannot be read ({type(error).__name__}); save it again"
            answer = ("refused", (Fault("file", words),))
        send(out, answer)


if __name__ == "__main__":
    main()
