"""What a style sheet and attributes say of each element of an SVG (SVG 1.1, section 6.4, and CSS 2.1).

Selectors are read by their last part alone, as if all before it matched: whoever counts costs by this counts too much
rather than too little.
"""

from __future__ import annotations

from functools import cache
from typing import Any

import tinycss2
from lxml import etree

_INHERITED = frozenset("fill stroke marker marker-start marker-mid marker-end stroke-dasharray".split())
_PRESENTED = frozenset("opacity mix-blend-mode isolation mask filter clip-path".split()) | _INHERITED

Declared = dict[str, str]


class Styles:
    """The declarations that count for drawing costs."""

    def __init__(self, root: Any) -> None:
        self._rules: dict[str, Declared] = {}
        self._inherited: dict[Any, Declared] = {}
        for sheet in root.iter("{*}style"):
            for rule in tinycss2.parse_stylesheet(sheet.text or "", skip_comments=True, skip_whitespace=True):
                self._add(rule)

    def of(self, node: Any) -> Declared:
        """What is said of the node itself: by its attributes, then by rules, then by its style."""
        said = {name: value for name, value in node.attrib.items() if name in _PRESENTED}
        if self._rules:
            names = ["*", etree.QName(node).localname, *(f".{one}" for one in (node.get("class") or "").split())]
            for name in [*names, f"#{node.get('id')}"]:
                said |= self._rules.get(name, {})
        return said | _declared(node.get("style") or "")

    def inherited(self, node: Any) -> Declared:
        """The same with what it takes over from what it stands in."""
        if node not in self._inherited:
            above = node.getparent()
            taken_over = self.inherited(above) if above is not None else {}
            own = {name: value for name, value in self.of(node).items() if name in _INHERITED}
            self._inherited[node] = taken_over | own
        return self._inherited[node]

    def _add(self, rule: Any) -> None:
        if rule.type == "at-rule" and rule.content is not None:  # @media and the like: as if it held
            for inner in tinycss2.parse_blocks_contents(rule.content, skip_comments=True, skip_whitespace=True):
                self._add(inner)
        if rule.type != "qualified-rule":
            return
        declared = _declared(tinycss2.serialize(rule.content))
        if declared:
            for selector in tinycss2.serialize(rule.prelude).split(","):
                for name in _last_names(selector):
                    self._rules[name] = self._rules.get(name, {}) | declared


@cache
def _declared(text: str) -> Declared:
    found = tinycss2.parse_blocks_contents(text, skip_comments=True, skip_whitespace=True)
    return {
        one.lower_name: tinycss2.serialize(one.value).strip()
        for one in found
        if one.type == "declaration" and one.lower_name in _PRESENTED
    }


def _last_names(selector: str) -> list[str]:
    """The names of a selector's last part: `g > path.a.b` gives `.a` and `.b`, `g path` gives `path`."""
    parts = selector.replace(">", " ").replace("+", " ").replace("~", " ").split()
    if not parts:
        return []
    last = parts[-1].split(":")[0].split("[")[0]
    marked = last.replace("#", " #").replace(".", " .").split()
    special = [name for name in marked if name[0] in ".#"]
    return special or marked or ["*"]
