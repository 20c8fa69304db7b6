"""Running a served workshop: where it listens, its copies, its door, until it is told to stop."""

import gc
import ipaddress
import socket
import sys
import threading
import time
import webbrowser
from dataclasses import dataclass
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Final

from oaken_scale.api.app import create_app
from oaken_scale.api.routes_door import Network
from oaken_scale.serving.addresses import local_addresses
from oaken_scale.serving.certificate import certificate
from oaken_scale.serving.servers import LanServer, serve
from oaken_scale.store.copies import CopyError, roll
from oaken_scale.store.database import DatabaseRefusedError

OPEN_AFTER_S: Final = 0.5
"""So long a server is given before the browser comes [s]."""

LOOK_EVERY_S: Final = 900.0
"""So often a served workshop looks whether a copy of the day is due [s]."""


class CannotError(Exception):
    """What was asked for cannot be done; the message says why."""


@dataclass(frozen=True, slots=True)
class Listening:
    """Where a workshop listens: on this machine, and where there is a door, on ``lan_port`` for
    the local network, under the address that a phone is told."""

    host: str
    port: int
    lan_port: int | None = None
    lan_address: str = ""


def listening_as(
    host: str, port: int, lan: bool, lan_port: int | None, lan_address: str | None
) -> Listening:
    """Where to listen, before anything is laid out: what was said wrong is told before a port that
    something listens on.

    Raises CannotError for a port that something listens on, for an address that is not this
    machine's own, and where there is no network to let anybody in from.
    """
    if not _is_this_machine(host):
        raise CannotError(
            f"--host {host} is not this machine alone: anybody on the network could read and "
            "change everything; give --lan instead, which lets in by a code"
        )
    if not lan:
        if lan_port is not None or lan_address is not None:
            raise CannotError("--lan-port and --lan-address are for --lan; give --lan as well")
        _free_port(host, port)
        return Listening(host, port)
    door = lan_port or port + 1
    if door == port:
        raise CannotError(f"--lan-port {door} is the port of this machine; give another one")
    told = address_told(lan_address)
    _free_port(host, port)
    _free_port("0.0.0.0", door)
    return Listening(host, port, door, told)


def address_told(given: str | None) -> str:
    """The address that a phone is told. Raises CannotError where there is none, or it is none."""
    if given is None:
        found = local_addresses()
        if not found:
            raise CannotError(
                "this machine is on no local network; join one, or give the address that phones "
                "find it under as --lan-address"
            )
        return found[0]
    if not given or len(given) > 253 or not all(each.isalnum() or each in "-." for each in given):
        raise CannotError(f'"{given}" is no address; give one such as 192.168.1.20 or shed.local')
    return given


def run(path: Path, listening: Listening, opens_browser: bool, opens: str = "/") -> int:
    """Serve a workshop until told to stop. Raises CannotError where the door cannot be made."""
    lan, network = None, None
    if listening.lan_port is not None:
        lan, network = _door(path, listening.lan_port, listening.lan_address)
    app = create_app(path, (listening.host,), ("*", listening.lan_address))
    app.state.network = network
    host = f"[{listening.host}]" if ":" in listening.host else listening.host
    address = f"http://{host}:{listening.port}{opens}"
    print(f"Open {address}  (data in {path})", flush=True)
    if network is not None:
        print(
            f"Phones of this network: {network.address}, with a code from the Shed or from "
            f"oaken-scale let-in\nIts certificate, SHA-256: {network.fingerprint}",
            flush=True,
        )
    if opens_browser:
        threading.Timer(OPEN_AFTER_S, webbrowser.open, (address,)).start()
    collect_seldom()
    serve(app, listening.host, listening.port, lan)
    return 0


def _door(database: Path, port: int, address: str) -> tuple[LanServer, Network]:
    folder = database.with_name(f"{database.stem}-door")
    try:
        made = certificate(folder, [address, *local_addresses()], datetime.now(UTC))
    except OSError as error:
        words = f"the certificate cannot be kept in {folder} ({error.strerror})"
        raise CannotError(words) from error
    network = Network(
        f"https://{address}:{port}", made.fingerprint, made.voucher_fingerprint, made.voucher_pem
    )
    return LanServer("0.0.0.0", port, made.shown, made.key), network


def copy_daily(path: Path) -> None:
    """Keep a copy of each day that the workshop was changed on, for as long as it is served."""

    def watch() -> None:
        while True:
            try:
                roll(path, date.today())
            except (CopyError, DatabaseRefusedError) as error:
                print(f"oaken-scale: no copy of today: {error}", file=sys.stderr, flush=True)
            time.sleep(LOOK_EVERY_S)

    threading.Thread(target=watch, name="copies", daemon=True).start()


def collect_seldom() -> None:
    """Have the collector of reference cycles leave what stands for good alone, and look at the
    rest seldom: an answer makes thousands of values and no cycle, and a full sweep in the middle of
    a weigh-in would take a tenth of a second."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 20, 20)


def _is_this_machine(host: str) -> bool:
    if host == "localhost":
        return True
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return False


def _free_port(host: str, port: int) -> None:
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    with socket.socket(family) as tried:
        tried.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            tried.bind((host, port))
        except OSError as error:
            words = f"{host}:{port} cannot be listened on ({error.strerror}); give another port"
            raise CannotError(words) from error
