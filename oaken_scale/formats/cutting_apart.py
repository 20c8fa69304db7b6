"""Parts laid on sheets by a process of its own, that can be ended: the bench answers meanwhile."""

from __future__ import annotations

import asyncio
import os
import pickle
import subprocess
import sys
from collections.abc import AsyncGenerator, Sequence
from contextlib import suppress
from typing import IO, Final

from oaken_scale.core.geometry.blanks import Knife
from oaken_scale.core.material.cutting import CutStep, Job, cut_steps
from oaken_scale.formats.apart import BusyError, received, send

AT_ONCE: Final = 2
"""So many layouts are worked out at once; more are told to come again."""


class Cutter:
    """Lays parts, for as many askers at once as the machine bears."""

    def __init__(self, at_once: int = AT_ONCE) -> None:
        """Nothing runs yet."""
        self._at_once, self._busy = at_once, 0

    async def lay(
        self, jobs: Sequence[Job], knife: Knife, seconds: float
    ) -> AsyncGenerator[CutStep, None]:
        """The best plans so far, lot by lot, until the time is gone or the asker goes away.

        Raises BusyError where too many ask.
        """
        if self._busy >= self._at_once:
            raise BusyError("other layouts are being worked out; try again in a moment")
        self._busy += 1
        child = None
        try:
            child = subprocess.Popen(
                [sys.executable, "-m", "oaken_scale.formats.cutting_apart"],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
            )
            if child.stdin is None or child.stdout is None:
                return
            await asyncio.to_thread(_asked, child.stdin, (tuple(jobs), knife, seconds))
            while (step := await asyncio.to_thread(_step, child.stdout)) is not None:
                yield step
        finally:
            self._busy -= 1
            if child is not None:
                child.kill()
                child.wait()
                for pipe in (child.stdin, child.stdout):
                    if pipe is not None:
                        with suppress(OSError):
                            pipe.close()


def _asked(pipe: IO[bytes], question: tuple[tuple[Job, ...], Knife, float]) -> None:
    with suppress(OSError):
        send(pipe, question)


def _step(pipe: IO[bytes]) -> CutStep | None:
    try:
        step: CutStep = received(pipe)
    except (EOFError, OSError, ValueError, pickle.UnpicklingError):
        return None
    return step


def main() -> None:
    """Answer the one question on standard input, step by step."""
    with suppress(AttributeError, OSError):
        os.nice(5)  # readings go first
    jobs, knife, seconds = received(sys.stdin.buffer)
    out = os.fdopen(os.dup(sys.stdout.fileno()), "wb")
    sys.stdout = sys.stderr  # whatever a library prints is no answer
    with suppress(BrokenPipeError):
        for step in cut_steps(jobs, knife, seconds):
            send(out, step)


if __name__ == "__main__":
    main()
