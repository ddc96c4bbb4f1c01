"""Whatever goes wrong below /api/ is answered in JSON, in words: what Django refuses, and our own faults too."""

from __future__ import annotations

import logging
from collections.abc import Callable

from django.core.exceptions import RequestDataTooBig, TooManyFieldsSent, TooManyFilesSent
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse

from fitzle.apps.files.errors import StorageFullError, is_full

log = logging.getLogger(__name__)
AWAY = "Fitzle's database does not answer. Nothing was lost that was saved; try again in a moment."
OUR_FAULT = "Something went wrong on our side. It is noted; try again, and tell who runs Fitzle if it stays so."
# MariaDB: too many connections, lock wait timeout, deadlock, shutting down; the client: no or a lost connection.
DATABASE_AWAY = (1040, 1205, 1213, 1053, 2002, 2003, 2006, 2013, 2026, 2055)
DATABASE_FULL = (1021, 1114)  # MariaDB: ER_DISK_FULL, ER_RECORD_FILE_FULL
WORDS = {400: "This request cannot be used.", 403: "You may not do that.", 404: "There is nothing here."}


class PlainErrorsMiddleware:
    """Stands around everything else, so that pages can show what came back."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        answer = self.get_response(request)
        html = answer.headers.get("Content-Type", "").startswith("text/html")
        if answer.status_code < 400 or not html or not request.path.startswith("/api/"):
            return answer
        return _plain(WORDS.get(answer.status_code, OUR_FAULT), answer.status_code)

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """What no handler of the API took."""
        return answer_for(error) if request.path.startswith("/api/") else None


def answer_for(error: Exception) -> HttpResponse:
    """An answer in words for an error that nobody expected."""
    if isinstance(error, TooManyFilesSent):
        return _plain("These are too many files at a time. Bring them in a few at a time.", 413)
    if isinstance(error, RequestDataTooBig | TooManyFieldsSent):
        return _plain("This request is too large.", 413)
    if _says_full(error):
        return _plain(StorageFullError().message, 507)
    if isinstance(error, InterfaceError) or (isinstance(error, OperationalError) and _code(error) in DATABASE_AWAY):
        log.warning("the database is away: %s", error)
        return _plain(AWAY, 503)
    log.exception("a request failed", exc_info=error)
    return _plain(OUR_FAULT, 500)


def _code(error: OperationalError) -> int | None:
    return error.args[0] if error.args else None


def _says_full(error: Exception) -> bool:
    """Whether a disk is full: the one for files that are on their way, or the database's."""
    if isinstance(error, OperationalError):
        return _code(error) in DATABASE_FULL
    return isinstance(error, OSError) and is_full(error)


def _plain(message: str, status: int) -> HttpResponse:
    return JsonResponse({"message": message}, status=status)
