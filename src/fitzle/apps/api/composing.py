"""Composing: parts brought in and put somewhere, starting points, colours that read, the piece as SVG."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import access_to, naming_rule, workspace_to_see
from fitzle.apps.api.drawn import draw_svg, read_contrasts
from fitzle.apps.api.fits import view_of_changed
from fitzle.apps.api.pictures import download, immutable_picture, width_allowed
from fitzle.apps.api.schemas import Begin, FitOut, Message, NewPart, StalePiece, StartingPointOut
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import open_fit
from fitzle.apps.pieces.starting import draw_starting_point, offered_points, state_of_points
from fitzle.core.colour.srgb import normal_hex
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.spec.naming import file_name, rule_for

router = Router(tags=["composing"])
MOST_COLOURS = 40


@router.post("/fits/{uuid:fit}/parts", response={200: FitOut, 409: StalePiece, 422: Message})
def add_part(request: HttpRequest, workspace: Path[str], fit: UUID, given: NewPart) -> FitOut:
    """Adds a part by role, or artwork at a point, or puts artwork in the place of a part's own."""
    access = access_to(request.user, workspace)
    if given.artwork and given.instead:
        changed = actions.replace_artwork(access, fit, given.revision, given.instead, str(given.artwork), given.key)
    elif given.artwork:
        at = (given.x, given.y) if given.x is not None and given.y is not None else None
        changed = actions.add_artwork(access, fit, given.revision, str(given.artwork), at, given.key)
    else:
        changed = actions.add_role(access, fit, given.revision, given.role, given.key)
    return view_of_changed(access, changed, given.proof_width)


@router.get("/fits/{uuid:fit}/contrasts", response={200: dict[str, float], 422: Message})
def contrasts(request: HttpRequest, workspace: Path[str], fit: UUID, part: str, colours: str) -> dict[str, float]:
    """The contrast of each colour (hex codes separated by commas) with what is really behind a part."""
    space = workspace_to_see(request.user, workspace)
    try:
        wanted = [normal_hex(entry) for entry in colours.split(",")[:MOST_COLOURS] if entry]
    except ValueError as error:
        raise ValueOutOfRange(str(error)) from error
    opened = open_fit(space, fit_of(space, fit))
    return read_contrasts.ask(opened.proof_key, space.pk, fit, part, wanted)


@router.get("/fits/{uuid:fit}/svg")
def as_svg(request: HttpRequest, workspace: Path[str], fit: UUID) -> HttpResponseBase:
    """The fit as SVG with words as outlines, to save."""
    space = workspace_to_see(request.user, workspace)
    opened = open_fit(space, fit_of(space, fit))
    drawn = draw_svg.ask(opened.file_key, space.pk, fit)
    name = file_name(
        rule_for(opened.sheet.naming, naming_rule(space)),
        "svg",
        subject=opened.document.subject,
        placement=opened.sheet.name,
        size=opened.size,
    )
    return download(drawn.data, name, drawn.media_type)


@router.get("/placements/{uuid:placement}/starting-points", response=list[StartingPointOut])
def list_starting_points(request: HttpRequest, workspace: Path[str], placement: UUID) -> list[StartingPointOut]:
    """What one may begin with in this placement; nothing of it breaks a rule there."""
    space = workspace_to_see(request.user, workspace)
    [place] = placements_of(space, [placement])
    points = offered_points.ask(state_of_points(space, place), space.pk, placement)
    return [StartingPointOut(number=point.number, name=point.name) for point in points]


@router.get("/placements/{uuid:placement}/starting-points/{int:number}/proof")
def starting_point_proof(
    request: HttpRequest, workspace: Path[str], placement: UUID, number: int, width: int = 300
) -> HttpResponse:
    """A starting point, drawn."""
    space = workspace_to_see(request.user, workspace)
    [place] = placements_of(space, [placement])
    drawn = draw_starting_point.ask(state_of_points(space, place), space.pk, placement, number, width_allowed(width))
    answer = immutable_picture(*drawn)
    answer["Cache-Control"] = "private, max-age=60"
    return answer


@router.post("/placements/{uuid:placement}/pieces", response={201: FitOut, 422: Message})
def begin_piece(request: HttpRequest, workspace: Path[str], placement: UUID, given: Begin) -> Status[FitOut]:
    """A new piece from a starting point."""
    access = access_to(request.user, workspace)
    return Status(201, view_of_changed(access, actions.begin_piece(access, placement, given.starting_point)))
