"""Spec sheets from and to JSON."""

from __future__ import annotations

from typing import Any

from fitzle.core.documents import read_document
from fitzle.core.spec.sheet import VERSION, SpecSheet


def read_spec_sheet(text: str | bytes, subject: str = "") -> SpecSheet:
    """A spec sheet from JSON text; raises DocumentError in plain words."""
    return read_document(SpecSheet, text, key="fitzle_spec", version=VERSION, subject=subject, noun="spec sheet")


def spec_sheet_schema() -> dict[str, Any]:
    """The JSON Schema of spec sheets, as kept in docs/spec-sheet.schema.json."""
    schema = SpecSheet.model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema, "title": "Fitzle spec sheet 1"}
