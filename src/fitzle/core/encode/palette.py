"""Pictures of at most 256 colours, for PNG and GIF: the palette is found once, and made smaller colour by colour."""

from __future__ import annotations

import io
import math
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import PaletteSettings

MOST_COLOURS = 256
THINNED, THINNED_FROM = 2, 500_000  # every second px of every second row has the colours of so large a picture
LOOKED_AT = 20_000  # px, to tell most pictures of more colours at once
FEWEST_BITS, STEPS_A_BIT = 2, 16  # of the knob: bytes grow with the bits of an index, not with the colours
LAST_STEP = (8 - FEWEST_BITS) * STEPS_A_BIT


class Indexed:
    """Indices (h, w) and their colours (n, 4), straight alpha."""

    def __init__(self, indices: NDArray[np.uint8], colours: NDArray[np.uint8]) -> None:
        self.indices, self.colours = indices, colours


class Palette:
    """The picture in its first palette, and all smaller palettes that follow from it."""

    def __init__(self, picture: Indexed) -> None:
        self.picture = picture

    def of(self, most: int) -> tuple[NDArray[np.uint8], NDArray[np.uint8]]:
        """A palette of at most so many colours (n, 4), and which of them each of the first ones becomes.

        Again and again the two colours become one that cost the least squared error (Ward 1963).
        """
        count = len(self.picture.colours)
        belongs = np.arange(count)
        for one, other in self._merges[: max(0, count - most)]:
            belongs[belongs == other] = one
        kept, indices = np.unique(belongs, return_inverse=True)
        weights = np.maximum(self._counts, 1e-9)
        sums = np.zeros((len(kept), 4))
        np.add.at(sums, indices, self.picture.colours * weights[:, None])
        total = np.bincount(indices, weights)
        return np.rint(sums / total[:, None]).astype(np.uint8), indices.astype(np.uint8)

    @cached_property
    def _counts(self) -> NDArray[np.float64]:
        return np.bincount(self.picture.indices.ravel(), minlength=len(self.picture.colours)).astype(np.float64)

    @cached_property
    def _merges(self) -> list[tuple[int, int]]:
        """Which colour is joined to which, the cheapest first."""
        means, weights = self.picture.colours.astype(np.float64), np.maximum(self._counts, 1e-9)
        cost = _costs(means, weights, means, weights)
        np.fill_diagonal(cost, np.inf)
        merges = []
        for _ in range(len(means) - 1):
            one, other = sorted(divmod(int(np.argmin(cost)), len(means)))
            merges.append((one, other))
            total = weights[one] + weights[other]
            means[one] = (means[one] * weights[one] + means[other] * weights[other]) / total
            weights[one] = total
            cost[other], cost[:, other] = np.inf, np.inf
            row = _costs(means[one : one + 1], weights[one : one + 1], means, weights)[0]
            row[np.isinf(cost[one])] = np.inf
            cost[one], cost[:, one] = row, row
        return merges


def _costs(one: Any, one_weight: Any, other: Any, other_weight: Any) -> NDArray[np.float64]:
    step = one[:, None] - other[None]
    shared = np.outer(one_weight, other_weight) / np.add.outer(one_weight, other_weight)
    return np.asarray((step**2).sum(-1) * shared, dtype=np.float64)


def colours_at(step: int) -> int:
    """How many colours a step of the knob stands for: 4 at 0, 256 at LAST_STEP."""
    return round(2 ** (FEWEST_BITS + step / STEPS_A_BIT))


def step_of(colours: int) -> int:
    """The step of the knob that stands for so many colours."""
    return round((math.log2(colours) - FEWEST_BITS) * STEPS_A_BIT)


def palette_picture(raster: Raster, settings: PaletteSettings) -> Indexed:
    """The raster in a palette."""
    own_dither = 0.0 if raster.opaque else settings.dither  # vips dithers with alpha, Pillow faster and better without
    first = _first_palette(raster, own_dither, settings.smoothed)
    colours, belongs = first.of(settings.colours)
    if not raster.opaque:
        return Indexed(belongs[first.picture.indices], colours)
    return Indexed(_mapped(raster, colours, settings), colours)


def _first_palette(raster: Raster, dither: float, smoothed: bool) -> Palette:
    with raster.finding_palettes[smoothed]:
        found: Palette | None = raster.palettes.get((dither, smoothed))
        if found is None:
            found = raster.palettes[dither, smoothed] = Palette(_quantised(raster, dither, smoothed=smoothed))
        return found


def _quantised(raster: Raster, dither: float, *, smoothed: bool) -> Indexed:
    """Its own colours where they are few; else 256 that stand for them."""
    own = None if smoothed else _own_colours(raster)
    if own:
        return own
    image = raster.smoothed if smoothed else raster.vips
    if raster.opaque and raster.width * raster.height >= THINNED_FROM:
        image = image.subsample(THINNED, THINNED)  # the palette and its shares are all that is needed of it
    return _opened(image.pngsave_buffer(palette=True, Q=100, dither=dither, effort=1, compression=1, keep="none"))


def _own_colours(raster: Raster) -> Indexed | None:
    """A picture that has at most 256 colours, as it is."""
    packed = np.ascontiguousarray(raster.pixels).view(np.uint32)[..., 0]
    if len(np.unique(packed.ravel()[:: max(1, packed.size // LOOKED_AT)])) > MOST_COLOURS:
        return None
    colours, indices = np.unique(packed, return_inverse=True)
    if len(colours) > MOST_COLOURS:
        return None
    return Indexed(indices.reshape(packed.shape).astype(np.uint8), colours.view(np.uint8).reshape(-1, 4))


def _opened(data: bytes) -> Indexed:
    """A PNG with a palette."""
    from PIL import Image

    with Image.open(io.BytesIO(data)) as opened:
        rgba = np.asarray(opened.convert("RGBA"))
        picture = opened if opened.mode == "P" else opened.convert("P")  # few greys are kept as greys
        indices = np.asarray(picture, dtype=np.uint8)
    table = np.zeros((int(indices.max()) + 1, 4), np.uint8)
    table[indices.ravel()] = rgba.reshape(-1, 4)
    return Indexed(indices, table)


def _mapped(raster: Raster, colours: NDArray[np.uint8], settings: PaletteSettings) -> NDArray[np.uint8]:
    """Each px the nearest colour, or with the error carried on (Floyd and Steinberg 1976)."""
    from PIL import Image

    palette = Image.new("P", (1, 1))
    filled = np.vstack([colours[:, :3], np.repeat(colours[:1, :3], MOST_COLOURS - len(colours), axis=0)])
    palette.putpalette(filled.tobytes(), "RGB")
    source = Image.fromarray(raster.smoothed.numpy() if settings.smoothed else raster.rgb)
    dither = Image.Dither.FLOYDSTEINBERG if settings.dither else Image.Dither.NONE
    found = np.asarray(source.quantize(palette=palette, dither=dither), dtype=np.uint8)
    return np.where(found < len(colours), found, 0).astype(np.uint8)
