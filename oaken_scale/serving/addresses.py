"""The addresses under which a phone on the same network finds this machine."""

import ipaddress
import socket
from contextlib import suppress
from typing import Final

TOWARDS: Final = ("192.168.255.254", "10.255.255.254", "172.31.255.254", "169.254.255.254")
"""Towards one of these a machine on a private network would send; nothing is sent."""


def local_addresses() -> list[str]:
    """This machine's own private IPv4 addresses, the likeliest first; none without a network."""
    found: list[str] = []
    for towards in TOWARDS:
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asked:
            try:
                asked.connect((towards, 9))
                found.append(asked.getsockname()[0])
            except OSError:
                continue
    with suppress(OSError):
        found += [str(each[4][0]) for each in socket.getaddrinfo(socket.gethostname(), None)]
    return list(dict.fromkeys(each for each in found if is_local(each)))


def is_local(address: str) -> bool:
    """Whether an address is one of a local network, and not of this machine alone.

    >>> is_local("192.168.1.20"), is_local("127.0.0.1"), is_local("8.8.8.8"), is_local("fe80::1")
    (True, False, False, False)
    """
    try:
        read = ipaddress.ip_address(address)
    except ValueError:
        return False
    return (
        read.version == 4 and read.is_private and not read.is_loopback and not read.is_unspecified
    )
