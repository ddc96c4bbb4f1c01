"""Colours of a sanitised SVG replaced in its own attributes and styles."""

from __future__ import annotations

import copy
import re
from collections.abc import Callable, Mapping
from typing import Any

_PAINTS = ("fill", "stroke", "stop-color", "flood-color", "color")
_DECLARED = re.compile(r"(?P<name>fill|stroke|stop-color|flood-color|color)\s*:\s*(?P<value>[^;}]+)")
Repaint = Callable[[str], str | None]  # a paint's value to a new one, None to keep it


def recoloured_svg(root: Any, mapping: Mapping[str, str]) -> Any:
    """A copy of the tree with each colour (hex) of `mapping` replaced wherever it is painted with."""
    changed = _repainted(root, lambda value: mapping.get(_hex(value)))
    black = mapping.get("#000000")
    if black and not changed.get("fill"):
        changed.set("fill", black)  # SVG 1.1, 11.3: what states no fill is filled with black
    return changed


def painted_svg(root: Any, colour: str) -> Any:
    """A copy of the tree with everything that is painted painted in one colour; what is not painted stays so."""
    changed = _repainted(root, lambda value: colour if _hex(value) != value or value.startswith("#") else None)
    changed.set("color", colour)
    if not changed.get("fill"):
        changed.set("fill", colour)
    for element in changed.iter("{*}stop"):
        if "stop-color" not in element.attrib and "stop-color" not in element.get("style", ""):
            element.set("stop-color", colour)
    return changed


def _repainted(root: Any, repaint: Repaint) -> Any:
    changed = copy.deepcopy(root)
    for element in changed.iter():
        for name in _PAINTS:
            value = element.get(name)
            if value and (new := repaint(value.strip())):
                element.set(name, new)
        style = element.get("style")
        if style:
            element.set("style", _DECLARED.sub(lambda found: _redeclared(found, repaint), style))
        if str(element.tag).endswith("style") and element.text:
            element.text = _DECLARED.sub(lambda found: _redeclared(found, repaint), element.text)
    return changed


def _redeclared(found: re.Match[str], repaint: Repaint) -> str:
    new = repaint(found["value"].strip())
    return f"{found['name']}:{new}" if new else found[0]


def _hex(value: str) -> str:
    """Any CSS colour as #rrggbb; what is no plain colour as it is."""
    from PIL import ImageColor

    try:
        red, green, blue = ImageColor.getrgb(value.strip())[:3]
    except ValueError:
        return value
    return f"#{red:02x}{green:02x}{blue:02x}"
