"""What becomes of words before what is behind them: drawn and measured at the scale of their strokes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import NamedTuple

import numpy as np

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.contrast import BLACK, HALF_LIGHT, WHITE, relative_luminance
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex
from fitzle.core.eye.busy import MOST_STROKE_PX, Busy, Mask, busy_behind, stroke_px
from fitzle.core.eye.calm import calmer_places
from fitzle.core.eye.planes import Plane, light_on, luminance
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.grounds import veiled
from fitzle.core.plan.padding import least_clearance_px
from fitzle.core.plan.placed import Look, PlacedArtwork, PlacedWords, Plan
from fitzle.core.preflight.free_area import hidden_share
from fitzle.core.preflight.places import overlap
from fitzle.core.preflight.readings import EyeReading, Shift
from fitzle.core.render.painting import Painter
from fitzle.core.spec.sheet import SpecSheet

USUAL_STROKE = 0.12  # of the size of letters: how large words are drawn before their strokes are known
# What of each figure is too much: facts that were measured on made pictures, see docs/rules/busy.md.
MOST = Busy(lost=0.05, worst=0.15, clutter=0.16, joined=0.5)
VEILS = (0.35, 0.5, 0.65, 0.8)  # opacities: more would hide the picture
NAMES = Busy("busy", "busy-letter", "busy-clutter", "busy-joined")  # type: ignore[arg-type]


class _Drawn(NamedTuple):
    """Words where they stand, drawn: their mask with the box (px of the drawing) it covers, and their stroke."""

    letters: Mask
    around: Rect
    scale: float
    stroke: float
    own: float


def readings_of_words(
    plan: Plan, part: PlacedWords, sheet: SpecSheet, sources: Mapping[str, Source]
) -> Iterator[EyeReading]:
    """Words with a line around them bring their own surroundings; turned ones are left to their contrast."""
    if not part.layout.glyphs or part.outline or part.look.rotation:
        return
    scale = min(1.0, MOST_STROKE_PX / (USUAL_STROKE * part.layout.size_px))
    painter = Painter(plan, sources, max(1, round(plan.size.width * scale)))
    for below in plan.parts[: plan.parts.index(part)]:
        painter.draw(below)
    drawn = _drawn(plan, part, sheet, sources, scale)
    if drawn is None:
        return
    found = []
    for page in (parse_hex(ground) for ground in sheet.grounds or (WHITE,)):
        behind = luminance(light_on(_over(painter.pixels(drawn.around), part, sheet, page), page))
        found.append((busy_behind(drawn.letters, drawn.own, behind, drawn.stroke), page))
    worst, page = max(found, key=lambda entry: how_bad(entry[0]))
    shift, veil = None, 0.0
    if how_bad(worst) > 1 and part.plate is None:
        veil = _calming_veil(part, sheet, drawn, painter, page)
        whole = painter.pixels(Rect(0, 0, plan.size.width, plan.size.height))
        shift = _shift(plan, part, sheet, drawn, luminance(light_on(_over(whole, part, sheet, page), page)))
    for name, value in zip(NAMES, worst, strict=True):
        yield EyeReading(str(name), part.part, value, to_hex(page), detail=veil, shift=shift)


def how_bad(busy: Busy) -> float:
    """The worst figure in parts of its limit."""
    return max(value / most for value, most in zip(busy, MOST, strict=True))


def _drawn(
    plan: Plan, part: PlacedWords, sheet: SpecSheet, sources: Mapping[str, Source], scale: float
) -> _Drawn | None:
    width = max(1, round(plan.size.width * scale))
    letters_on = Painter(plan._replace(under=None, fill=None, edge=None, parts=()), sources, width)
    letters_on.draw(part._replace(plate=None, glow=None, shadow=None, look=Look()))
    around = part.box.inset(-2 * USUAL_STROKE * part.layout.size_px)
    letters = letters_on.pixels(around)[..., 3] > 127
    if not letters.any():
        return None
    own = relative_luminance(veiled(sheet, parse_hex(part.colour)))
    return _Drawn(letters, around, width / plan.size.width, stroke_px(letters), own)


def _shift(plan: Plan, part: PlacedWords, sheet: SpecSheet, drawn: _Drawn, behind: Plane) -> Shift | None:
    """The smallest shift to a calm place that is free, inside of the picture and of no other words or marks."""
    at = (max(0, round(drawn.around.x * drawn.scale)), max(0, round(drawn.around.y * drawn.scale)))
    for (x, y), busy in calmer_places(drawn.letters, drawn.own, behind, drawn.stroke, at):
        shift = Shift((x - at[0]) / drawn.scale, (y - at[1]) / drawn.scale)
        if how_bad(busy) <= 1 and _free(plan, part, sheet, part.box.moved(shift.x, shift.y)):
            return shift
    return None


def veil_colour(part: PlacedWords) -> str:
    """Dark under light words, light under dark ones."""
    return BLACK if relative_luminance(parse_hex(part.colour)) > HALF_LIGHT else WHITE


def _calming_veil(part: PlacedWords, sheet: SpecSheet, drawn: _Drawn, painter: Painter, page: Rgb) -> float:
    """The thinnest veil right below the words that calms what is behind them; 0 where none does."""
    there = painter.pixels(drawn.around)
    for opacity in VEILS:
        mixed = there.astype(np.float32)
        mixed[..., :3] += opacity * (np.array(parse_hex(veil_colour(part))) - mixed[..., :3])
        mixed[..., 3] = 255 - (255 - mixed[..., 3]) * (1 - opacity)
        behind = luminance(light_on(_over(np.rint(mixed).astype(np.uint8), part, sheet, page), page))
        if how_bad(busy_behind(drawn.letters, drawn.own, behind, drawn.stroke)) <= 1:
            return opacity
    return 0.0


def _free(plan: Plan, part: PlacedWords, sheet: SpecSheet, box: Rect) -> bool:
    room = Rect(0, 0, plan.size.width, plan.size.height).inset(least_clearance_px(plan.size.short_side))
    inside = box.x >= room.x and box.y >= room.y and box.right <= room.right and box.bottom <= room.bottom
    others = [
        other.box
        for other in plan.parts
        if other is not part
        and (isinstance(other, PlacedWords) or (isinstance(other, PlacedArtwork) and other.role == "mark"))
    ]
    return inside and hidden_share(box, sheet, plan.size) == 0 and not any(overlap(one, box) for one in others)


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
