"""The icon set of a fit: its mark taken out of the plan, and every file of the set made of it.

The icons of 192 and 512 px are the fit as it was composed; whatever is smaller is the mark alone, without margins.
"""

from __future__ import annotations

import io
from collections.abc import Mapping

from PIL import Image

from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.artwork.sources import Source
from fitzle.core.encode.result import Choice, Encoded, SideFile
from fitzle.core.encode.settings import Lossless
from fitzle.core.fit.deciding import Decided
from fitzle.core.fit.icon_files import LARGE
from fitzle.core.icons.making import IconSet, icon_set_of
from fitzle.core.icons.mark import DARK_TAB, LIGHT_TAB, IconMark
from fitzle.core.plan.placed import PlacedArtwork, PlacedWords, Plan
from fitzle.core.plan.planning import plan_parts
from fitzle.core.render.painting import paint
from fitzle.core.render.svg import svg_of
from fitzle.core.spec.sheet import ExactSize

_MEDIA_TYPES = {
    "ico": "image/x-icon", "svg": "image/svg+xml", "png": "image/png", "webmanifest": "application/manifest+json",
    "html": "text/html",
}  # fmt: skip


def make_icon_set_file(decided: Decided, sources: Mapping[str, Source]) -> Choice:
    """The icon of 512 px, with all others beside it and what there is to say of the set."""
    resolved = decided.resolved
    wish = resolved.request.wish
    light, dark = _marks(decided, sources)
    title = wish.title or resolved.request.piece.subject
    drawn = {side: paint(_at(decided, side), decided.planned.sources(sources)) for side in (192, 512)}
    made = icon_set_of(light, dark, title, decided.plan.ground, wish.path, drawn)
    best = Encoded(made.files[LARGE], "png", Lossless(), 100.0)
    return Choice(best, [best.candidate], beside=tuple(_beside(made)), found=made.findings)


def _at(decided: Decided, side: int) -> Plan:
    """The plan at another size of the square."""
    if decided.plan.size == (side, side):
        return decided.plan
    resolved = decided.resolved
    sheet = resolved.sheet.model_copy(update={"size": ExactSize(width=side, height=side)})
    scaled = plan_parts(resolved.parts, sheet, decided.planned.facts)
    colours = {part.part: part.colour for part in decided.plan.words}
    parts = tuple(
        part._replace(colour=colours[part.part]) if isinstance(part, PlacedWords) else part for part in scaled.parts
    )
    return scaled._replace(parts=parts)


def _marks(decided: Decided, sources: Mapping[str, Source]) -> tuple[IconMark, IconMark | None]:
    """The mark for light tabs, and the version of it that shows on dark ones where it does not itself."""
    parts = decided.plan.parts
    if len(parts) != 1 or not isinstance(parts[0], PlacedArtwork) or not _is_plain(parts[0]):
        return IconMark(_whole(decided, sources)), None
    placed = parts[0]
    own = _mark(decided, sources, placed.artwork, placed)
    others = [_mark(decided, sources, name, placed) for name in decided.resolved.versions.get(placed.artwork, ())]
    light = own if own.shows_on(LIGHT_TAB) else next((one for one in others if one.shows_on(LIGHT_TAB)), own)
    dark = None if light.shows_on(DARK_TAB) else next((one for one in (own, *others) if one.shows_on(DARK_TAB)), None)
    return light, dark


def _is_plain(part: PlacedArtwork) -> bool:
    return part.look.plain and part.die is None and part.mode == "whole"


def _mark(decided: Decided, sources: Mapping[str, Source], name: str, placed: PlacedArtwork) -> IconMark:
    planned = decided.planned
    shown = planned.stand_ins.get(name, name) if name == placed.artwork else name
    facts = decided.resolved.facts[shown]
    found = IconMark(Artwork(shown, facts, sources[shown]), placed.recolour)
    return found.in_one_colour(placed.tint) if placed.tint else found


def _whole(decided: Decided, sources: Mapping[str, Source]) -> Artwork:
    """What was composed, without its ground, as one drawing."""
    drawn = svg_of(decided.plan._replace(under=None, fill=None, edge=None), decided.planned.sources(sources))
    return read_artwork(drawn, "composed.svg")


def _beside(made: IconSet) -> list[SideFile]:
    files = [_side_file(name, data) for name, data in made.files.items() if name != LARGE]
    return [*files, *(_side_file(name, data)._replace(use="proof") for name, data in made.tabs.items())]


def _side_file(name: str, data: bytes) -> SideFile:
    ending = name.rpartition(".")[2]
    width, height = Image.open(io.BytesIO(data)).size if ending in ("png", "ico") else (0, 0)
    return SideFile(name, _MEDIA_TYPES[ending], data, width, height)
