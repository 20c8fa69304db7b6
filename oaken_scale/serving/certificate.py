"""A certificate of the workshop's own, for the door to the local network.

Two parts: what the door shows, renewed when it is old or the machine has another address, and what
vouches for it, made once. A phone that keeps the second trusts every later one of the first, and
nothing else: it can vouch for addresses of a local network only.
"""

import ipaddress
import os
import socket
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import Final

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

SHOWN_FOR: Final = timedelta(days=397)
"""Phones take no certificate that holds longer."""

VOUCHES_FOR: Final = timedelta(days=3650)

RENEWED_BEFORE: Final = timedelta(days=30)

LOCAL_NETWORKS: Final = ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16")


@dataclass(frozen=True, slots=True)
class Certificate:
    """What the door shows and its key, as files, with both SHA-256 fingerprints."""

    shown: Path
    key: Path
    fingerprint: str
    voucher_pem: bytes
    voucher_fingerprint: str


def certificate(folder: Path, addresses: Sequence[str], now: datetime) -> Certificate:
    """The workshop's certificate for some ``addresses`` (numbers or names), made or renewed where
    it has to be.

    Its keys can be read by their owner only. Raises OSError where the folder cannot be written.
    """
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    told = _as_names(addresses)
    voucher, voucher_key = _voucher(folder, told, now)
    shown, key = folder / "door.pem", folder / "door.key"
    found = _read(shown)
    if found is None or not key.exists() or not _holds(found, voucher, told, now):
        found = _made_for(told, voucher, voucher_key, key, now)
        _write(shown, _pem(found) + _pem(voucher))
    return Certificate(shown, key, _told(found), _pem(voucher), _told(voucher))


def _as_names(addresses: Sequence[str]) -> list[x509.GeneralName]:
    """Addresses, and the names that this machine has anyway, as a certificate says them."""
    host = socket.gethostname().split(".")[0].lower()
    own = [host, f"{host}.local"] if host.isascii() and host.replace("-", "").isalnum() else []
    names: list[x509.GeneralName] = []
    for each in dict.fromkeys([*addresses, "localhost", *own]):
        try:
            names.append(x509.IPAddress(ipaddress.ip_address(each)))
        except ValueError:
            names.append(x509.DNSName(each.lower()))
    return names


def _permitted(names: Sequence[x509.GeneralName]) -> list[x509.GeneralName]:
    """What may be vouched for: the local networks, ``.local``, and the machine's own names."""
    networks = [ipaddress.ip_network(each) for each in LOCAL_NETWORKS]
    permitted: list[x509.GeneralName] = [x509.IPAddress(each) for each in networks]
    permitted.append(x509.DNSName("local"))
    for each in names:
        if isinstance(each, x509.IPAddress):
            if not any(each.value in network for network in networks):
                permitted.append(x509.IPAddress(ipaddress.ip_network(each.value)))
        elif isinstance(each, x509.DNSName) and not each.value.endswith(".local"):
            permitted.append(each)
    return permitted


def _vouches_for(known: x509.Certificate, names: Sequence[x509.GeneralName]) -> bool:
    told = known.extensions.get_extension_for_class(x509.NameConstraints).value
    return set(_permitted(names)) <= set(told.permitted_subtrees or ())


def _voucher(
    folder: Path, names: Sequence[x509.GeneralName], now: datetime
) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
    path, key_path = folder / "voucher.pem", folder / "voucher.key"
    known = _read(path)
    if known and key_path.exists() and _is_fresh(known, now) and _vouches_for(known, names):
        key = serialization.load_pem_private_key(key_path.read_bytes(), None)
        if isinstance(key, ec.EllipticCurvePrivateKey):
            return known, key
    key = _key(key_path)
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Oaken Scale workshop")])
    made = (
        _begun(name, name, key, now, VOUCHES_FOR)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs=True), critical=True)
        .add_extension(
            x509.NameConstraints(_permitted(names), excluded_subtrees=None),
            critical=True,
        )
        .sign(key, hashes.SHA256())
    )
    _write(path, _pem(made))
    return made, key


def _made_for(
    names: Sequence[x509.GeneralName],
    voucher: x509.Certificate,
    voucher_key: ec.EllipticCurvePrivateKey,
    key_path: Path,
    now: datetime,
) -> x509.Certificate:
    key = _key(key_path)
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Oaken Scale")])
    return (
        _begun(name, voucher.subject, key, now, SHOWN_FOR)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(signs=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.SubjectAlternativeName(names), critical=False)
        .sign(voucher_key, hashes.SHA256())
    )


def _begun(
    name: x509.Name,
    issuer: x509.Name,
    key: ec.EllipticCurvePrivateKey,
    now: datetime,
    lasts: timedelta,
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(issuer)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(now + lasts)
    )


def _usage(signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs,
        key_cert_sign=signs,
        crl_sign=signs,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        encipher_only=False,
        decipher_only=False,
    )


def _holds(
    found: x509.Certificate,
    voucher: x509.Certificate,
    names: Sequence[x509.GeneralName],
    now: datetime,
) -> bool:
    told = set(found.extensions.get_extension_for_class(x509.SubjectAlternativeName).value)
    try:
        found.verify_directly_issued_by(voucher)
    except Exception:  # whatever it says, it is not ours any more
        return False
    return set(names) <= told and _is_fresh(found, now)


def _is_fresh(found: x509.Certificate, now: datetime) -> bool:
    return found.not_valid_before_utc <= now < found.not_valid_after_utc - RENEWED_BEFORE


def _told(found: x509.Certificate) -> str:
    return found.fingerprint(hashes.SHA256()).hex(":").upper()


def _pem(found: x509.Certificate) -> bytes:
    return found.public_bytes(serialization.Encoding.PEM)


def _read(path: Path) -> x509.Certificate | None:
    try:
        return x509.load_pem_x509_certificate(path.read_bytes())
    except (OSError, ValueError):
        return None


def _key(path: Path) -> ec.EllipticCurvePrivateKey:
    key = ec.generate_private_key(ec.SECP256R1())
    _write(
        path,
        key.private_bytes(
            serialization.Encoding.PEM,
            serialization.PrivateFormat.PKCS8,
            serialization.NoEncryption(),
        ),
    )
    return key


def _write(path: Path, data: bytes) -> None:
    """Write a file that only its owner may read, all at once."""
    fresh = path.with_name(f".{path.name}-{os.getpid()}")
    fresh.unlink(missing_ok=True)
    handle = os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
    with os.fdopen(handle, "wb") as file:
        file.write(data)
        file.flush()
        os.fsync(file.fileno())
    os.replace(fresh, path)
