"""What is really behind words and marks: their contrast read off rendered pixels, and the colour that reads best."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.contrast import (
    BLACK,
    FLARE,
    LEAST_GRAPHICS_CONTRAST,
    LUMINANCE_WEIGHTS,
    WHITE,
    relative_luminance,
    weakest_contrast,
)
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.srgb import Rgb, encoded, linear, parse_hex, to_hex
from fitzle.core.errors import DocumentError
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords, Plan
from fitzle.core.preflight.places import stands_on_ground
from fitzle.core.preflight.readings import ContrastReading
from fitzle.core.render.painting import Painter
from fitzle.core.spec.sheet import SpecSheet

LOOKED_AT_PX = 320  # width at which what is behind is drawn: contrast is a matter of areas, not of detail
WEAK_PERCENTILE = 10.0  # of the area behind: a tenth may be fainter
AUTO = "auto"

Luminances = NDArray[np.float64]


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
    pages = _behind(painter.pixels(part.box), sheet, part)
    if isinstance(part, PlacedWords):
        found = {colour: _worst(colour, pages, part)[0] for colour in colours} if pages else {}
    else:
        found = {colour: min(_weak(parse_hex(colour), light) for light in pages.values()) for colour in colours}
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
    pages = _behind(painter.pixels(part.box), sheet, part)
    if not pages:
        return None
    if isinstance(part, PlacedWords):
        line = [*house, BLACK, WHITE] if part.colour == AUTO else [part.colour]
        rated = [(_lost(colour, pages, part), _worst(colour, pages, part), colour) for colour in line]
        _, (ratio, page), colour = min(rated, key=lambda entry: (entry[0], -entry[1][0]))
        return ContrastReading(part.part, to_hex(parse_hex(colour)), round(ratio, 2), page)
    assert isinstance(part, PlacedArtwork)
    outline = (ColourShare(hex=part.tint, share=1.0),) if part.tint else facts[part.artwork].edge_colours
    ratio, page = min((_outline_contrast(outline, light), page) for page, light in pages.items())
    return ContrastReading(part.part, part.tint or outline[0].hex if outline else BLACK, round(ratio, 2), page)


def _behind(pixels: Pixels, sheet: SpecSheet, part: Placed) -> dict[str, Luminances]:
    """The luminances of the area behind on each page (hex), the plate and the veil laid over."""
    if not pixels.size:
        return {}
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
    return found


def _worst(colour: str, pages: Mapping[str, Luminances], part: PlacedWords) -> tuple[float, str]:
    """The contrast of words in this colour on the page where it is weakest."""
    own = parse_hex(colour)
    return min((max(_weak(own, light), _against_outline(own, part)), page) for page, light in pages.items())


def _lost(colour: str, pages: Mapping[str, Luminances], part: PlacedWords) -> float:
    """The share of the area behind words, in hundredths, before which this colour is lost, on the worst page.

    It comes before the contrast that nine tenths reach: where a tenth is as dark as the words, that figure is low for
    every colour, and says nothing of the rest.
    """
    own = parse_hex(colour)
    if _against_outline(own, part) >= LEAST_GRAPHICS_CONTRAST:
        return 0.0
    shares = ((_ratios(own, light) < LEAST_GRAPHICS_CONTRAST).mean() for light in pages.values())
    return round(float(max(shares)), 2)


def _ratios(colour: Rgb, behind: Luminances) -> Luminances:
    own = relative_luminance(colour)
    return np.asarray((np.maximum(behind, own) + FLARE) / (np.minimum(behind, own) + FLARE))


def _weak(colour: Rgb, behind: Luminances) -> float:
    """The contrast that nine tenths of the area reach."""
    return float(np.percentile(_ratios(colour, behind), WEAK_PERCENTILE))


def _against_outline(colour: Rgb, part: PlacedWords) -> float:
    """Letters with a line right around them are read against that line."""
    if part.outline is None or part.outline.offset or part.outline_only:
        return 0.0
    return _weak(colour, np.array([relative_luminance(parse_hex(part.outline.colour))]))


def _outline_contrast(outline: tuple[ColourShare, ...], behind: Luminances) -> float:
    """The contrast of a mark's outline with grey of the weak percentiles on both sides of what is behind it."""
    ends = np.percentile(behind, [WEAK_PERCENTILE, 100 - WEAK_PERCENTILE])
    return min((weakest_contrast(outline, _grey(float(light))) for light in ends), default=21.0)


def _grey(luminance: float) -> Rgb:
    """The grey of a relative luminance."""
    level = int(np.rint(encoded(np.array(luminance))))
    return Rgb(level, level, level)
