"""The drawing service: a small WSGI application that runs one call at a time, within bounds of time and memory.

Each of its processes is forked from one that has drawn nothing, and may be lost: a drawing that takes too long or too
much ends its process, whoever asked is told, and gunicorn forks another one.
"""

from __future__ import annotations

import json
import logging
from collections.abc import Callable, Iterable
from typing import Any

from django.conf import settings
from django.db import InterfaceError, OperationalError, close_old_connections
from django.http import Http404
from django.utils.crypto import constant_time_compare, salted_hmac

from fitzle.apps.drawing.calls import CALLS, JSON, Picture
from fitzle.apps.drawing.errors import DrawingFailed, DrawingTooHeavy
from fitzle.apps.files import errors as file_errors
from fitzle.core import errors
from fitzle.core.bounds import bounded_seconds
from fitzle.core.errors import FitzleError

log = logging.getLogger(__name__)
TOKEN_HEADER, KEY_HEADER = "X-Fitzle-Drawing", "X-Fitzle-Key"
_DATABASE = {"OperationalError": OperationalError, "InterfaceError": InterfaceError}  # what goes by itself
_KNOWN: dict[str, Any] = {
    entry.__name__: entry
    for module in (errors, file_errors)
    for entry in vars(module).values()
    if isinstance(entry, type) and issubclass(entry, FitzleError)
} | {"DrawingTooHeavy": DrawingTooHeavy}

Environment = dict[str, Any]
StartResponse = Callable[[str, list[tuple[str, str]]], Any]


def token() -> str:
    """What shows that a question comes from this installation."""
    return salted_hmac("fitzle.drawing", "asks").hexdigest()


def application(environ: Environment, start_response: StartResponse) -> Iterable[bytes]:
    """POST /NAME with the arguments as JSON; 200 with the result, 422 with an error that the caller raises again."""
    if not constant_time_compare(environ.get("HTTP_X_FITZLE_DRAWING", ""), token()):
        return _said(start_response, "403 Forbidden", Picture(b"", "text/plain"))
    call = CALLS.get(environ["PATH_INFO"].lstrip("/"))
    if call is None:
        return _said(start_response, "404 Not Found", Picture(b"", "text/plain"))
    packed = environ["wsgi.input"].read(int(environ.get("CONTENT_LENGTH") or 0))
    close_old_connections()
    try:
        with bounded_seconds(settings.DRAWING_SECONDS):
            found = call.run(packed)
    except MemoryError:
        return _failed(start_response, DrawingTooHeavy())
    except (FitzleError, Http404) as error:
        return _failed(start_response, error)
    except Exception as error:
        log.exception("%s failed", call.name)
        return _failed(start_response, error)
    return _said(start_response, "200 OK", found)


def error_from(told: dict[str, str]) -> Exception:
    """An error that the service told, as the function had raised it."""
    kind, words = told.pop("kind"), told.pop("words")
    if kind in _KNOWN:
        return _KNOWN[kind](told.pop("problem"), **told)  # type: ignore[no-any-return]
    if kind in _DATABASE:
        return _DATABASE[kind](*json.loads(told["told"]))
    return Http404(words) if kind == "Http404" else DrawingFailed(words)


def _failed(start_response: StartResponse, error: Exception) -> Iterable[bytes]:
    if isinstance(error, file_errors.DamagedFileError) and error.remedy:
        error.remedy()
    told = {"kind": type(error).__name__, "words": str(error)}
    if isinstance(error, (OperationalError, InterfaceError)):
        told["told"] = json.dumps([one for one in error.args if isinstance(one, int | str)])
    if isinstance(error, FitzleError):
        told |= {name: getattr(error, name) for name in ("problem", "subject", "expected", "actual", "advice")}
    return _said(start_response, "422 Unprocessable Content", Picture(json.dumps(told).encode(), JSON))


def _said(start_response: StartResponse, status: str, answer: Picture) -> Iterable[bytes]:
    headers = [("Content-Type", answer.media_type), ("Content-Length", str(len(answer.data)))]
    start_response(status, [*headers, (KEY_HEADER, answer.key)])
    return [answer.data]
