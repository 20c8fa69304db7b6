"""Codes that let a device in once, and the devices that were let in."""

import sqlite3
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from oaken_scale.store.rows import stamp


class DeviceRole(StrEnum):
    """What a device may do: look, or look and change."""

    READER = "reader"
    WRITER = "writer"


@dataclass(frozen=True, slots=True)
class Device:
    """A device that was let in from the local network."""

    id: str
    name: str
    role: DeviceRole
    let_in_at: datetime
    last_seen_at: datetime


def write_code(
    connection: sqlite3.Connection, digest: str, role: DeviceRole, made: datetime, expires: datetime
) -> None:
    """Keep a code that nobody used yet; those that ran out are let go of."""
    connection.execute("DELETE FROM door_code WHERE expires_at <= ?", (stamp(made),))
    connection.execute(
        "INSERT INTO door_code (digest, role, made_at, expires_at) VALUES (?, ?, ?, ?)",
        (digest, role, stamp(made), stamp(expires)),
    )


def take_code(connection: sqlite3.Connection, digest: str, now: datetime) -> DeviceRole | None:
    """Use a code up; what it lets in as, None where there is no such code or it does not hold: it
    ran out, or was made at a time that is still to come."""
    row = connection.execute(
        "DELETE FROM door_code WHERE digest = ? AND made_at <= ? AND expires_at > ? RETURNING role",
        (digest, stamp(now), stamp(now)),
    ).fetchone()
    return None if row is None else DeviceRole(row[0])


def write_device(connection: sqlite3.Connection, device: Device, digest: str) -> None:
    """Keep a device that was let in."""
    connection.execute(
        "INSERT INTO door_device (id, name, role, digest, let_in_at, last_seen_at)"
        " VALUES (?, ?, ?, ?, ?, ?)",
        (
            device.id,
            device.name,
            device.role,
            digest,
            stamp(device.let_in_at),
            stamp(device.last_seen_at),
        ),
    )


def read_devices(connection: sqlite3.Connection) -> dict[str, Device]:
    """The devices that are let in, by their digest, in the order they came."""
    rows = connection.execute(
        "SELECT digest, id, name, role, let_in_at, last_seen_at FROM door_device"
        " ORDER BY let_in_at, id"
    )
    return {
        digest: Device(
            id, name, DeviceRole(role), datetime.fromisoformat(came), datetime.fromisoformat(seen)
        )
        for digest, id, name, role, came, seen in rows
    }


def write_seen(connection: sqlite3.Connection, device_id: str, at: datetime) -> None:
    """Keep when a device was seen last."""
    connection.execute(
        "UPDATE door_device SET last_seen_at = ? WHERE id = ?", (stamp(at), device_id)
    )


def shut_out(connection: sqlite3.Connection, device_id: str) -> bool:
    """Let a device in no more; whether there was one."""
    return connection.execute("DELETE FROM door_device WHERE id = ?", (device_id,)).rowcount > 0
