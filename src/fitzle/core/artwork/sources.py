"""Where pixels come from: any window of an artwork at any size, premultiplied.

A source decodes anew on each call, with the decoder's own scaling on load, so that a large photo never stands in
memory whole.
"""

from __future__ import annotations

import copy
from concurrent.futures import ThreadPoolExecutor
from contextlib import AbstractContextManager, nullcontext
from typing import Any, Literal, Protocol

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.decoding import Ahead, decoded, decoding_factor, overview_factor
from fitzle.core.artwork.svg_size import SvgFrame
from fitzle.core.artwork.unreadable import unreadable
from fitzle.core.geometry.rect import Rect
from fitzle.core.libvips import libvips
from fitzle.core.units import Size

SUPERSAMPLED_BELOW_PX = 64  # facts/rendering.md: 4x sampling cut the ring error at 16 px from 3.2 to 1.3
SUPERSAMPLING = 4
HELD_PIXELS = 12_000_000  # a reading above that is not kept
LEAST_LEFT = 1.6  # times the wanted size; what block averaging must leave for Lanczos
SPLIT_ABOVE_PIXELS = 200_000
LANCZOS_REACH = 3  # px of the wanted size on each side

Pixels = NDArray[np.uint8]
# Lanczos for files; Hamming, three times faster and hardly softer, for previews; bicubic, which rings less, to enlarge.
Kernel = Literal["LANCZOS", "HAMMING", "BICUBIC"]


class Source(Protocol):
    """Something that can be drawn."""

    @property
    def width(self) -> float:
        """Natural width in px, upright."""
        ...

    @property
    def height(self) -> float:
        """Natural height in px, upright."""
        ...

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """The window (px of the artwork) scaled to `size`: (height, width, 4) uint8, sRGB, premultiplied."""
        ...


