"""One SVG that shows a mark in its light colours or in its dark ones, as the browser's colour scheme asks for."""

from __future__ import annotations

import base64
import copy
from typing import Any, NamedTuple

from fitzle.core.encode.svg_minimise import minimised_svg
from fitzle.core.icons.mark import IconMark
from fitzle.core.render.svg_artwork import with_own_ids

SVG = "http://www.w3.org/2000/svg"
SIDE = 64  # of the view box; nothing follows from it
BITMAP_PX = 256  # a bitmap is embedded that large
# Media Queries Level 5, prefers-color-scheme. The names cannot meet those of a mark: its own are prefixed.
STYLE = ".icon-dark{display:none}@media(prefers-color-scheme:dark){.icon-light{display:none}.icon-dark{display:inline}}"
# Media Queries Level 5, width: in an SVG that stands as a picture it is the picture's own, in px.
SMALL_STYLE = ".icon-small{display:none}@media(max-width:%dpx){.icon-large{display:none}.icon-small{display:inline}}"


class Versions(NamedTuple):
    """A mark for light tabs and one for dark ones; without the latter the same is shown everywhere."""

    light: IconMark
    dark: IconMark | None


def svg_icon(large: Versions, small: Versions | None = None, up_to_px: int = 0) -> bytes:
    """The icon of these versions; `small` stands for them where it is shown at most `up_to_px` wide."""
    from lxml import etree

    root = etree.Element(f"{{{SVG}}}svg", nsmap={None: SVG})
    root.set("viewBox", f"0 0 {SIDE} {SIDE}")
    style = (STYLE if large.dark else "") + (SMALL_STYLE % up_to_px if small else "")
    if style:
        etree.SubElement(root, f"{{{SVG}}}style").text = style
    if small is None:
        _add(root, large, "")
    else:
        _add(_group(root, "large"), large, "")
        _add(_group(root, "small"), small, "s")
    return minimised_svg(bytes(etree.tostring(root)))


def _add(parent: Any, versions: Versions, prefix: str) -> None:
    if versions.dark is None:
        parent.append(_shown(versions.light, f"{prefix}a"))
        return
    _group(parent, "light").append(_shown(versions.light, f"{prefix}l"))
    _group(parent, "dark").append(_shown(versions.dark, f"{prefix}d"))


def _group(parent: Any, name: str) -> Any:
    from lxml import etree

    group = etree.SubElement(parent, f"{{{SVG}}}g")
    group.set("class", f"icon-{name}")
    return group


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
