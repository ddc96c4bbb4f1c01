"""SVG reduced to what can be drawn safely: an allow-list of elements and attributes, nothing from outside.

Built on lxml with entities, network and huge trees off. What could do harm is refused with its name; what is merely
unknown (an editor's own notes) is dropped.
"""

from __future__ import annotations

import re
from typing import Any

from lxml import etree

from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.svg_embedded import embedded_picture
from fitzle.core.artwork.svg_names import ATTRIBUTES, ELEMENTS, FILTER_ELEMENTS, FORBIDDEN
from fitzle.core.artwork.svg_use import check_expansion
from fitzle.core.errors import ArtworkError, HostileFileError, LimitError

SVG = "http://www.w3.org/2000/svg"
XLINK_HREF = "{http://www.w3.org/1999/xlink}href"
_REMOTE_STYLE = re.compile(r"@import|\\|expression\(|javascript:|url\(\s*['\"]?\s*(?!#|['\"]?#)", re.I)

Element = Any  # lxml ships no types


def sanitised_svg(data: bytes, limits: Limits, warnings: list[str]) -> Element:
    """The root of a safe copy of the document. Raises ArtworkError, LimitError or HostileFileError."""
    if len(data) > limits.max_svg_bytes:
        raise LimitError("this SVG is too large", expected=f"at most {limits.max_svg_bytes // 1_000_000} MB")
    root = _parsed(data)
    _check_shape(root, limits)
    _clean(root, warnings)
    check_expansion(root, limits.max_svg_expanded)
    return root


def _parsed(data: bytes) -> Element:
    parser = etree.XMLParser(
        resolve_entities=False, no_network=True, huge_tree=False, load_dtd=False, remove_comments=True, remove_pis=True
    )
    try:
        root = etree.fromstring(data, parser)
    except (etree.XMLSyntaxError, ValueError) as error:
        raise ArtworkError(f"this SVG cannot be read: {error}", advice="Save it again as plain SVG.") from error
    subset = root.getroottree().docinfo.internalDTD
    if subset is not None and (list(subset.iterentities()) or list(subset.iterelements())):
        raise HostileFileError("this SVG defines entities of its own", advice="Save it again as plain SVG.")
    if etree.QName(root).localname != "svg":
        raise ArtworkError("this is XML but not an SVG picture", advice="Save it again as plain SVG.")
    return root


def _check_shape(root: Element, limits: Limits) -> None:
    count = filters = 0
    stack = [(root, 1)]
    while stack:
        node, depth = stack.pop()
        count += 1
        if count > limits.max_svg_elements or depth > limits.max_svg_depth:
            what = "elements" if count > limits.max_svg_elements else "levels of nesting"
            most = limits.max_svg_elements if what == "elements" else limits.max_svg_depth
            raise LimitError(f"this SVG has too many {what}", expected=f"at most {most}", actual="more")
        filters += isinstance(node.tag, str) and etree.QName(node).localname in FILTER_ELEMENTS
        stack.extend((child, depth + 1) for child in node)
    if filters > limits.max_svg_filters:
        raise LimitError(
            "this SVG has too many filter steps", expected=str(limits.max_svg_filters), actual=str(filters)
        )


def _clean(root: Element, warnings: list[str]) -> None:
    for node in list(root.iter()):
        if not isinstance(node.tag, str):
            _drop(node)
            continue
        name = etree.QName(node)
        if name.localname in FORBIDDEN:
            raise HostileFileError(
                f"this SVG contains <{name.localname}>, which can run or load things", advice="Save it as plain SVG."
            )
        if name.namespace not in (SVG, None) or name.localname not in ELEMENTS:
            _drop(node)
            continue
        if name.localname == "text" and not any("words" in warning for warning in warnings):
            warnings.append("It has words that are not outlines; they may look different. Convert them to outlines.")
        _clean_attributes(node, name.localname)


def _drop(node: Element) -> None:
    parent = node.getparent()
    if parent is not None:
        parent.remove(node)


def _clean_attributes(node: Element, element: str) -> None:
    for key, value in list(node.attrib.items()):
        if key.lower().startswith("on"):
            raise HostileFileError(f"this SVG contains a script ({key})", advice="Save it again as plain SVG.")
        if key in ("href", XLINK_HREF):
            node.set(key, _safe_reference(element, value))
        elif key not in ATTRIBUTES and key != "{http://www.w3.org/XML/1998/namespace}space":
            del node.attrib[key]
        elif _REMOTE_STYLE.search(value) and ("url" in value.lower() or key == "style"):
            raise HostileFileError("this SVG refers to something outside the file", advice="Embed or remove it.")
    if element == "style" and _REMOTE_STYLE.search(node.text or ""):
        raise HostileFileError(
            "the styles of this SVG refer to something outside the file", advice="Embed or remove it."
        )


def _safe_reference(element: str, value: str) -> str:
    target = value.strip()
    if target.startswith("#"):
        return value
    picture = embedded_picture(target) if element == "image" else None
    if picture is None:
        raise HostileFileError(
            f"this SVG loads something from outside ({target[:60]})",
            advice="Embed the picture as PNG or JPEG, or remove it.",
        )
    return picture
