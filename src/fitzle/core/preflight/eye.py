"""First rules for the eye: enlarging, clearance, contrast with what is really behind, and boxes that show."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from typing import NamedTuple

from fitzle.core.artwork.facts import ENLARGED_FROM, FEW_COLOURS, FLAT_COLOURS_SHARE, ArtworkFacts
from fitzle.core.colour.contrast import (
    HALF_LIGHT,
    LEAST_GRAPHICS_CONTRAST,
    best_against,
    contrast_ratio,
    relative_luminance,
    weakest_contrast,
)
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.oklab import difference
from fitzle.core.colour.srgb import Rgb, parse_hex
from fitzle.core.findings import Finding, Offer, Repair, Where
from fitzle.core.plan.grounds import grounds_behind, takes_alpha
from fitzle.core.plan.padding import least_clearance_px
from fitzle.core.plan.placed import PlacedArtwork, Plan
from fitzle.core.preflight.places import overlap, where_in
from fitzle.core.preflight.words import judge_words
from fitzle.core.spec.sheet import CircleCut, SpecSheet

ENLARGED_SHOWS = 1.1  # times; up to that the softening is within what the encoder costs
BOX_SHOWS = 0.02  # OKLab: a just noticeable difference between a backdrop and what surrounds it
ONE_COLOUR_SHARE = 0.97
MERGED_SHARE = 0.8  # of the outline


class Judged(NamedTuple):
    """One placed artwork with everything a rule may look at; `house` are the business's colours."""

    part: PlacedArtwork
    facts: ArtworkFacts
    plan: Plan
    sheet: SpecSheet
    house: tuple[str, ...] = ()


def judge_by_eye(
    plan: Plan, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts], house: tuple[str, ...] = ()
) -> list[Finding]:
    """All findings for the eye, part by part, back to front, after what was decided for the person."""
    found = [_ground_note(plan, sheet)] if plan.ground_given else []
    for part in plan.artworks:
        judged = Judged(part, facts[part.artwork], plan, sheet, house)
        found += [
            finding.model_copy(update={"part": part.part}) for rule in EYE_RULES.values() if (finding := rule(judged))
        ]
    return found + judge_words(plan, sheet)


def enlarging(judged: Judged) -> Finding | None:
    """A bitmap drawn larger than its own pixels, or than the detail that is really in them."""
    scale = judged.part.scale * _px_for_each_detail(judged.facts)
    if judged.facts.vector or scale <= 1.001:
        return None
    blur = "It will look blurred" if scale > ENLARGED_SHOWS else "That hardly shows"
    return Finding(
        rule="enlarging",
        severity="risky" if scale > ENLARGED_SHOWS else "note",
        message=f"It is enlarged {scale:.2g} times: {_what_is_drawn(judged)}."
        f" {blur}; a larger file or an SVG would be crisp.",
        measured=round(scale, 3),
        limit=1.0,
        where=_where(judged),
        offer=_offer_tracing(judged) if scale > ENLARGED_SHOWS else None,
    )


def _offer_tracing(judged: Judged) -> Offer | None:
    """Flat colours can be traced: the outlines are crisp at any size."""
    flat = sum(entry.share for entry in judged.facts.colours[:FEW_COLOURS]) >= FLAT_COLOURS_SHARE
    if judged.facts.kind != "mark" or judged.facts.format == "svg" or not flat:
        return None
    return Offer(step="trace", artwork=judged.part.artwork, label="Make outlines of its pixels")


def _px_for_each_detail(facts: ArtworkFacts) -> float:
    """Px of the artwork for each px of detail in it: above 1 it was enlarged before it came; 1 if nobody measured."""
    longest = max(facts.width, facts.height)
    enlarged = facts.detail_px is not None and facts.detail_px < ENLARGED_FROM * longest
    return longest / facts.detail_px if enlarged and facts.detail_px else 1.0


def _what_is_drawn(judged: Judged) -> str:
    shown, own, facts = judged.part.box, judged.part.window, judged.facts
    drawn = f"{own.width:.0f} × {own.height:.0f} px are drawn at {shown.width:.0f} × {shown.height:.0f}"
    if _px_for_each_detail(facts) == 1:
        return drawn
    return f"{drawn}, and the file, {max(facts.width, facts.height):.0f} px long, carries only {facts.detail_px:.0f} px"


def clearance_px(judged: Judged) -> float:
    """The least distance of the contents to the edge or to the circle they are cut to, in px; below 0 they are cut."""
    box, size = judged.part.box, judged.plan.size
    straight = min(box.x, box.y, size.width - box.right, size.height - box.bottom)
    if not isinstance(judged.sheet.cut, CircleCut):
        return straight
    away = math.hypot(box.centre.x - size.width / 2, box.centre.y - size.height / 2)
    farthest = away + judged.facts.reach * math.hypot(box.width, box.height) / 2
    return min(straight, size.short_side / 2 - farthest)


def edge_clearance(judged: Judged) -> Finding | None:
    """A mark that comes too near to the edge."""
    if judged.facts.kind != "mark":
        return None
    least, found = least_clearance_px(judged.plan.size.short_side), clearance_px(judged)
    if found >= least - 0.01:
        return None
    edge = "the circle it is shown in" if isinstance(judged.sheet.cut, CircleCut) else "the edge"
    how = f"comes within {found:.1f} px of" if found > 0.05 else "touches" if found > -0.5 else "is cut off by"
    return Finding(
        rule="clearance",
        severity="risky",
        message=f"The mark {how} {edge}. {least:.3g} px is the least that looks intended here.",
        measured=round(found, 2),
        limit=round(least, 2),
        where=_where(judged),
        repair=Repair(name="add-padding", label="Add padding"),
    )


