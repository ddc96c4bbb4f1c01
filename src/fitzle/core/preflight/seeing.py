"""What is measured on pixels at the size at which a fit is seen, for the rules that need it: figures, no verdicts."""

from __future__ import annotations

import io
from collections.abc import Iterator, Mapping

import numpy as np

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.contrast import WHITE
from fitzle.core.colour.srgb import Rgb, parse_hex
from fitzle.core.eye import balance, halo, smudge
from fitzle.core.eye.neighbours import LONG_PX as NEIGHBOURS_PX
from fitzle.core.eye.neighbours import neighbours
from fitzle.core.eye.planes import Plane, light_on
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.grounds import grounds_behind
from fitzle.core.plan.placed import PlacedArtwork, PlacedWords, Plan
from fitzle.core.preflight.mark_shape import drawn_alone, mark_shape
from fitzle.core.preflight.places import stands_on_ground
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.preflight.seeing_words import readings_of_words
from fitzle.core.preflight.viewing import MOST_DENSITY
from fitzle.core.render.painting import paint
from fitzle.core.spec.sheet import SpecSheet, Viewing

NO_VERSIONS: Mapping[str, tuple[str, ...]] = {}
SERIES_PX = 512  # what files that are compared with each other are read at
ALIKE_SIDES = 1.1  # a picture is square for the rule of the middle up to that ratio of its sides


def eye_readings(
    plan: Plan,
    sheet: SpecSheet,
    sources: Mapping[str, Source],
    facts: Mapping[str, ArtworkFacts],
    versions: Mapping[str, tuple[str, ...]] = NO_VERSIONS,
) -> tuple[EyeReading, ...]:
    """All figures of a decided plan; `sources` and `facts` are by the ids that the plan uses.

    `versions` are for each mark its others: where one of them does better that is told.
    """
    if not plan.parts:
        return ()
    found: list[EyeReading] = []
    for part in plan.parts:
        if isinstance(part, PlacedWords):
            found += readings_of_words(plan, part, sheet, sources)
        elif isinstance(part, PlacedArtwork) and _is_mark(part, facts):
            found += _of_mark(plan, part, sheet, sources, facts, versions.get(part.artwork, ()))
    return (*found, *_of_picture(plan, sheet, sources, facts))


def finished_readings(data: bytes, sheet: SpecSheet) -> tuple[EyeReading, ...]:
    """The figures that need no plan, of a finished file; none of one that Pillow cannot open, such as an SVG."""
    pixels = finished_pixels(data, NEIGHBOURS_PX)
    if pixels is None:
        return ()
    return tuple(_of_colours(light_on(pixels, parse_hex(sheet.grounds[0] if sheet.grounds else WHITE))))


def finished_pixels(data: bytes, most_px: int = SERIES_PX) -> Pixels | None:
    """A finished file as (h, w, 4), straight alpha, at most `most_px` long; None for one that Pillow cannot open."""
    from PIL import Image, UnidentifiedImageError

    try:
        with Image.open(io.BytesIO(data)) as picture:
            picture.draft("RGB", (most_px, most_px))
            small = picture.convert("RGBA")
    except (UnidentifiedImageError, OSError, ValueError, Image.DecompressionBombError):
        return None
    small.thumbnail((most_px, most_px), Image.Resampling.BOX)
    return np.asarray(small)


def seen_scale(plan: Plan, sheet: SpecSheet) -> float:
    """Px of the screen, of density 2 at the most, for each px of the file, where the picture is seen smallest."""
    usual = Viewing(name="at its own size", width=plan.size.width)
    widths = (one.width * min(one.density, MOST_DENSITY) for one in sheet.seen or (usual,))
    return min(widths) / plan.size.width


def _is_mark(part: PlacedArtwork, facts: Mapping[str, ArtworkFacts]) -> bool:
    return part.role == "mark" and facts[part.artwork].kind == "mark" and part.die is None


