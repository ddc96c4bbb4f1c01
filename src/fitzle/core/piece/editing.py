"""Pieces are values: read, made, looked into."""

from __future__ import annotations

import json
from typing import Any

from fitzle.core.documents import read_document, validated
from fitzle.core.errors import DocumentError
from fitzle.core.piece.document import VERSION, Piece
from fitzle.core.piece.migrations import brought_up_to_date
from fitzle.core.piece.parts import AnyPart, ArtworkPart, GroundPart


def read_piece(text: str | bytes, subject: str = "") -> Piece:
    """A piece from JSON text; raises DocumentError in plain words."""
    return read_document(
        Piece, text, key="fitzle_piece", version=VERSION, subject=subject, noun="piece", older=brought_up_to_date
    )


def piece_schema() -> dict[str, Any]:
    """The JSON Schema of pieces, as kept in docs/piece.schema.json."""
    schema = json.loads(json.dumps(Piece.model_json_schema()))
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema, "title": "Fitzle piece 2"}


def new_piece(subject: str, artwork: str, role: str) -> Piece:
    """The simplest piece: a clear ground and one mark or picture."""
    part = {"id": role, "role": role, "artwork": artwork}
    return Piece.model_validate({"subject": subject, "parts": [{"id": "ground", "role": "ground"}, part]})


def part_named(piece: Piece, part_id: str) -> AnyPart:
    """The part with this id; raises DocumentError when there is none."""
    for part in piece.parts:
        if part.id == part_id:
            return part
    raise DocumentError(f"the piece has no part {part_id!r}", advice="It may have been removed in another window.")


def first_artwork_part(piece: Piece) -> ArtworkPart | None:
    """The backmost picture or mark."""
    return next((part for part in piece.parts if isinstance(part, ArtworkPart)), None)


def ground_part(piece: Piece) -> GroundPart | None:
    """The ground, where the piece has one."""
    return next((part for part in piece.parts if isinstance(part, GroundPart)), None)


def piece_from(data: dict[str, Any]) -> Piece:
    """A piece from plain data of any version; raises DocumentError in plain words."""
    data = brought_up_to_date(data, data.get("fitzle_piece", 1), VERSION)
    return validated(Piece, data, subject="", noun="piece")