def mark_contrast(judged: Judged) -> Finding | None:
    """A mark that is faint on a ground on which it is seen (WCAG 2.2, 1.4.11)."""
    if judged.facts.kind != "mark" or judged.facts.transparency == "none" or not stands_on_ground(judged):
        return None
    measured = [
        (_contrast_with(judged, colour), words) for words, colour in grounds_behind(judged.sheet, judged.plan.ground)
    ]
    ratio, words = min(measured, default=(21.0, ""))
    if ratio >= LEAST_GRAPHICS_CONTRAST:
        return None
    return Finding(
        rule="contrast",
        severity="risky",
        message=f"The mark reads only {ratio:.1f} : 1 on {words}. 3 : 1 is the least that is seen well.",
        measured=round(ratio, 2),
        limit=LEAST_GRAPHICS_CONTRAST,
        where=_where(judged),
        repair=_contrast_repair(judged),
        offer=_offer_dark_version(judged),
    )


def _offer_dark_version(judged: Judged) -> Offer | None:
    """On dark grounds a mark of several colours can have a version with lighter ones."""
    behind = [colour for _, colour in grounds_behind(judged.sheet, judged.plan.ground)]
    if judged.part.tint or not all(relative_luminance(colour) < HALF_LIGHT for colour in behind):
        return None
    return Offer(step="dark-version", artwork=judged.part.artwork, label="Make a version of it for dark grounds")


def showing_box(judged: Judged) -> Finding | None:
    """An opaque backdrop that shows as a box: on another ground of the piece, or on the page."""
    backdrop = judged.facts.flat_backdrop
    if backdrop is None or judged.facts.kind != "mark" or not stands_on_ground(judged):
        return None
    if judged.plan.ground:
        return _box_on_ground(judged, backdrop, judged.plan.ground)
    pages = [page for page in judged.sheet.grounds if difference(parse_hex(page), parse_hex(backdrop)) > BOX_SHOWS]
    if not pages or not takes_alpha(judged.sheet):
        return None
    return Finding(
        rule="box",
        severity="risky",
        message=f"It stands on a box of {backdrop} that shows on a page of {pages[0]}. A version with a clear"
        " background would not.",
        measured=backdrop,
        limit=pages[0],
        where=_where(judged),
        offer=Offer(step="cut out", artwork=judged.part.artwork, label="Make its backdrop clear"),
    )


def _box_on_ground(judged: Judged, backdrop: str, ground: str) -> Finding | None:
    if difference(parse_hex(ground), parse_hex(backdrop)) <= BOX_SHOWS:
        return None
    return Finding(
        rule="box",
        severity="risky",
        message=f"Its own backdrop of {backdrop} shows as a box on the ground of {ground}.",
        measured=backdrop,
        limit=ground,
        where=_where(judged),
        repair=Repair(name="choose-ground", label=f"Make the ground {backdrop}"),
    )


def stands_on_ground(judged: Judged) -> bool:
    """Whether nothing but one plain ground, or the page, is behind the part, so that no pixel needs to be looked at."""
    parts = judged.plan.parts
    behind = parts[: parts.index(judged.part)]
    return judged.plan.ground_kind != "mixed" and not any(overlap(part.box, judged.part.box) for part in behind)


def suggested_tint(judged: Judged) -> str | None:
    """The house colour, black or white that reads on every ground, or None where none does or a tint would not suit."""
    if judged.facts.colours and judged.facts.colours[0].share < ONE_COLOUR_SHARE:
        return None
    behind = [colour for _, colour in grounds_behind(judged.sheet, judged.plan.ground)]
    tint = best_against(judged.house, behind)
    return tint if _reads(tint, behind) else None


def _reads(tint: str, behind: list[Rgb]) -> bool:
    return all(contrast_ratio(parse_hex(tint), colour) >= LEAST_GRAPHICS_CONTRAST for colour in behind)


def _contrast_repair(judged: Judged) -> Repair:
    tint = suggested_tint(judged)
    if tint:
        return Repair(name="contrasting-tint", label=f"Tint it {tint}")
    return Repair(name="choose-ground", label="Put a readable ground behind it")


def _contrast_with(judged: Judged, behind: Rgb) -> float:
    """Contrast of the outline with what is behind it.

    Where the outline merges with the ground on purpose (a tile on a ground of its own colour) the colours inside it
    are what is seen, and they are measured instead.
    """
    outline = _outline(judged)
    merged = sum(entry.share for entry in outline if _merges(entry, behind))
    if merged < MERGED_SHARE * sum(entry.share for entry in outline) or judged.part.tint:
        return weakest_contrast(outline, behind)
    inside = tuple(entry for entry in judged.facts.colours if not _merges(entry, behind))
    return weakest_contrast(inside, behind) if inside else 1.0


def _merges(entry: ColourShare, behind: Rgb) -> bool:
    return difference(parse_hex(entry.hex), behind) <= BOX_SHOWS


def _outline(judged: Judged) -> tuple[ColourShare, ...]:
    if judged.part.tint:
        return (ColourShare(hex=judged.part.tint, share=1.0),)
    return judged.facts.edge_colours


def _ground_note(plan: Plan, sheet: SpecSheet) -> Finding:
    return Finding(
        rule="ground-given",
        severity="note",
        message=f"This place takes no transparency, so it was given a ground of {plan.ground}.",
        measured=plan.ground,
        limit=sheet.transparency,
    )


def _where(judged: Judged) -> Where:
    return where_in(judged.plan, judged.part.box)


EYE_RULES: dict[str, Callable[[Judged], Finding | None]] = {
    "enlarging": enlarging,
    "clearance": edge_clearance,
    "contrast": mark_contrast,
    "box": showing_box,
}
