"""Composing: parts brought in and put somewhere, starting points, colours that read, the piece as SVG."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import house_colours, naming_rule, workspace_to_change, workspace_to_see
from fitzle.apps.api.fits import view_of_changed
from fitzle.apps.api.pictures import download, immutable_picture, width_allowed
from fitzle.apps.api.shapes import Begin, FitOut, Message, NewPart, StalePiece, StartingPointOut
from fitzle.apps.artwork.library import facts_by_id, sources_by_id
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.pieces.composing import artwork_change, begin, points_for, replace_changes, role_part
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import looked_fit
from fitzle.apps.pieces.saving import save_changes
from fitzle.core.colour.srgb import normal_hex
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.piece.document import artworks_in
from fitzle.core.pipeline import look_at_fit, plan_fit, proof_bytes
from fitzle.core.preflight.legibility import contrasts_behind
from fitzle.core.render.svg import svg_of
from fitzle.core.spec.naming import file_name, rule_for

router = Router(tags=["composing"])
MOST_COLOURS = 40


@router.post("/fits/{uuid:fit}/parts", response={200: FitOut, 409: StalePiece, 422: Message})
def add_part(request: HttpRequest, workspace: Path[str], fit: UUID, given: NewPart) -> Any:
    """Adds a part by role, or artwork at a point, or puts artwork in the place of a part's own."""
    space = workspace_to_change(request.user, workspace)
    found = fit_of(space, fit)
    if given.artwork and given.instead:
        changes = replace_changes(space, found, given.instead, str(given.artwork))
        step = "replace the picture"
    elif given.artwork:
        at = (given.x, given.y) if given.x is not None and given.y is not None else None
        changes, step = [artwork_change(space, found, str(given.artwork), at)], "add artwork"
    else:
        changes, step = [role_part(space, given.role)], f"add a {given.role}"
    save_changes(found.piece, request.user, given.revision, changes, step)
    return view_of_changed(space, found, given.proof_width)


@router.get("/fits/{uuid:fit}/contrasts", response={200: dict[str, float], 422: Message})
def contrasts(request: HttpRequest, workspace: Path[str], fit: UUID, part: str, colours: str) -> Any:
    """The contrast of each colour (hex codes separated by commas) with what is really behind a part."""
    space = workspace_to_see(request.user, workspace)
    try:
        wanted = [normal_hex(entry) for entry in colours.split(",")[:MOST_COLOURS] if entry]
    except ValueError as error:
        raise ValueOutOfRange(str(error)) from error
    opened = looked_fit(space, fit_of(space, fit))
    return contrasts_behind(opened.planned.plan, part, wanted, opened.sheet, opened.sources(preview=True))


@router.get("/fits/{uuid:fit}/svg")
def as_svg(request: HttpRequest, workspace: Path[str], fit: UUID) -> HttpResponse:
    """The fit as SVG with words as outlines, to save."""
    space = workspace_to_see(request.user, workspace)
    opened = looked_fit(space, fit_of(space, fit))
    data = svg_of(opened.planned.plan, opened.sources(preview=False))
    name = file_name(
        rule_for(opened.sheet.naming, naming_rule(space)),
        "svg",
        subject=opened.document.subject,
        placement=opened.sheet.name,
        size=opened.planned.plan.size,
    )
    return download(data, name, "image/svg+xml")


@router.get("/placements/{uuid:placement}/starting-points", response=list[StartingPointOut])
def list_starting_points(request: HttpRequest, workspace: Path[str], placement: UUID) -> Any:
    """What one may begin with in this placement."""
    space = workspace_to_see(request.user, workspace)
    points = points_for(space, placements_of(space, [placement])[0])
    return [{"number": number, "name": point.name} for number, point in enumerate(points)]


@router.get("/placements/{uuid:placement}/starting-points/{int:number}/proof")
def starting_point_proof(
    request: HttpRequest, workspace: Path[str], placement: UUID, number: int, width: int = 300
) -> HttpResponse:
    """A starting point, drawn."""
    space = workspace_to_see(request.user, workspace)
    entry = placements_of(space, [placement])[0]
    points = points_for(space, entry)
    piece = points[min(max(number, 0), len(points) - 1)].piece
    names = artworks_in(piece)
    facts, sources = facts_by_id(space, names), sources_by_id(space, names, preview=True)
    house = house_colours(space)
    planned = look_at_fit(plan_fit(piece, entry.spec, facts, None, house), entry.spec, facts, sources, house)
    answer = immutable_picture(*proof_bytes(planned.plan, sources, width_allowed(width)))
    answer["Cache-Control"] = "private, max-age=60"
    return answer


@router.post("/placements/{uuid:placement}/pieces", response={201: FitOut, 422: Message})
def begin_piece(request: HttpRequest, workspace: Path[str], placement: UUID, given: Begin) -> Any:
    """A new piece from a starting point."""
    space = workspace_to_change(request.user, workspace)
    fit = begin(space, request.user, placements_of(space, [placement])[0], given.starting_point)
    return Status(201, view_of_changed(space, fit))
