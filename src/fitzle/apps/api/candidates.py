"""The files that were tried for a fit: as a table, beside the original, and with what somebody fixed."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Path, Query, Router, Schema
from pydantic import TypeAdapter, ValidationError

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.drawn_candidates import (
    CandidateOut,
    ErrorsOut,
    candidates_of,
    draw_candidate,
    draw_errors,
    draw_original,
    look_at_candidate,
    try_wish,
)
from fitzle.apps.api.fits import view_of
from fitzle.apps.api.pictures import keyed_picture
from fitzle.apps.api.scenes import state_of
from fitzle.apps.api.schemas import FitOut, Message
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import OpenFit, open_fit
from fitzle.core.encode.offering import FormatOffer, offers
from fitzle.core.encode.settings import Settings
from fitzle.core.encode.wish import Wish
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.formats import Format
from fitzle.core.units import words_for_bytes

router = Router(tags=["candidates"])
SETTINGS: TypeAdapter[Settings] = TypeAdapter(Settings)


class CandidatesOut(Schema):
    """What was tried, the best score first, and what may be fixed.

    `limit` is in bytes, `key` belongs to the addresses of pictures; width and height are in px.
    """

    key: str
    limit: int | None
    limit_weight: str
    width: int
    height: int
    made: bool
    candidates: list[CandidateOut]
    formats: list[FormatOffer]
    wish: Wish


class Tried(Schema):
    """One candidate, by its format and what the encoder was told (JSON)."""

    format: Format
    settings: str

    def told(self) -> Settings:
        """The settings; raises ValueOutOfRange for what no encoder is told."""
        try:
            return SETTINGS.validate_json(self.settings)
        except ValidationError as error:
            raise ValueOutOfRange("no encoder is told this", actual=self.settings[:80]) from error


class WishIn(Schema):
    """What is fixed; all empty lets Fitzle choose."""

    wish: Wish


@router.get("/fits/{uuid:fit}/candidates", response=CandidatesOut)
def read_candidates(request: HttpRequest, workspace: Path[str], fit: UUID) -> CandidatesOut:
    """The table of candidates."""
    _, opened = _opened(request, workspace, fit)
    limit = opened.resolved.sheet.max_bytes
    return CandidatesOut(
        key=opened.file_key[:16],
        limit=limit,
        limit_weight=words_for_bytes(limit) if limit else "",
        width=opened.size.width,
        height=opened.size.height,
        made=opened.record is not None,
        candidates=candidates_of(opened),
        formats=offers(opened.resolved.sheet.formats),
        wish=opened.resolved.request.wish,
    )


@router.get("/fits/{uuid:fit}/candidates/original")
def original(request: HttpRequest, workspace: Path[str], fit: UUID, key: str = "") -> HttpResponse:
    """The fit as it was drawn, before anything was lost."""
    space, opened = _opened(request, workspace, fit)
    return keyed_picture(draw_original.ask(state_of(opened), space.pk, fit), key)


@router.get("/fits/{uuid:fit}/candidates/picture", response={422: Message})
def candidate(
    request: HttpRequest, workspace: Path[str], fit: UUID, tried: Query[Tried], key: str = ""
) -> HttpResponse:
    """A candidate's file, made again; as a PNG where browsers show none of its kind."""
    space, opened = _opened(request, workspace, fit)
    return keyed_picture(draw_candidate.ask(state_of(opened), space.pk, fit, tried.format, tried.told()), key)


@router.get("/fits/{uuid:fit}/candidates/errors", response={422: Message})
def errors(request: HttpRequest, workspace: Path[str], fit: UUID, tried: Query[Tried], key: str = "") -> HttpResponse:
    """Where a candidate lost most, as a veil to be laid over it (PNG)."""
    space, opened = _opened(request, workspace, fit)
    return keyed_picture(draw_errors.ask(state_of(opened), space.pk, fit, tried.format, tried.told()), key)


@router.get("/fits/{uuid:fit}/candidates/look", response={200: ErrorsOut, 422: Message})
def look(request: HttpRequest, workspace: Path[str], fit: UUID, tried: Query[Tried]) -> ErrorsOut:
    """A candidate's score, and the part of it where most was lost."""
    space, opened = _opened(request, workspace, fit)
    return look_at_candidate.ask(state_of(opened), space.pk, fit, tried.format, tried.told())


@router.get("/fits/{uuid:fit}/candidates/try", response={200: CandidateOut, 422: Message})
def try_candidate(request: HttpRequest, workspace: Path[str], fit: UUID, wish: Query[Wish]) -> CandidateOut:
    """What a wish would come to: its cost in bytes and looks, before anybody decides."""
    space, opened = _opened(request, workspace, fit)
    return try_wish.ask(state_of(opened), space.pk, fit, wish)


@router.put("/fits/{uuid:fit}/wish", response={200: FitOut, 422: Message})
def fix_file(request: HttpRequest, workspace: Path[str], fit: UUID, given: WishIn) -> FitOut:
    """Fixes something of the file, or nothing any more; it is made anew."""
    access = access_to(request.user, workspace)
    return view_of(access, actions.fix_file(access, fit, given.wish))


def _opened(request: HttpRequest, workspace: str, fit: UUID) -> tuple[Any, OpenFit]:
    space = workspace_to_see(request.user, workspace)
    return space, open_fit(space, fit_of(space, fit))
