"""Refusing a body that is larger than any honest one, before it is read."""

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from oaken_scale.api.problems import answer


class BodyLimit:
    """ASGI middleware: 413 for a body over the limit of its path [bytes]."""

    def __init__(self, app: ASGIApp, limit: int, larger: dict[str, int]) -> None:
        """``larger`` gives other limits by path, or by a part of it that ends with a slash."""
        self.app, self.limit, self.larger = app, limit, larger

    def _limit_of(self, path: str) -> int:
        if path in self.larger:
            return self.larger[path]
        parts = (most for part, most in self.larger.items() if part.endswith("/") and part in path)
        return next(parts, self.limit)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on, its body counted as it comes in."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        limit = self._limit_of(scope["path"])
        declared = dict(scope["headers"]).get(b"content-length", b"0")
        too_large = answer(
            413,
            "Too large",
            f"the body is larger than {limit // 1024} KiB; send less at a time",
        )
        if declared.isdigit() and int(declared) > limit:
            await too_large(scope, receive, send)
            return
        received, refused = 0, False

        async def counted() -> Message:
            nonlocal received, refused
            message = await receive()
            received += len(message.get("body", b""))
            if received > limit:
                refused = True
                return {"type": "http.disconnect"}
            return message

        async def guarded(message: Message) -> None:
            if not refused:
                await send(message)

        try:
            await self.app(scope, counted, guarded)
        except Exception:
            if not refused:
                raise
        if refused:
            await too_large(scope, receive, send)
