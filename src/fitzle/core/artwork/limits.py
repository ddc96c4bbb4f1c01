"""What is too large to be decoded. All are checked before decoding."""

from __future__ import annotations

from typing import NamedTuple


class Limits(NamedTuple):
    """Bounds for one file; the defaults suit a worker with 1 GB.

    `max_pixels_whole` is for formats whose decoders hold the whole picture: they take up to 15 bytes a pixel.
    """

    max_bytes: int = 100_000_000
    max_pixels: int = 100_000_000
    max_pixels_whole: int = 50_000_000
    max_side_px: int = 65_000
    max_frames: int = 10_000
    max_seconds: float = 4 * 3600
    max_pages: int = 200
    max_lottie_bytes: int = 10_000_000
    max_lottie_layers: int = 5_000
    max_svg_bytes: int = 10_000_000
    max_svg_elements: int = 50_000
    max_svg_depth: int = 100
    max_svg_expanded: int = 200_000  # elements drawn once every `use` is followed
    max_svg_filters: int = 100
    max_svg_drawing: float = 1500  # steps of 5 ms at 2400 x 1200 px (svg_cost.py)
    max_svg_held: int = 20  # pictures that lie over each other, up to 24 MB each
    max_svg_points: int = 200_000  # of all paths
    max_svg_letters: int = 20_000


DEFAULT_LIMITS = Limits()
