"""The glyph library: searched by word; a glyph becomes a mark among the artwork."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status
from pydantic import Field

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.artwork_views import artwork_view
from fitzle.apps.api.schemas import ArtworkOut, Message
from fitzle.apps.artwork.actions import make_mark as make_mark_of
from fitzle.core.artwork.glyphs import USUAL_STROKE, StrokeWidth, Style, find_glyphs
from fitzle.core.colour.srgb import HexColour

if TYPE_CHECKING:
    pass

router = Router(tags=["glyphs"])
AT_A_TIME = 72


class GlyphOut(Schema):
    """A glyph: its name, other words for it, and its paths (SVG path data) on a field of 24 x 24."""

    name: str
    words: list[str]
    paths: list[str]


class GlyphsOut(Schema):
    """How many glyphs there are for the words, and some of them."""

    count: int
    glyphs: list[GlyphOut]


class GlyphIn(Schema):
    """A glyph to make a mark of; without a colour it gets the first of the house."""

    name: Annotated[str, Field(max_length=80)]
    style: Style = "outline"
    stroke: StrokeWidth = USUAL_STROKE
    colour: HexColour | None = None


@router.get("/glyphs", response=GlyphsOut)
def search_glyphs(
    request: HttpRequest, workspace: Path[str], words: str = "", style: Style = "outline", start: int = 0
) -> GlyphsOut:
    """The glyphs that have all the words, the nearest first."""
    workspace_to_see(request.user, workspace)
    found = find_glyphs(words[:100], style)
    start = max(0, start)
    return GlyphsOut(
        count=len(found),
        glyphs=[
            GlyphOut(name=glyph.name, words=list(glyph.words[:8]), paths=list(glyph.paths(style)))
            for glyph in found[start : start + AT_A_TIME]
        ],
    )


@router.post("/glyphs", response={202: ArtworkOut, 422: Message})
def make_mark(request: HttpRequest, workspace: Path[str], given: GlyphIn) -> Status[ArtworkOut]:
    """Makes a mark of a glyph."""
    access = access_to(request.user, workspace)
    return Status(202, artwork_view(make_mark_of(access, given.name, given.style, given.colour, given.stroke)))
