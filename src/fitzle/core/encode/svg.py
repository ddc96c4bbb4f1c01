"""SVG: nothing to search; nothing is lost in it."""

from __future__ import annotations

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Encoded, Search
from fitzle.core.encode.settings import Outlines


def search_svg(rendered: Rendered, limit: int | None, _budget: Budget) -> Search:
    """The drawing itself, where it is at most `limit` bytes."""
    found = Encoded(rendered.svg, "svg", Outlines(), 100.0)
    fits = limit is None or len(found.data) <= limit
    return Search(found if fits else None, [found.candidate])
