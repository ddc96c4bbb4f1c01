"""An SVG that only wraps a bitmap is as sharp as that bitmap, whatever its format promises."""

from __future__ import annotations

import base64
import io
from typing import Any

from fitzle.core.artwork.svg_sanitise import XLINK_HREF

PAINTED = {"path", "rect", "circle", "ellipse", "line", "polyline", "polygon", "text", "use"}


def wrapped_bitmap_px(root: Any) -> int | None:
    """The longest side in px of the largest bitmap in a sanitised SVG that paints nothing else; None for a drawing."""
    from lxml import etree

    longest = 0
    for node in root.iter():
        name = etree.QName(node).localname
        if name in PAINTED and not _only_clips(node):
            return None
        if name == "image":
            longest = max(longest, _longest_side(node.get("href") or node.get(XLINK_HREF) or ""))
    return longest or None


def _only_clips(node: Any) -> bool:
    """Whether a shape is there to cut others, not to be seen."""
    from lxml import etree

    kinds = {etree.QName(above).localname for above in node.iterancestors()}
    return bool(kinds & {"clipPath", "mask", "defs"})


def _longest_side(address: str) -> int:
    from PIL import Image

    try:
        with Image.open(io.BytesIO(base64.b64decode(address.partition(",")[2]))) as picture:
            return int(max(picture.size))
    except (OSError, ValueError):
        return 0
