"""SVG elements: outlines, borders and embedded pictures."""

from __future__ import annotations

import base64
import io

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.geometry.path import Path
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import Line
from fitzle.core.render.svg_defs import Defs, figure


def path_markup(path: Path, attributes: str) -> str:
    """A path element."""
    return f'<path d="{path.svg()}" {attributes}/>'


def border_markup(path: Path, border: Line, defs: Defs) -> str:
    """A line inside an outline: twice as wide, the outer half clipped away."""
    clip = defs.clip(path)
    line = f'fill="none" stroke="{border.colour}" stroke-width="{figure(2 * border.width_px)}"'
    return f'<g clip-path="url(#{clip})">{path_markup(path, line)}</g>'


def picture_markup(pixels: Pixels, box: Rect) -> str:
    """Straight pixels embedded in a box: JPEG where opaque, else PNG."""
    from PIL import Image

    out = io.BytesIO()
    if pixels[..., 3].min() == 255:
        Image.fromarray(np.ascontiguousarray(pixels[..., :3])).save(out, "JPEG", quality=92, subsampling=0)
        kind = "jpeg"
    else:
        Image.fromarray(pixels).save(out, "PNG", optimize=True)
        kind = "png"
    data = base64.b64encode(out.getvalue()).decode()
    place = f'x="{figure(box.x)}" y="{figure(box.y)}" width="{figure(box.width)}" height="{figure(box.height)}"'
    return f'<image {place} preserveAspectRatio="none" href="data:image/{kind};base64,{data}"/>'
