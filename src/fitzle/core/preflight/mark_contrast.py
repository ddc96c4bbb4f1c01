"""Contrast of a mark on a plain ground, along its outline (decision 0005), and the tint that would read there."""

from __future__ import annotations

from fitzle.core.colour.contrast import BLACK, LEAST_GRAPHICS_CONTRAST, WHITE, contrast_ratio, weakest_contrast
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.oklab import difference
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex
from fitzle.core.plan.grounds import grounds_behind, veiled, veiled_shares
from fitzle.core.preflight.places import stands_on_ground
from fitzle.core.preflight.rule import ArtworkInPlan
from fitzle.core.spec.sheet import SpecSheet

MERGES_BELOW = 0.02  # OKLab: a just noticeable difference
MERGED_SHARE = 0.8  # of the outline
MOST_CONTRAST = 21.0  # WCAG 2.2: black on white


def contrast_with(own: ArtworkInPlan, behind: Rgb) -> float:
    """Contrast of the outline with what is behind it.

    Where the outline merges with the ground on purpose (a tile on a ground of its own colour) the colours inside it
    are what is seen, and they are measured instead.
    """
    outline = veiled_shares(own.sheet, _outline(own))
    if not outline:
        return MOST_CONTRAST  # nothing is drawn, so nothing is faint
    merged = sum(entry.share for entry in outline if _merges(entry, behind))
    if merged < MERGED_SHARE * sum(entry.share for entry in outline) or own.part.tint:
        return weakest_contrast(outline, behind)
    inside = tuple(entry for entry in veiled_shares(own.sheet, own.facts.colours) if not _merges(entry, behind))
    return weakest_contrast(inside, behind) if inside else 1.0


def weakest_on_grounds(own: ArtworkInPlan) -> tuple[float, str] | None:
    """The contrast where a mark is weakest and that ground in words; None where pixels decide, or it is no mark."""
    if own.facts.kind != "mark" or own.facts.transparency == "none" or not stands_on_ground(own.plan, own.part):
        return None
    grounds = grounds_behind(own.sheet, own.plan.ground)
    return min(((contrast_with(own, colour), words) for words, colour in grounds), default=None)


def is_faint(own: ArtworkInPlan) -> bool:
    """Whether a mark on a plain ground or page is fainter than is seen well."""
    weakest = weakest_on_grounds(own)
    return weakest is not None and weakest[0] < LEAST_GRAPHICS_CONTRAST


def suggested_tint(own: ArtworkInPlan) -> str | None:
    """The house colour, black or white that reads on every ground, or None where none does or a tint would not suit."""
    if own.facts.colours and not own.facts.one_colour:
        return None
    behind = [colour for _, colour in grounds_behind(own.sheet, own.plan.ground)]
    line = (to_hex(parse_hex(tint)) for tint in (*own.house, BLACK, WHITE))
    return next((tint for tint in line if _reads(tint, own.sheet, behind)), None)


def _reads(tint: str, sheet: SpecSheet, behind: list[Rgb]) -> bool:
    own = veiled(sheet, parse_hex(tint))
    return all(contrast_ratio(own, colour) >= LEAST_GRAPHICS_CONTRAST for colour in behind)


def _merges(entry: ColourShare, behind: Rgb) -> bool:
    return difference(parse_hex(entry.hex), behind) <= MERGES_BELOW


def _outline(own: ArtworkInPlan) -> tuple[ColourShare, ...]:
    if own.part.tint:
        return (ColourShare(hex=own.part.tint, share=1.0),)
    return own.facts.edge_colours
