"""What a fit is asked to be, and its layers of differences resolved."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts, Trimmed
from fitzle.core.encode.wish import NO_WISH, Wish
from fitzle.core.formats import DRAWN, MOVING, Format
from fitzle.core.motion.document import Motion, motion_of
from fitzle.core.piece.document import Differences, Piece, Row
from fitzle.core.piece.parts import AnyPart, artwork_of_part
from fitzle.core.spec.sheet import SpecSheet


class FitArtwork(NamedTuple):
    """An artwork that a fit may show: its facts and the SHA-256 of the file that stands for it."""

    facts: ArtworkFacts
    sha256: str


class FitRequest(NamedTuple):
    """A piece for a placement, with everything that its file follows from.

    `artworks` are by the ids that the piece uses, other versions of its marks included; `versions` are for each mark
    the ids of its others. `house` are the business's colours (hex). Where the last two are empty the piece's own hold.
    `placement` is the slug under which the piece keeps its adjustments. Where one file serves several places `sheet` is
    what their sheets have in common, and `own` the one of this place, by which the file is judged and named. `wish` is
    what somebody fixed of the file.
    """

    piece: Piece
    sheet: SpecSheet
    placement: str
    artworks: Mapping[str, FitArtwork]
    take: str = ""
    row: Row | None = None
    house: tuple[str, ...] = ()
    versions: Mapping[str, tuple[str, ...]] = {}
    own: SpecSheet | None = None
    wish: Wish = NO_WISH


class Resolved(NamedTuple):
    """A request with its layers resolved: the parts as they are here, hidden ones included, back to front.

    `arranged` is what the calculation changed in this place.
    """

    request: FitRequest
    parts: tuple[AnyPart, ...]
    arranged: Differences = {}

    @property
    def sheet(self) -> SpecSheet:
        """The spec sheet that the file is made for."""
        return self.request.sheet

    @property
    def own_sheet(self) -> SpecSheet:
        """The spec sheet of the placement, by which the file is judged and named."""
        return self.request.own or self.request.sheet

    @property
    def facts(self) -> dict[str, ArtworkFacts]:
        """The facts of all artwork by id; what plays here is shown whole, for its later frames reach farther."""
        known = {name: artwork.facts for name, artwork in self.request.artworks.items()}
        return {name: shown_whole(one) for name, one in known.items()} if self.plays else known

    @property
    def house(self) -> tuple[str, ...]:
        """The colours that automatic ones are chosen from."""
        return self.request.house or self.request.piece.house

    @property
    def versions(self) -> dict[str, tuple[str, ...]]:
        """For each mark its other versions that are there."""
        known = self.request.versions or self.request.piece.versions
        there = self.request.artworks
        return {name: found for name, all_ in known.items() if (found := tuple(one for one in all_ if one in there))}

    @property
    def motion(self) -> Motion | None:
        """How the parts move here; None where they stand still, or where the sheet wants a still picture.

        A loop that is longer than the sheet takes is played faster.
        """
        asked = self.sheet.motion
        found = motion_of(self.parts) if asked.allowed else None
        if found and asked.max_seconds and found.period > asked.max_seconds:
            return found.lasting(asked.max_seconds)
        return found

    @property
    def moving_formats(self) -> list[Format]:
        """The formats of the sheet in which its file may move."""
        return [fmt for fmt in self.sheet.formats if fmt in (*MOVING, *DRAWN)] if self.sheet.motion.allowed else []

    @property
    def moves(self) -> bool:
        """Whether the file moves: its place takes that, in a format that can, and something in the piece does."""
        return bool(self.moving_formats) and (self.motion is not None or self.playing)

    @property
    def plays(self) -> bool:
        """Whether its file moves and a moving picture is shown in it."""
        return bool(self.moving_formats) and self.playing

    @property
    def playing(self) -> bool:
        """Whether a moving picture is shown where the sheet takes motion."""
        shown = {name for part in self.parts if not part.hidden and (name := artwork_of_part(part))}
        known = self.request.artworks
        facts = [known[name].facts for name in shown if name in known]
        return self.sheet.motion.allowed and any(one.plays for one in facts)


def shown_whole(facts: ArtworkFacts) -> ArtworkFacts:
    """A moving picture with all of its room: its box was measured on the first frame."""
    if not facts.plays:
        return facts
    return facts.model_copy(update={"trimmed": Trimmed(x=0, y=0, width=facts.width, height=facts.height)})
