"""The demands of a spec sheet as people write them."""

from __future__ import annotations

from fitzle.core.formats import label_of
from fitzle.core.spec.sheet import ExactSize, RangedSize, SpecSheet


def size_words(sheet: SpecSheet) -> str:
    """The demanded size, for example `1280 × 720 px`."""
    size = sheet.size
    if isinstance(size, ExactSize):
        return f"{size.width} × {size.height} px"
    return _range_words(size)


def format_words(sheet: SpecSheet) -> str:
    """The demanded formats, for example `JPEG, else PNG`."""
    return ", else ".join(label_of(fmt) for fmt in sheet.formats)


def _range_words(size: RangedSize) -> str:
    parts = []
    for words, width, height in (
        ("at least", size.min_width, size.min_height),
        ("at most", size.max_width, size.max_height),
    ):
        if width and height:
            parts.append(f"{words} {width} × {height} px")
        elif width or height:
            parts.append(f"{words} {width or height} px {'wide' if width else 'high'}")
    return ", ".join(parts) or "any size"
