"""Requests to destinations: with time limits, and tried again after growing pauses."""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping
from typing import Any
from urllib.parse import urlsplit

import urllib3
from urllib3.exceptions import HTTPError
from urllib3.response import BaseHTTPResponse

from fitzle.apps.uploading.errors import UploadError

CONNECT_SECONDS, READ_SECONDS = 3.0, 15.0
PAUSES_SECONDS = (0.4, 1.0, 2.5)  # before the second, third and fourth try
AGAIN_STATUS = frozenset({408, 425, 429, 500, 502, 503, 504})
MOST_BYTES = 30_000_000  # of an answer
ADVICE = "Try again in a while; nothing is uploaded twice."
sleep: Callable[[float], None] = time.sleep


def asked(method: str, address: str, headers: Mapping[str, str], **body: Any) -> BaseHTTPResponse:
    """The answer, tried again where there is none or the other side says that it is out of order.

    Raises UploadError after the last try.
    """
    trouble = ""
    for pause in (0.0, *PAUSES_SECONDS):
        if pause:
            sleep(pause)
        try:
            answer = once(method, address, headers, **body)
        except HTTPError as error:
            trouble = "it did not answer in time" if "timed out" in str(error) else "it could not be reached"
            continue
        if answer.status not in AGAIN_STATUS:
            return answer
        trouble = f"it is out of order (its answer was {answer.status})"
    tries = len(PAUSES_SECONDS) + 1
    raise UploadError(f"{trouble}, {tries} times in a row", subject=urlsplit(address).netloc, advice=ADVICE)


def once(
    method: str, address: str, headers: Mapping[str, str], *, read_seconds: float | None = None, **body: Any
) -> BaseHTTPResponse:
    """One try, with time limits; raises urllib3.HTTPError."""
    with urllib3.PoolManager(retries=False, num_pools=1) as pool:
        limits = urllib3.Timeout(connect=CONNECT_SECONDS, read=read_seconds or READ_SECONDS)
        answer = pool.request(method, address, headers=dict(headers), timeout=limits, preload_content=False, **body)
        try:
            data = answer.read(MOST_BYTES + 1, decode_content=True)
        finally:
            answer.release_conn()
    if len(data) > MOST_BYTES:
        raise UploadError("its answer is too long", subject=urlsplit(address).netloc)
    return urllib3.HTTPResponse(data, headers=answer.headers, status=answer.status)
