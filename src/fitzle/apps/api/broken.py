"""What Django asks for where nothing else took an error, as in sessions: the words of the API, as a page for people."""

from __future__ import annotations

import json
import sys
from html import escape

from django.http import HttpRequest, HttpResponse

from fitzle.apps.api.plain_errors import answer_for

AGAIN_AFTER_SECONDS = 5
POLICY = "default-src 'none'; style-src 'unsafe-inline'"
PAGE = """<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Fitzle</title>
<meta http-equiv="refresh" content="{seconds}">
<style>
:root {{ color-scheme: light dark; font: 16px/1.5 system-ui, sans-serif }}
main {{ max-width: 34em; margin: 20vh auto; padding: 0 24px }}
</style>
</head>
<body><main><h1>Fitzle</h1><p>{words}</p><p>This page looks again by itself.</p></main></body>
</html>
"""


def broken(request: HttpRequest) -> HttpResponse:
    """An answer in words for the error that is being handled: JSON below /api/, elsewhere a page that loads again."""
    error = sys.exc_info()[1]
    answer = answer_for(error if isinstance(error, Exception) else RuntimeError("nobody knows"))
    if request.path.startswith("/api/"):
        return answer
    words = escape(json.loads(answer.content)["message"])
    page = HttpResponse(PAGE.format(words=words, seconds=AGAIN_AFTER_SECONDS), status=answer.status_code)
    page["Content-Security-Policy"] = POLICY
    page["Cache-Control"] = "no-store"
    return page
