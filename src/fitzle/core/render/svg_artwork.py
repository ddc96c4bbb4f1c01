"""Pictures and marks in SVG: vector marks stay vectors, bitmaps are embedded."""

from __future__ import annotations

import copy
from typing import Any

import numpy as np

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.sources import Pixels, Source, VectorSource
from fitzle.core.artwork.svg_recolour import recoloured_svg
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import PlacedArtwork
from fitzle.core.render.artwork import artwork_pixels
from fitzle.core.render.svg_defs import Defs, figure
from fitzle.core.render.svg_pictures import border_markup, path_markup, picture_markup
from fitzle.core.units import Size

EMBEDDED_DENSITY = 2  # px of an embedded picture for each px of the file, where the picture has that many
_REFERENCES = ("href", "{http://www.w3.org/1999/xlink}href")


def artwork_markup(part: PlacedArtwork, source: Source, defs: Defs) -> str:
    """A picture or mark in its box, cut to its die."""
    if isinstance(source, VectorSource) and not part.grid:
        inner = _vector(part, source, defs)
    else:
        inner = picture_markup(_bitmap(part, source), part.box)
    if part.die is None:
        return inner
    made = [path_markup(part.die.path, f'fill="{part.die.fill}"')] if part.die.fill else []
    made.append(f'<g clip-path="url(#{defs.clip(part.die.path)})">{inner}</g>')
    if part.die.border:
        made.append(border_markup(part.die.path, part.die.border, defs))
    return "".join(made)


def _bitmap(part: PlacedArtwork, source: Source) -> Pixels:
    """Straight pixels of what shows, at up to twice the file's px."""
    density = 1.0 if part.grid else min(EMBEDDED_DENSITY, max(1.0, 1 / part.scale))
    size = Size(max(1, round(part.box.width * density)), max(1, round(part.box.height * density)))
    pixels = artwork_pixels(source, part, part.window, size)
    alpha = pixels[..., 3:].astype(np.float32)
    straight = pixels[..., :3] * (255 / np.maximum(alpha, 1))
    if part.tint:
        straight = np.broadcast_to(np.array(parse_hex(part.tint), np.float32), straight.shape)
    return with_alpha(np.rint(np.clip(straight, 0, 255)).astype(np.uint8), pixels[..., 3])


def _vector(part: PlacedArtwork, source: VectorSource, defs: Defs) -> str:
    """The mark's own elements in a nested SVG that shows the window."""
    from lxml import etree

    root = recoloured_svg(source.root, dict(part.recolour)) if part.recolour else copy.deepcopy(source.root)
    with_own_ids(root, f"{part.part}-")
    view = source.frame.view
    across, down = view.width / source.width, view.height / source.height
    shown = Rect(
        view.x + part.window.x * across,
        view.y + part.window.y * down,
        part.window.width * across,
        part.window.height * down,
    )
    for name, value in zip(("x", "y", "width", "height"), part.box, strict=True):
        root.set(name, figure(value))
    root.set("viewBox", " ".join(figure(entry) for entry in shown))
    root.set("preserveAspectRatio", "none")
    markup = etree.tostring(root).decode()
    return f'<g filter="url(#{defs.tint(part.tint)})">{markup}</g>' if part.tint else markup


def with_own_ids(root: Any, prefix: str) -> None:
    """Ids of several marks in one document must not meet."""
    names = {element.get("id") for element in root.iter() if element.get("id")}
    for element in root.iter():
        for key, value in element.attrib.items():
            if key == "id":
                element.set(key, prefix + value)
            elif key in _REFERENCES and value[1:] in names:
                element.set(key, "#" + prefix + value[1:])
            elif "url(#" in value:
                element.set(key, value.replace("url(#", f"url(#{prefix}"))
