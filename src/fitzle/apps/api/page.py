"""The single page; everything that it shows comes from the API."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from django.shortcuts import render
from django.template import TemplateDoesNotExist


def page(request: HttpRequest) -> HttpResponse:
    """The page with its nonce, and the CSRF cookie that the API wants back."""
    get_token(request)
    try:
        answer = render(request, "index.html")
    except TemplateDoesNotExist:
        return HttpResponse("The pages are not built yet. Run ./start --setup.", status=503, content_type="text/plain")
    answer["Cache-Control"] = "no-cache"
    return answer
