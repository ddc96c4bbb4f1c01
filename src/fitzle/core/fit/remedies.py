"""What would let a file look better under its limit: each tried for real, the one that gains most first."""

from __future__ import annotations

import io
from collections.abc import Iterator, Mapping
from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.contrast import WHITE
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import BAD_SCORE, best_file
from fitzle.core.encode.local_error import local_error, worst_area
from fitzle.core.encode.rendered import Rendered, rendered_pixels
from fitzle.core.encode.result import Choice, Remedy, best_score
from fitzle.core.findings import Where
from fitzle.core.fit.deciding import Decided
from fitzle.core.piece.fills import PictureFill
from fitzle.core.preflight.rules.quality import BLURRED
from fitzle.core.render.painting import paint
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import smaller_sizes
from fitzle.core.units import Size

SECONDS = 2.5  # for each that is tried; at most a quarter of what the search itself had
LEAST_GAIN = 3.0  # points; less is not worth a word
GRAIN_PX, GRAIN_COLOUR = 9, 42  # bilateral filter: diameter in px, range in 1/255


class _Trial(NamedTuple):
    """A changed picture for a sheet, what was changed in words, and the repair that would change it so."""

    name: str
    words: str
    pixels: Pixels
    sheet: SpecSheet


def with_remedies(choice: Choice, decided: Decided, sources: Mapping[str, Source], rendered: Rendered) -> Choice:
    """The choice with where its file lost most and what would help; itself where its file looks well enough."""
    best, sheet = choice.best, decided.resolved.sheet
    hopeless = best is None and choice.problem == "useless"
    if sheet.max_bytes is None or not (hopeless or (best is not None and best.score < BAD_SCORE)):
        return choice
    score = best_score(choice, sheet.max_bytes)
    found, seconds = [], min(SECONDS, choice.budget_seconds / 4)
    for trial in _trials(decided, sources, rendered):
        size = Size(trial.pixels.shape[1], trial.pixels.shape[0])
        tried = best_file(rendered_pixels(trial.pixels), trial.sheet, size, Budget(seconds)).best
        if tried and tried.score >= score + LEAST_GAIN:
            found.append(Remedy(name=trial.name, words=trial.words, score=tried.score))
    worst = _worst(rendered.raster.pixels, best.data) if best else None
    return choice._replace(remedies=tuple(sorted(found, key=lambda one: -one.score)), worst=worst)


def _trials(decided: Decided, sources: Mapping[str, Source], rendered: Rendered) -> Iterator[_Trial]:
    sheet, pixels = decided.resolved.sheet, rendered.raster.pixels
    yield _Trial("", "with its grain smoothed", _smoothed(pixels), sheet)
    if not rendered.raster.opaque:
        ground = sheet.grounds[0] if sheet.grounds else WHITE
        yield _Trial("ground-behind", f"on a ground of {ground} instead of clear", _on(pixels, ground), sheet)
    if isinstance(decided.plan.fill, PictureFill):
        fill = decided.plan.fill.model_copy(update={"blur": max(BLURRED, decided.plan.fill.blur)})
        calm = paint(decided.plan._replace(fill=fill), decided.planned.sources(sources))
        yield _Trial("blur-ground", "with the picture behind blurred", calm, sheet)
    for size in smaller_sizes(sheet.size, decided.plan.size):
        small = cv2.resize(pixels, size, interpolation=cv2.INTER_AREA)
        yield _Trial("", f"at {size.width} × {size.height} px", np.asarray(small, dtype=np.uint8), sheet)


def _smoothed(pixels: Pixels) -> Pixels:
    colours = np.ascontiguousarray(pixels[..., :3])
    calm = cv2.bilateralFilter(colours, GRAIN_PX, GRAIN_COLOUR, GRAIN_PX)
    return with_alpha(np.asarray(calm, dtype=np.uint8), pixels[..., 3])


def _on(pixels: Pixels, ground: str) -> Pixels:
    alpha = pixels[..., 3:].astype(np.float32) / 255
    mixed = pixels[..., :3] * alpha + np.array(parse_hex(ground), dtype=np.float32) * (1 - alpha)
    return with_alpha(np.rint(mixed).astype(np.uint8), np.full(pixels.shape[:2], 255, np.uint8))


def _worst(pixels: Pixels, data: bytes) -> Where:
    from PIL import Image

    with Image.open(io.BytesIO(data)) as opened:
        found = np.asarray(opened.convert("RGBA"))
    one, other = (np.ascontiguousarray(_on(each, WHITE)[..., :3]) for each in (pixels, found))
    area = worst_area(local_error(one, other))
    return Where(x=round(area.x, 4), y=round(area.y, 4), width=round(area.width, 4), height=round(area.height, 4))
