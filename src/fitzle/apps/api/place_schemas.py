"""What is said of places, to and from the page."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from pydantic import Field

from fitzle.apps.pieces.effects import Anew
from fitzle.core.fit.state import FitState
from fitzle.core.spec.sheet import CoveredZone, ShownWindow, SpecSheet, Veil, Viewing
from fitzle.core.spec.words.reading import LONGEST_TEXT

Name = Annotated[str, Field(max_length=120, pattern=r"\S")]


class SizeOut(Schema):
    """Width and height in px."""

    width: int
    height: int


class SentenceOut(Schema):
    """What one key of the sheet says, for people."""

    key: str
    text: str
    asked: bool


class WayOutOut(Schema):
    """Words, and the keys of the sheet with the values that would resolve it."""

    label: str
    change: dict[str, Any]


class ContradictionOut(Schema):
    """What no file can meet; said at the first of its keys."""

    keys: list[str]
    message: str
    ways_out: list[WayOutOut]


class SheetOut(Schema):
    """A sheet as it is shown: in sentences, and as a drawing to scale; `cut` is an SVG path in fractions."""

    sheet: SpecSheet
    name: str
    short: str
    short_size: str
    sentences: list[SentenceOut]
    size: SizeOut
    least: SizeOut | None
    most: SizeOut | None
    cut: str | None
    covered: list[CoveredZone]
    windows: list[ShownWindow]
    veil: Veil | None
    seen: list[Viewing]
    grounds: list[str]
    contradictions: list[ContradictionOut]


class DraftIn(Schema):
    """A sheet that is being written, as plain data; it need not be one yet."""

    sheet: dict[str, Any]


class DraftOut(Schema):
    """What the data say as a sheet, null where they are none, and what cannot be."""

    shown: SheetOut | None
    contradictions: list[ContradictionOut]


class UnderstoodOut(Schema):
    """Letters of the words, and the key of the sheet that they became."""

    text: str
    start: int
    end: int
    key: str


class LeftOut(Schema):
    """Letters of the words of which nothing was made."""

    text: str
    start: int
    end: int


class ProblemOut(Schema):
    """What cannot hold, and the letters that say so."""

    message: str
    places: list[LeftOut]


class CatalogueOut(Schema):
    """A kind of place, what usually goes wrong there, and when its figures were checked."""

    kind: str
    group: str
    goes_wrong: str
    checked: date
    shown: SheetOut


class Words(Schema):
    """What an upload page says of a place."""

    words: Annotated[str, Field(max_length=LONGEST_TEXT)]


class ReadOut(Schema):
    """What words became; no sheet where they have no size or contradict each other."""

    sheet: SheetOut | None
    understood: list[UnderstoodOut]
    not_understood: list[LeftOut]
    problems: list[ProblemOut]
    assumed: list[str]


class NewPlace(Schema):
    """A sheet that somebody has looked at, its name, and the destination that it belongs to, by name or none yet.

    `learning` and `found` are the screenshot that it was learnt from and the number of the place in it.
    """

    destination: Annotated[str, Field(max_length=120)] = ""
    name: Name
    sheet: SpecSheet
    learning: UUID | None = None
    found: Annotated[int, Field(ge=0)] = 0


class PlaceChange(Schema):
    """What changes of a place; null leaves a thing as it is."""

    name: Name | None = None
    sheet: SpecSheet | None = None
    put_away: bool | None = None
    revision: int | None = None
    destination: Name | None = None
    noted: bool | None = None


class EarlierSheetOut(Schema):
    """A sheet that the place had before, and who replaced it when."""

    revision: int
    short: str
    name: str
    replaced_by: str
    replaced_at: datetime


class PlaceOut(Schema):
    """A place with its sheet and those before it."""

    id: UUID
    slug: str
    destination: str
    put_away: bool
    revision: int
    shown: SheetOut
    earlier: list[EarlierSheetOut]


class DestinationChange(Schema):
    """What changes of a destination; null leaves a thing as it is."""

    name: Name | None = None
    note: Annotated[str, Field(max_length=2000)] | None = None
    help_address: Annotated[str, Field(max_length=500, pattern=r"^(https?://\S+)?$")] | None = None
    checked_on: date | None = None
    position: Annotated[int, Field(ge=0, le=10_000)] | None = None


class SheetIn(Schema):
    """A sheet that is thought of."""

    sheet: SpecSheet


class EffectOut(Schema):
    """What a sheet would do to one fit: its state now and then, and in words what would be wrong."""

    fit: UUID
    place: UUID
    place_name: str
    subject: str
    before: FitState
    after: FitState
    anew: Anew
    messages: list[str]


class EffectsOut(Schema):
    """What a sheet would do to what stands in its place and in those that the same file serves.

    `broken` says why no file would serve them all any more.
    """

    fits: list[EffectOut]
    broken: str | None


class GroupPlace(Schema):
    """A place among several, and what stands in it; empty where nothing does."""

    id: UUID
    name: str
    destination: str
    subject: str


class GroupOut(Schema):
    """Places that one file serves (`joined`) or could; `broken` says why it does not any more."""

    places: list[GroupPlace]
    short: str
    joined: bool
    broken: str


class ShareIn(Schema):
    """Places that one file is to serve; that of the leader does."""

    places: Annotated[list[UUID], Field(min_length=1, max_length=100)]
    leader: UUID


class StaleSheetOut(Schema):
    """Somebody else was faster; theirs."""

    message: str
    newest: PlaceOut


class PutAwayOut(Schema):
    """A place that is put away."""

    id: UUID
    name: str
    destination: str
