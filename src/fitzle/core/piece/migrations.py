"""Pieces of older versions brought up to the present one, a version at a time."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

Document = dict[str, Any]

# Version 2 takes the field's standard terms for what version 1 called otherwise.
_RENAMED_IN_PARTS = {
    "turn": "rotation",
    "focus": "focal_point",
    "spacing": "letter_spacing",
    "level": "vertical_align",
    "hollow": "outline_only",
}
_RENAMED_IN_FILLS = {"turn": "rotation", "focus": "focal_point"}


def brought_up_to_date(
    data: Document, stated: int, wanted: int, steps: Mapping[int, Callable[[Document], Document]] | None = None
) -> Document:
    """The document in the wanted version; a version without a step is left as it is, for validation to refuse."""
    known = MIGRATIONS if steps is None else steps
    for version in range(stated, wanted):
        if version in known:
            data = {**known[version](data), "fitzle_piece": version + 1}
    return data


def _standard_terms(data: Document) -> Document:
    parts, adjustments = data.get("parts"), data.get("adjustments")
    if isinstance(parts, list):
        data = {**data, "parts": [_renamed_part(part) for part in parts]}
    if isinstance(adjustments, dict):
        data = {**data, "adjustments": {place: _renamed_each(own) for place, own in adjustments.items()}}
    return data


def _renamed_each(parts: Any) -> Any:
    return {part: _renamed_part(fields) for part, fields in parts.items()} if isinstance(parts, dict) else parts


def _renamed_part(part: Any) -> Any:
    if not isinstance(part, dict):
        return part
    renamed = {_RENAMED_IN_PARTS.get(key, key): value for key, value in part.items()}
    fill = renamed.get("fill")
    if isinstance(fill, dict):
        renamed["fill"] = {_RENAMED_IN_FILLS.get(key, key): value for key, value in fill.items()}
    return renamed


# From a version to the next: plain data in, plain data out.
MIGRATIONS: dict[int, Callable[[Document], Document]] = {1: _standard_terms}
