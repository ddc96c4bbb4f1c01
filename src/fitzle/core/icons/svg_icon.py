"""One SVG that shows a mark in its light colours or in its dark ones, as the browser's colour scheme asks for."""

from __future__ import annotations

import base64
import copy
from typing import Any

from fitzle.core.encode.svg_minimise import minimised_svg
from fitzle.core.icons.mark import IconMark
from fitzle.core.render.svg_artwork import with_own_ids

SVG = "http://www.w3.org/2000/svg"
SIDE = 64  # of the view box; nothing follows from it
BITMAP_PX = 256  # a bitmap is embedded that large
# Media Queries Level 5, prefers-color-scheme. The names cannot meet those of a mark: its own are prefixed.
STYLE = ".icon-dark{display:none}@media(prefers-color-scheme:dark){.icon-light{display:none}.icon-dark{display:inline}}"


def svg_icon(light: IconMark, dark: IconMark | None) -> bytes:
    """The icon of both; with no dark one the same is shown everywhere."""
    from lxml import etree

    root = etree.Element(f"{{{SVG}}}svg", nsmap={None: SVG})
    root.set("viewBox", f"0 0 {SIDE} {SIDE}")
    if dark is None:
        root.append(_shown(light, "a"))
        return minimised_svg(bytes(etree.tostring(root)))
    style = etree.SubElement(root, f"{{{SVG}}}style")
    style.text = STYLE
    for mark, name in ((light, "light"), (dark, "dark")):
        group = etree.SubElement(root, f"{{{SVG}}}g")
        group.set("class", f"icon-{name}")
        group.append(_shown(mark, name[0]))
    return minimised_svg(bytes(etree.tostring(root)))


def _shown(mark: IconMark, prefix: str) -> Any:
    """The mark's own drawing, or its pixels, filling the square."""
    drawing = mark.tree()
    return _picture(mark) if drawing is None else _drawing(mark, drawing[0], drawing[1], prefix)


def _drawing(mark: IconMark, source: Any, tree: Any, prefix: str) -> Any:
    root = copy.deepcopy(tree)
    with_own_ids(root, f"{prefix}-")
    view, across, down = (
        source.frame.view,
        source.frame.view.width / source.width,
        source.frame.view.height / source.height,
    )
    window = mark.facts.trimmed.rect
    side = max(window.width, window.height)
    left, top = window.x - (side - window.width) / 2, window.y - (side - window.height) / 2
    root.set("viewBox", f"{view.x + left * across:g} {view.y + top * down:g} {side * across:g} {side * down:g}")
    for name, value in (("x", 0), ("y", 0), ("width", SIDE), ("height", SIDE)):
        root.set(name, str(value))
    root.attrib.pop("preserveAspectRatio", None)
    return root


def _picture(mark: IconMark) -> Any:
    from lxml import etree

    from fitzle.core.encode.png import lossless_png
    from fitzle.core.encode.raster import Raster

    data = lossless_png(Raster(mark.square(BITMAP_PX, room=1.0)))
    image = etree.Element(f"{{{SVG}}}image")
    for name, value in (("width", SIDE), ("height", SIDE)):
        image.set(name, str(value))
    image.set("href", f"data:image/png;base64,{base64.b64encode(data).decode()}")
    return image
