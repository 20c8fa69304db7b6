"""The door to the local network: only devices that were let in come through, and a reader only
looks.

What is asked for on this machine itself does not come by here.
"""

from collections.abc import MutableMapping
from http.cookies import CookieError, SimpleCookie
from typing import Any, Final

from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from oaken_scale.api.door import FROM_NETWORK, SAFE, with_headers
from oaken_scale.api.problems import answer
from oaken_scale.store.door import Device, DeviceRole
from oaken_scale.workshop import Workshop

COOKIE: Final = "oaken-scale-device"
"""What a device shows of itself."""

OPEN: Final = (
    ("GET", "/api/v1/door"),
    ("POST", "/api/v1/door/entry"),
    ("GET", "/api/v1/door/certificate.crt"),
)
"""What a device asks that was not let in yet."""

ONLY_HERE: Final = ("/api/v1/door/codes", "/api/v1/door/devices")
"""What is only answered on this machine."""

ASKS: Final = (
    "/what-if",
    "/remedies/what-if",
    "/remedies/shifted",
    "/power/choices",
    "/alternatives",
    "/replacements",
    "/cutting",
    "/cutting/svg",
    "/cutting/dxf",
    "/cutting/csv",
    "/cutting/pdf",
    "/preview",
    "/api/v1/outlines",
    "/api/v1/outlines.pdf",
    "/api/v1/parts-list",
    "/api/v1/shapes",
    "/api/v1/folds",
    "/api/v1/begin/map",
    "/api/v1/donor",
    "/api/v1/template",
)
"""What is posted and changes nothing, by the end of its path: a reader may ask that too."""


class LanDoor:
    """ASGI application: an application, behind a door."""

    def __init__(self, app: ASGIApp, shop: Workshop) -> None:
        """``shop`` knows who was let in."""
        self.app, self.shop = app, shop

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on, or answer why not."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        device = None
        secret = _shown(scope)
        if secret is not None:
            device = await run_in_threadpool(self.shop.door.known, secret)
        refused = _refused(scope["method"], scope["path"], device)
        if refused is not None:
            await answer(*refused)(scope, receive, with_headers(send))
            return
        scope[FROM_NETWORK] = device
        await self.app(scope, receive, send if device is None else self._while_in(device, send))

    def _while_in(self, device: Device, send: Send) -> Send:
        """What sends an answer for as long as its device is let in: one that goes on and on ends
        when the device is shut out."""
        is_over = False

        async def guarded(message: Message) -> None:
            nonlocal is_over
            if is_over:
                return
            if message["type"] == "http.response.body" and message.get("more_body"):
                is_over = not await run_in_threadpool(self.shop.door.is_in, device.id)
                if is_over:
                    message = {"type": "http.response.body", "body": b"", "more_body": False}
            await send(message)

        return guarded


def _shown(scope: MutableMapping[str, Any]) -> str | None:
    """What a device shows of itself."""
    for name, value in scope["headers"]:
        if name == b"cookie":
            try:
                found = SimpleCookie(value.decode("latin-1")).get(COOKIE)
            except CookieError:
                continue
            if found is not None:
                return found.value
    return None


def _refused(method: str, path: str, device: Device | None) -> tuple[int, str, str] | None:
    if not path.startswith("/api/") or (method, path) in OPEN:
        return None
    if path.startswith(ONLY_HERE):
        words = "who comes in is decided on the machine that the workshop runs on"
        return 403, "Only on the bench itself", words
    if device is None:
        words = (
            "this device was not let in yet, or was shut out; have a code shown on the bench, and "
            "open /let-in here"
        )
        return 401, "Not let in", words
    asks = method in SAFE or (method == "POST" and path.endswith(ASKS))
    if device.role is DeviceRole.READER and not asks:
        words = f"{device.name} was let in to look; let it in as writer to change anything"
        return 403, "This device only looks", words
    return None
