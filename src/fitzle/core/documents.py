"""Reading JSON documents: errors in plain words instead of a validator's."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from fitzle.core.errors import DocumentError

LARGEST_DOCUMENT_BYTES = 1_000_000
Document = TypeVar("Document", bound=BaseModel)

_PLAIN = {
    "missing": "is missing",
    "extra_forbidden": "is not a key of this document",
    "union_tag_invalid": "has an unknown kind",
}


_TAGS = ("exact", "range", "circle", "rounded", "set", "reset", "add", "remove", "move")  # of unions, not keys


def read_document(
    model: type[Document],
    text: str | bytes,
    *,
    key: str,
    version: int,
    subject: str,
    noun: str,
    older: Callable[[dict[str, Any], int, int], dict[str, Any]] | None = None,
) -> Document:
    """A frozen document from JSON text; `key` is the key with its version, `noun` what people call it.

    `older` brings data of an older version up to this one: (data, its version, this version) to data.

    Raises DocumentError with the first few problems, each with its place in the document.
    """
    data = read_plain(text, subject, noun)
    stated = data.get(key)
    if stated is None:
        raise DocumentError(f"this is not a {noun}", subject=subject, advice=f'It needs "{key}": {version} in it.')
    if not isinstance(stated, int) or isinstance(stated, bool):
        raise DocumentError(
            f'"{key}" must be a whole number', subject=subject, actual=repr(stated), expected=str(version)
        )
    if stated > version:
        raise DocumentError(
            f"this {noun} is of version {stated}; this Fitzle reads up to version {version}",
            subject=subject,
            advice="Update Fitzle, or ask for the document in the older version.",
        )
    if older:
        data = older(data, stated, version)
    return validated(model, data, subject=subject, noun=noun)


def validated(model: type[Document], data: Any, *, subject: str, noun: str) -> Document:
    """The document from plain data; raises DocumentError in plain words."""
    try:
        return model.model_validate(data)
    except ValidationError as error:
        raise DocumentError(
            f"this {noun} cannot be used: {plain_problems(error)}",
            subject=subject,
            advice="Correct that and try again.",
        ) from error


def plain_problems(error: ValidationError, most: int = 4) -> str:
    """The first problems of a validation, each with its place, as one sentence."""
    entries = error.errors(include_url=False)
    said = [_plain_problem(entry) for entry in entries[:most]]
    if len(entries) > most:
        said.append(f"and {len(entries) - most} more")
    return "; ".join(said)


def _plain_problem(entry: Any) -> str:
    place = ".".join(place_of_problem(entry))
    words = words_of_problem(entry)
    if entry["type"] in _PLAIN:
        return f'"{place}" {words}'
    return f'"{place}": {words}' if place else words


def place_of_problem(entry: Any) -> list[str]:
    """The keys that lead to what pydantic found (an entry of its errors)."""
    return [str(step) for step in entry["loc"] if step not in _TAGS]


def words_of_problem(entry: Any) -> str:
    """What pydantic found (an entry of its errors), without its place."""
    if entry["type"] in _PLAIN:
        return _PLAIN[entry["type"]]
    words = str(entry["msg"]).removeprefix("Value error, ").replace("Input should be", "should be")
    found = entry.get("input")
    shown = f" (found {json.dumps(found, ensure_ascii=False)[:60]})" if isinstance(found, str | int | float) else ""
    return f"{words}{shown}"


def read_plain(text: str | bytes, subject: str, noun: str) -> dict[str, Any]:
    """A JSON object as plain data; raises DocumentError in plain words."""
    if len(text) > LARGEST_DOCUMENT_BYTES:
        raise DocumentError(f"this {noun} is larger than 1 MB", subject=subject, advice="A real one is a few KB.")
    try:
        data = json.loads(text)
    except UnicodeDecodeError as error:
        raise DocumentError(f"this {noun} is not UTF-8 text", subject=subject) from error
    except (ValueError, RecursionError) as error:
        raise DocumentError(
            f"this {noun} is not valid JSON: {error}", subject=subject, advice="Check commas and brackets there."
        ) from error
    if not isinstance(data, dict):
        raise DocumentError(f"this {noun} is not a JSON object", subject=subject)
    return data
