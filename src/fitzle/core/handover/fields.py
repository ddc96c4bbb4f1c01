"""The fields of an upload form: what each wants, and whether what was prepared for it would be taken."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Literal, NamedTuple

from fitzle.core.handover.emoji_names import emoji_named
from fitzle.core.spec.sheet import SpecSheet, UploadField

LONGEST = 5000  # letters of any field, and of an alternative text
FieldKind = Literal["alternative text", "tag", "text"]
_ALTERNATIVE = re.compile(r"\b(?:alt|alternative|alternativ\w*|for the blind|screen readers?)\b", re.IGNORECASE)
_TAG = re.compile(r"\b(?:tags?|emoji|emojis)\b", re.IGNORECASE)


class Prepared(NamedTuple):
    """A field with what stands in it; `trouble` says why it would not be taken, empty where it would."""

    field: UploadField
    kind: FieldKind
    value: str
    trouble: str


def kind_of(field: UploadField) -> FieldKind:
    """What a field wants, told by its name and its label."""
    said = f"{field.name.replace('_', ' ').replace('-', ' ')} {field.label}"
    if _ALTERNATIVE.search(said):
        return "alternative text"
    return "tag" if _TAG.search(said) else "text"


def prepared_fields(sheet: SpecSheet, values: Mapping[str, str], alternative_text: str) -> list[Prepared]:
    """All fields of a sheet; `values` are by their names, the alternative text is that of the piece."""
    found = []
    for field in sheet.fields:
        kind = kind_of(field)
        given = values.get(field.name, "").strip()
        value = given or (alternative_text.strip() if kind == "alternative text" else "")
        found.append(Prepared(field, kind, value, trouble_with(field, value)))
    return found


def trouble_with(field: UploadField, value: str) -> str:
    """Why a value would not be taken, in words; empty where it would."""
    if not value:
        return f"“{field.label}” is missing" if field.required else ""
    longest = field.max_length or LONGEST
    if len(value) > longest:
        return f"“{field.label}” has {len(value)} letters, at most {longest} are taken"
    if kind_of(field) == "tag" and emoji_named(value) is None:
        return f"“{field.label}” takes the name of a standard emoji, and “{value}” is none"
    return ""


def said_fields(prepared: list[Prepared]) -> dict[str, str]:
    """What goes with the file, by the names of the fields."""
    return {one.field.name: one.value for one in prepared if one.value}
