"""A file fetched from the web: every address checked, every hop, and the connection held to what was checked."""

from __future__ import annotations

import socket
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import suppress
from typing import Any, NamedTuple

import urllib3
from django.conf import settings
from urllib3.exceptions import HTTPError
from urllib3.response import BaseHTTPResponse

from fitzle.apps.artwork.web_address import WebAddress, is_public, redirected, web_address
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.units import words_for_bytes

MOST_HOPS = 5
CONNECT_SECONDS, READ_SECONDS, WHOLE_SECONDS = 5.0, 8.0, 18.0  # the rest of the task's 25 s is for reading the file
CHUNK_BYTES = 65_536
HEADERS = {"User-Agent": "Fitzle", "Accept": "image/*,video/*,application/pdf", "Accept-Encoding": "identity"}
REDIRECTS = (301, 302, 303, 307, 308)
Resolver = Callable[[str, int], list[str]]


class Guard(NamedTuple):
    """How names become numbers, and which numbers may be asked; tests put their own in."""

    resolve: Resolver
    allowed: Callable[[str], bool] = is_public
    ports: frozenset[int] | None = None  # any
    whole_seconds: float = WHOLE_SECONDS


def system_numbers(host: str, port: int) -> list[str]:
    """The IP addresses of a host as the system resolves it; raises OSError."""
    return [str(entry[4][0]) for entry in socket.getaddrinfo(host, port, type=socket.SOCK_STREAM)]


WEB = Guard(system_numbers, ports=frozenset(settings.WEB_PORTS))


class Deadline:
    """Ends connections at a moment, whatever they are doing: a head that drips in would hold a worker for ever."""

    def __init__(self, seconds: float, subject: str) -> None:
        self._until, self._subject = time.monotonic() + seconds, subject
        self._timers: list[threading.Timer] = []
        self.seconds = seconds

    def watch(self, connection: socket.socket) -> None:
        """Has a connection ended in time."""
        timer = threading.Timer(max(0.0, self._until - time.monotonic()), _shut, [connection])
        timer.daemon = True
        timer.start()
        self._timers.append(timer)

    def check(self) -> None:
        """Raises LimitError where the time is over."""
        if time.monotonic() >= self._until:
            raise LimitError(
                f"this took longer than {self.seconds:g} seconds", subject=self._subject,
                advice="Save the picture, then drop it here.",
            )  # fmt: skip

    def end(self) -> None:
        """Nothing is watched any more."""
        for timer in self._timers:
            timer.cancel()


def _shut(connection: socket.socket) -> None:
    with suppress(OSError):
        connection.shutdown(socket.SHUT_RDWR)


def _watched(pool: urllib3.HTTPConnectionPool, deadline: Deadline) -> urllib3.HTTPConnectionPool:
    """A pool whose connections end with the deadline, from their first byte on."""
    usual = pool.ConnectionCls

    class Watched(usual):  # type: ignore[misc, valid-type]
        def _new_conn(self) -> socket.socket:
            connection: socket.socket = super()._new_conn()
            deadline.watch(connection)
            return connection

    pool.ConnectionCls = Watched
    return pool


def fetched(text: str, most_bytes: int, guard: Guard = WEB) -> Iterator[bytes]:
    """The bytes of the file at an address, piece by piece.

    Raises ArtworkError (no such machine, not on the public web, not found, a page instead of a file) or LimitError
    (too heavy, too slow).
    """
    address = web_address(text)
    deadline = Deadline(guard.whole_seconds, address.host)
    try:
        yield from _followed(address, most_bytes, guard, deadline)
    finally:
        deadline.end()


def _followed(address: WebAddress, most_bytes: int, guard: Guard, deadline: Deadline) -> Iterator[bytes]:
    for _ in range(MOST_HOPS):
        answer = _asked(address, guard, deadline)
        try:
            if answer.status not in REDIRECTS:
                _check(answer, address, most_bytes)
                yield from _pieces(answer, address, most_bytes, deadline)
                return
            address = redirected(address, answer.headers.get("Location", ""))
        finally:
            answer.close()
    raise ArtworkError("this address sends on and on", subject=address.host, advice="Save the picture, then drop it.")


def _asked(address: WebAddress, guard: Guard, deadline: Deadline) -> BaseHTTPResponse:
    """The answer's head. The connection goes to a number that was checked, never to the name again."""
    number = _checked_number(address, guard)
    options: dict[str, Any] = {"timeout": urllib3.Timeout(connect=CONNECT_SECONDS, read=READ_SECONDS), "retries": False}
    if address.scheme == "https":
        pool: urllib3.HTTPConnectionPool = urllib3.HTTPSConnectionPool(
            number, address.port, server_hostname=address.host, assert_hostname=address.host, cert_reqs="REQUIRED"
        )
    else:
        pool = urllib3.HTTPConnectionPool(number, address.port)
    host = address.host if address.port in (80, 443) else f"{address.host}:{address.port}"
    try:
        return _watched(pool, deadline).urlopen(
            "GET", address.target, headers={**HEADERS, "Host": host}, redirect=False, preload_content=False, **options
        )
    except HTTPError as error:
        deadline.check()
        raise _no_answer(address) from error


def _checked_number(address: WebAddress, guard: Guard) -> str:
    try:
        numbers = guard.resolve(address.host, address.port)
    except (OSError, UnicodeError) as error:
        raise ArtworkError(
            "there is no such machine on the web", subject=address.host, advice="Check the address."
        ) from error
    if not numbers or not all(guard.allowed(number) for number in numbers):
        raise ArtworkError(
            "this address is not on the public web", subject=address.host, advice="Save the picture, then drop it here."
        )
    if guard.ports is not None and address.port not in guard.ports:
        raise ArtworkError(
            f"port {address.port} is not asked for pictures",
            subject=address.host,
            advice="Save the picture, then drop it here.",
        )
    return numbers[0]


def _check(answer: BaseHTTPResponse, address: WebAddress, most_bytes: int) -> None:
    if answer.status != 200:
        what = "there is nothing at this address" if answer.status in (404, 410) else "the picture is not given out"
        raise ArtworkError(
            f"{what} ({answer.status})", subject=address.host, advice="Open it in a browser, save it, and drop it here."
        )
    if answer.headers.get("Content-Type", "").lower().startswith(("text/html", "application/xhtml")):
        raise ArtworkError(
            "this is the address of a page, not of a picture",
            subject=address.host,
            advice="Copy the address of the picture itself.",
        )
    stated = answer.headers.get("Content-Length", "")
    if stated.isdigit() and int(stated) > most_bytes:
        raise _too_heavy(address, most_bytes)


def _pieces(answer: BaseHTTPResponse, address: WebAddress, most_bytes: int, deadline: Deadline) -> Iterator[bytes]:
    count = 0
    try:
        while piece := answer.read1(CHUNK_BYTES, decode_content=False):
            count += len(piece)
            if count > most_bytes:
                raise _too_heavy(address, most_bytes)
            deadline.check()
            yield piece
        deadline.check()  # a connection that was ended may look like a file that ended
    except HTTPError as error:
        deadline.check()
        raise _no_answer(address) from error


def _no_answer(address: WebAddress) -> ArtworkError:
    return ArtworkError(
        "this machine does not answer, or not safely", subject=address.host, advice="Try again, or drop the file here."
    )


def _too_heavy(address: WebAddress, most_bytes: int) -> LimitError:
    return LimitError(
        "the file is too heavy", subject=address.host, advice=f"At most {words_for_bytes(most_bytes)} are taken."
    )
