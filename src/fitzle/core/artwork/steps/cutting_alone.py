"""A cut-out by itself, without a list of steps around it: what the command line makes."""

from __future__ import annotations

from typing import Any

from fitzle.core.artwork.sources import Source
from fitzle.core.artwork.steps.applying_cut import with_cut
from fitzle.core.artwork.steps.costly import KeptCut, unpacked_cut
from fitzle.core.artwork.steps.document import CutOut, Window
from fitzle.core.artwork.steps.making_costly import made_costly
from fitzle.core.artwork.steps.material import as_bitmap, material_of
from fitzle.core.documents import validated
from fitzle.core.errors import ValueOutOfRange


def cut_alone(source: Source, wishes: dict[str, Any], box: tuple[float, float, float, float] | None) -> KeptCut:
    """Cuts out at the artwork's own size; `wishes` are fields of a CutOut, `box` is x, y, width and height in px.

    Raises DocumentError for wishes that make no sense, ValueOutOfRange for a box beside the picture, and ArtworkError
    where nothing can be cut out.
    """
    window = _window(source, box) if box else None
    step = validated(CutOut, {"id": "cut", **wishes, "box": window}, subject="", noun="cut-out")
    bitmap = as_bitmap(material_of(source))
    cut = unpacked_cut(made_costly(bitmap, step))
    return cut._replace(pixels=with_cut(bitmap.pixels, cut.pixels, step))


def _window(source: Source, box: tuple[float, float, float, float]) -> Window:
    """The part of the box that lies in the picture, in fractions of it."""
    x, y, width, height = box
    left, top = max(0.0, x), max(0.0, y)
    right, bottom = min(source.width, x + width), min(source.height, y + height)
    if not (right > left and bottom > top):
        raise ValueOutOfRange(
            "this box lies beside the picture",
            expected=f"within {source.width:g} x {source.height:g} px",
            actual=f"{x:g},{y:g},{width:g},{height:g}",
        )
    return Window(
        x=left / source.width,
        y=top / source.height,
        width=min(1, (right - left) / source.width),
        height=min(1, (bottom - top) / source.height),
    )
