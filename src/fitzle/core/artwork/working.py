"""Working copies: a photo scaled down once, so that previews need not decode 24 megapixels each time."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock

from fitzle.core.artwork.decoding import decoded
from fitzle.core.artwork.sources import BitmapSource, Pixels, Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.libvips import libvips
from fitzle.core.units import Size

LONG_SIDE_PX = 2048
JPEG_QUALITY = 92
CACHE_BYTES = 48_000_000


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

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source; beyond the copy's own resolution it gets soft, which a preview may."""
        across, down = self._copy.width / self.width, self._copy.height / self.height
        inner = Rect(window.x * across, window.y * down, window.width * across, window.height * down)
        return self._copy.pixels(inner, size)


class PixelCache:
    """The pixels drawn last, by key, window and size; bounded in bytes, safe between threads."""

    def __init__(self, most_bytes: int = CACHE_BYTES) -> None:
        self._most, self._held = most_bytes, 0
        self._entries: OrderedDict[tuple[str, Rect, Size], Pixels] = OrderedDict()
        self._lock = Lock()

    def get(self, key: str, source: Source, window: Rect, size: Size) -> Pixels:
        """The pixels, drawn by the source only where they are not held."""
        entry = (key, window, size)
        with self._lock:
            if entry in self._entries:
                self._entries.move_to_end(entry)
                return self._entries[entry]
        pixels = source.pixels(window, size)
        with self._lock:
            self._held += pixels.nbytes if entry not in self._entries else 0
            self._entries[entry] = pixels
            while self._held > self._most and len(self._entries) > 1:
                self._held -= self._entries.popitem(last=False)[1].nbytes
        return pixels


class CachedSource:
    """A source that remembers what it drew in a shared cache."""

    def __init__(self, key: str, inner: Source, cache: PixelCache) -> None:
        self._key, self._inner, self._cache = key, inner, cache

    @property
    def width(self) -> float:
        """Natural width in px."""
        return self._inner.width

    @property
    def height(self) -> float:
        """Natural height in px."""
        return self._inner.height

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source."""
        return self._cache.get(self._key, self._inner, window, size)
