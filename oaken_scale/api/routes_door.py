"""The door to the local network: codes shown on the bench, the devices that came with one."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Final

import segno
from fastapi import APIRouter, Request, Response
from pydantic import Field, TypeAdapter

from oaken_scale.api.door import FROM_NETWORK
from oaken_scale.api.lan_door import COOKIE
from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import Named, Shop
from oaken_scale.core.model import declared
from oaken_scale.formats import fields
from oaken_scale.store.door import Device, DeviceRole

router = APIRouter(prefix="/api/v1/door", tags=["door"])

YEAR_S: Final = 365 * 24 * 3600


@dataclass(frozen=True, slots=True)
class Network:
    """How the workshop is reached from the local network: where, and how the certificate is known.

    ``address`` is one that a phone can open. Both fingerprints are SHA-256: of what the door shows,
    and of what vouches for it, which a phone may keep.
    """

    address: str
    fingerprint: str
    voucher_fingerprint: str
    voucher_pem: bytes


@dataclass(frozen=True, slots=True)
class DoorState:
    """Who asks: on this machine (``here``), or a device with its name and role. ``address`` and the
    fingerprints are told where the door to the network is open."""

    here: bool
    name: str | None
    role: DeviceRole | None
    address: str | None
    fingerprint: str | None
    voucher_fingerprint: str | None


@dataclass(frozen=True, slots=True)
class CodeShown:
    """A code as the bench shows it: where it leads, and the picture of that as a data address."""

    code: str
    role: DeviceRole
    expires_at: datetime
    address: str
    picture: str


DEVICES: Final = TypeAdapter(list[Device])


class NewCode(fields.Edge):
    """What a code lets in as."""

    role: DeviceRole


class ComingIn(fields.Edge):
    """A code, and what the device is called in the list."""

    code: Annotated[str, Field(min_length=1, max_length=40)]
    name: declared.Name


def _network(request: Request) -> Network | None:
    found: Network | None = request.app.state.network
    return found


@router.get("", response_model=DoorState)
def state(request: Request) -> DoorState:
    """Whether this is the workshop's own machine, or who was let in."""
    network = _network(request)
    here = FROM_NETWORK not in request.scope
    device: Device | None = request.scope.get(FROM_NETWORK)
    tells = network if here or device is not None else None
    return DoorState(
        here,
        device.name if device else None,
        device.role if device else None,
        tells.address if tells else None,
        tells.fingerprint if tells else None,
        tells.voucher_fingerprint if tells else None,
    )


@router.post("/codes", response_model=CodeShown, status_code=201, responses=documented(409))
def show_a_code(new: NewCode, request: Request, shop: Shop) -> CodeShown:
    """Make a code that lets one device in, within ten minutes, and a picture of it to scan."""
    network = _network(request)
    if network is None:
        raise ProblemError(
            409,
            "The door is shut",
            "this workshop answers to this machine only; start it with --lan to let a phone in",
        )
    made = shop.door.invite(new.role)
    address = f"{network.address}/let-in#{made.code}"
    picture = segno.make(address, error="m").svg_data_uri(border=4, light="#fff", dark="#000")
    return CodeShown(made.code, made.role, made.expires_at, address, picture)


@router.get("/devices", response_model=list[Device])
def devices(shop: Shop) -> Sequence[Device]:
    """The devices that are let in, in the order they came."""
    return shop.door.devices()


@router.delete("/devices/{device_id}", status_code=204, responses=documented(404))
def shut_out(device_id: Named, shop: Shop) -> Response:
    """Shut a device out, at once."""
    shop.door.shut_out(device_id)
    return Response(status_code=204)


@router.post("/entry", response_model=Device, status_code=201, responses=documented(409, 429))
def come_in(entry: ComingIn, request: Request, response: Response, shop: Shop) -> Device:
    """Come in with a code: this device is known from now on, until it is shut out."""
    if FROM_NETWORK not in request.scope:
        words = "this is the machine that the workshop runs on; it needs no code"
        raise ProblemError(409, "You are in", words)
    device, secret = shop.door.let_in(entry.code, entry.name)
    response.set_cookie(
        COOKIE, secret, max_age=YEAR_S, path="/", secure=True, httponly=True, samesite="strict"
    )
    return device


CERTIFICATE: Final[dict[int | str, dict[str, Any]]] = {
    200: {"content": {"application/x-x509-ca-cert": {}}, "description": "The certificate"}
}


@router.get(
    "/certificate.crt", response_class=Response, responses={**documented(404), **CERTIFICATE}
)
def certificate(request: Request) -> Response:
    """What vouches for the workshop's certificate: with it a phone may keep the pages."""
    network = _network(request)
    if network is None:
        raise ProblemError(404, "The door is shut", "this workshop answers to this machine only")
    return Response(
        network.voucher_pem,
        media_type="application/x-x509-ca-cert",
        headers={"Content-Disposition": 'attachment; filename="oaken-scale.crt"'},
    )
