"""What brings parts into a piece from one of its fits: by role, from artwork, in the place of another picture."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from fitzle.apps.artwork.library import facts_by_id
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.models import Fit
from fitzle.apps.pieces.opening import OpenFit, open_fit
from fitzle.apps.pieces.starting import house_of
from fitzle.core.errors import DocumentError
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.piece.changes import AddPart, AnyChange, Compose, ResetField, SetField
from fitzle.core.piece.document import Composed, parts_in
from fitzle.core.piece.parts import WHERE_IT_STANDS, ArtworkPart
from fitzle.core.piece.scoping import FieldValue
from fitzle.core.plan.new_parts import artwork_part, replacing, shape_part, words_part
from fitzle.core.plan.standing import standing_at

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

NOT_READY = DocumentError("this artwork cannot be used", advice="Wait until it is read, or bring it in again.")


class Placing(NamedTuple):
    """A part put at a rectangle, in px of the file."""

    part: str
    rect: Rect


class Drop(NamedTuple):
    """A drop on a proof: artwork added with its middle at (x, y) in fractions, or put in the place of a part's own.

    `only_here` puts it there in this placement alone, as a version of what stands there.
    """

    fit: Fit
    at: tuple[float, float] | None
    instead: str | None
    only_here: bool = False


def placed_values(workspace: Workspace, fit: Fit, placings: Sequence[Placing]) -> list[FieldValue]:
    """The fields of parts that are put at rectangles."""
    if not placings:
        return []
    size = open_fit(workspace, fit).size
    values = []
    for placing in placings:
        stands, beyond = standing_at(placing.rect, size)
        values.append(FieldValue(part=placing.part, field="stands", value=stands.model_dump()))
        values.append(FieldValue(part=placing.part, field="beyond", value=beyond))
    return values


def composing_changes(opened: OpenFit) -> list[AnyChange]:
    """What says that a piece is composed as it stands in a fit now; what differs there becomes the piece's own."""
    document, size = opened.document, opened.size
    own = {part.id: part.model_dump(mode="json") for part in document.parts}
    adjusted = document.adjustments.get(opened.slug, {})
    changes: list[AnyChange] = []
    for part in opened.resolved.parts:
        now = part.model_dump(mode="json")
        for field in sorted(WHERE_IT_STANDS & now.keys()):
            if field in adjusted.get(part.id, {}):
                changes.append(ResetField(part=part.id, field=field, placement=opened.slug))
            if now[field] != own[part.id][field]:
                changes.append(SetField(part=part.id, field=field, value=now[field]))
    return [
        *changes,
        Compose(composed=Composed(width=size.width, height=size.height, placement=opened.resolved.request.placement)),
    ]


def role_part(workspace: Workspace, role: str) -> AddPart:
    """A new part of a role that needs no artwork, in the house's own colours and typefaces."""
    house = house_of(workspace)
    if role == "shape":
        return shape_part("circle", house.strong)
    return words_part(role, house.heading, house.text, house.strong)


def artwork_change(workspace: Workspace, fit: Fit, artwork: str, at: tuple[float, float] | None) -> AddPart:
    """A new picture or mark with its middle at (x, y), in fractions of the picture."""
    found = facts_by_id(workspace, [artwork])
    if artwork not in found:
        raise NOT_READY
    size = open_fit(workspace, fit).size
    point = Point(at[0] * size.width, at[1] * size.height) if at else None
    return artwork_part(artwork, found[artwork], size, point)


def replace_changes(workspace: Workspace, fit: Fit, part: str, artwork: str) -> list[SetField]:
    """Another artwork in the place of a part's own, everywhere the piece stands."""
    document = open_fit(workspace, fit).document
    own = next((entry for entry in parts_in(document, None) if entry.id == part), None)
    if not isinstance(own, ArtworkPart):
        raise DocumentError(f"the part {part!r} shows no picture that could be replaced")
    if artwork not in facts_by_id(workspace, [artwork]):
        raise NOT_READY
    return replacing(part, artwork)


def drop_of(workspace: Workspace, target: str) -> Drop:
    """What a target says that is no placement: `into/FIT/X/Y`, `instead/FIT/PART` or `simpler/FIT/PART`.

    Http404 unless it goes to a fit of the workspace; DocumentError for anything that is no such target.
    """
    act, fit_id, *more = target.split("/")
    try:
        known = {"into": 2, "instead": 1, "simpler": 1}.get(act) == len(more)
        numbers = [float(entry) for entry in more] if act == "into" else []
        fit = fit_of(workspace, UUID(fit_id))
    except ValueError as error:
        raise DocumentError("this is no place to drop a file") from error
    if not known or any(not 0 <= number <= 1 for number in numbers):
        raise DocumentError("this is no place to drop a file")
    if act == "into":
        return Drop(fit, (numbers[0], numbers[1]), None)
    return Drop(fit, None, more[0], only_here=act == "simpler")
