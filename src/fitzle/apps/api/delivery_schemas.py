"""The shapes of questions and answers about deliveries and the record."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field

from fitzle.apps.deliveries.actions import Way
from fitzle.core.fit.state import FitState
from fitzle.core.handover.fields import LONGEST, FieldKind
from fitzle.core.handover.handing import Handing, Variant

MOST_AT_ONCE = 500  # fits in one delivery
Text = Annotated[str, Field(max_length=LONGEST + 1000)]  # too long is said beside the field, not by the shape


class NamedFile(Schema):
    """A file under the name and in the folder in which it is handed over; `variant` empty is the file itself."""

    folder: str
    name: str
    variant: str
    format: str
    width: int
    height: int
    bytes: int
    weight: str


class DeliveredFileOut(NamedFile):
    """A file of a delivery; `state` is waiting, done, failed or cancelled, `picture` says whether browsers show it."""

    id: UUID
    placement: UUID | None
    destination_name: str
    placement_name: str
    subject: str
    version: int
    state: str
    message: str
    written: str
    inside: bool
    out_of_date: bool
    live_at: datetime | None
    down_at: datetime | None
    picture: bool
    muted: list[dict[str, str]]
    answer: dict[str, object]


class DeliveryOut(Schema):
    """A delivery and its files; `state` is waiting, running, done or cancelled."""

    id: UUID
    made_at: datetime
    by: str
    state: str
    way: str
    target: str
    ended_at: datetime | None
    files: list[DeliveredFileOut]


class FieldOut(Schema):
    """A field of the upload form with what stands in it; `trouble` says why that would not be taken."""

    name: str
    label: str
    kind: FieldKind
    required: bool
    max_length: int | None
    value: str
    trouble: str


class VariantOut(Schema):
    """A variant that may go with a file, in words."""

    name: Variant
    words: str


class ReadyFitOut(Schema):
    """What a delivery would hand over for one fit; `trouble` says why the destination would not take it now.

    `upload` is where it can be uploaded to from here, empty where that is nowhere.
    """

    fit: UUID
    placement: UUID
    destination_name: str
    placement_name: str
    subject: str
    state: FitState
    changed: bool
    picture: str
    ground: str
    files: list[NamedFile]
    fields: list[FieldOut]
    alternative_text: str
    handing: Handing
    variants: list[VariantOut]
    trouble: str
    upload: str = ""


class NotReady(Schema):
    """A filled place that has no file that would be accepted, and why."""

    name: str
    why: str


class ReadyOut(Schema):
    """What can be handed over, and the ways to do it; `folders` are those of the server, `changed` counts fits."""

    fits: list[ReadyFitOut]
    weight: str
    changed: int
    left_out: list[NotReady]
    folders: list[str]
    uploads: list[str]


class Deliver(Schema):
    """Fits to deliver; none means all that would be accepted, `changed` only those that changed since."""

    fits: Annotated[list[UUID], Field(max_length=MOST_AT_ONCE)] | None = None
    changed: bool = False
    way: Way = "zip"
    folder: Annotated[str, Field(max_length=120)] = ""
    flat: bool = False


class Fields(Schema):
    """What the upload form is told, by the names of its fields; the alternative text is that of the piece."""

    values: Annotated[dict[Annotated[str, Field(max_length=120)], Text], Field(max_length=50)] = {}
    alternative_text: Text | None = None


class SayLive(Schema):
    """Whether a file is seen where it was handed over to."""

    live: bool


class RecordPlace(Schema):
    """What is live in a place: the file that was handed over last, since when, and how many slots are taken.

    `file` is the one handed over last, `live` the one that people see (None: nobody confirmed any).
    """

    placement: UUID
    name: str
    slots: int
    capacity: int | None
    earlier: int
    ground: str
    out_of_date: bool
    file: DeliveredFileOut
    live: DeliveredFileOut | None


class RecordShelf(Schema):
    """A destination with the places that anything was handed over to."""

    name: str
    places: list[RecordPlace]


class HistoryEntry(DeliveredFileOut):
    """An earlier file of a place."""

    made_at: datetime
    by: str
    piece_revision: int


class EmojiOut(Schema):
    """A standard emoji."""

    text: str
    name: str
