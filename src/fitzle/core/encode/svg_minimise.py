"""SVG with fewer bytes: passes that change nothing that is drawn, and a proof by drawing both.

Each pass works on the parsed tree. What no pass knows it leaves alone. Attributes and defaults are those of SVG 1.1;
numbers keep as many decimals as a hundredth of a px needs in the file's own units.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from typing import Any

import numpy as np

from fitzle.core.libvips import libvips

SVG = "http://www.w3.org/2000/svg"
XLINK = "http://www.w3.org/1999/xlink"
DRAWN_PX = 512  # both are drawn at that size to be compared
MOST_DIFFERENCE, MOST_MEAN = 24, 0.05  # of 255: a px at an edge, and all on average
FINER = 0.01  # px of the drawing at its natural size, or at DRAWN_PX where that is larger
_KEEPS_SPACE = frozenset({"text", "tspan", "textPath", "style", "title", "desc"})
_USELESS = frozenset({"metadata"})
_DEFAULTS = {
    "fill-opacity": "1", "stroke-opacity": "1", "opacity": "1", "stroke": "none", "stroke-width": "1",
    "stroke-linecap": "butt", "stroke-linejoin": "miter", "stroke-miterlimit": "4", "stroke-dasharray": "none",
    "stroke-dashoffset": "0", "fill-rule": "nonzero", "clip-rule": "nonzero", "visibility": "visible",
    "display": "inline", "font-style": "normal", "font-variant": "normal", "text-anchor": "start",
}  # fmt: skip
_INHERITED = frozenset(_DEFAULTS) - {"opacity", "display"}
_NUMERIC = frozenset(
    "x y width height cx cy r rx ry x1 y1 x2 y2 d points transform stroke-width font-size viewBox gradientTransform"
    " patternTransform fx fy dx dy stroke-dasharray stroke-dashoffset".split()
)
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_LONG_HEX = re.compile(r"#([0-9a-f])\1([0-9a-f])\2([0-9a-f])\3", re.IGNORECASE)


def minimised_svg(data: bytes) -> bytes:
    """The same drawing in fewer bytes; the file itself where no shorter one is drawn alike."""
    from lxml import etree

    parser = etree.XMLParser(resolve_entities=False, no_network=True, remove_comments=True, remove_pis=True)
    root = etree.fromstring(data, parser)
    before = _drawn(data)
    best = data
    for make in _PASSES:
        make(root)
        etree.cleanup_namespaces(root)
        shorter = etree.tostring(root, encoding="utf-8")
        if len(shorter) < len(best):
            if not _alike(before, _drawn(shorter)):
                return best
            best = bytes(shorter)
    return best


def _drawn(data: bytes) -> Any:
    image = libvips().Image.svgload_buffer(data)
    scale = DRAWN_PX / max(image.width, image.height)
    drawn = libvips().Image.svgload_buffer(data, scale=scale)
    return np.asarray(drawn.premultiply().rint().cast("uchar").numpy()).astype(np.int16)


def _alike(one: Any, other: Any) -> bool:
    if one.shape != other.shape:
        return False
    apart = np.abs(one - other)
    return bool(apart.max() <= MOST_DIFFERENCE and apart.mean() <= MOST_MEAN)


def _without_space(root: Any) -> None:
    """Space between elements; text keeps its own."""
    for element in root.iter():
        name = _name(element)
        if name in _KEEPS_SPACE or any(_name(above) in _KEEPS_SPACE for above in element.iterancestors()):
            continue
        if element.text and not element.text.strip():
            element.text = None
        for child in element:
            if child.tail and not child.tail.strip():
                child.tail = None


def _without_leftovers(root: Any) -> None:
    """What programs leave for themselves: their own elements and attributes, metadata, empty groups, unused ids."""
    for element in list(root.iter()):
        foreign = isinstance(element.tag, str) and not element.tag.startswith(f"{{{SVG}}}")
        if element is not root and (foreign or _name(element) in _USELESS):
            _remove(element)
            continue
        for key in list(element.attrib):
            if key.startswith("{") and not key.startswith(f"{{{XLINK}}}") and "XML/1998" not in key:
                del element.attrib[key]
    for element in reversed(list(root.iter(f"{{{SVG}}}g", f"{{{SVG}}}defs"))):
        if len(element) == 0 and element.get("id") is None and element.getparent() is not None:
            _remove(element)
    used = _referred(root)
    styled = any(_name(element) == "style" for element in root.iter())
    for element in root.iter():
        if element.get("id") is not None and element.get("id") not in used and not styled:
            del element.attrib["id"]


def _remove(element: Any) -> None:
    """Takes an element away and leaves the text that follows it."""
    parent = element.getparent()
    if element.tail and element.tail.strip():
        before = element.getprevious()
        if before is not None:
            before.tail = (before.tail or "") + element.tail
        else:
            parent.text = (parent.text or "") + element.tail
    parent.remove(element)


def _referred(root: Any) -> set[str]:
    found: set[str] = set()
    for element in root.iter():
        for key, value in element.attrib.items():
            found.update(re.findall(r"url\(\s*['\"]?#([^)'\"]+)", value))
            if key in ("href", f"{{{XLINK}}}href", "aria-labelledby", "aria-describedby") or key.endswith("begin"):
                found.update(one.lstrip("#") for one in value.split())
    return found


def _without_defaults(root: Any) -> None:
    """Attributes that say what holds anyway; one that is inherited only where nothing above says otherwise."""
    if any(_name(element) == "style" for element in root.iter()):
        return
    for element in root.iter():
        for key, value in list(element.attrib.items()):
            if _DEFAULTS.get(key) != value.strip():
                continue
            above = any(one.get(key) is not None or key in one.get("style", "") for one in element.iterancestors())
            if not (key in _INHERITED and above) and key not in element.get("style", ""):
                del element.attrib[key]


def _with_short_colours(root: Any) -> None:
    for element in root.iter():
        for key in ("fill", "stroke", "stop-color", "flood-color"):
            value = element.get(key)
            if value:
                element.set(key, _LONG_HEX.sub(r"#\1\2\3", value.strip()))


def _with_short_numbers(root: Any) -> None:
    places = _places(root)
    for element in root.iter():
        for key in _NUMERIC & set(element.attrib):
            finer = places + 2 if key.lower().endswith("transform") else places
            element.set(key, _shortened(element.get(key), finer))


def _places(root: Any) -> int:
    """Decimals that FINER px need in the units of the view box."""
    numbers = [float(one) for one in _NUMBER.findall(root.get("viewBox") or "")]
    side = max(numbers[2:4], default=100.0) if len(numbers) == 4 else 100.0
    return max(0, math.ceil(-math.log10(FINER * max(side, 1e-9) / DRAWN_PX)))


def _shortened(value: str, places: int) -> str:
    """Its numbers rounded, and one space where there were several separators."""

    def short(found: re.Match[str]) -> str:
        text = found[0]
        if "." not in text and "e" not in text.lower():
            return text
        rounded = f"{float(text):.{places}f}"
        rounded = rounded.rstrip("0").rstrip(".") if "." in rounded else rounded
        rounded = re.sub(r"^(-?)0\.", r"\1.", rounded)
        return "0" if rounded in ("-0", "", "-") else rounded

    # A number that begins with a point may follow another one directly: one that loses its 0 must not join it.
    spaced = re.sub(r"(\d\.\d+)(?=\.)", r"\1 ", value)
    shorter = _NUMBER.sub(short, spaced)
    return re.sub(r"\s*,\s*|\s+", " ", shorter).strip()


def _name(element: Any) -> str:
    return element.tag.rpartition("}")[2] if isinstance(element.tag, str) else ""


_PASSES: tuple[Callable[[Any], None], ...] = (
    _without_space,
    _without_leftovers,
    _without_defaults,
    _with_short_colours,
    _with_short_numbers,
)
