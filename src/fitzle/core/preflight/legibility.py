"""What is really behind words and marks: their contrast read off rendered pixels, and the colour that reads best."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

import numpy as np

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.apca import lightness_contrast
from fitzle.core.colour.contrast import (
    BLACK,
    LEAST_GRAPHICS_CONTRAST,
    LEAST_TEXT_CONTRAST,
    LUMINANCE_WEIGHTS,
    WHITE,
    weakest_contrast,
)
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.srgb import linear, parse_hex, to_hex
from fitzle.core.errors import DocumentError
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords, Plan
from fitzle.core.preflight.behind import WEAK_PERCENTILE, Behind, Luminances, grey, ratios, weak_ratio, weakest_behind
from fitzle.core.preflight.places import stands_on_ground
from fitzle.core.preflight.readings import ContrastReading
from fitzle.core.preflight.stronger import ways_for_mark, ways_for_words
from fitzle.core.render.painting import Painter
from fitzle.core.spec.sheet import SpecSheet

LOOKED_AT_PX = 320  # width at which what is behind is drawn: contrast is a matter of areas, not of detail
AUTO = "auto"


class Looked(NamedTuple):
    """A plan with every colour decided, and the contrasts that were read for it."""

    plan: Plan
    readings: tuple[ContrastReading, ...]


def looked_at(
    plan: Plan,
    sheet: SpecSheet,
    sources: Mapping[str, Source],
    facts: Mapping[str, ArtworkFacts],
    house: Sequence[str] = (),
) -> Looked:
    """Draws the plan small, part by part, and looks behind all words and behind marks that stand on other parts."""
    last = max((index for index, part in enumerate(plan.parts) if _matters(plan, part, sheet, facts)), default=-1)
    if last < 0:
        return read_again(plan, ())
    painter = Painter(plan, sources, min(LOOKED_AT_PX, plan.size.width))
    parts: list[Placed] = []
    readings: list[ContrastReading] = []
    for index, part in enumerate(plan.parts):
        if index <= last and _matters(plan, part, sheet, facts):
            found = _look(part, painter, sheet, facts, house)
            if found:
                readings.append(found)
                part = part._replace(colour=found.colour) if isinstance(part, PlacedWords) else part  # noqa: PLW2901
        if isinstance(part, PlacedWords) and part.colour == AUTO:
            part = part._replace(colour=BLACK)  # noqa: PLW2901
        parts.append(part)
        if index < last:
            painter.draw(part)
    return Looked(plan._replace(parts=tuple(parts)), tuple(readings))


def read_again(plan: Plan, readings: Sequence[ContrastReading]) -> Looked:
    """What was read before, put into the same plan again."""
    colours = {entry.part: entry.colour for entry in readings}
    parts = tuple(
        part._replace(colour=colours.get(part.part, BLACK))
        if isinstance(part, PlacedWords) and part.colour == AUTO
        else part
        for part in plan.parts
    )
    return Looked(plan._replace(parts=parts), tuple(readings))


def contrasts_behind(
    plan: Plan,
    part_id: str,
    colours: Sequence[str],
    sheet: SpecSheet,
    sources: Mapping[str, Source],
) -> dict[str, float]:
    """The contrast each colour would have in the place of a part; raises DocumentError when the part is not there."""
    index = next((index for index, part in enumerate(plan.parts) if part.part == part_id), None)
    if index is None:
        raise DocumentError(f"the piece shows no part {part_id!r} here")
    painter = Painter(plan, sources, min(LOOKED_AT_PX, plan.size.width))
    for below in plan.parts[:index]:
        painter.draw(below)
    part = plan.parts[index]
    behind = _behind(painter.pixels(part.box), sheet, part)
    if isinstance(part, PlacedWords):
        found = {colour: _worst(colour, behind, part)[0] for colour in colours} if behind.pages else {}
    else:
        found = {colour: behind.on_all(colour) for colour in colours}
    return {colour: round(ratio, 2) for colour, ratio in found.items()}


def _matters(plan: Plan, part: Placed, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]) -> bool:
    if isinstance(part, PlacedWords):
        return bool(part.layout.glyphs)
    if not isinstance(part, PlacedArtwork) or part.die:
        return False
    own = facts[part.artwork]
    return own.kind == "mark" and own.transparency != "none" and not stands_on_ground(plan, part)


def _look(
    part: Placed, painter: Painter, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts], house: Sequence[str]
) -> ContrastReading | None:
    behind = _behind(painter.pixels(part.box), sheet, part)
    if not behind.pages:
        return None
    if isinstance(part, PlacedWords):
        line = [*house, BLACK, WHITE] if part.colour == AUTO else [part.colour]
        rated = [(_lost(colour, behind, part), _worst(colour, behind, part), colour) for colour in line]
        _, (ratio, page), colour = min(rated, key=lambda entry: (entry[0], -entry[1][0]))
        return _words_reading(part._replace(colour=to_hex(parse_hex(colour))), ratio, page, behind, house)
    assert isinstance(part, PlacedArtwork)
    return _mark_reading(part, facts[part.artwork], behind, house)


def _words_reading(part: PlacedWords, ratio: float, page: str, behind: Behind, house: Sequence[str]) -> ContrastReading:
    ways = ways_for_words(part, behind, house) if ratio < LEAST_TEXT_CONTRAST else ()
    return ContrastReading(part.part, part.colour, round(ratio, 2), page, _lightness(part.colour, behind, page), ways)


def _mark_reading(part: PlacedArtwork, facts: ArtworkFacts, behind: Behind, house: Sequence[str]) -> ContrastReading:
    outline = (ColourShare(hex=part.tint, share=1.0),) if part.tint else facts.edge_colours
    shown = behind.outline(outline)
    ratio, page = min((_outline_contrast(shown, light), page) for page, light in behind.pages.items())
    colour = outline[0].hex if outline else BLACK
    ways = ways_for_mark(outline, behind, house, tints=facts.one_colour) if ratio < LEAST_GRAPHICS_CONTRAST else ()
    return ContrastReading(part.part, colour, round(ratio, 2), page, _lightness(colour, behind, page), ways)


def _lightness(colour: str, behind: Behind, page: str) -> float:
    own = behind.seen(colour)
    return round(lightness_contrast(own, weakest_behind(own, behind.pages[page])), 1)


def _behind(pixels: Pixels, sheet: SpecSheet, part: Placed) -> Behind:
    """The area behind on each page, the plate and the veil laid over."""
    if not pixels.size:
        return Behind({}, sheet)
    alpha = pixels[..., 3:].astype(np.float64).reshape(-1, 1) / 255
    colours = pixels[..., :3].astype(np.float64).reshape(-1, 3)
    grounds = sheet.grounds if alpha.min() < 1 else sheet.grounds[:1]
    found = {}
    for page in grounds or (WHITE,):
        mixed = colours * alpha + np.array(parse_hex(page)) * (1 - alpha)
        if isinstance(part, PlacedWords) and part.plate:
            mixed += part.plate.opacity * (np.array(parse_hex(part.plate.colour)) - mixed)
        if sheet.veil:
            mixed += sheet.veil.opacity * (np.array(parse_hex(sheet.veil.colour)) - mixed)
        found[page] = linear(mixed) @ LUMINANCE_WEIGHTS
    return Behind(found, sheet)


def _worst(colour: str, behind: Behind, part: PlacedWords) -> tuple[float, str]:
    """The contrast of words in this colour on the page where it is weakest."""
    own, around = behind.seen(colour), _against_outline(colour, behind, part)
    return min((max(weak_ratio(own, light), around), page) for page, light in behind.pages.items())


def _lost(colour: str, behind: Behind, part: PlacedWords) -> float:
    """The share of the area behind words, in hundredths, before which this colour is lost, on the worst page.

    It comes before the contrast that nine tenths reach: where a tenth is as dark as the words, that figure is low for
    every colour, and says nothing of the rest.
    """
    if _against_outline(colour, behind, part) >= LEAST_GRAPHICS_CONTRAST:
        return 0.0
    own = behind.seen(colour)
    shares = ((ratios(own, light) < LEAST_GRAPHICS_CONTRAST).mean() for light in behind.pages.values())
    return round(float(max(shares)), 2)


def _against_outline(colour: str, behind: Behind, part: PlacedWords) -> float:
    """Letters with a line right around them are read against that line."""
    if part.outline is None or part.outline.offset or part.outline_only:
        return 0.0
    return behind.between(colour, part.outline.colour)


def _outline_contrast(outline: tuple[ColourShare, ...], behind: Luminances) -> float:
    """The contrast of a mark's outline with grey of the weak percentiles on both sides of what is behind it."""
    ends = np.percentile(behind, [WEAK_PERCENTILE, 100 - WEAK_PERCENTILE])
    return min((weakest_contrast(outline, grey(float(light))) for light in ends), default=21.0)
