"""Repairs: pure functions from a fit to the changes that mend it, for one placement only."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.errors import DocumentError
from fitzle.core.piece.document import Piece
from fitzle.core.piece.editing import Change, ground_part
from fitzle.core.plan.grounds import readable_ground
from fitzle.core.plan.planning import plan_piece
from fitzle.core.preflight.eye import Judged, mark_contrast, showing_box, suggested_tint
from fitzle.core.spec.sheet import SpecSheet


def repair_changes(
    name: str,
    piece: Piece,
    placement: str,
    sheet: SpecSheet,
    facts: Mapping[str, ArtworkFacts],
    house: tuple[str, ...] = (),
) -> list[Change]:
    """The changes of the repair with this name; raises DocumentError when there is nothing to repair."""
    if name not in REPAIRS:
        raise DocumentError(f"there is no repair called {name!r}")
    plan = plan_piece(piece, sheet, facts, placement)
    judged = [Judged(part, facts[part.artwork], plan, sheet, house) for part in plan.artworks]
    changes = [change for one in judged for change in REPAIRS[name](piece, placement, one)]
    if not changes:
        raise DocumentError("there is nothing to repair any more")
    return changes


def _add_padding(piece: Piece, placement: str, judged: Judged) -> list[Change]:
    """Shown whole, standing free, with the padding that the plan would choose."""
    part = judged.part.part
    values = {"mode": "whole", "padding": None, "stands": "fill", "centring": "box"}
    return [Change(part=part, field=field, value=value, placement=placement) for field, value in values.items()]


def _contrasting_tint(piece: Piece, placement: str, judged: Judged) -> list[Change]:
    tint = suggested_tint(judged) if mark_contrast(judged) else None
    return [Change(part=judged.part.part, field="tint", value=tint, placement=placement)] if tint else []


def _choose_ground(piece: Piece, placement: str, judged: Judged) -> list[Change]:
    ground = ground_part(piece)
    if ground is None or not (mark_contrast(judged) or showing_box(judged)):
        return []
    colour = judged.facts.flat_backdrop or readable_ground(list(judged.house), [_as_tinted(judged)])
    return [Change(part=ground.id, field="colour", value=colour, placement=placement)]


def _as_tinted(judged: Judged) -> ArtworkFacts:
    tint = judged.part.tint
    if not tint or not judged.facts.edge_colours:
        return judged.facts
    only = judged.facts.edge_colours[0].model_copy(update={"hex": tint, "share": 1.0})
    return judged.facts.model_copy(update={"edge_colours": (only,)})


REPAIRS: dict[str, Callable[[Piece, str, Judged], list[Change]]] = {
    "add-padding": _add_padding,
    "contrasting-tint": _contrasting_tint,
    "choose-ground": _choose_ground,
}
