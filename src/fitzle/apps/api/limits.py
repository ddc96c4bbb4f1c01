"""Refuses bodies that are too large before a byte of them is read."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse, JsonResponse

from fitzle.core.units import words_for_bytes

FORM_OVERHEAD_BYTES = 100_000


class BodyLimitMiddleware:
    """Answers 413 where the stated length is above what one upload may have."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        largest = max(settings.UPLOAD_LIMIT_BYTES, settings.UPLOAD_LIMIT_CLIP_BYTES)
        most = largest + FORM_OVERHEAD_BYTES
        try:
            stated = int(request.META.get("CONTENT_LENGTH") or 0)
        except ValueError:
            stated = 0
        if stated > most:
            words = words_for_bytes(largest)
            return JsonResponse({"message": f"This is too heavy: at most {words} are taken at a time."}, status=413)
        return self.get_response(request)
