"""A server in a process of its own, for the tests."""

import multiprocessing
import os
import socket
import sys
import time
from contextlib import redirect_stdout
from dataclasses import dataclass
from pathlib import Path

import httpx

from oaken_scale.cli import main
from tests.http import HTTP

# Servers are forked off a process that has read the product's modules and this one already: each
# starts in a fraction of a second, and is killed like any other. That `oaken-scale` starts, the
# tests of the command line try.
FORKS = multiprocessing.get_context("forkserver")
FORKS.set_forkserver_preload([__name__, "tests.forked"])


def _serve(arguments: list[str]) -> None:
    with Path(os.devnull).open("w") as nowhere, redirect_stdout(nowhere):
        sys.exit(main(arguments))


@dataclass
class Server:
    """A server in a process of its own, as `oaken-scale` runs it."""

    command: str
    database: Path
    port: int = 0
    process: multiprocessing.process.BaseProcess | None = None
    more: tuple[str, ...] = ()

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self, port: int = 0) -> "Server":
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = port or free.getsockname()[1]
        arguments = [self.command, "--port", str(self.port), "--database", str(self.database)]
        arguments += self.more
        self.process = FORKS.Process(target=_serve, args=(arguments,), daemon=True)
        self.process.start()
        for _ in range(600):
            try:
                HTTP.get(f"{self.url}/api/v1/builds", timeout=1)
                return self
            except httpx.HTTPError:
                time.sleep(0.05)
        raise RuntimeError("the server did not start")

    def kill(self) -> None:
        self.process.kill()
        self.process.join()
