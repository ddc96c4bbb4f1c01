"""Lengths in fractions made px: looks, borders and edges."""

from __future__ import annotations

from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.effects import Border, Edge
from fitzle.core.piece.parts import StandingPart
from fitzle.core.plan.placed import Line, Look
from fitzle.core.units import Size


def look_of(part: StandingPart, size: Size) -> Look:
    """How the part is laid over what is behind it."""
    return Look(part.rotation, part.opacity, part.blend, edge_of(part.edge, size))


def edge_of(edge: Edge | None, size: Size) -> Line | None:
    """A die-cut edge in px."""
    return Line(edge.width * size.short_side, edge.colour) if edge else None


def border_of(border: Border | None, box: Rect) -> Line | None:
    """A border in px."""
    return Line(border.width * min(box.width, box.height), border.colour) if border else None
