"""Addresses on the web that may be asked for a file: http or https, and only machines that anybody can reach."""

from __future__ import annotations

import ipaddress
from typing import NamedTuple
from urllib.parse import unquote, urljoin, urlsplit

from fitzle.core.errors import ArtworkError

LONGEST_ADDRESS = 2000
LONGEST_NAME = 120
PORTS = {"http": 80, "https": 443}
# Ranges in which another address is packed, which decides (RFC 6052, RFC 3056 and RFC 4380 for the last two).
_NAT64 = ipaddress.ip_network("64:ff9b::/96")
# All of IPv6 that is given out (IANA, IPv6 Global Unicast Address Assignments), and ranges of IANA's special-purpose
# registries that Python's own list does not hold, or not in every version.
_UNICAST = ipaddress.ip_network("2000::/3")
_SPECIAL_V4 = ("192.0.0.0/24", "192.88.99.0/24")
_SPECIAL_V6 = ("2001:2::/48", "2001:10::/28", "2001:20::/28", "2001:db8::/32", "3fff::/20")
_SPECIAL = tuple(ipaddress.ip_network(text) for text in (*_SPECIAL_V4, *_SPECIAL_V6))


class WebAddress(NamedTuple):
    """An address taken apart; `target` is its path with its query."""

    scheme: str
    host: str
    port: int
    target: str

    @property
    def text(self) -> str:
        """The address in one piece."""
        port = "" if self.port == PORTS[self.scheme] else f":{self.port}"
        host = f"[{self.host}]" if ":" in self.host else self.host
        return f"{self.scheme}://{host}{port}{self.target}"


def web_address(text: str) -> WebAddress:
    """An address as a person gives it; without a scheme it is taken for https. Raises ArtworkError in words."""
    given = text.strip()
    if len(given) > LONGEST_ADDRESS or not given or any(char <= " " for char in given):
        raise _unusable(given, "it is empty, too long or has spaces in it")
    try:
        parts = urlsplit(given if "://" in given else f"https://{given}")
        port = parts.port or PORTS.get(parts.scheme, 0)
        host = parts.hostname or ""
        host = host if ":" in host else host.encode("idna").decode().lower()
    except (ValueError, UnicodeError) as error:
        raise _unusable(given, "it is not an address") from error
    if parts.scheme not in PORTS:
        raise _unusable(given, f"it begins with {parts.scheme}:, not with https:")
    if parts.username or parts.password:
        raise _unusable(given, "it has a name or password in it")
    if not host or ("." not in host and ":" not in host):
        raise _unusable(given, "it names no machine on the web")
    target = parts.path or "/"
    return WebAddress(parts.scheme, host, port, f"{target}?{parts.query}" if parts.query else target)


def redirected(address: WebAddress, location: str) -> WebAddress:
    """Where an answer sends on to; raises ArtworkError."""
    return web_address(urljoin(address.text, location))


def file_name_of(address: WebAddress) -> str:
    """A name for the file behind an address: the last part of its path, else the name of the machine."""
    last = unquote(address.target.partition("?")[0].rstrip("/").rpartition("/")[2])
    plain = "".join(char for char in last if char.isprintable() and char not in '\\/:*?"<>|').strip(" .")
    return plain[-LONGEST_NAME:] or address.host


def is_public(number: str) -> bool:
    """Whether an IP address is one that anybody on the internet can reach: no private, loopback or link-local one.

    An address packed into another (IPv4-mapped, 6to4, Teredo, NAT64) counts as the one that is packed.
    """
    try:
        found = ipaddress.ip_address(number.partition("%")[0])
    except ValueError:
        return False
    if isinstance(found, ipaddress.IPv6Address):
        packed = [found.ipv4_mapped, found.sixtofour, *(found.teredo or ())]
        if found in _NAT64:
            packed.append(ipaddress.IPv4Address(int(found) & 0xFFFFFFFF))
        if any(inner is not None and not _is_global(inner) for inner in packed):
            return False
        if found.ipv4_mapped:
            return True
    return _is_global(found)


def _is_global(address: ipaddress.IPv4Address | ipaddress.IPv6Address) -> bool:
    if any(address in special for special in _SPECIAL if special.version == address.version):
        return False
    if isinstance(address, ipaddress.IPv6Address) and address not in _UNICAST and address not in _NAT64:
        return False
    return (address.is_global or address in _NAT64) and not address.is_multicast and not address.is_reserved


def _unusable(given: str, why: str) -> ArtworkError:
    return ArtworkError(
        f"this address cannot be used: {why}",
        subject=given[:80],
        advice="Copy the address of the picture itself; it begins with https://.",
    )
