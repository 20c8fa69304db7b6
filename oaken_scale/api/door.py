"""Who may come in: hosts that are meant, pages that are ours, bodies that a form cannot send.

The server stands on a builder's own machine, without a password. So no page of another site may
write to it, no name that somebody points at this machine may read from it, and no page of ours may
be framed or load anything from elsewhere.
"""

import ipaddress
from collections.abc import Iterable, Mapping
from types import MappingProxyType
from typing import Final
from urllib.parse import urlsplit

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from oaken_scale.api.problems import answer

FROM_NETWORK: Final = "oaken_scale.device"
"""Where the scope says which device asks, None for one that was not let in yet; it is not there for
what is asked on this machine."""

LOOPBACK: Final = ("localhost", "127.0.0.1", "[::1]", "testserver")
"""The names of this machine itself; the last is the one of in-process clients."""

SAFE: Final = frozenset({"GET", "HEAD", "OPTIONS"})

BODIES: Final = ("application/json", "application/octet-stream", "application/problem+json")
"""What a body may be: none of these can be sent by a form, or by a page of another site unasked."""

HEADERS: Final = {
    "Content-Security-Policy": "default-src 'self'; style-src 'self' 'unsafe-inline'; "
    "img-src 'self' data: blob:; font-src 'self' data:; connect-src 'self'; object-src 'none'; "
    "base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
    "X-Frame-Options": "DENY",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


def is_meant(host: str, allowed: Iterable[str]) -> bool:
    """Whether a Host header names this server.

    ``allowed`` are names; "*" stands for any address and for the local network's names. A name
    without a dot is always meant: nobody outside can hand one out.

    >>> is_meant("localhost:8017", LOOPBACK), is_meant("evil.example", LOOPBACK)
    (True, False)
    >>> is_meant("192.168.1.20:8017", ["*"]), is_meant("shed.local", ["*"])
    (True, True)
    >>> is_meant("evil.example:8017", ["*"])
    False
    """
    name = host.rsplit(":", 1)[0] if not host.endswith("]") else host
    name = name.lower().rstrip(".")
    known = {each.lower() for each in allowed}
    if name in known or name in LOOPBACK or "." not in name.strip("[]").replace(":", "."):
        return True
    if "*" not in known:
        return False
    try:
        ipaddress.ip_address(name.strip("[]"))
    except ValueError:
        return name.endswith(".local")
    return True


def with_headers(send: Send, more: Mapping[str, str] = MappingProxyType({})) -> Send:
    """What sends an answer, with the headers that every answer gets, and ``more``."""

    async def guarded(message: Message) -> None:
        if message["type"] == "http.response.start":
            given = {**HEADERS, **more}
            own = [(k.lower().encode(), v.encode()) for k, v in given.items()]
            message = {**message, "headers": [*message.get("headers", ()), *own]}
        await send(message)

    return guarded


class Door:
    """ASGI middleware: refuses what does not come from our own pages or programs."""

    def __init__(
        self,
        app: ASGIApp,
        hosts: Iterable[str] = LOOPBACK,
        lan_hosts: Iterable[str] = (),
        tells: Mapping[str, str] = MappingProxyType({}),
    ) -> None:
        """``hosts`` are the names that this server answers to, ``lan_hosts`` those for what comes
        through the door to the network: on this machine no other machine's name is meant.
        ``tells`` are headers of every answer."""
        self.tells = tells
        self.app, self.hosts, self.lan_hosts = app, tuple(hosts), tuple(lan_hosts)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass the request on, or answer why not; every answer gets the headers."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = {name: value.decode("latin-1") for name, value in scope["headers"]}

        guarded = with_headers(send, self.tells)
        hosts = self.lan_hosts if FROM_NETWORK in scope else self.hosts
        refused = self._refused(scope["method"], headers, hosts)
        if refused is None:
            await self.app(scope, receive, guarded)
            return
        status, title, words = refused
        await answer(status, title, words)(scope, receive, guarded)

    def _refused(
        self, method: str, headers: dict[bytes, str], hosts: tuple[str, ...]
    ) -> tuple[int, str, str] | None:
        host = headers.get(b"host", "")
        if host and not is_meant(host, hosts):
            words = (
                f'this workshop does not answer to "{host[:80]}"; open it by the address that it '
                "was started with"
            )
            return 421, "Not this workshop", words
        if method in SAFE:
            return None
        origin, site = headers.get(b"origin"), headers.get(b"sec-fetch-site")
        strange = origin is not None and (origin == "null" or urlsplit(origin).netloc != host)
        if strange or site in ("cross-site", "same-site"):
            words = "only this workshop's own pages may change anything in it; nothing was changed"
            return 403, "Not from this page", words
        has_body = headers.get(b"content-length", "0") != "0" or b"transfer-encoding" in headers
        kind = headers.get(b"content-type", "").split(";")[0].strip().lower()
        if has_body and kind and kind not in BODIES:
            words = f'the body is "{kind[:80]}"; send application/json'
            return 415, "Not that kind of body", words
        return None
