"""Asks the drawing service: equal questions once, few at a time, and never again for what just proved too heavy."""

from __future__ import annotations

import hashlib
import http.client
import json
import socket
import time
from collections.abc import Mapping
from concurrent.futures import Future
from threading import BoundedSemaphore, Lock
from typing import Any, NamedTuple

from django.conf import settings
from django.core.cache import cache

from fitzle.apps.drawing.calls import Picture
from fitzle.apps.drawing.errors import DrawingBusy, DrawingFailed, DrawingTooHeavy
from fitzle.apps.drawing.service import KEY_HEADER, TOKEN_HEADER, error_from, token
from fitzle.apps.watching.metrics import count_drawing

WAITS_SECONDS = 2.0  # for a place among those that are drawn for, or for a service that is starting
PAUSE_SECONDS = 0.1
REMEMBERED_SECONDS = 600
TIME_WAS_UP = 0.9  # of the seconds for one drawing: a process that ended sooner may have been ended by something else
ANSWERS_WITHIN = 3.0  # seconds beyond what one drawing may take

_places = BoundedSemaphore(settings.DRAWING_AT_ONCE)
_running: dict[str, Future[Picture]] = {}
_lock = Lock()


class _Died(Exception):
    """The process that was drawing has ended without an answer."""


def asked(name: str, state: str, arguments: dict[str, Any]) -> Picture:
    """The result of a call, as `Call.run` gives it."""
    heavy, width = _Heavy.of(name, state, arguments), arguments.get("width") or 0
    if heavy.is_known(width):
        raise DrawingTooHeavy
    key = f"{heavy.key}/{width}"
    with _lock:
        running = _running.get(key)
        own = running is None
        future: Future[Picture] = running or Future()
        _running[key] = future
    if not own:
        return future.result()
    try:
        future.set_result(_in_turn(name, json.dumps(arguments).encode()))
        count_drawing("drawn")
    except _Died:
        count_drawing("too heavy")
        heavy.remember(width)
        future.set_exception(DrawingTooHeavy())
    except DrawingBusy as error:
        count_drawing("no place")
        future.set_exception(error)
    except BaseException as error:  # whoever waits for the same must not wait for ever
        future.set_exception(error)
    finally:
        with _lock:
            del _running[key]
    return future.result()


class _Heavy(NamedTuple):
    """What is remembered of a call that proved too heavy: the least width at which it did."""

    key: str

    @classmethod
    def of(cls, name: str, state: str, arguments: dict[str, Any]) -> _Heavy:
        """Of a call with these arguments, whatever its width."""
        others = {key: value for key, value in arguments.items() if key != "width"}
        said = json.dumps([name, state, others], sort_keys=True)
        return cls(f"drawing/too-heavy/{hashlib.sha256(said.encode()).hexdigest()}")

    def is_known(self, width: int) -> bool:
        """Whether it was too heavy at this width or a smaller one."""
        least = cache.get(self.key)
        return least is not None and width >= least

    def remember(self, width: int) -> None:
        """Keeps the width for a while."""
        least = cache.get(self.key)
        cache.set(self.key, width if least is None else min(width, least), REMEMBERED_SECONDS)


def _in_turn(name: str, packed: bytes) -> Picture:
    if not _places.acquire(timeout=WAITS_SECONDS):
        raise DrawingBusy
    try:
        return _patiently(name, packed)
    finally:
        _places.release()


def _patiently(name: str, packed: bytes) -> Picture:
    """Waits a little where the service is just starting, and asks a second time where a process died early."""
    until = time.monotonic() + WAITS_SECONDS
    deaths = 0
    while True:
        began = time.monotonic()
        try:
            return _answer(name, packed)
        except (ConnectionRefusedError, FileNotFoundError) as error:
            if time.monotonic() > until:
                raise DrawingBusy from error
        except _Died:
            deaths += is_there()
            if deaths > 1 or time.monotonic() - began > TIME_WAS_UP * settings.DRAWING_SECONDS:
                raise
            if time.monotonic() > until and not deaths:
                raise DrawingBusy from None
        time.sleep(PAUSE_SECONDS)


def is_there() -> bool:
    """Whether the service itself lives: one of its processes ended alone, then."""
    connection = _connection()
    try:
        connection.connect()
    except OSError:
        return False
    finally:
        connection.close()
    return True


def _answer(name: str, packed: bytes) -> Picture:
    came = answer_of_the_service(name, packed)
    if came.status == http.client.OK:
        return Picture(came.body, came.headers["Content-Type"], came.headers.get(KEY_HEADER, ""))
    if came.status == http.client.UNPROCESSABLE_ENTITY:
        raise error_from(json.loads(came.body))
    raise DrawingFailed(f"the drawing service answered {came.status} to {name}")


class Came(NamedTuple):
    """An answer over HTTP."""

    status: int
    headers: Mapping[str, str]
    body: bytes


def answer_of_the_service(name: str, packed: bytes) -> Came:
    """Asks for one call over a connection of its own."""
    connection = _connection()
    try:
        connection.request("POST", f"/{name}", packed, {TOKEN_HEADER: token()})
        came = connection.getresponse()
        return Came(came.status, dict(came.headers), came.read())
    except (ConnectionRefusedError, FileNotFoundError):
        raise
    except TimeoutError as error:  # it waited behind others
        raise DrawingBusy from error
    except (OSError, http.client.HTTPException) as error:
        raise _Died from error
    finally:
        connection.close()


def _connection() -> http.client.HTTPConnection:
    """A connection to FITZLE_DRAWING: `unix:/a/socket`, or `host:port`."""
    place, within = settings.DRAWING, settings.DRAWING_SECONDS + ANSWERS_WITHIN
    if place.startswith("unix:"):
        return _UnixConnection(place[5:], within)
    return http.client.HTTPConnection(place, timeout=within)


class _UnixConnection(http.client.HTTPConnection):
    def __init__(self, path: str, within: float) -> None:
        super().__init__("drawing", timeout=within)
        self._path, self._within = path, within

    def connect(self) -> None:
        """Connects to the socket of that path."""
        self.sock = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
        self.sock.settimeout(self._within)
        self.sock.connect(self._path)
