"""Colours of a sanitised SVG replaced in its own attributes."""

from __future__ import annotations

import copy
import re
from collections.abc import Mapping
from typing import Any

_PAINTS = ("fill", "stroke", "stop-color", "flood-color", "color")
_DECLARED = re.compile(r"(?P<name>fill|stroke|stop-color|flood-color|color)\s*:\s*(?P<value>[^;]+)")


def recoloured_svg(root: Any, mapping: Mapping[str, str]) -> Any:
    """A copy of the tree with each colour (hex) of `mapping` replaced wherever it is painted with."""
    changed = copy.deepcopy(root)
    for element in changed.iter():
        for name in _PAINTS:
            value = element.get(name)
            if value and (new := mapping.get(_hex(value))):
                element.set(name, new)
        style = element.get("style")
        if style:
            element.set("style", _DECLARED.sub(lambda found: _redeclared(found, mapping), style))
    return changed


def _redeclared(found: re.Match[str], mapping: Mapping[str, str]) -> str:
    new = mapping.get(_hex(found["value"]))
    return f"{found['name']}:{new}" if new else found[0]


def _hex(value: str) -> str:
    """Any CSS colour as #rrggbb; what is no plain colour as it is."""
    from PIL import ImageColor

    try:
        red, green, blue = ImageColor.getrgb(value.strip())[:3]
    except ValueError:
        return value
    return f"#{red:02x}{green:02x}{blue:02x}"
