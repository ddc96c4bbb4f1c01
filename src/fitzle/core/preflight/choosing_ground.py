"""A repair of several rules: a ground behind a mark on which it can be seen."""

from __future__ import annotations

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.piece.editing import ground_part
from fitzle.core.plan.grounds import readable_ground
from fitzle.core.preflight.backdrop_box import showing_box
from fitzle.core.preflight.mark_contrast import is_faint
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence


def choose_ground(piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The artwork's own backdrop where it has one, else the house colour, white or near-black that suits it best."""
    ground = ground_part(piece)
    asked = (own for own in evidence.artworks() if part in (None, own.part.part))
    own = next((own for own in asked if is_faint(own) or showing_box(own)), None)
    if ground is None or own is None:
        return []
    colour = own.facts.backdrop_colour or readable_ground(list(own.house), [_as_tinted(own)])
    value = {"kind": "solid", "colour": colour}
    return [SetField(part=ground.id, field="fill", value=value, placement=placement)]


def _as_tinted(own: ArtworkInPlan) -> ArtworkFacts:
    tint = own.part.tint
    if not tint or not own.facts.edge_colours:
        return own.facts
    only = own.facts.edge_colours[0].model_copy(update={"hex": tint, "share": 1.0})
    return own.facts.model_copy(update={"edge_colours": (only,)})
