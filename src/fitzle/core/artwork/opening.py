"""From bytes to a source of pixels: what a file is, whether it is whole and not too large, and how it is opened."""

from __future__ import annotations

from fitzle.core.artwork.completeness import is_complete
from fitzle.core.artwork.decoding import Ahead
from fitzle.core.artwork.header import read_header
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.sniff import READABLE, sniff_format
from fitzle.core.artwork.sources import BitmapSource, Source, VectorSource
from fitzle.core.artwork.svg_packed import unpacked_svg
from fitzle.core.artwork.svg_size import svg_frame
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.formats import label_of
from fitzle.core.units import words_for_bytes

TAKEN = "Bring in PNG, JPEG, WebP, GIF, BMP, TIFF, AVIF, HEIC, ICO, SVG, PDF, MP4, MOV, WebM or Lottie."


def open_source(data: bytes, limits: Limits = DEFAULT_LIMITS) -> Source:
    """The source alone, for artwork whose facts are known already. Raises as read_artwork does."""
    check_weight(data, limits)
    data = unpacked_svg(data, limits)
    fmt = known_format(data, limits)
    if fmt == "svg":
        from fitzle.core.artwork.svg_sanitise import sanitised_svg

        root = sanitised_svg(data, limits, [])
        return VectorSource(root, svg_frame(root))
    if fmt == "pdf":
        from fitzle.core.artwork.pages import page_of

        return page_of(data, 0, limits)
    return open_bitmap(data, fmt, limits)


def check_weight(data: bytes, limits: Limits) -> None:
    """Raises ArtworkError for an empty file and LimitError for one that is too heavy."""
    if not data:
        raise ArtworkError("the file is empty", advice="Choose the file again, or export it again.")
    check_count(len(data), limits)


def check_count(count: int, limits: Limits) -> None:
    """Raises LimitError for so many bytes of anything but a clip."""
    if count > limits.max_bytes:
        raise LimitError(
            f"the file is too heavy: {words_for_bytes(count)}",
            advice=f"At most {words_for_bytes(limits.max_bytes)} are taken.",
        )


def known_format(data: bytes, limits: Limits) -> str:
    """The format of a bitmap or vector file that can be brought in; raises ArtworkError or LimitError."""
    check_weight(data, limits)
    fmt = sniff_format(data)
    if fmt == "apng":
        fmt = "png"
    if fmt not in READABLE:
        found = f"this is a {label_of(fmt)}" if fmt else "this is not a picture that Fitzle knows"
        raise ArtworkError(found, advice=TAKEN)
    if not is_complete(fmt, data):
        raise ArtworkError("the file is cut off: its end is missing", advice="Copy or export it again.")
    return fmt


def open_bitmap(data: bytes, fmt: str, limits: Limits, ahead: Ahead | None = None) -> BitmapSource:
    """The source of a bitmap of a known format; `ahead` is its overview that is being decoded already."""
    header = read_header(data, fmt, limits)
    upright = header.orientation == 1
    return BitmapSource(data, fmt, header.width, header.height, upright=upright, frames=header.frames, ahead=ahead)
