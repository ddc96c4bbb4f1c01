"""What is measured on pixels at the size at which a fit is seen, for the rules that need it: figures, no verdicts."""

from __future__ import annotations

import io
from collections.abc import Iterator, Mapping

import numpy as np

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.contrast import WHITE, relative_luminance
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex
from fitzle.core.eye import balance, halo, smudge, strokes
from fitzle.core.eye.busy import MOST_STROKE_PX, Busy, busy_behind, stroke_px
from fitzle.core.eye.neighbours import LONG_PX as NEIGHBOURS_PX
from fitzle.core.eye.neighbours import neighbours
from fitzle.core.eye.planes import light_on, luminance
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.grounds import grounds_behind
from fitzle.core.plan.placed import Look, PlacedArtwork, PlacedWords, Plan
from fitzle.core.preflight.places import stands_on_ground
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.render.painting import Painter, paint
from fitzle.core.spec.sheet import SpecSheet, Viewing
from fitzle.core.units import Size

MOST_DENSITY = 2  # what finer screens show more of nobody sees at a usual distance
USUAL_STROKE = 0.12  # of the size of letters: how large words are drawn before their strokes are known
ALIKE_SIDES = 1.1  # a picture is square for the rule of the middle up to that ratio of its sides


def eye_readings(
    plan: Plan, sheet: SpecSheet, sources: Mapping[str, Source], facts: Mapping[str, ArtworkFacts]
) -> tuple[EyeReading, ...]:
    """All figures of a decided plan; `sources` and `facts` are by the ids that the plan uses."""
    if not plan.parts:
        return ()
    found: list[EyeReading] = []
    for part in plan.parts:
        if isinstance(part, PlacedWords):
            found += _of_words(plan, part, sheet, sources)
        elif isinstance(part, PlacedArtwork) and _is_mark(part, facts):
            found += _of_mark(plan, part, sheet, sources, facts[part.artwork])
    return (*found, *_of_picture(plan, sheet, sources, facts))


def finished_readings(data: bytes, sheet: SpecSheet) -> tuple[EyeReading, ...]:
    """The figures that need no plan, of a finished file; none of one that Pillow cannot open, such as an SVG."""
    from PIL import Image, UnidentifiedImageError

    try:
        with Image.open(io.BytesIO(data)) as picture:
            picture.draft("RGB", (NEIGHBOURS_PX, NEIGHBOURS_PX))
            small = picture.convert("RGBA")
    except (UnidentifiedImageError, OSError, ValueError, Image.DecompressionBombError):
        return ()
    small.thumbnail((NEIGHBOURS_PX, NEIGHBOURS_PX), Image.Resampling.BOX)
    return tuple(_of_colours(np.asarray(small), parse_hex(sheet.grounds[0] if sheet.grounds else WHITE)))


def seen_scale(plan: Plan, sheet: SpecSheet) -> float:
    """Px of the screen, of density 2 at the most, for each px of the file, where the picture is seen smallest."""
    usual = Viewing(name="at its own size", width=plan.size.width)
    widths = (one.width * min(one.density, MOST_DENSITY) for one in sheet.seen or (usual,))
    return min(widths) / plan.size.width


def _is_mark(part: PlacedArtwork, facts: Mapping[str, ArtworkFacts]) -> bool:
    return part.role == "mark" and facts[part.artwork].kind == "mark" and part.die is None


def _of_mark(
    plan: Plan, part: PlacedArtwork, sheet: SpecSheet, sources: Mapping[str, Source], facts: ArtworkFacts
) -> Iterator[EyeReading]:
    seen = max(part.box.width, part.box.height) * seen_scale(plan, sheet)
    alone = _alone(plan, part, sources, strokes.working_px(seen))
    yield EyeReading("strokes", part.part, strokes.thin_share(alone[..., 3] > 127, seen), seen_px=seen)
    if facts.transparency == "none" or not stands_on_ground(plan, part):
        return
    grounds = grounds_behind(sheet, plan.ground)
    if seen <= smudge.LARGEST_SEEN_PX:
        lost, on = max((smudge.contour_lost(alone, colour, seen), words) for words, colour in grounds)
        yield EyeReading("smudge", part.part, lost, on, seen)
    if not facts.vector:
        drawn = _alone(plan, part, sources, halo.LONG_PX)
        rim, on = max((halo.bad_rim(drawn, colour), words) for words, colour in grounds)
        yield EyeReading("halo", part.part, rim, on, seen)


