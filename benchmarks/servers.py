"""Servers to measure, each on a port of its own."""

import socket
import subprocess
import sys
import time

import httpx


def started(arguments: list[str], url: str) -> subprocess.Popen[bytes]:
    """A server that answers."""
    server = subprocess.Popen([sys.executable, *arguments], stdout=subprocess.DEVNULL)
    for _ in range(200):
        try:
            httpx.get(url, timeout=1)
            return server
        except httpx.HTTPError:
            time.sleep(0.05)
    raise RuntimeError("the server did not start")


def free_port() -> int:
    """A port that nobody listens on."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port: int = free.getsockname()[1]
        return port
