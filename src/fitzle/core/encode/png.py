"""PNG: lossless where it fits, else a palette, else a palette of a smoothed picture."""

from __future__ import annotations

import io
from collections.abc import Callable
from functools import partial
from typing import Any, NamedTuple

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.foreseeing import expectation, surely_over
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Candidate, Encoded, Search, best_of
from fitzle.core.encode.settings import Lossless, PaletteSettings
from fitzle.core.libvips import libvips

OPTIMISER_LEVEL = 2  # 4 and more saves at most 4 % for 5 to 8 times the time
QUICK_OPTIMISER_LEVEL = 1
QUICK_DEFLATE_LEVEL = 8
QUICK_FROM_PIXELS = 4_000_000  # at level 2 a picture of 16 megapixels takes longer than a whole search may
HIGHEST_QUALITY, LOWEST_QUALITY = 100, 1
DITHERS = (0.0, 0.5, 1.0)
GOOD_SCORE = 70.0
SMOOTHING_SAVES = 2.0  # times, at most: where the lightest palette is heavier than that, smoothing is not tried
SMOOTHING_PX, SMOOTHING_COLOUR = 7, 30  # bilateral filter: diameter in px, range in 1/255


class _Variant(NamedTuple):
    """A way to make palettes: how much dither, and whether of the smoothed picture."""

    dither: float
    smoothed: bool = False

    def settings(self, quality: int) -> PaletteSettings:
        return PaletteSettings(quality=quality, dither=self.dither, smoothed=self.smoothed)


class _Work(NamedTuple):
    """What all variants of one search share."""

    raster: Raster
    limit: int
    budget: Budget
    candidates: list[Candidate]


def search_png(rendered: Rendered, limit: int | None, budget: Budget) -> Search:
    """The best-looking PNG of at most `limit` bytes."""
    raster, candidates = rendered.raster, list[Candidate]()
    if limit is None or not surely_over(lossless_png, raster, limit):
        lossless = Encoded(lossless_png(raster), "png", Lossless(), 100.0)
        candidates.append(lossless.candidate)
        if limit is None or len(lossless.data) <= limit:
            return Search(lossless, candidates)
    raster.expect_comparing()
    best = _best_palette(_Work(raster, limit, budget, candidates))
    if best is None:
        return Search(None, candidates)
    best = best._replace(score=raster.score(best.data))
    return Search(best, [best.candidate if entry.settings == best.settings else entry for entry in candidates])


def _best_palette(work: _Work) -> Encoded | None:
    """The best of all variants by their compared scores."""
    found: list[Encoded] = []
    for dither in DITHERS:  # the less dither, the smaller the file
        if found and not work.budget.allows():
            break
        entry = _palette(work, _Variant(dither))
        if not entry:
            break
        found.append(entry)
    best = best_of(found)
    if best is None and min(entry.bytes for entry in work.candidates) > SMOOTHING_SAVES * work.limit:
        return None
    if (best is None or best.score < GOOD_SCORE) and (best is None or work.budget.allows()):
        smoothed = _palette(work, _Variant(0.0, smoothed=True))
        best = best_of([entry for entry in (best, smoothed) if entry])
    return best


def lossless_png(raster: Raster, *, full_colour: bool = False) -> bytes:
    """The smallest PNG with exactly these pixels; `full_colour` keeps 32 bits a pixel, as ICO entries need."""
    import oxipng

    colours = oxipng.ColorType.rgb() if raster.opaque and not full_colour else oxipng.ColorType.rgba()
    pixels = raster.pixels if full_colour else raster.bands
    raw = oxipng.RawImage(pixels.tobytes(), raster.width, raster.height, color_type=colours)
    reduce = not full_colour
    return bytes(
        raw.create_optimized_png(
            level=_level(raster),
            bit_depth_reduction=reduce,
            color_type_reduction=reduce,
            palette_reduction=reduce,
            grayscale_reduction=reduce,
        )
    )


def _level(raster: Raster) -> int:
    return QUICK_OPTIMISER_LEVEL if _large(raster) else OPTIMISER_LEVEL


def _large(raster: Raster) -> bool:
    return bool(raster.width * raster.height >= QUICK_FROM_PIXELS)


def _palette(work: _Work, variant: _Variant) -> Encoded | None:
    encode = _quantising(variant, quick=_large(work.raster))
    expected = expectation(encode, work.raster, work.limit, LOWEST_QUALITY, HIGHEST_QUALITY)
    found, tried = largest_under(
        partial(encode, work.raster),
        work.limit,
        LOWEST_QUALITY,
        HIGHEST_QUALITY,
        lowest_first=True,
        expected=expected,
        budget=work.budget,
    )
    work.candidates.extend(Candidate("png", variant.settings(entry.position), len(entry.data)) for entry in tried)
    if not found:
        return None
    return Encoded(found.data, "png", variant.settings(found.position), work.raster.compared_score(found.data))


def _quantising(variant: _Variant, *, quick: bool) -> Callable[[Raster, int], bytes]:
    """Makes palettes; the smoothed picture is made once for each raster. `quick` packs them in a third of the time."""
    images: dict[int, Any] = {}

    def encode(raster: Raster, quality: int) -> bytes:
        if variant.smoothed and id(raster) not in images:
            images[id(raster)] = _smoothed(raster)
        image = images[id(raster)] if variant.smoothed else raster.vips
        data = image.pngsave_buffer(
            palette=True, Q=quality, dither=variant.dither, effort=1, compression=1, keep="none"
        )
        return _packed_quickly(data) if quick else _packed(data)

    return encode


def _packed(data: bytes) -> bytes:
    import oxipng

    return bytes(oxipng.optimize_from_memory(data, level=OPTIMISER_LEVEL))


def _packed_quickly(data: bytes) -> bytes:
    """About a tenth more bytes: rows of a palette are not filtered, and packed less."""
    import oxipng

    deflate = oxipng.Deflaters.libdeflater(QUICK_DEFLATE_LEVEL)
    return bytes(oxipng.optimize_from_memory(data, level=0, filter=[oxipng.RowFilter.NoOp], deflate=deflate))


def _smoothed(raster: Raster) -> Any:
    import cv2

    pyvips = libvips()
    smooth = cv2.bilateralFilter(raster.rgb, SMOOTHING_PX, SMOOTHING_COLOUR, SMOOTHING_PX)
    bands = smooth if raster.opaque else with_alpha(smooth, raster.pixels[..., 3])
    return pyvips.Image.new_from_array(bands).copy(interpretation="srgb")


def plain_png(pixels: Any) -> bytes:
    """A quick PNG of (h, w, 4) pixels for previews and ICO entries."""
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG", compress_level=3)
    return out.getvalue()
