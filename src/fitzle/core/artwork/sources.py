"""Where pixels come from: any window of an artwork at any size, premultiplied.

A source decodes anew on each call, with the decoder's own scaling on load, so that a large photo never stands in
memory whole.
"""

from __future__ import annotations

import copy
import io
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.svg_size import SvgFrame
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

SUPERSAMPLED_BELOW_PX = 64  # facts/rendering.md: 4x sampling cut the ring error at 16 px from 3.2 to 1.3
SUPERSAMPLING = 4
SCALED_ON_LOAD = ("jpeg", "webp")  # decoders that can shrink while they read

Pixels = NDArray[np.uint8]


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
    """A PNG, JPEG, WebP, GIF or BMP file in memory; `width` and `height` are upright."""

    def __init__(self, data: bytes, fmt: str, width: int, height: int, upright: bool = True) -> None:
        self.data, self.format, self.upright = data, fmt, upright
        self.width, self.height = width, height

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source. The window is taken on whole source px, except where the decoder scales on load."""
        import pyvips

        try:
            scaled = self._scaled_on_load(window, size) if self._shrinks(window, size) else self._cropped(window, size)
            return _premultiplied(scaled)
        except pyvips.Error as error:
            raise unreadable(error) from error

    def _shrinks(self, window: Rect, size: Size) -> bool:
        return self.format in SCALED_ON_LOAD and size.width <= window.width

    def _scaled_on_load(self, window: Rect, size: Size) -> Any:
        import pyvips

        across, down = size.width / window.width, size.height / window.height
        full = max(size.width, round(self.width * across)), max(size.height, round(self.height * down))
        image = pyvips.Image.thumbnail_buffer(
            self.data, full[0], height=full[1], size="force", output_profile="srgb", fail_on="error"
        )
        left = min(max(0, round(window.x * across)), full[0] - size.width)
        top = min(max(0, round(window.y * down)), full[1] - size.height)
        return image.extract_area(left, top, size.width, size.height)

    def _cropped(self, window: Rect, size: Size) -> Any:
        image = decoded(self.data, self.format, self.upright)
        left, top = round(window.x), round(window.y)
        width = max(1, min(round(window.right), image.width) - left)
        height = max(1, min(round(window.bottom), image.height) - top)
        if (left, top, width, height) != (0, 0, image.width, image.height):
            image = image.extract_area(left, top, width, height)
        if (width, height) == (size.width, size.height):
            return image
        return image.thumbnail_image(size.width, height=size.height, size="force")


class VectorSource:
    """A sanitised SVG; drawn anew at each size."""

    def __init__(self, root: Any, frame: SvgFrame) -> None:
        self.root, self.frame = root, frame
        self.width, self.height = frame.width, frame.height

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source. The window maps exactly onto the size; small sizes are averaged from 4 x 4 samples."""
        if max(size) > SUPERSAMPLED_BELOW_PX:
            return self._drawn(window, size)
        import cv2

        large = self._drawn(window, Size(size.width * SUPERSAMPLING, size.height * SUPERSAMPLING))
        return np.asarray(cv2.resize(large, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)

    def _drawn(self, window: Rect, size: Size) -> Pixels:
        import pyvips

        try:
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


def decoded(data: bytes, fmt: str, upright: bool = True) -> Any:
    """A vips image in sRGB with 3 or 4 bands, upright, read from top to bottom (not all at once)."""
    import pyvips

    if fmt == "bmp":
        return _decoded_by_pillow(data)
    image = pyvips.Image.new_from_buffer(data, "", access="sequential", fail_on="error")
    if not upright:
        image = image.copy_memory().autorot()
    if image.get_typeof("icc-profile-data"):
        image = image.icc_transform("srgb", embedded=True, intent="relative")
    if image.interpretation != "srgb":
        image = image.colourspace("srgb")
    if image.format != "uchar":
        image = image.cast("uchar")
    return image


def unreadable(error: Exception) -> ArtworkError:
    """A decoder's complaint as an ArtworkError."""
    first = str(error).strip().splitlines()[-1] if str(error).strip() else "the decoder gave up"
    return ArtworkError(f"the picture data is damaged ({first})", advice="Save or export the file again.")


def _decoded_by_pillow(data: bytes) -> Any:
    import pyvips
    from PIL import Image

    try:
        picture = Image.open(io.BytesIO(data), formats=["BMP"])
        picture = picture.convert("RGBA" if "A" in picture.getbands() else "RGB")
    except (OSError, ValueError, SyntaxError) as error:
        raise unreadable(error) from error
    return pyvips.Image.new_from_array(np.asarray(picture)).copy(interpretation="srgb")


def _premultiplied(image: Any) -> Pixels:
    if image.bands == 3:
        image = image.bandjoin(255)
        return np.asarray(image.numpy(), dtype=np.uint8)
    return np.asarray(image.premultiply().rint().cast("uchar").numpy(), dtype=np.uint8)
