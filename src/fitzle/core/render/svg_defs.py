"""Definitions of an SVG document: gradients, clips, masks and filters, each with an id of its own."""

from __future__ import annotations

import math
from xml.sax.saxutils import quoteattr

from fitzle.core.colour.mixing import mixed_stops
from fitzle.core.colour.srgb import to_hex
from fitzle.core.geometry.path import Path
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.fills import Gradient, PaintFill, Solid
from fitzle.core.render.skia_paths import linear_ends, radial_reach

BLUR_REACH = 4  # standard deviations; beyond that nothing is left


def figure(value: float) -> str:
    """A number with at most three decimals."""
    return f"{value:.3f}".rstrip("0").rstrip(".") or "0"


class Defs:
    """Collects definitions; each method gives the id of a new one."""

    def __init__(self) -> None:
        self._entries: list[str] = []

    def markup(self) -> str:
        """All of them."""
        return f"<defs>{''.join(self._entries)}</defs>" if self._entries else ""

    def clip(self, path: Path) -> str:
        """An outline to clip to."""
        return self._add("clipPath", "", f'<path d="{path.svg()}"/>')

    def mask(self, inner: str, box: Rect) -> str:
        """White and black markup as a mask over a box."""
        return self._add("mask", f'maskUnits="userSpaceOnUse" {_place(box)}', inner)

    def blur(self, sigma: float, box: Rect) -> str:
        """A Gaussian blur of what lies in a box."""
        place = _place(_grown(box, BLUR_REACH * sigma))
        attributes = f'filterUnits="userSpaceOnUse" color-interpolation-filters="sRGB" {place}'
        return self._add("filter", attributes, f'<feGaussianBlur stdDeviation="{figure(sigma)}"/>')

    def tint(self, colour: str) -> str:
        """Everything in one colour, transparency kept."""
        inner = f'<feFlood flood-color="{colour}"/><feComposite in2="SourceAlpha" operator="in"/>'
        return self._add(
            "filter", 'color-interpolation-filters="sRGB" x="-1%" y="-1%" width="102%" height="102%"', inner
        )

    def gradient(self, fill: Gradient, box: Rect) -> str:
        """A linear or radial gradient over a box, with the stops between that make its middle clean."""
        stops = "".join(
            f'<stop offset="{figure(stop.at)}" stop-color="{to_hex(stop.colour)}"'
            + (f' stop-opacity="{figure(stop.opacity)}"' if stop.opacity < 1 else "")
            + "/>"
            for stop in mixed_stops([(stop.at, stop.colour, stop.opacity) for stop in fill.stops], fill.mix)
        )
        if fill.form == "radial":
            centre = (box.x + fill.centre.x * box.width, box.y + fill.centre.y * box.height)
            where = f'cx="{figure(centre[0])}" cy="{figure(centre[1])}" r="{figure(radial_reach(fill, box))}"'
            return self._add("radialGradient", f'gradientUnits="userSpaceOnUse" {where}', stops)
        (x1, y1), (x2, y2) = linear_ends(fill, box)
        where = f'x1="{figure(x1)}" y1="{figure(y1)}" x2="{figure(x2)}" y2="{figure(y2)}"'
        return self._add("linearGradient", f'gradientUnits="userSpaceOnUse" {where}', stops)

    def _add(self, element: str, attributes: str, inner: str) -> str:
        name = f"d{len(self._entries) + 1}"
        self._entries.append(f"<{element} id={quoteattr(name)} {attributes}>{inner}</{element}>")
        return name


def paint_attributes(fill: PaintFill, box: Rect, defs: Defs) -> str:
    """The `fill` of a solid colour or a gradient over a box."""
    if isinstance(fill, Solid):
        return f'fill="{fill.colour}"'
    return f'fill="url(#{defs.gradient(fill, box)})"'


def _place(box: Rect) -> str:
    left, top = math.floor(box.x), math.floor(box.y)
    width, height = math.ceil(box.right) - left, math.ceil(box.bottom) - top
    return f'x="{left}" y="{top}" width="{width}" height="{height}"'


def _grown(box: Rect, by: float) -> Rect:
    return Rect(box.x - by, box.y - by, box.width + 2 * by, box.height + 2 * by)
