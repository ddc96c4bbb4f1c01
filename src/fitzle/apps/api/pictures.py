"""Pictures and files over HTTP, with safe headers."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from urllib.parse import quote

from django.core.cache import cache
from django.core.files.base import File
from django.http import FileResponse, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase

from fitzle.apps.drawing.calls import Picture

WIDEST_PX = 2400
A_YEAR = 31_536_000


def width_allowed(width: int) -> int:
    """A width that a screen may ask for."""
    return min(max(width, 1), WIDEST_PX)


def held_picture(key: str) -> Picture | None:
    """A picture that the cache holds, with its media type; None where it holds none."""
    held = cache.get(key)
    if not isinstance(held, bytes):
        return None
    media_type, _, data = held.partition(b"\n")
    return Picture(data, media_type.decode())


def hold_picture(key: str, picture: Picture) -> None:
    """Has the cache hold a picture: its media type in a line, then its bytes."""
    cache.set(key, picture.media_type.encode() + b"\n" + picture.data)


def immutable_picture(data: bytes, media_type: str, _key: str = "") -> HttpResponse:
    """A picture whose address changes with its contents."""
    answer = HttpResponse(data, content_type=media_type)
    answer["Cache-Control"] = f"private, max-age={A_YEAR}, immutable"
    answer["Content-Disposition"] = "inline"
    return answer


def sandboxed(answer: HttpResponse) -> HttpResponse:
    """A file that was brought in or made of one: nothing in it runs or loads anything."""
    answer["Content-Security-Policy"] = "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src data:"
    return answer


def keyed_picture(picture: Picture, key: str) -> HttpResponse:
    """A picture at an address whose key changes with it; without the key nobody may keep it."""
    answer = immutable_picture(picture.data, picture.media_type)
    if not key:
        answer["Cache-Control"] = "no-store"
    return answer


def download(data: bytes | File[Any], name: str, media_type: str) -> HttpResponseBase:
    """A file to save; never shown by the browser itself, whatever is in it. A kept file is sent piece by piece."""
    return _to_save((HttpResponse if isinstance(data, bytes) else FileResponse)(data, content_type=media_type), name)


def streamed(pieces: Iterator[bytes], name: str, media_type: str) -> HttpResponseBase:
    """A file to save that is made while it is sent."""
    return _to_save(StreamingHttpResponse(pieces, content_type=media_type), name)


def _to_save(answer: HttpResponseBase, name: str) -> HttpResponseBase:
    plain = "".join(letter if 32 <= ord(letter) < 127 and letter not in '"\\' else "_" for letter in name)
    answer["Content-Disposition"] = f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(name)}"
    answer["Content-Security-Policy"] = "sandbox; default-src 'none'"
    return answer
