"""The servers: one for this machine, and one behind a door for the local network."""

import asyncio
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Final

import uvicorn
from fastapi import FastAPI

from oaken_scale.api.lan_door import LanDoor

MOST_AT_ONCE: Final = 300
"""So many connections the door keeps at once; more are told to come again."""


@dataclass(frozen=True, slots=True)
class LanServer:
    """Where the door to the network listens, and the certificate that it shows."""

    host: str
    port: int
    certificate: Path
    key: Path


class _Beside(uvicorn.Server):
    """A server that ends with another one, which hears the signals."""

    @contextmanager
    def capture_signals(self) -> Iterator[None]:
        """None: the other one does."""
        yield


def serve(app: FastAPI, host: str, port: int, lan: LanServer | None = None) -> None:
    """Serve until told to stop, on this machine and, where there is a door, through it."""
    own = uvicorn.Server(_config(app, host=host, port=port))
    if lan is None:
        own.run()
        return
    door = _Beside(
        _config(
            LanDoor(app, app.state.workshop),
            host=lan.host,
            port=lan.port,
            ssl_certfile=str(lan.certificate),
            ssl_keyfile=str(lan.key),
            lifespan="off",
            limit_concurrency=MOST_AT_ONCE,
        )
    )

    async def both() -> None:
        beside = asyncio.create_task(door.serve())
        try:
            await own.serve()
        finally:
            door.should_exit = True
            await beside

    with asyncio.Runner(loop_factory=own.config.get_loop_factory()) as runner:
        runner.run(both())


def _config(app: Any, **given: Any) -> uvicorn.Config:
    return uvicorn.Config(
        app, log_level="warning", timeout_graceful_shutdown=2, server_header=False, **given
    )
