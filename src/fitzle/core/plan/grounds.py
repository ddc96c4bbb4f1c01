"""Which ground lies behind a fit."""

from __future__ import annotations

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.colour.contrast import BLACK, LEAST_GRAPHICS_CONTRAST, WHITE, share_that_shows, weakest_contrast
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.srgb import Rgb, over, parse_hex, to_hex
from fitzle.core.formats import format_named
from fitzle.core.spec.sheet import SpecSheet


def takes_alpha(sheet: SpecSheet) -> bool:
    """Whether a transparent file can be delivered at all."""
    return sheet.transparency != "forbidden" and any(format_named(fmt).alpha for fmt in sheet.formats)


def given_ground(sheet: SpecSheet, facts: list[ArtworkFacts]) -> str | None:
    """A ground where the placement takes no transparency, None where it does.

    The artwork's own backdrop if it has one; else the first of the destination's grounds, white and near-black on
    which the outline reaches 3:1; else the best of them.
    """
    if takes_alpha(sheet):
        return None
    return readable_ground(list(sheet.grounds), facts)


def readable_ground(candidates: list[str], facts: list[ArtworkFacts]) -> str:
    """The ground among candidates, white and near-black that suits the artwork best, as `given_ground` says."""
    backdrop = next((own.backdrop_colour for own in facts if own.backdrop_colour), None)
    if backdrop:
        return backdrop
    line = [*candidates, WHITE, BLACK]
    worst = {
        colour: min((weakest_contrast(own.edge_colours, parse_hex(colour)) for own in facts), default=21.0)
        for colour in line
    }
    good = next((colour for colour in line if worst[colour] >= LEAST_GRAPHICS_CONTRAST), None)
    return good or max(line, key=lambda colour: (_least_shown(facts, colour), worst[colour]))


def _least_shown(facts: list[ArtworkFacts], ground: str) -> float:
    """The least share of an outline that shows on a ground: a mark of dark and pale parts loses the fewer of both."""
    return min((share_that_shows(own.edge_colours, parse_hex(ground)) for own in facts), default=1.0)


def grounds_behind(sheet: SpecSheet, own: str | None) -> list[tuple[str, Rgb]]:
    """What a mark is really seen on: (words, colour), the veil applied; its own ground, else each of the page's."""
    if own:
        return [(f"its ground {own}", veiled(sheet, parse_hex(own)))]
    return [(f"a page of {ground}", veiled(sheet, parse_hex(ground))) for ground in sheet.grounds]


def veiled(sheet: SpecSheet, colour: Rgb) -> Rgb:
    """The colour under the destination's veil, which lies over the whole picture: over marks and words too."""
    return over(parse_hex(sheet.veil.colour), sheet.veil.opacity, colour) if sheet.veil else colour


def veiled_shares(sheet: SpecSheet, colours: tuple[ColourShare, ...]) -> tuple[ColourShare, ...]:
    """The colours of a mark, or along its outline, under the veil."""
    if sheet.veil is None:
        return colours
    return tuple(one.model_copy(update={"hex": to_hex(veiled(sheet, parse_hex(one.hex)))}) for one in colours)