class BitmapSource:
    """The file of a bitmap in memory; `width` and `height` are upright.

    A window is scaled in two steps: the decoder reads at 1/2, 1/4 … of the size, at least twice what is wanted, and
    Lanczos does the rest from exactly the window, to a fraction of a pixel. The smaller reading is kept, so that a
    survey and a fit of the same photo decode it once.
    """

    def __init__(
        self,
        data: bytes,
        fmt: str,
        width: int,
        height: int,
        *,
        upright: bool = True,
        for_preview: bool = False,
        frames: int = 1,
        ahead: Ahead | None = None,
    ) -> None:
        self.data, self.format, self.upright, self.frames = data, fmt, upright, frames
        self._shrinking: Kernel = "HAMMING" if for_preview else "LANCZOS"
        self.width, self.height = width, height
        self._held: tuple[int, Pixels] | None = None
        self._ahead = ahead

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source; exact to a fraction of a source pixel."""
        scale = max(size.width / window.width, size.height / window.height)
        factor = decoding_factor(1 / scale)
        reading, origin, factor = self._reading(window, factor)
        box = (
            max(0.0, window.x / factor - origin[0]),
            max(0.0, window.y / factor - origin[1]),
            min(float(reading.shape[1]), window.right / factor - origin[0]),
            min(float(reading.shape[0]), window.bottom / factor - origin[1]),
        )
        return _resampled(reading, box, size, self._kernel(scale, size))

    @property
    def held_bytes(self) -> int:
        """What it holds in memory: its file, and the reading where that is kept."""
        held = self._held
        return len(self.data) + (held[1].nbytes if held else 0)

    def overview(self, size: Size) -> Pixels:
        """The whole picture at a size of at most OVERVIEW_LONG_SIDE_PX, from the first reading: for working copies."""
        whole = Rect(0, 0, self.width, self.height)
        reading, _, _ = self._reading(whole, decoding_factor(max(whole.width, whole.height) / max(size), whole=1))
        box = (0.0, 0.0, float(reading.shape[1]), float(reading.shape[0]))
        return _resampled(reading, box, size, self._shrinking)

    def _kernel(self, scale: float, size: Size) -> Kernel:
        if scale > 1:
            return "BICUBIC"
        # In an icon the ringing of Lanczos is a dark rim a pixel wide around everything.
        return "HAMMING" if max(size) <= SUPERSAMPLED_BELOW_PX else self._shrinking

    def _reading(self, window: Rect, factor: int) -> tuple[Pixels, tuple[int, int], int]:
        """Pixels at 1/factor or better that hold the window, where their corner lies in them, and their factor."""
        held = self._held  # once: another thread may hold a finer reading a moment later
        if held and held[0] <= factor:
            return held[1], (0, 0), held[0]
        overview = min(factor, overview_factor(self.width, self.height))
        if self.width * self.height / overview**2 <= HELD_PIXELS:
            held = (overview, self._decoded(overview, None))
            self._held = held
            return held[1], (0, 0), overview
        margin = LANCZOS_REACH * 2 * factor
        left, top = max(0, int(window.x - margin) // factor), max(0, int(window.y - margin) // factor)
        right, bottom = int(window.right + margin) // factor + 1, int(window.bottom + margin) // factor + 1
        return self._decoded(factor, (left, top, right, bottom)), (left, top), factor

    def _decoded(self, factor: int, part: tuple[int, int, int, int] | None) -> Pixels:
        pyvips = libvips()
        try:
            image = self._image(factor)
            if image.hasalpha():
                image = image.premultiply().rint().cast("uchar")
            if self.format != "jpeg" and factor > 1:
                image = image.shrink(factor, factor, ceil=True).rint().cast("uchar")
            if part:
                left, top, right, bottom = part
                image = image.crop(left, top, min(right, image.width) - left, min(bottom, image.height) - top)
            return np.asarray(image.numpy(), dtype=np.uint8)
        except pyvips.Error as error:
            raise unreadable(error) from error

    def _image(self, factor: int) -> Any:
        ahead, self._ahead = self._ahead, None
        image = ahead.image(factor) if ahead else None
        return image or decoded(self.data, self.format, self.upright, factor)


Box = tuple[float, float, float, float]  # left, top, right, bottom in px of a reading


def _resampled(pixels: Pixels, box: Box, size: Size, kernel: Kernel) -> Pixels:
    """A box of (h, w, 3 or 4) premultiplied pixels scaled to (height, width, 4)."""
    from PIL import Image

    whole = (0.0, 0.0, float(pixels.shape[1]), float(pixels.shape[0]))
    if box == whole and (size.width, size.height) == (pixels.shape[1], pixels.shape[0]):
        scaled = pixels
    else:
        pixels, box = _averaged(*_cropped(pixels, box, size), size)
        # RGBX: four bands that Pillow scales each on its own, as premultiplied pixels want it.
        picture = Image.fromarray(pixels) if pixels.shape[2] == 3 else _four_bands(pixels)
        scaled = _in_two_halves(picture, size, Image.Resampling[kernel], box)
    if scaled.shape[2] == 3:
        return with_alpha(scaled, np.full(scaled.shape[:2], 255, dtype=np.uint8))
    # Lanczos can overshoot: no colour may be brighter than its alpha.
    return np.minimum(scaled, scaled[..., 3:])


def _in_two_halves(picture: Any, size: Size, kernel: Any, box: Box) -> Pixels:
    """Pillow's resize on two cores: it lets go of the interpreter's lock, and looks beyond the box where it must."""
    if size.width * size.height < SPLIT_ABOVE_PIXELS:
        return np.asarray(picture.resize(size, kernel, box=box), dtype=np.uint8)
    left, top, right, bottom = box
    upper = size.height // 2
    seam = top + (bottom - top) * upper / size.height
    halves = [
        ((size.width, upper), (left, top, right, seam)),
        ((size.width, size.height - upper), (left, seam, right, bottom)),
    ]
    with ThreadPoolExecutor(len(halves)) as pool:
        return np.vstack(list(pool.map(lambda half: np.asarray(picture.resize(half[0], kernel, box=half[1])), halves)))


def _cropped(pixels: Pixels, box: Box, size: Size) -> tuple[Pixels, Box]:
    """The pixels that the box and the kernel around it need."""
    reach = LANCZOS_REACH * max(1.0, (box[2] - box[0]) / size.width, (box[3] - box[1]) / size.height) + 1
    left, top = max(0, int(box[0] - reach)), max(0, int(box[1] - reach))
    part = pixels[top : int(box[3] + reach) + 1, left : int(box[2] + reach) + 1]
    return part, (box[0] - left, box[1] - top, box[2] - left, box[3] - top)


def _averaged(pixels: Pixels, box: Box, size: Size) -> tuple[Pixels, Box]:
    """Whole blocks of px averaged first where that leaves enough for Lanczos."""
    factor = int(min((box[2] - box[0]) / size.width, (box[3] - box[1]) / size.height) / LEAST_LEFT)
    if factor < 2:
        return np.ascontiguousarray(pixels), box
    import cv2

    height, width = (-(-side // factor) for side in pixels.shape[:2])
    below, beside = height * factor - pixels.shape[0], width * factor - pixels.shape[1]
    even = cv2.copyMakeBorder(pixels, 0, below, 0, beside, cv2.BORDER_REPLICATE) if below or beside else pixels
    small = np.asarray(cv2.resize(even, (width, height), interpolation=cv2.INTER_AREA), dtype=np.uint8)
    left, top, right, bottom = (edge / factor for edge in box)
    return small, (left, top, right, bottom)


def _four_bands(pixels: Pixels) -> Any:
    from PIL import Image

    height, width = pixels.shape[:2]
    return Image.frombuffer("RGBX", (width, height), np.ascontiguousarray(pixels), "raw", "RGBX", 0, 1)


class VectorSource:
    """A sanitised SVG; drawn anew at each size, each time within its allowance."""

    def __init__(self, root: Any, frame: SvgFrame) -> None:
        self.root, self.frame = root, frame
        self.allowance: AbstractContextManager[None] = nullcontext()
        self.width, self.height = frame.width, frame.height

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source. The window maps exactly onto the size; small sizes are averaged from 4 x 4 samples."""
        if max(size) > SUPERSAMPLED_BELOW_PX:
            return self._drawn(window, size)
        import cv2

        large = self._drawn(window, Size(size.width * SUPERSAMPLING, size.height * SUPERSAMPLING))
        return np.asarray(cv2.resize(large, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)

    def _drawn(self, window: Rect, size: Size) -> Pixels:
        pyvips = libvips()
        try:
            with self.allowance:
                return _premultiplied(pyvips.Image.svgload_buffer(self._markup(window, size)))
        except pyvips.Error as error:
            raise unreadable(error) from error

    def _markup(self, window: Rect, size: Size) -> bytes:
        from lxml import etree

        view, across, down = self.frame.view, self.frame.view.width / self.width, self.frame.view.height / self.height
        root = copy.copy(self.root)
        root.set(
            "viewBox",
            f"{view.x + window.x * across} {view.y + window.y * down} {window.width * across} {window.height * down}",
        )
        root.set("width", str(size.width))
        root.set("height", str(size.height))
        root.set("preserveAspectRatio", "none")
        return bytes(etree.tostring(root))


def _premultiplied(image: Any) -> Pixels:
    if image.bands == 3:
        image = image.bandjoin(255)
        return np.asarray(image.numpy(), dtype=np.uint8)
    return np.asarray(image.premultiply().rint().cast("uchar").numpy(), dtype=np.uint8)
