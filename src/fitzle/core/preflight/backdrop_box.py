"""Where an opaque backdrop of a mark shows as a box."""

from __future__ import annotations

from typing import NamedTuple

from fitzle.core.colour.oklab import difference
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.plan.grounds import takes_alpha
from fitzle.core.preflight.places import stands_on_ground
from fitzle.core.preflight.rule import ArtworkInPlan

BOX_SHOWS = 0.02  # OKLab: a just noticeable difference between a backdrop and what surrounds it


class ShowingBox(NamedTuple):
    """The colour of a backdrop and what it shows against: the piece's own ground, or a page (hex)."""

    backdrop: str
    against: str
    on_page: bool


def showing_box(own: ArtworkInPlan) -> ShowingBox | None:
    """The box of one mark, where it shows; a drawing that stands as a picture is meant to have its edges."""
    backdrop = own.facts.backdrop_colour
    is_mark = own.facts.kind == "mark" and own.part.role == "mark"
    if backdrop is None or not is_mark or not stands_on_ground(own.plan, own.part):
        return None
    if own.plan.ground:
        shows = _differs(own.plan.ground, backdrop)
        return ShowingBox(backdrop, own.plan.ground, on_page=False) if shows else None
    page = next((page for page in own.sheet.grounds if _differs(page, backdrop)), None)
    return ShowingBox(backdrop, page, on_page=True) if page and takes_alpha(own.sheet) else None


def _differs(one: str, other: str) -> bool:
    return difference(parse_hex(one), parse_hex(other)) > BOX_SHOWS