def _alone(plan: Plan, part: PlacedArtwork, sources: Mapping[str, Source], long_px: float) -> Pixels:
    """A mark by itself on nothing, `long_px` long, without what its look does."""
    width, height = max(1, round(part.box.width)), max(1, round(part.box.height))
    there = part._replace(box=Rect(0, 0, width, height), look=Look(), grid=False)
    sheet = Plan(Size(width, height), None, None, None, (there,))
    return paint(sheet, sources, max(1, round(long_px * width / max(width, height))))


def _of_words(plan: Plan, part: PlacedWords, sheet: SpecSheet, sources: Mapping[str, Source]) -> Iterator[EyeReading]:
    """Words with a line around them bring their own surroundings."""
    if not part.layout.glyphs or part.outline or part.look.rotation:
        return
    scale = min(1.0, MOST_STROKE_PX / (USUAL_STROKE * part.layout.size_px))
    width = max(1, round(plan.size.width * scale))
    painter = Painter(plan, sources, width)
    for below in plan.parts[: plan.parts.index(part)]:
        painter.draw(below)
    letters_on = Painter(plan._replace(under=None, fill=None, edge=None, parts=()), sources, width)
    letters_on.draw(part._replace(plate=None, glow=None, shadow=None, look=Look()))
    around = part.box.inset(-2 * USUAL_STROKE * part.layout.size_px)
    letters = letters_on.pixels(around)[..., 3] > 127
    if not letters.any():
        return
    stroke, own = stroke_px(letters), relative_luminance(parse_hex(part.colour))
    found = []
    for page in (parse_hex(ground) for ground in sheet.grounds or (WHITE,)):
        behind = luminance(light_on(_over(painter.pixels(around), part, sheet, page), page))
        found.append((busy_behind(letters, own, behind, stroke), page))
    worst, page = max(found, key=lambda entry: _how_bad(entry[0]))
    for name, value in zip(("busy", "busy-letter", "busy-clutter"), worst, strict=True):
        yield EyeReading(name, part.part, value, to_hex(page))


def _how_bad(busy: Busy) -> float:
    return max(busy.lost / 0.05, busy.worst / 0.15, busy.clutter / 0.16)


def _over(pixels: Pixels, part: PlacedWords, sheet: SpecSheet, page: Rgb) -> Pixels:
    """What is behind words on a page, opaque, with their plate and the veil laid over."""
    alpha = pixels[..., 3:].astype(np.float32) / 255
    mixed = pixels[..., :3] * alpha + np.array(page, dtype=np.float32) * (1 - alpha)
    if part.plate:
        mixed += part.plate.opacity * (np.array(parse_hex(part.plate.colour)) - mixed)
    if sheet.veil:
        mixed += sheet.veil.opacity * (np.array(parse_hex(sheet.veil.colour)) - mixed)
    opaque = np.full((*mixed.shape[:2], 1), 255, dtype=np.uint8)
    return np.concatenate([np.clip(np.rint(mixed), 0, 255).astype(np.uint8), opaque], axis=2)


def _of_picture(
    plan: Plan, sheet: SpecSheet, sources: Mapping[str, Source], facts: Mapping[str, ArtworkFacts]
) -> Iterator[EyeReading]:
    small = paint(_off_the_grid(plan), sources, max(1, round(NEIGHBOURS_PX * min(1.0, plan.size.ratio))))
    ground = parse_hex(plan.ground or (sheet.grounds[0] if sheet.grounds else WHITE))
    yield from _of_colours(small, ground)
    if _one_mark_in_the_middle(plan, sheet, facts):
        off = balance.off_centre(small, ground)
        yield EyeReading("off-centre", plan.parts[0].part, off.length, _side(off))


def _of_colours(small: Pixels, ground: Rgb) -> Iterator[EyeReading]:
    found = neighbours(small, ground)
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
