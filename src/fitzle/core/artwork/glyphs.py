"""The glyph library: simple drawings found by word, made into marks.

Built out of an npm package (scripts/glyphs.py). Outlined glyphs are strokes of 2 on a field of 24 x 24, round at their
ends; filled ones are areas.
"""

from __future__ import annotations

import json
import os
from functools import cache
from pathlib import Path
from typing import Annotated, Any, Literal, NamedTuple
from xml.sax.saxutils import quoteattr

from pydantic import Field

from fitzle.core.colour.srgb import normal_hex
from fitzle.core.errors import ArtworkError, FitzleError

Style = Literal["outline", "filled"]
StrokeWidth = Annotated[float, Field(ge=0.5, le=4)]
FIELD = 24
SIZE_PX = 240
USUAL_STROKE = 2.0
_NAME, _NAME_WORD, _WORD, _BEGINNING, _INSIDE = 100, 60, 40, 20, 5  # worth of a match


class Glyph(NamedTuple):
    """A glyph: its name, what it is about, other words for it, and its paths (SVG path data) in each style.

    `said` are all its words in one, to be searched quickly.
    """

    name: str
    group: str
    words: tuple[str, ...]
    outline: tuple[str, ...]
    filled: tuple[str, ...]
    said: str

    def paths(self, style: Style) -> tuple[str, ...]:
        """The paths in a style; none where there is no such."""
        return self.outline if style == "outline" else self.filled


def glyphs_file() -> Path:
    """Where the build keeps the library; FITZLE_GLYPHS names another file."""
    given = os.environ.get("FITZLE_GLYPHS")
    return Path(given) if given else Path(__file__).resolve().parents[4] / "var" / "glyphs.json"


@cache
def glyphs() -> dict[str, Glyph]:
    """All glyphs by name; raises FitzleError where the build has not made them."""
    try:
        entries = json.loads(glyphs_file().read_text())["glyphs"]
    except OSError as error:
        raise FitzleError("the glyphs are not there yet", advice="Run ./start --setup once.") from error
    return {one["name"]: _glyph(one) for one in entries}


def _glyph(entry: dict[str, Any]) -> Glyph:
    words, outline, filled = (tuple(entry[field]) for field in ("words", "outline", "filled"))
    return Glyph(entry["name"], entry["group"], words, outline, filled, " ".join([entry["name"], *words]))


def find_glyphs(words: str, style: Style) -> list[Glyph]:
    """Glyphs that have all the words in their name or among their synonyms, the nearest first; all for no words."""
    wanted = words.lower().split()
    scored = [
        (-score, glyph.name, glyph)
        for glyph in glyphs().values()
        if glyph.paths(style)
        and all(word in glyph.said for word in wanted)
        and (score := _score(glyph, wanted)) is not None
    ]
    return [glyph for _, _, glyph in sorted(scored)]


def glyph_svg(name: str, style: Style, colour: str, stroke: float | None = None) -> bytes:
    """A glyph as an SVG file, its strokes as wide as usual where nothing is said; ArtworkError for an unknown one."""
    glyph = glyphs().get(name)
    if glyph is None or not glyph.paths(style):
        raise ArtworkError(f"there is no glyph {name!r} that is {style}", advice="Choose another one.")
    ink = normal_hex(colour)
    look = f'fill="{ink}"'
    if style == "outline":
        width = stroke or USUAL_STROKE
        look = f'fill="none" stroke="{ink}" stroke-width="{width:g}" stroke-linecap="round" stroke-linejoin="round"'
    paths = "".join(f"<path d={quoteattr(path)}/>" for path in glyph.paths(style))
    frame = f'width="{SIZE_PX}" height="{SIZE_PX}" viewBox="0 0 {FIELD} {FIELD}"'
    return f'<svg xmlns="http://www.w3.org/2000/svg" {frame} {look}>{paths}</svg>'.encode()


def _score(glyph: Glyph, wanted: list[str]) -> int | None:
    """How near a glyph is to the words; None where one of them is not in it at all."""
    total = 0
    parts = glyph.name.split("-")
    for word in wanted:
        worth = _worth(word, glyph, parts)
        if not worth:
            return None
        total += worth
    return total - len(parts)  # of two that are as near, the plainer one


def _worth(word: str, glyph: Glyph, parts: list[str]) -> int:
    if word == glyph.name:
        return _NAME
    if word in parts:
        return _NAME_WORD
    if word in glyph.words:
        return _WORD
    said = [*parts, *glyph.words]
    if any(one.startswith(word) for one in said):
        return _BEGINNING
    return _INSIDE if any(word in one for one in said) else 0
