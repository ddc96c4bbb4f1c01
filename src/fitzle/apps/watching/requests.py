"""One line for each request, and its time among the figures."""

from __future__ import annotations

import logging
import time
import uuid
from collections.abc import Callable

from django.http import HttpRequest
from django.http.response import HttpResponseBase

from fitzle.apps.watching import context
from fitzle.apps.watching.metrics import count_request

log = logging.getLogger("fitzle.access")
QUIET = ("/health/", "/metrics")  # machines ask these all the time


class WatchingMiddleware:
    """Stands outermost: whatever happens inside is timed, counted and noted, without a word of what anybody typed."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        began = time.monotonic()
        context.begin(request=request.headers.get("X-Request-ID", "")[:40] or uuid.uuid4().hex)
        answer = self.get_response(request)
        seconds = time.monotonic() - began
        user = getattr(request, "user", None)
        context.note(person=user.pk if user is not None and user.is_authenticated else None)
        route = request.resolver_match.route if request.resolver_match else "none"
        count_request(request.method or "", route, answer.status_code, seconds)
        if not request.path.startswith(QUIET):
            more = {"method": request.method, "path": request.path[:300], "status": answer.status_code}
            log.info("request", extra={**more, "ms": round(1000 * seconds)})
        return answer
