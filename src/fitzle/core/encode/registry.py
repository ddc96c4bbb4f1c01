"""All encoders. A new one is a module here and its line below; what its format can hold stands in core.formats."""

from __future__ import annotations

from collections.abc import Callable

from fitzle.core.encode.bmp import search_bmp
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.ico import search_ico
from fitzle.core.encode.jpeg import search_jpeg
from fitzle.core.encode.png import search_png
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Search
from fitzle.core.encode.svg import search_svg
from fitzle.core.encode.webp import search_webp
from fitzle.core.formats import Format

# What is rendered, the limit in bytes (None: no limit) and the time that is left, to the best file under the limit.
Encoder = Callable[[Rendered, int | None, Budget], Search]

ENCODERS: dict[Format, Encoder] = {
    "png": search_png,
    "jpeg": search_jpeg,
    "webp": search_webp,
    "bmp": search_bmp,
    "ico": search_ico,
    "svg": search_svg,
}


def writable(fmt: Format) -> bool:
    """Whether files of this format can be written."""
    return fmt in ENCODERS
