"""Who is let in from the local network: by a code that opens once, as reader or writer."""

from __future__ import annotations

import hashlib
import re
import secrets
import time
from collections import deque
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import TYPE_CHECKING, Final

from oaken_scale.store import door
from oaken_scale.store.door import Device, DeviceRole
from oaken_scale.store.rows import now
from oaken_scale.workshop.refused import NoSuchError, RefusedError, TooManyError

if TYPE_CHECKING:
    from oaken_scale.workshop.workshop import Workshop

LETTERS: Final = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"
"""What codes are made of: nothing that is read as something else."""

LENGTH: Final = 8
HOLDS: Final = timedelta(minutes=10)
"""So long a code may be used, once."""

MOST_WRONG: Final = 10
"""So many wrong codes are looked at in :data:`WHILE_S`; of 31^8 codes nobody finds one so."""

WHILE_S: Final = 600.0

SEEN_EVERY: Final = timedelta(minutes=1)
"""When a device was seen last is written down so often at most."""


@dataclass(frozen=True, slots=True)
class Invitation:
    """A code, what it lets in as, and until when."""

    code: str
    role: DeviceRole
    expires_at: datetime


class WrongCodeError(RefusedError):
    """A code that does not open."""

    def __init__(self) -> None:
        """It was used, ran out, or never was."""
        words = (
            "this code does not open: it was used, is over ten minutes old, or was read wrongly; "
            "have a new one shown on the bench"
        )
        super().__init__("That code does not open", words, "code")


class Doorkeeper:
    """The devices of a workshop, and the codes that let more in."""

    def __init__(self, shop: Workshop) -> None:
        """Those of ``shop``."""
        self._shop = shop
        self._wrong: deque[float] = deque(maxlen=MOST_WRONG)
        self._devices: dict[str, Device] | None = None

    def invite(self, role: DeviceRole) -> Invitation:
        """Make a code that lets one device in."""
        letters = "".join(secrets.choice(LETTERS) for _ in range(LENGTH))
        code = f"{letters[:4]}-{letters[4:]}"
        at = now()
        with self._shop.database.transaction() as connection:
            door.write_code(connection, _digest(_plain(code)), role, at, at + HOLDS)
        return Invitation(code, role, at + HOLDS)

    def let_in(self, code: str, name: str) -> tuple[Device, str]:
        """Let a device in; the device, and the secret by which it is known from now on.

        Raises WrongCodeError, or TooManyError after too many wrong ones.
        """
        self._wait_after_wrong()
        at, secret = now(), secrets.token_urlsafe(32)
        with self._shop.turn, self._shop.database.transaction() as connection:
            role = door.take_code(connection, _digest(_plain(code)), at)
            if role is not None:
                device = Device(secrets.token_hex(8), name, role, at, at)
                door.write_device(connection, device, _digest(secret))
        if role is None:
            self._wrong.append(time.monotonic())
            raise WrongCodeError()
        self._devices = None
        return device, secret

    def _wait_after_wrong(self) -> None:
        if len(self._wrong) < MOST_WRONG:
            return
        left = self._wrong[0] + WHILE_S - time.monotonic()
        if left > 0:
            raise TooManyError("wrong codes", left)

    def known(self, secret: str) -> Device | None:
        """The device that shows a secret; None where it was not let in, or shut out since."""
        found = self._known().get(_digest(secret))
        at = now()
        if found is not None and abs(at - found.last_seen_at) > SEEN_EVERY:
            with self._shop.turn, self._shop.database.transaction() as connection:
                door.write_seen(connection, found.id, at)
            self._known()[_digest(secret)] = replace(found, last_seen_at=at)
        return found

    def is_in(self, device_id: str) -> bool:
        """Whether a device is still let in."""
        return any(each.id == device_id for each in self._known().values())

    def devices(self) -> list[Device]:
        """The devices that are let in, in the order they came."""
        with self._shop.turn:
            self._devices = None  # another process may have shut one out
            return list(self._known().values())

    def shut_out(self, device_id: str) -> None:
        """Let a device in no more, at once. Raises NoSuchError."""
        with self._shop.turn:
            with self._shop.database.transaction() as connection:
                was_in = door.shut_out(connection, device_id)
            self._devices = None
        if not was_in:
            raise NoSuchError("device", device_id)

    def _known(self) -> dict[str, Device]:
        known = self._devices
        if known is None:
            with self._shop.database.reading() as connection:
                known = self._devices = door.read_devices(connection)
        return known


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def _plain(code: str) -> str:
    """A code as it was meant, however it was typed."""
    return re.sub(r"[\s-]", "", code).upper()
