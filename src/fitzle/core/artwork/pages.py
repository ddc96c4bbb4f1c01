"""Pages of a PDF as artwork: a vector page is a mark on a clear ground, a page with photos a picture on white.

Lengths in a PDF are points. A page is as many px as CSS makes of them (96 to the inch: 4/3 px a point), and a page with
bitmaps as many as keep the px of its finest one: a scan of 300 dots to the inch is not brought down to 96.
"""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager, nullcontext
from threading import Lock
from typing import Any, NamedTuple

import cv2
import numpy as np

from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.sources import SUPERSAMPLED_BELOW_PX, SUPERSAMPLING, Pixels
from fitzle.core.artwork.straight import premultiplied
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

PX_PER_POINT = 4 / 3
LONGEST_DRAWN_PX = 8192
MOST_DRAWN_PX = 25_000_000  # A4 at 500 dots to the inch
COVERS_MUCH = 1 / 3  # of a page's width or height
_one_at_a_time = Lock()  # PDFium is not made for threads


class PageSource:
    """One page of a PDF in memory, drawn anew at each size; `vector` when nothing in it is a bitmap.

    `width` and `height` are those of the page in points times `px_per_point`.
    """

    def __init__(
        self, data: bytes, number: int, width: float, height: float, *, vector: bool, px_per_point: float
    ) -> None:
        self._data, self._number, self._px_per_point = data, number, px_per_point
        self.width, self.height, self.vector = width, height, vector
        self.allowance: AbstractContextManager[None] = nullcontext()

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source."""
        finer = SUPERSAMPLING if max(size) <= SUPERSAMPLED_BELOW_PX else 1
        across, down = size.width * finer / window.width, size.height * finer / window.height
        scale = min(max(across, down), LONGEST_DRAWN_PX / max(window.width, window.height))
        cut = (window.x, self.height - window.bottom, self.width - window.right, window.y)
        with self.allowance, _opened(self._data) as document:
            page = document[self._number]
            bitmap = page.render(
                scale=scale * self._px_per_point,
                crop=tuple(max(0.0, edge / self._px_per_point) for edge in cut),
                fill_color=(255, 255, 255, 0 if self.vector else 255),
                rev_byteorder=True,
                prefer_bgrx=True,
            )
            drawn = _premultiplied(np.array(bitmap.to_numpy(), dtype=np.uint8), clear=self.vector)
        return np.asarray(cv2.resize(drawn, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)


def page_count(data: bytes, limits: Limits) -> int:
    """The number of pages; raises ArtworkError (damaged, behind a password, empty) or LimitError."""
    with _opened(data) as document:
        count = len(document)
    if count < 1:
        raise ArtworkError("the PDF has no page", advice="Export it again.")
    if count > limits.max_pages:
        raise LimitError(f"the PDF has {count} pages", advice=f"At most {limits.max_pages} are taken. Export fewer.")
    return count


def page_of(data: bytes, number: int, limits: Limits) -> PageSource:
    """A page by its number, from 0; raises ArtworkError or LimitError."""
    from pypdfium2 import raw

    with _opened(data) as document:
        page = document[number]
        points = page.get_size()
        items = list(page.get_objects(max_depth=6))
        kinds = {item.type for item in items}
        bitmaps = [_bitmap_of(item) for item in items if item.type == raw.FPDF_PAGEOBJ_IMAGE]
    if not all(math.isfinite(side) for side in points) or min(points) * PX_PER_POINT < 1:
        raise ArtworkError("the page has no size", advice="Export it again.")
    finest = _finest(bitmaps, points, alone=kinds == {raw.FPDF_PAGEOBJ_IMAGE})
    width, height = (side * finest for side in points)
    if max(points) * PX_PER_POINT > limits.max_side_px:
        raise LimitError(f"the page is too large: {width:.0f} x {height:.0f} px", advice="Export it smaller.")
    vector = bool(kinds) and not kinds & {raw.FPDF_PAGEOBJ_IMAGE, raw.FPDF_PAGEOBJ_SHADING}
    return PageSource(data, number, width, height, vector=vector, px_per_point=finest)


class _Bitmap(NamedTuple):
    """A bitmap on a page: the points that it covers, and its px to the point."""

    width: float
    height: float
    px_per_point: float


def _bitmap_of(item: Any) -> _Bitmap:
    a, b, c, d, *_ = item.get_matrix().get()
    width, height = math.hypot(a, b), math.hypot(c, d)
    across, down = item.get_px_size()
    return _Bitmap(width, height, max(across / max(width, 1e-6), down / max(height, 1e-6)))


def _finest(bitmaps: list[_Bitmap], page: tuple[float, float], *, alone: bool) -> float:
    """Px to the point for a page of this size in points: those of its finest bitmap, small ones aside.

    Beside words and lines at least as many as CSS has.
    """
    much = [one.px_per_point for one in bitmaps if max(one.width / page[0], one.height / page[1]) >= COVERS_MUCH]
    finest = max(much, default=PX_PER_POINT)
    most = min(LONGEST_DRAWN_PX / max(page), math.sqrt(MOST_DRAWN_PX / (page[0] * page[1])))
    least = 1 / min(page) if alone else PX_PER_POINT
    return max(least, min(finest, most))


def page_alone(data: bytes, number: int, limits: Limits) -> bytes:
    """A PDF of one page of another, by its number from 0. Raises ArtworkError or LimitError."""
    import pypdfium2

    if not 0 <= number < page_count(data, limits):
        raise ArtworkError(f"there is no page {number + 1}", advice="Choose another one.")
    out = io.BytesIO()
    with _opened(data) as document:
        alone = pypdfium2.PdfDocument.new()
        alone.import_pages(document, [number])
        alone.save(out)
        alone.close()
    return out.getvalue()


@contextmanager
def _opened(data: bytes) -> Iterator[Any]:
    import pypdfium2

    with _one_at_a_time:
        try:
            document = pypdfium2.PdfDocument(data)
            try:
                yield document
            finally:
                document.close()
        except pypdfium2.PdfiumError as error:
            # PDFium also tells the error of an earlier file again, when it finds no word of its own for this one.
            if "password" in str(error).lower() and b"/Encrypt" in data:
                raise ArtworkError("the PDF is behind a password", advice="Export it without one.") from error
            raise ArtworkError("the PDF is damaged", advice="Export it again.") from error


def _premultiplied(pixels: Pixels, *, clear: bool) -> Pixels:
    if not clear:
        pixels[..., 3] = 255
    return premultiplied(pixels)
