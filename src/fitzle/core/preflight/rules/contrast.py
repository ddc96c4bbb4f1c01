"""Words and marks that are faint on what is behind them (WCAG 2.2, 1.4.3 and 1.4.11).

A mark on nothing but a plain ground, or on the page, is judged by arithmetic along its outline (decision 0005);
everything else by what was read off pixels (decision 0009).
"""

from __future__ import annotations

import math

from fitzle.core.colour.contrast import BLACK, HALF_LIGHT, LEAST_GRAPHICS_CONTRAST, WHITE, relative_luminance
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.findings import Finding, Offer, Repair
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece, parts_in
from fitzle.core.piece.effects import Plate
from fitzle.core.piece.parts import WordsPart
from fitzle.core.plan.grounds import grounds_behind
from fitzle.core.plan.placed import Placed, PlacedWords
from fitzle.core.preflight.choosing_ground import choose_ground
from fitzle.core.preflight.making_stronger import calm_behind, line_around, stronger_colour
from fitzle.core.preflight.mark_contrast import is_faint, suggested_tint, weakest_on_grounds
from fitzle.core.preflight.places import quoted, where_in
from fitzle.core.preflight.readings import ContrastReading, Stronger
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence, Rule
from fitzle.core.preflight.viewing import smallest_viewing

LEAST_WORDS_CONTRAST = 4.5  # WCAG 2.2, success criterion 1.4.3
LEAST_LARGE_CONTRAST = 3.0  # the same, for large text
LARGE_SEEN_PX = 24.0  # the same: 18 pt


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each mark and each words that are faint."""
    marks = [found for own in evidence.artworks() if (found := faint_mark(own))]
    by_id = {part.part: part for part in evidence.plan.parts}
    read = [_faint(reading, by_id[reading.part], evidence) for reading in evidence.readings if reading.part in by_id]
    return marks + [found for found in read if found]


def faint_mark(own: ArtworkInPlan) -> Finding | None:
    """A mark that is faint on a plain ground or page on which it is seen."""
    weakest = weakest_on_grounds(own)
    if weakest is None or weakest[0] >= LEAST_GRAPHICS_CONTRAST:
        return None
    ratio, words = weakest
    return Finding(
        rule="contrast",
        severity="risky",
        message=f"The mark reads only {ratio:.1f} : 1 on {words}. 3 : 1 is the least that is seen well.",
        measured=round(ratio, 2),
        limit=LEAST_GRAPHICS_CONTRAST,
        where=where_in(own.plan, own.part.box),
        repair=_mark_repair(own),
        offer=_offer_dark_version(own),
        part=own.part.part,
    )


def least_words_contrast(words: PlacedWords, evidence: Evidence) -> float:
    """3:1 for letters that are still large where the picture is seen smallest, else 4.5:1."""
    viewing = smallest_viewing(evidence.sheet)
    share = viewing.width / evidence.plan.size.width if viewing else 1.0
    return LEAST_LARGE_CONTRAST if words.layout.size_px * share >= LARGE_SEEN_PX else LEAST_WORDS_CONTRAST


def _faint(reading: ContrastReading, part: Placed, evidence: Evidence) -> Finding | None:
    words = part if isinstance(part, PlacedWords) else None
    least = least_words_contrast(words, evidence) if words else LEAST_LARGE_CONTRAST
    if reading.ratio >= least:
        return None
    what = f"{quoted(words)} reads" if words else "The mark reads"
    repairs = _repairs(reading, least, words=words is not None)
    veil = ", under its veil" if evidence.sheet.veil else ""
    shown = math.floor(reading.ratio * 10) / 10  # never rounded up to the least that is asked
    return Finding(
        rule="contrast",
        severity="risky",
        message=f"{what} only {shown:.1f} : 1 on what is behind it{veil} (Lc {abs(reading.lightness):.0f} of APCA)."
        f" {least:g} : 1 is the least that is seen well.",
        measured=reading.ratio,
        limit=least,
        where=where_in(evidence.plan, part.box),
        repair=next(iter(repairs), None),
        other_repairs=tuple(repairs[1:]),
        part=reading.part,
    )


_SAID = {
    "colour": ("stronger-colour", "Colour it {colour}"),
    "outline": ("line-around", "Draw a line of {colour} around it"),
    "darken": ("calm-behind", "{darken} what is behind it by {opacity:.0%}"),
    "plate": ("plate-behind", "Put a plate behind it"),
}


def _repairs(reading: ContrastReading, least: float, *, words: bool) -> list[Repair]:
    """The ways that were calculated, each with the figure that it comes to; words always have the plate."""
    found = [_repair_of(way) for way in reading.ways if way.ratio >= least]
    if words and not any(one.name == "plate-behind" for one in found):
        found.append(Repair(name="plate-behind", label="Put a plate behind it"))
    return found


def _repair_of(way: Stronger) -> Repair:
    name, label = _SAID[way.way]
    darken = "Darken" if relative_luminance(parse_hex(way.colour)) < HALF_LIGHT else "Lighten"
    said = label.format(colour=way.colour, darken=darken, opacity=way.opacity)
    return Repair(name=name, label=said, becomes=f"{math.floor(way.ratio * 10) / 10:.1f} : 1")


def _mark_repair(own: ArtworkInPlan) -> Repair:
    tint = suggested_tint(own)
    if tint:
        return Repair(name="contrasting-tint", label=f"Tint it {tint}")
    return Repair(name="choose-ground", label="Put a readable ground behind it")


def _offer_dark_version(own: ArtworkInPlan) -> Offer | None:
    """On dark grounds a mark of several colours can have a version with lighter ones."""
    behind = [colour for _, colour in grounds_behind(own.sheet, own.plan.ground)]
    if own.part.tint or not all(relative_luminance(colour) < HALF_LIGHT for colour in behind):
        return None
    return Offer(step="dark-version", artwork=own.part.artwork, label="Make a version of it for dark grounds")


def contrasting_tint(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The house colour, black or white that reads on every ground, for each mark that is faint."""
    faint = [own for own in evidence.artworks() if part in (None, own.part.part) and is_faint(own)]
    return [
        SetField(part=own.part.part, field="tint", value=tint, placement=placement)
        for own in faint
        if (tint := suggested_tint(own))
    ]


def plate_behind(piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """A plate of the house colour, black or white that the words stand out from most."""
    there = {own.id: own for own in parts_in(piece, placement) if isinstance(own, WordsPart)}
    return [
        SetField(
            part=own.part,
            field="plate",
            value=_plate(there[own.part], evidence.house).model_dump(),
            placement=placement,
        )
        for own in evidence.plan.words
        if part in (None, own.part)
    ]


def _plate(words: WordsPart, house: tuple[str, ...]) -> Plate:
    light = words.colour != "auto" and relative_luminance(parse_hex(words.colour)) < HALF_LIGHT
    choose = max if light else min
    return Plate(colour=choose([*house, BLACK, WHITE], key=lambda entry: relative_luminance(parse_hex(entry))))


def label(finding: Finding) -> str:
    """For example `reads 1.3 : 1`."""
    return f"reads {finding.measured:.1f} : 1"


RULE = Rule(
    "contrast",
    "pixels",
    judge,
    label,
    {
        "contrasting-tint": contrasting_tint,
        "choose-ground": choose_ground,
        "stronger-colour": stronger_colour,
        "line-around": line_around,
        "calm-behind": calm_behind,
        "plate-behind": plate_behind,
    },
)
