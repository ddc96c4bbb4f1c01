"""Making what is kept: a cut by the engine that is sure of itself, a tracing with as many colours as it takes."""

from __future__ import annotations

from fitzle.core.artwork.cutout.cutting import Wishes, cut_out
from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.shrinking import at_most
from fitzle.core.artwork.steps.brush import union_mask
from fitzle.core.artwork.steps.costly import Box, KeptCut, packed_cut
from fitzle.core.artwork.steps.document import CutOut, Trace
from fitzle.core.artwork.steps.material import Drawing, Material, as_bitmap, natural_size
from fitzle.core.artwork.svg_sanitise import sanitised_svg
from fitzle.core.artwork.svg_size import SvgFrame, svg_frame
from fitzle.core.artwork.tracing import traced
from fitzle.core.geometry.rect import Rect

CUT_PX = 2048  # the long side at which cuts are made; larger pictures take the coverage scaled up
SOFTNESS_AT_PX = 1280  # the long side that a softness is stated for


def made_costly(material: Material, step: CutOut | Trace) -> bytes:
    """A cut or a tracing as bytes to keep. Raises ArtworkError where it cannot be made, in plain words."""
    pixels = as_bitmap(material).pixels
    if isinstance(step, Trace):
        return traced(pixels, step.colours).markup
    small = at_most(pixels, CUT_PX)
    height, width = small.shape[:2]
    wishes = Wishes(
        tolerance=step.tolerance,
        softness_px=max(0.5, min(16.0, step.softness * max(width, height) / SOFTNESS_AT_PX)),
        holes=step.holes,
        box=_box_px(step, width, height),
        keep=union_mask(step.strokes, "keep", width, height),
        drop=union_mask(step.strokes, "drop", width, height),
    )
    cut = cut_out(small, step.method, wishes)
    wider = _fractions(cut.wider, width, height) if cut.wider else None
    return packed_cut(KeptCut(cut.pixels, cut.method, cut.confidence, wider))


def _fractions(box: Rect, width: int, height: int) -> Box:
    x, y = box.x / width, box.y / height
    return x, y, min(1 - x, box.width / width), min(1 - y, box.height / height)


def traced_drawing(markup: bytes, stands_for: Material) -> Drawing:
    """A kept tracing as a drawing of the same natural size as what it was traced from."""
    root = sanitised_svg(markup, DEFAULT_LIMITS, [])
    width, height = natural_size(stands_for)
    return Drawing(root, SvgFrame(width, height, svg_frame(root).view))


def _box_px(step: CutOut, width: int, height: int) -> Rect | None:
    if step.box is None:
        return None
    box = step.box
    return Rect(box.x * width, box.y * height, box.width * width, box.height * height)
