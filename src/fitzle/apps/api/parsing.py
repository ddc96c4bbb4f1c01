"""Reading the body of a request: JSON as RFC 8259 has it, with figures and words that make sense.

What cannot be kept or calculated with is refused here once, in words, instead of in each field.
"""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpRequest
from ninja.parser import Parser

from fitzle.core.errors import FitzleError

LARGEST_NUMBER = 1e12
LONGEST_WORDS = 20_000
DEEPEST = 40


class UnusableRequest(FitzleError):
    """A body that holds something that no field can use."""


class StrictParser(Parser):
    """The parser of the API."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The body; raises UnusableRequest with the place of what cannot be used."""
        try:
            found = json.loads(request.body, parse_constant=_no_constant)
        except UnusableRequest:
            raise
        except (ValueError, RecursionError) as error:
            raise UnusableRequest("this request is not JSON") from error
        _check(found, "", 0)
        return found


def _no_constant(name: str) -> Any:
    raise UnusableRequest(f"{name} is no number")


def _check(value: Any, place: str, depth: int) -> None:
    if depth > DEEPEST:
        raise UnusableRequest(f"{_named(place)} is nested too deep")
    if isinstance(value, str):
        _check_words(value, place)
    elif isinstance(value, int | float) and not abs(value) <= LARGEST_NUMBER:
        raise UnusableRequest(f"{_named(place)} is too large a number")
    elif isinstance(value, list):
        for number, entry in enumerate(value):
            _check(entry, f"{place}.{number}", depth + 1)
    elif isinstance(value, dict):
        for key, entry in value.items():
            _check_words(key, place)
            _check(entry, f"{place}.{key}", depth + 1)


def _check_words(words: str, place: str) -> None:
    if len(words) > LONGEST_WORDS:
        raise UnusableRequest(f"{_named(place)} is too long: at most {LONGEST_WORDS:,} letters")
    if "\0" in words or any("\ud800" <= letter <= "\udfff" for letter in words):
        raise UnusableRequest(f"{_named(place)} has letters in it that do not exist")


def _named(place: str) -> str:
    return place.removeprefix(".")[:80] or "this request"
