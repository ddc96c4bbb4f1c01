"""Steps made on a drawing: the SVG tree put into another frame, so that it stays crisp at any size."""

from __future__ import annotations

import copy
from typing import Any

from fitzle.core.artwork.steps.document import Window
from fitzle.core.artwork.steps.material import Drawing
from fitzle.core.artwork.steps.turning import outer_size
from fitzle.core.artwork.svg_recolour import painted_svg, recoloured_svg
from fitzle.core.artwork.svg_sanitise import SVG
from fitzle.core.artwork.svg_size import SvgFrame
from fitzle.core.geometry.rect import Rect


def turned_drawing(drawing: Drawing, quarters: int) -> Drawing:
    """Quarter turns clockwise."""
    width, height = drawing.frame.width, drawing.frame.height
    moves = {
        1: f"translate({height:g} 0) rotate(90)",
        2: f"translate({width:g} {height:g}) rotate(180)",
        3: f"translate(0 {width:g}) rotate(270)",
    }
    size = (width, height) if quarters == 2 else (height, width)
    return _framed(drawing, Rect(0, 0, *size), moves[quarters])


def mirrored_drawing(drawing: Drawing, across: str) -> Drawing:
    """Left and right exchanged, or top and bottom."""
    width, height = drawing.frame.width, drawing.frame.height
    move = (
        f"translate({width:g} 0) scale(-1 1)" if across == "left and right" else f"translate(0 {height:g}) scale(1 -1)"
    )
    return _framed(drawing, Rect(0, 0, width, height), move)


def straightened_drawing(drawing: Drawing, degrees: float) -> Drawing:
    """Turned by a few degrees clockwise about its middle; the frame grows so that nothing is lost."""
    width, height = drawing.frame.width, drawing.frame.height
    across, down = outer_size(width, height, degrees)
    move = f"rotate({degrees:g} {width / 2:g} {height / 2:g})"
    return _framed(drawing, Rect((width - across) / 2, (height - down) / 2, across, down), move)


def cropped_drawing(drawing: Drawing, window: Window) -> Drawing:
    """All but a window taken away."""
    width, height = drawing.frame.width, drawing.frame.height
    view = Rect(window.x * width, window.y * height, window.width * width, window.height * height)
    return _framed(drawing, view, "")


def recoloured_drawing(drawing: Drawing, one: str | None, colours: tuple[tuple[str, str], ...]) -> Drawing:
    """Everything in one colour, or colours replaced."""
    root = painted_svg(drawing.root, one) if one else recoloured_svg(drawing.root, dict(colours))
    return Drawing(root, drawing.frame)


def has_pixels(drawing: Drawing) -> bool:
    """Whether there is a bitmap in the drawing."""
    return next(drawing.root.iter("{*}image"), None) is not None


def fills_of(drawing: Drawing) -> list[str]:
    """The colours that its shapes are filled with, as they are written, each once, in the order of the drawing."""
    fills = (node.get("fill") for node in drawing.root.iter() if isinstance(node.tag, str))
    return list(dict.fromkeys(fill.lower() for fill in fills if fill and fill != "none"))


def markup_of(drawing: Drawing) -> bytes:
    """The drawing as an SVG file."""
    from lxml import etree

    return bytes(etree.tostring(drawing.root, xml_declaration=True, encoding="utf-8"))


def _framed(drawing: Drawing, view: Rect, move: str) -> Drawing:
    """The drawing moved inside a new frame, in px of its own natural size."""
    from lxml import etree

    root = etree.Element(f"{{{SVG}}}svg", nsmap={None: SVG})
    root.set("width", f"{view.width:g}")
    root.set("height", f"{view.height:g}")
    root.set("viewBox", f"{view.x:g} {view.y:g} {view.width:g} {view.height:g}")
    holder: Any = etree.SubElement(root, f"{{{SVG}}}g")
    if move:
        holder.set("transform", move)
    inner = copy.deepcopy(drawing.root)
    own = drawing.frame.view
    inner.set("x", "0")
    inner.set("y", "0")
    inner.set("width", f"{drawing.frame.width:g}")
    inner.set("height", f"{drawing.frame.height:g}")
    inner.set("viewBox", f"{own.x:g} {own.y:g} {own.width:g} {own.height:g}")
    holder.append(inner)
    return Drawing(root, SvgFrame(view.width, view.height, view))
