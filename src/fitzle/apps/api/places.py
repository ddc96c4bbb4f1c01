"""Places: said in words, added, changed, put away."""

from __future__ import annotations

from datetime import date, datetime
from functools import cache
from typing import TYPE_CHECKING, Annotated, Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status
from pydantic import Field

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.views import mask_path
from fitzle.apps.destinations.shelves import ShelfChange, earlier_sheets, placement_of, placements_anywhere
from fitzle.apps.pieces import places
from fitzle.apps.pieces.effects import Anew, effects_of
from fitzle.core.fit.state import FitState
from fitzle.core.preflight.demand_words import format_words, size_words
from fitzle.core.spec.catalogue import catalogue
from fitzle.core.spec.sentences import drawn, sentences
from fitzle.core.spec.sheet import CoveredZone, ShownWindow, SpecSheet, Veil, Viewing
from fitzle.core.spec.words.reading import LONGEST_TEXT, read_words

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Placement
    from fitzle.core.units import Size

router = Router(tags=["places"])
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
    """A sheet that somebody has looked at, its name, and the destination that it belongs to, by name or none yet."""

    destination: Annotated[str, Field(max_length=120)] = ""
    name: Name
    sheet: SpecSheet


class PlaceChange(Schema):
    """What changes of a place; null leaves a thing as it is."""

    name: Name | None = None
    sheet: SpecSheet | None = None
    put_away: bool | None = None
    revision: int | None = None
    destination: Name | None = None


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
    subject: str
    before: FitState
    after: FitState
    anew: Anew
    messages: list[str]


class StaleSheetOut(Schema):
    """Somebody else was faster; theirs."""

    message: str
    newest: PlaceOut


class PutAwayOut(Schema):
    """A place that is put away."""

    id: UUID
    name: str
    destination: str


@router.post("/places/read", response=ReadOut)
def read_place(request: HttpRequest, workspace: Path[str], given: Words) -> ReadOut:
    """What words say of a place; nothing is kept."""
    workspace_to_see(request.user, workspace)
    found = read_words(given.words)
    return ReadOut(
        sheet=shown_sheet(found.sheet) if found.sheet else None,
        understood=[
            UnderstoodOut(text=one.text, start=one.start, end=one.end, key=one.key) for one in found.understood
        ],
        not_understood=[LeftOut(**one._asdict()) for one in found.not_understood],
        problems=[
            ProblemOut(message=one.message, places=[LeftOut(**place._asdict()) for place in one.places])
            for one in found.problems
        ],
        assumed=list(found.assumed),
    )


@router.get("/places/catalogue", response=list[CatalogueOut])
def list_catalogue(request: HttpRequest, workspace: Path[str]) -> list[CatalogueOut]:
    """Common kinds of place, to begin from."""
    workspace_to_see(request.user, workspace)
    return _catalogue()


@router.get("/places/put-away", response=list[PutAwayOut])
def list_put_away(request: HttpRequest, workspace: Path[str]) -> list[PutAwayOut]:
    """Places that are put away, by destination."""
    found = placements_anywhere(workspace_to_see(request.user, workspace)).filter(put_away=True)
    return [
        PutAwayOut(id=one.pk, name=str(one.sheet.get("name", "")), destination=one.destination.name)
        for one in found.order_by("destination__position", "position")
    ]


@router.post("/places", response={201: PlaceOut, 422: Message})
def add_place(request: HttpRequest, workspace: Path[str], given: NewPlace) -> Status[Any]:
    """A new place, at the end of its destination's shelf."""
    sheet = given.sheet.model_copy(update={"name": given.name.strip()})
    found = places.add_place(access_to(request.user, workspace), given.destination, sheet)
    return Status(201, view_of_place(found))


@router.get("/places/{uuid:placement}", response=PlaceOut)
def read_one(request: HttpRequest, workspace: Path[str], placement: UUID) -> PlaceOut:
    """One place, also one that is put away."""
    return view_of_place(placement_of(workspace_to_see(request.user, workspace), placement))


@router.post("/places/{uuid:placement}/earlier/{int:revision}", response=PlaceOut)
def bring_sheet_back(request: HttpRequest, workspace: Path[str], placement: UUID, revision: int) -> PlaceOut:
    """An earlier sheet once more."""
    return view_of_place(places.bring_sheet_back(access_to(request.user, workspace), placement, revision))


@router.post("/places/{uuid:placement}/effect", response=list[EffectOut])
def effect(request: HttpRequest, workspace: Path[str], placement: UUID, given: SheetIn) -> list[EffectOut]:
    """What a sheet would do to what stands in a place; nothing is kept."""
    space = workspace_to_see(request.user, workspace)
    return [EffectOut(**one._asdict()) for one in effects_of(space, placement_of(space, placement), given.sheet)]


@router.patch("/places/{uuid:placement}", response={200: PlaceOut, 409: StaleSheetOut, 422: Message})
def change_place(request: HttpRequest, workspace: Path[str], placement: UUID, given: PlaceChange) -> PlaceOut:
    """Another name or sheet; put away or brought back."""
    change = places.Change(given.sheet, given.name, given.put_away, given.revision, given.destination)
    return view_of_place(places.change_place(access_to(request.user, workspace), placement, change))


@router.patch("/destinations/{uuid:destination}", response={204: None, 422: Message})
def change_destination(
    request: HttpRequest, workspace: Path[str], destination: UUID, given: DestinationChange
) -> Status[None]:
    """Another name, note, help page or place among the others."""
    change = ShelfChange(**given.model_dump())
    places.change_destination(access_to(request.user, workspace), destination, change)
    return Status(204, None)


@cache
def _catalogue() -> list[CatalogueOut]:
    return [
        CatalogueOut(
            kind=one.kind, group=one.group, goes_wrong=one.goes_wrong, checked=one.checked, shown=shown_sheet(one.sheet)
        )
        for one in catalogue()
    ]


def view_of_place(placement: Placement) -> PlaceOut:
    """A place as it is now."""
    return PlaceOut(
        id=placement.pk,
        slug=placement.slug,
        destination=placement.destination.name,
        put_away=placement.put_away,
        revision=placement.revision,
        shown=shown_sheet(placement.spec),
        earlier=[
            EarlierSheetOut(
                revision=one.revision,
                short=_short(SpecSheet.model_validate(one.sheet)),
                name=str(one.sheet.get("name", "")),
                replaced_by=one.replaced_by.name if one.replaced_by else "",
                replaced_at=one.replaced_at,
            )
            for one in earlier_sheets(placement)
        ],
    )


def shown_sheet(sheet: SpecSheet) -> SheetOut:
    """A sheet as it is shown."""
    sizes = drawn(sheet)
    return SheetOut(
        sheet=sheet,
        name=sheet.name,
        short=_short(sheet),
        short_size=size_words(sheet),
        sentences=[SentenceOut(key=one.key, text=one.text, asked=one.asked) for one in sentences(sheet)],
        size=_size(sizes.size),
        least=_size(sizes.least) if sizes.least else None,
        most=_size(sizes.most) if sizes.most else None,
        cut=mask_path(sheet, sizes.size),
        covered=list(sheet.covered),
        windows=list(sheet.windows),
        veil=sheet.veil,
        seen=list(sheet.seen),
        grounds=list(sheet.grounds),
    )


def _short(sheet: SpecSheet) -> str:
    return f"{size_words(sheet)}, {format_words(sheet)}"


def _size(size: Size) -> SizeOut:
    return SizeOut(width=size.width, height=size.height)
