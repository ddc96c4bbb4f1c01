"""How large something is drawn for a screen: never larger than it can be seen or delivered, whatever its shape."""

from __future__ import annotations

MOST_PIXELS = 6_000_000  # 24 MB, and a tenth of a second for a photo
MAGNIFIED_LONG_SIDE_PX = 960  # small ones are looked at enlarged


def screen_width(width: float, height: float, asked_px: int) -> int:
    """The width in px at which something of this size is drawn where a screen asks for another: at least 1."""
    most = max(1.0, MAGNIFIED_LONG_SIDE_PX / max(width, height)) * width
    tall = height / width
    return max(1, int(min(asked_px, round(most), (MOST_PIXELS / tall) ** 0.5)))
