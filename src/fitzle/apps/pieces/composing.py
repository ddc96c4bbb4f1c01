"""Parts brought into a piece from one of its fits: by role, from artwork, in the place of another picture."""

from __future__ import annotations

from typing import Any, NamedTuple
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from fitzle.apps.accounts.access import house_style
from fitzle.apps.artwork.library import facts_by_id, newest_of_kind
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.models import Fit, Piece
from fitzle.apps.pieces.opening import open_fit
from fitzle.apps.pieces.saving import create_piece, save_changes
from fitzle.core.errors import DocumentError
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.piece.changes import Change
from fitzle.core.piece.document import parts_in
from fitzle.core.piece.parts import ArtworkPart
from fitzle.core.plan.new_parts import artwork_part, replacing, shape_part, words_part
from fitzle.core.plan.standing import standing_at
from fitzle.core.plan.starting_points import House, StartingPoint, starting_points


class Placing(NamedTuple):
    """A part put at a rectangle, in px of the file; with `placement` only there."""

    part: str
    rect: Rect
    placement: str | None


def house_of(workspace: Any) -> House:
    """What the workspace makes its pieces of."""
    style = house_style(workspace)
    usual = House(name=workspace.name)
    return House(
        name=workspace.name,
        colours=tuple(style.colours),
        heading=style.heading or usual.heading,
        text=style.text or usual.text,
        marks=tuple(newest_of_kind(workspace, "mark")),
        pictures=tuple(newest_of_kind(workspace, "picture")),
    )


def placing_changes(workspace: Any, fit: Fit, placings: list[Placing]) -> list[Change]:
    """What putting parts at rectangles changes in the piece."""
    if not placings:
        return []
    size = open_fit(workspace, fit).planned.plan.size
    changes = []
    for placing in placings:
        stands, beyond = standing_at(placing.rect, size)
        for field, value in (("stands", stands.model_dump()), ("beyond", beyond)):
            changes.append(Change(part=placing.part, field=field, value=value, placement=placing.placement))
    return changes


def role_part(workspace: Any, role: str) -> Change:
    """A new part of a role that needs no artwork, in the house's own colours and typefaces."""
    house = house_of(workspace)
    if role == "shape":
        return shape_part("circle", house.strong)
    return words_part(role, house.heading, house.text, house.strong)


def artwork_change(workspace: Any, fit: Fit, artwork: str, at: tuple[float, float] | None) -> Change:
    """A new picture or mark with its middle at (x, y), in fractions of the picture."""
    found = facts_by_id(workspace, [artwork])
    if artwork not in found:
        raise DocumentError("this artwork cannot be used", advice="Wait until it is read, or bring it in again.")
    size = open_fit(workspace, fit).planned.plan.size
    point = Point(at[0] * size.width, at[1] * size.height) if at else None
    return artwork_part(artwork, found[artwork], size, point)


def replace_changes(workspace: Any, fit: Fit, part: str, artwork: str) -> list[Change]:
    """Another artwork in the place of a part's own, everywhere the piece stands."""
    document = open_fit(workspace, fit).document
    own = next((entry for entry in parts_in(document, None) if entry.id == part), None)
    if not isinstance(own, ArtworkPart):
        raise DocumentError(f"the part {part!r} shows no picture that could be replaced")
    if artwork not in facts_by_id(workspace, [artwork]):
        raise DocumentError("this artwork cannot be used", advice="Wait until it is read, or bring it in again.")
    return replacing(part, artwork)


def check_target(workspace: Any, target: str) -> None:
    """Http404 unless a drop goes to a fit of the workspace; DocumentError for anything that is no such target."""
    _target(workspace, target)


def _target(workspace: Any, target: str) -> tuple[str, Fit, list[str]]:
    act, fit_id, *more = target.split("/")
    try:
        known = {"into": 2, "instead": 1}.get(act) == len(more)
        numbers = [float(entry) for entry in more] if act == "into" else []
        fit = fit_of(workspace, UUID(fit_id))
    except ValueError as error:
        raise DocumentError("this is no place to drop a file") from error
    if not known or any(not 0 <= number <= 1 for number in numbers):
        raise DocumentError("this is no place to drop a file")
    return act, fit, more


def bring_into(workspace: Any, user: Any, artwork: str, target: str) -> Fit:
    """What a drop on a proof does once the file is read: `into/FIT/X/Y` adds it, `instead/FIT/PART` replaces one."""
    act, fit, more = _target(workspace, target)
    if act == "into":
        changes = [artwork_change(workspace, fit, artwork, (float(more[0]), float(more[1])))]
        step = "add artwork"
    else:
        changes = replace_changes(workspace, fit, more[0], artwork)
        step = "replace the picture"
    save_changes(fit.piece, user, fit.piece.revision, changes, step)
    return fit


def points_for(workspace: Any, placement: Any) -> list[StartingPoint]:
    """The starting points for a placement."""
    return starting_points(placement.spec, house_of(workspace))


@transaction.atomic
def begin(workspace: Any, user: Any, placement: Any, number: int) -> Fit:
    """A new piece from a starting point, standing in the placement."""
    points = points_for(workspace, placement)
    if not 0 <= number < len(points):
        raise DocumentError("there is no such starting point")
    document = points[number].piece.model_copy(update={"subject": placement.spec.name})
    return stand(create_piece(workspace, user, document), placement)


def stand(piece: Piece, placement: Any) -> Fit:
    """Puts a piece into a placement, in front of what stood there."""
    return Fit.objects.create(piece=piece, placement=placement, placed_at=timezone.now())
