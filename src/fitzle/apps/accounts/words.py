"""What django-allauth answers, made to look like the rest of the API: refusals have a `message` in words."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse

BELOW = "/api/account/"
WORDS = {
    400: "This request cannot be used.",
    401: "Please sign in.",
    403: "You may not do that.",
    404: "There is nothing here.",
    409: "That cannot be done now. Load the page again.",
    410: "This link was used already, or is too old. Ask for another one.",
    429: "Too many tries. Wait a little and try again.",
}
FIELDS = {"email": "Mail address", "password": "Password", "new_password": "New password", "code": "Code"}


class AccountWordsMiddleware:
    """Adds a message to each refusal below /api/account/, and refuses letters that cannot be kept."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if not request.path.startswith(BELOW):
            return self.get_response(request)
        if not _can_be_kept(request.body):
            return JsonResponse({"message": WORDS[400]}, status=400)
        answer = self.get_response(request)
        if answer.status_code >= 400:
            _say(answer)
        return answer


def _can_be_kept(body: bytes) -> bool:
    """Whether no text in a body has letters that no database keeps: NUL, and halves of letters."""
    if not body:
        return True
    try:
        text = json.dumps(json.loads(body), ensure_ascii=False)
        return "\\u0000" not in text and text.encode() is not None
    except (ValueError, RecursionError):
        return False


def _say(answer: HttpResponse) -> None:
    try:
        told: Any = json.loads(answer.content or b"{}")
    except ValueError:
        told = {}
    if not isinstance(told, dict) or "message" in told:
        return
    told["message"] = _first_words(told.get("errors")) or WORDS.get(answer.status_code, WORDS[400])
    answer.content = json.dumps(told).encode()
    answer["Content-Type"] = "application/json"


def _first_words(errors: Any) -> str:
    if not errors:
        return ""
    first = errors[0]
    if first.get("code") == "required":
        return f"{FIELDS.get(first.get('param', ''), 'Something')} is missing."
    return str(first.get("message", ""))
