"""delivery.json: what was handed over, for those who read it by program; described in docs/delivery.md."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field

from fitzle.core.documents import read_document
from fitzle.core.findings import Frozen

VERSION = 1
NAME = "delivery.json"


class Accepted(Frozen):
    """A finding that somebody said is right as it is: the rule, what it says, why, and who said so."""

    rule: str
    message: str
    reason: str
    by: str = ""


class HandedOver(Frozen):
    """One file. `file` is its path in the ZIP or folder; `version` of `sheet` and `piece` are revisions.

    `variant` says which of a place's files it is (empty: the file itself), `score` how much of the looks is left
    (SSIMULACRA2, 100: nothing was lost), `fields` is what the upload form asks for.
    """

    file: Annotated[str, Field(min_length=1)]
    destination: str
    place: str
    variant: str = ""
    sheet_version: Annotated[int, Field(ge=1)] = 1
    piece: str
    piece_revision: Annotated[int, Field(ge=1)] = 1
    width: Annotated[int, Field(ge=0)]
    height: Annotated[int, Field(ge=0)]
    bytes: Annotated[int, Field(ge=0)]
    format: str
    score: float | None = None
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    version: Annotated[int, Field(ge=1)] = 1
    accepted: tuple[Accepted, ...] = ()
    fields: dict[str, str] = {}


class DeliveryDocument(Frozen):
    """All files that were handed over together; a folder that is kept current has no `delivered_at`."""

    fitzle_delivery: Literal[1]
    delivered_at: datetime | None = None
    files: tuple[HandedOver, ...] = ()


def delivery_text(document: DeliveryDocument) -> str:
    """As it is written: the same content gives the same text."""
    told = document.model_dump(mode="json", exclude_defaults=True)
    return json.dumps({"fitzle_delivery": VERSION, **told}, indent=2, ensure_ascii=False) + "\n"


def read_delivery(text: str | bytes, subject: str = NAME) -> DeliveryDocument:
    """A delivery.json; raises DocumentError for what is none."""
    return read_document(
        DeliveryDocument, text, key="fitzle_delivery", version=VERSION, subject=subject, noun="delivery"
    )


def delivery_schema() -> dict[str, Any]:
    """The JSON Schema."""
    return DeliveryDocument.model_json_schema()
