"""Starting points for a placement: its kind's structures, filled by the house and arranged for its shape."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import Literal, NamedTuple

from fitzle.core.arrange.arranging import arranged
from fitzle.core.arrange.intent import intent_of
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Source
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.making import look_at
from fitzle.core.fit.request import FitRequest
from fitzle.core.piece.document import Composed, Piece
from fitzle.core.piece.parts import adjusted_part
from fitzle.core.plan.planning import planned_size
from fitzle.core.preflight.registry import judged
from fitzle.core.spec.sheet import ExactSize, SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.starting.compositions import COMPOSITIONS, Structure
from fitzle.core.starting.house import House
from fitzle.core.starting.small import ICONS, LOGOS, STICKERS, WATERMARKS
from fitzle.core.units import Size

ICON_UP_TO_PX = 192
HEADER_FROM_RATIO = 3.5
WIDE_FROM_RATIO = 2.2
SQUARE_UP_TO_RATIO = 1.25
TYPICAL = Size(512, 512)
OFFERED = 10

Kind = Literal[
    "page header", "wide banner", "thumbnail", "card", "product", "story", "watermark", "sticker", "header logo", "icon"
]
SMALL: dict[Kind, tuple[Structure, ...]] = {
    "watermark": WATERMARKS, "sticker": STICKERS, "header logo": LOGOS, "icon": ICONS,
}  # fmt: skip
_BY_KIND: dict[str, Kind] = {
    "video-thumbnail": "thumbnail", "lesson-picture": "thumbnail", "event-header": "thumbnail",
    "corner-watermark": "watermark", "sticker": "sticker", "moving-sticker": "sticker", "small-sticker": "sticker",
    "print-sticker": "sticker", "shop-badge": "sticker", "site-icon": "icon", "touch-icon": "icon", "app-icon": "icon",
    "header-logo": "header logo", "header-logo-dark": "header logo", "sign-in-logo": "header logo",
    "wide-banner": "wide banner", "narrow-banner": "wide banner", "course-header": "page header",
    "course-card": "card", "podcast-cover": "card", "product-square": "product",
}  # fmt: skip


class StartingPoint(NamedTuple):
    """A piece to begin with and what it is; `number` is that of its structure among those of its kind."""

    number: int
    name: str
    piece: Piece


def kind_of_placement(sheet: SpecSheet) -> Kind:
    """What its starting points are made for: by the sheet's kind, else by size, shape and transparency."""
    if sheet.kind in _BY_KIND:
        return _BY_KIND[sheet.kind]
    size = delivered_size(sheet, TYPICAL, vector=True)
    square = max(size.ratio, 1 / size.ratio) <= SQUARE_UP_TO_RATIO
    if square and size.short_side <= ICON_UP_TO_PX:
        return "icon"
    if square and sheet.transparency == "required":
        return "sticker" if sheet.capacity else "watermark"
    if size.ratio >= WIDE_FROM_RATIO:
        wide: Kind = "page header" if size.ratio >= HEADER_FROM_RATIO else "wide banner"
        return wide if sheet.transparency == "forbidden" else "header logo"
    if size.ratio * SQUARE_UP_TO_RATIO < 1:
        return "story"
    return "thumbnail" if size.ratio > SQUARE_UP_TO_RATIO else "card"


def structures_for(sheet: SpecSheet) -> tuple[Structure, ...]:
    """The structures for a placement, those whose own shape is most like it first."""
    kind = kind_of_placement(sheet)
    if kind in SMALL:
        return SMALL[kind]
    ratio = delivered_size(sheet, TYPICAL, vector=True).ratio
    return tuple(sorted(COMPOSITIONS, key=lambda one: abs(math.log(one.size.ratio / ratio))))


def starting_point(
    sheet: SpecSheet, house: House, facts: Mapping[str, ArtworkFacts], number: int
) -> StartingPoint | None:
    """One of them; None where its kind has no such structure. `facts` are those of the house's marks and pictures."""
    structures = structures_for(sheet)
    if not 0 <= number < len(structures):
        return None
    own = structures[number]
    piece = Piece.model_validate({"subject": house.name[:120], "parts": own.parts(house)})
    return StartingPoint(number, own.name, _for_shape(piece, own, sheet, facts))


def unbroken(request: FitRequest, sources: Mapping[str, Source]) -> bool:
    """Whether a piece breaks no rule in its place: nothing but notes is found."""
    looked = decide(plan_fit(request), sources)
    findings = judged(replace(looked.evidence, eye=look_at(looked, sources)), "plan", "pixels", "seen")
    return all(one.severity == "note" for one in findings)


def _for_shape(piece: Piece, own: Structure, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]) -> Piece:
    """Composed in the place's own shape, so that other places follow from there."""
    size = planned_size(piece.parts, sheet, facts)
    parts = piece.parts
    if kind_of_placement(sheet) != "icon":
        composed = SpecSheet(
            fitzle_spec=1, name=own.name, size=ExactSize(width=own.size.width, height=own.size.height), formats=("png",)
        )
        differs = arranged(parts, intent_of(parts, composed, facts), sheet, facts)
        fitted = [adjusted_part(part, differs[part.id]) if part.id in differs else part for part in parts]
        parts = tuple(part for part in fitted if not part.hidden)
    return piece.model_copy(update={"parts": parts, "composed": Composed(width=size.width, height=size.height)})
