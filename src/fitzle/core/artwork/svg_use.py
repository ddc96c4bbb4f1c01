"""How many elements an SVG draws once each reference is followed, so that small files cannot grow without bound."""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from lxml import etree

from fitzle.core.errors import HostileFileError

XLINK_HREF = "{http://www.w3.org/1999/xlink}href"
_LOCAL_URL = re.compile(r"url\(\s*['\"]?#([^'\")\s]+)")


def check_expansion(root: Any, most: int) -> None:
    """Raises HostileFileError when references form a circle or draw more than `most` elements in all."""
    by_id = {node.get("id"): node for node in root.iter() if node.get("id")}
    totals: dict[Any, int] = {}
    with not_too_deep():
        _count(root, by_id, totals, set(), most)


@contextmanager
def not_too_deep() -> Iterator[None]:
    """Raises HostileFileError where parts refer to each other in a chain that is too long to follow."""
    try:
        yield
    except RecursionError as error:
        raise HostileFileError(
            "parts of this SVG refer to each other in a chain that is too long", advice="Save it again as plain SVG."
        ) from error


def _count(node: Any, by_id: dict[str, Any], totals: dict[Any, int], open_nodes: set[Any], most: int) -> int:
    if node in totals:
        return totals[node]
    if node in open_nodes:
        raise HostileFileError("parts of this SVG refer to themselves", advice="Save it again as plain SVG.")
    open_nodes.add(node)
    total = 1 + sum(_count(child, by_id, totals, open_nodes, most) for child in node)
    for target in references_of(node):
        if target in by_id:
            total += _count(by_id[target], by_id, totals, open_nodes, most)
    if total > most:
        raise HostileFileError(
            f"this SVG repeats its parts more than {most} times", advice="Expand or simplify it in a drawing program."
        )
    open_nodes.discard(node)
    totals[node] = total
    return total


def references_of(node: Any) -> list[str]:
    """The ids that a node refers to in what is drawn."""
    found = []
    href = node.get("href") or node.get(XLINK_HREF) or ""
    if href.startswith("#") and etree.QName(node).localname in ("use", "pattern", "textPath"):
        found.append(href[1:])
    for key in ("fill", "stroke", "clip-path", "mask", "marker", "marker-start", "marker-mid", "marker-end", "style"):
        found.extend(_LOCAL_URL.findall(node.get(key) or ""))
    return found
