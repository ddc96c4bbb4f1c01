"""A line of words as SVG, to show what a typeface does with them."""

from __future__ import annotations

from fitzle.core.geometry.rect import Rect
from fitzle.core.type.library import FontFace
from fitzle.core.type.setting import Setting, set_words

LONGEST_SAMPLE = 40  # letters
SIZE_PX = 40.0
ROOM_PX = 4000.0


def sample_svg(text: str, face: FontFace) -> bytes:
    """The words on one line, cropped to their ink; black outlines."""
    line = " ".join(text.split()) or "Aa"
    layout = set_words(line, Setting(face, largest_px=SIZE_PX), Rect(0, 0, ROOM_PX, 3 * SIZE_PX))
    block = layout.block
    box = f"{block.x - 1:.2f} {block.y - 1:.2f} {block.width + 2:.2f} {block.height + 2:.2f}"
    size = f'width="{block.width + 2:.2f}" height="{block.height + 2:.2f}"'
    head = f'<svg xmlns="http://www.w3.org/2000/svg" {size} viewBox="{box}">'
    return f'{head}<path d="{layout.outline().svg(2)}"/></svg>'.encode()