def _of_mark(
    plan: Plan,
    part: PlacedArtwork,
    sheet: SpecSheet,
    sources: Mapping[str, Source],
    facts: Mapping[str, ArtworkFacts],
    others: tuple[str, ...],
) -> Iterator[EyeReading]:
    seen, own = max(part.box.width, part.box.height) * seen_scale(plan, sheet), facts[part.artwork]
    shape = mark_shape(part, sources[part.artwork], seen)
    lines, stretched = shape.measured(part, seen)
    yield EyeReading("strokes", part.part, lines.thin, seen_px=seen, detail=lines.thinnest_px)
    yield EyeReading("gaps", part.part, lines.closing, seen_px=seen)
    yield EyeReading("stretched", part.part, stretched, seen_px=seen)
    if own.transparency == "none" or not stands_on_ground(plan, part):
        return
    grounds = grounds_behind(sheet, plan.ground)
    if seen <= smudge.LARGEST_SEEN_PX:
        lost, on = max((shape.contour_lost(colour, seen), words) for words, colour in grounds)
        reading = EyeReading("smudge", part.part, lost, on, seen)
        yield (
            reading if lost <= smudge.RUNS_TOGETHER else _with_simpler(reading, part, sources, facts, grounds, others)
        )
    if not own.vector:
        drawn = drawn_alone(part, sources[part.artwork], halo.LONG_PX)
        rim, on = max((halo.bad_rim(drawn, colour), words) for words, colour in grounds)
        yield EyeReading("halo", part.part, rim, on, seen)


def _with_simpler(
    reading: EyeReading,
    part: PlacedArtwork,
    sources: Mapping[str, Source],
    facts: Mapping[str, ArtworkFacts],
    grounds: list[tuple[str, Rgb]],
    others: tuple[str, ...],
) -> EyeReading:
    """The reading with the version of the mark of which the least runs together, where that is less."""
    found = []
    for name in (one for one in others if one in sources and one in facts):
        whole = facts[name].trimmed.rect
        scale = max(part.box.width, part.box.height) / max(whole.width, whole.height)
        box = Rect(0, 0, whole.width * scale, whole.height * scale)
        other = part._replace(artwork=name, window=whole, box=box, tint=None, recolour=())
        drawn = drawn_alone(other, sources[name], smudge.LONG_PX)
        found.append((max(smudge.contour_lost(drawn, colour, reading.seen_px) for _, colour in grounds), name))
    lost, name = min(found, default=(1.0, ""))
    return (
        reading._replace(instead=name, instead_value=lost)
        if lost < min(reading.value, smudge.RUNS_TOGETHER)
        else reading
    )


def _of_picture(
    plan: Plan, sheet: SpecSheet, sources: Mapping[str, Source], facts: Mapping[str, ArtworkFacts]
) -> Iterator[EyeReading]:
    small = paint(_off_the_grid(plan), sources, max(1, round(NEIGHBOURS_PX * min(1.0, plan.size.ratio))))
    ground = parse_hex(plan.ground or (sheet.grounds[0] if sheet.grounds else WHITE))
    light = light_on(small, ground)
    yield from _of_colours(light)
    if _one_mark_in_the_middle(plan, sheet, facts):
        off = balance.off_centre(light, ground)
        yield EyeReading("off-centre", plan.parts[0].part, off.length, _side(off))


def _of_colours(light: Plane) -> Iterator[EyeReading]:
    found = neighbours(light)
    yield EyeReading("clash", "", found.vibrating.length, colours=found.vibrating.colours or ())
    for vision, border in found.merging.items():
        yield EyeReading("merging", "", border.length, vision, colours=border.colours or ())


def _off_the_grid(plan: Plan) -> Plan:
    """Without fitting tiny marks to the px of the file: here they are drawn at another size."""
    parts = tuple(part._replace(grid=False) if isinstance(part, PlacedArtwork) else part for part in plan.parts)
    return plan._replace(parts=parts)


def _one_mark_in_the_middle(plan: Plan, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]) -> bool:
    [first, *others] = plan.parts
    square = max(plan.size) <= ALIKE_SIDES * min(plan.size) or (sheet.mask is not None and sheet.mask.shape == "circle")
    if others or not square or not isinstance(first, PlacedArtwork) or not _is_mark(first, facts):
        return False
    return facts[first.artwork].transparency != "none"


def _side(off: balance.Offset) -> str:
    if abs(off.x) >= abs(off.y):
        return "right" if off.x > 0 else "left"
    return "low" if off.y > 0 else "high"
