"""Telling every open page of a build what happened, by server-sent events."""

import asyncio
from collections import defaultdict
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any


class Broadcast:
    """Hands what happened to a build to every page that listens to it."""

    def __init__(self) -> None:
        """Nobody listens yet."""
        self._pages: dict[str, set[asyncio.Queue[tuple[str, Any]]]] = defaultdict(set)
        self._loop: asyncio.AbstractEventLoop | None = None

    @contextmanager
    def listening(self, build_id: str) -> Iterator[asyncio.Queue[tuple[str, Any]]]:
        """A page listens, from within the event loop, until it goes away."""
        self._loop = asyncio.get_running_loop()
        page: asyncio.Queue[tuple[str, Any]] = asyncio.Queue(maxsize=200)
        self._pages[build_id].add(page)
        try:
            yield page
        finally:
            self._pages[build_id].discard(page)

    def is_heard(self, build_id: str) -> bool:
        """Whether any page listens to a build."""
        return bool(self._pages.get(build_id))

    def tell(self, build_id: str, event: str, data: Any) -> None:
        """Tell all pages of a build, from any thread."""
        if self._loop is not None and self._pages[build_id]:
            self._loop.call_soon_threadsafe(self._hand_out, build_id, event, data)

    def _hand_out(self, build_id: str, event: str, data: Any) -> None:
        for page in self._pages[build_id]:
            if page.full():
                page.get_nowait()
            page.put_nowait((event, data))
