"""The shapes of answers about deliveries."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field

from fitzle.core.fit.state import FitState

MOST_AT_ONCE = 500  # fits in one delivery


class NamedFile(Schema):
    """A file under the name and in the folder in which it is handed over."""

    destination_name: str
    placement_name: str
    folder: str
    name: str
    format: str
    width: int
    height: int
    bytes: int
    weight: str


class DeliveredFileOut(NamedFile):
    """A file that was handed over."""

    id: UUID
    version: int
    out_of_date: bool
    muted: list[dict[str, str]]


class DeliveryOut(Schema):
    """A delivery and its files."""

    id: UUID
    made_at: datetime
    by: str
    files: list[DeliveredFileOut]


class ReadyFileOut(NamedFile):
    """A file that a delivery would hand over."""

    fit: UUID
    state: FitState


class ReadyOut(Schema):
    """What a delivery of all that would be accepted hands over; `left_out` are filled places that have no such file."""

    files: list[ReadyFileOut]
    weight: str
    left_out: list[str]


class Deliver(Schema):
    """Fits to deliver; none means all that would be accepted, `changed` only those that changed since."""

    fits: Annotated[list[UUID], Field(max_length=MOST_AT_ONCE)] | None = None
    changed: bool = False
