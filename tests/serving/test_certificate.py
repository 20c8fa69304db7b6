"""The certificate of the door, read by another library and by a handshake."""

import socket
import ssl
import threading
from datetime import UTC, datetime, timedelta

import pytest
from cryptography import x509

from oaken_scale.serving.certificate import certificate

NOW = datetime.now(UTC)


def handshake(made, name: str) -> None:
    """A handshake with a server that shows the certificate, checked against its voucher only."""
    served = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    served.load_cert_chain(made.shown, made.key)
    asks = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
    asks.load_verify_locations(cadata=made.voucher_pem.decode())
    here, there = socket.socketpair()

    def answers() -> None:
        try:
            with served.wrap_socket(there, server_side=True) as secured:
                secured.recv(1)
        except OSError:
            pass

    thread = threading.Thread(target=answers)
    thread.start()
    try:
        with asks.wrap_socket(here, server_hostname=name) as secured:
            secured.send(b"x")
    finally:
        here.close()
        thread.join(5)


@pytest.mark.parametrize("name", ["192.168.1.20", "localhost", "203.0.113.7", "shed.lan"])
def test_a_phone_that_keeps_the_voucher_trusts_the_door(tmp_path, name):
    made = certificate(tmp_path, ["192.168.1.20", "203.0.113.7", "shed.lan"], NOW)
    handshake(made, name)


def test_it_stands_for_no_other_address(tmp_path):
    made = certificate(tmp_path, ["192.168.1.20"], NOW)
    for name in ("192.168.1.21", "elsewhere.example"):
        with pytest.raises(ssl.SSLCertVerificationError):
            handshake(made, name)


def test_the_voucher_can_vouch_for_the_local_network_only(tmp_path):
    made = certificate(tmp_path, ["192.168.1.20"], NOW)
    voucher = x509.load_pem_x509_certificate(made.voucher_pem)
    told = voucher.extensions.get_extension_for_class(x509.NameConstraints)
    assert told.critical
    names = [each.value for each in told.value.permitted_subtrees]
    assert "local" in names
    assert not any(getattr(each, "is_global", False) for each in names)
    basic = voucher.extensions.get_extension_for_class(x509.BasicConstraints).value
    assert (basic.ca, basic.path_length) == (True, 0)


def test_it_is_kept_and_renewed_when_it_has_to_be(tmp_path):
    first = certificate(tmp_path, ["192.168.1.20"], NOW)
    assert certificate(tmp_path, ["192.168.1.20"], NOW + timedelta(days=300)) == first
    moved = certificate(tmp_path, ["10.0.0.4"], NOW)
    assert moved.fingerprint != first.fingerprint
    assert moved.voucher_fingerprint == first.voucher_fingerprint
    old = certificate(tmp_path, ["10.0.0.4"], NOW + timedelta(days=380))
    assert old.fingerprint != moved.fingerprint
    assert old.voucher_fingerprint == first.voucher_fingerprint
    back = certificate(tmp_path, ["10.0.0.4"], NOW - timedelta(days=30))
    assert back.voucher_fingerprint != first.voucher_fingerprint


def test_its_keys_are_its_owners_and_a_spoilt_file_is_made_anew(tmp_path):
    first = certificate(tmp_path / "door", ["10.0.0.4"], NOW)
    for key in (tmp_path / "door").glob("*.key"):
        assert key.stat().st_mode & 0o077 == 0
    first.shown.write_text("spoilt")
    second = certificate(tmp_path / "door", ["10.0.0.4"], NOW)
    assert second.fingerprint != first.fingerprint
    handshake(second, "10.0.0.4")
