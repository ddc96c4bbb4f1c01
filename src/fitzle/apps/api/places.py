"""Places: said in words, added, changed, put away."""

from __future__ import annotations

from functools import cache
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.place_schemas import (
    CatalogueOut,
    DestinationChange,
    DraftIn,
    DraftOut,
    EffectOut,
    EffectsOut,
    LeftOut,
    NewPlace,
    PlaceChange,
    PlaceOut,
    ProblemOut,
    PutAwayOut,
    ReadOut,
    SheetIn,
    StaleSheetOut,
    UnderstoodOut,
    Words,
)
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.sheet_views import said, shown_sheet, view_of_place
from fitzle.apps.destinations.learning import keep_scene, learning_of
from fitzle.apps.destinations.shelves import ShelfChange, placement_of, placements_anywhere
from fitzle.apps.pieces import places
from fitzle.apps.pieces.effects import effects_of
from fitzle.core.spec.catalogue import catalogue
from fitzle.core.spec.checking.draft import look_at
from fitzle.core.spec.words.reading import read_words

if TYPE_CHECKING:
    pass

router = Router(tags=["places"])


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


@router.post("/places/look", response=DraftOut)
def look_at_draft(request: HttpRequest, workspace: Path[str], given: DraftIn) -> DraftOut:
    """A sheet that is being written, as it would be shown; nothing is kept."""
    workspace_to_see(request.user, workspace)
    found = look_at(given.sheet)
    return DraftOut(shown=shown_sheet(found.sheet) if found.sheet else None, contradictions=said(found.contradictions))


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
    access = access_to(request.user, workspace)
    shown = learning_of(access.workspace, given.learning) if given.learning else None
    found = places.add_place(access, given.destination, sheet)
    if shown:
        keep_scene(shown, given.found, found)
    return Status(201, view_of_place(found))


@router.get("/places/{uuid:placement}", response=PlaceOut)
def read_one(request: HttpRequest, workspace: Path[str], placement: UUID) -> PlaceOut:
    """One place, also one that is put away."""
    return view_of_place(placement_of(workspace_to_see(request.user, workspace), placement))


@router.post("/places/{uuid:placement}/earlier/{int:revision}", response=PlaceOut)
def bring_sheet_back(request: HttpRequest, workspace: Path[str], placement: UUID, revision: int) -> PlaceOut:
    """An earlier sheet once more."""
    return view_of_place(places.bring_sheet_back(access_to(request.user, workspace), placement, revision))


@router.post("/places/{uuid:placement}/effect", response=EffectsOut)
def effect(request: HttpRequest, workspace: Path[str], placement: UUID, given: SheetIn) -> EffectsOut:
    """What a sheet would do to what stands in a place; nothing is kept."""
    space = workspace_to_see(request.user, workspace)
    found = effects_of(space, placement_of(space, placement), given.sheet)
    return EffectsOut(fits=[EffectOut(**one._asdict()) for one in found.fits], broken=found.broken)


@router.patch("/places/{uuid:placement}", response={200: PlaceOut, 409: StaleSheetOut, 422: Message})
def change_place(request: HttpRequest, workspace: Path[str], placement: UUID, given: PlaceChange) -> PlaceOut:
    """Another name or sheet; put away or brought back."""
    change = places.Change(
        given.sheet, given.name, given.put_away, given.revision, given.destination, bool(given.noted)
    )
    return view_of_place(places.change_place(access_to(request.user, workspace), placement, change))


@router.delete("/destinations/{uuid:destination}", response={204: None})
def delete_destination(request: HttpRequest, workspace: Path[str], destination: UUID) -> Status[None]:
    """Takes a destination away with its places; the record of what was delivered there stays."""
    places.delete_destination(access_to(request.user, workspace), destination)
    return Status(204, None)


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
