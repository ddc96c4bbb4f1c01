"""A fit without a workspace: an artwork or a piece from files, for one sheet."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.artwork.reading import Artwork
from fitzle.core.documents import validated
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.result import Encoded
from fitzle.core.encode.wish import NO_WISH, Wish
from fitzle.core.fit.beside import placement_in
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.making import Made, make_fit
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.lengths import parse_length
from fitzle.core.piece.document import Piece, Row
from fitzle.core.piece.parts import Follow
from fitzle.core.spec.sheet import SpecSheet


class Asked(NamedTuple):
    """How an artwork is to stand alone: all of it optional. `focus` is a point in fractions, `padding` like `6%`."""

    mode: str | None = None
    tint: str | None = None
    focus: tuple[float, float] | None = None
    padding: str | None = None
    centring: str = "box"
    ground: str | None = None
    subject: str = ""
    follow: Follow = "nothing"


def piece_of(artwork: Artwork, asked: Asked) -> Piece:
    """A piece that shows one artwork, called `artwork`; raises DocumentError for options that cannot be."""
    focus = asked.focus
    part = {
        "id": "artwork", "role": artwork.facts.kind, "artwork": "artwork", "mode": asked.mode,
        "tint": asked.tint, "follow": asked.follow,
        "focal_point": {"x": focus[0], "y": focus[1]} if focus else None,
        "padding": parse_length(asked.padding).model_dump() if asked.padding is not None else None,
        "centring": asked.centring,
    }  # fmt: skip
    ground = None if asked.ground in (None, "none") else {"kind": "solid", "colour": asked.ground}
    parts = [{"id": "ground", "role": "ground", "fill": ground}, part]
    return validated(Piece, {"subject": asked.subject or "picture", "parts": parts}, subject="the options", noun="fit")


def made_alone(
    piece: Piece,
    sheet: SpecSheet,
    artworks: Mapping[str, Artwork],
    *,
    take: str = "",
    row: Row | None = None,
    wish: Wish = NO_WISH,
    house: tuple[str, ...] = (),
    seconds: float | None = None,
    like: Encoded | None = None,
) -> Made:
    """The file of a piece, judged; `artworks` are by the names that the piece uses, `like` is a sibling's file."""
    known = {name: FitArtwork(artwork.facts, name) for name, artwork in artworks.items()}
    sources = {name: artwork.source for name, artwork in artworks.items()}
    request = FitRequest(piece, sheet, placement_in(piece, sheet), known, take=take, row=row, wish=wish, house=house)
    return make_fit(decide(plan_fit(request), sources), sources, Budget(seconds) if seconds else None, like)
