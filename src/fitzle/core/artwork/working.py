"""Working copies: a photo scaled down once, so that previews need not decode 24 megapixels each time."""

from __future__ import annotations

from fitzle.core.artwork.decoding import decoded
from fitzle.core.artwork.sources import BitmapSource, Pixels, Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.libvips import libvips
from fitzle.core.units import Size

LONG_SIDE_PX = 2048
JPEG_QUALITY = 92


def make_working_copy(source: Source) -> tuple[bytes, str] | None:
    """A copy of at most 2048 px as (bytes, format), or None where the artwork is that small or a vector."""
    longest = max(source.width, source.height)
    if not isinstance(source, BitmapSource) or longest <= LONG_SIDE_PX:
        return None
    pyvips = libvips()
    scale = LONG_SIDE_PX / longest
    size = Size(max(1, round(source.width * scale)), max(1, round(source.height * scale)))
    pixels = source.overview(size)
    image = pyvips.Image.new_from_array(pixels).copy(interpretation="srgb")
    if pixels[..., 3].min() == 255:
        flat = image.extract_band(0, n=3)
        return bytes(flat.jpegsave_buffer(Q=JPEG_QUALITY, subsample_mode="off", keep="none")), "jpeg"
    straight = image.unpremultiply().rint().cast("uchar")
    return bytes(straight.pngsave_buffer(compression=3, keep="none")), "png"


class WorkingSource:
    """An artwork drawn from its working copy, in the artwork's own px; for previews only."""

    def __init__(self, copy: bytes, fmt: str, width: float, height: float) -> None:
        header = decoded(copy, fmt)
        self._copy = BitmapSource(copy, fmt, header.width, header.height, for_preview=True)
        self.width, self.height = width, height

    @property
    def held_bytes(self) -> int:
        """What it holds in memory."""
        return self._copy.held_bytes

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source; beyond the copy's own resolution it gets soft, which a preview may."""
        across, down = self._copy.width / self.width, self._copy.height / self.height
        inner = Rect(window.x * across, window.y * down, window.width * across, window.height * down)
        return self._copy.pixels(inner, size)
