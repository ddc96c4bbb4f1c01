"""What is remembered of artwork in a process: opened sources and what was drawn of them, bounded in bytes."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from threading import Lock

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

OPEN_BYTES, CACHE_BYTES = 96_000_000, 48_000_000
MOST_OPEN = 12


class OpenSources:
    """The sources opened last, by key; bounded in number and in the bytes that they hold, safe between threads.

    The newest one stays, however large it is.
    """

    def __init__(self, most: int = MOST_OPEN, most_bytes: int = OPEN_BYTES) -> None:
        self._most, self._bytes = most, most_bytes
        self._entries: OrderedDict[str, Source] = OrderedDict()
        self._lock = Lock()

    def bound(self, most_bytes: int) -> None:
        """From now on holds at most so many bytes."""
        self._bytes = most_bytes

    def get(self, key: str, opened: Callable[[], Source]) -> Source:
        """The source of that key, opened only where it is not held."""
        with self._lock:
            if key in self._entries:
                self._entries.move_to_end(key)
                return self._entries[key]
        source = opened()
        with self._lock:
            self._entries[key] = source
            self._shrink()
        return source

    def _shrink(self) -> None:
        # What a source holds grows when it is first read, so all are asked anew.
        held = {key: _held_bytes(source) for key, source in self._entries.items()}
        while len(held) > 1 and (len(held) > self._most or sum(held.values()) > self._bytes):
            key, _ = self._entries.popitem(last=False)
            del held[key]


def _held_bytes(source: Source) -> int:
    return int(getattr(source, "held_bytes", 0))  # a drawing holds its few shapes


class PixelCache:
    """The pixels drawn last, by key, window and size; bounded in bytes, safe between threads."""

    def __init__(self, most_bytes: int = CACHE_BYTES) -> None:
        self._most, self._held = most_bytes, 0
        self._entries: OrderedDict[tuple[str, Rect, Size], Pixels] = OrderedDict()
        self._lock = Lock()

    def bound(self, most_bytes: int) -> None:
        """From now on holds at most so many bytes."""
        self._most = most_bytes

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
