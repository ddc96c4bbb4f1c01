"""A moving file without a workspace: of a piece whose parts move, of a clip or of a moving picture."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.png import plain_png
from fitzle.core.encode.result import Choice, Encoded
from fitzle.core.fit.alone import Asked, piece_of
from fitzle.core.fit.beside import placement_in
from fitzle.core.fit.deciding import Decided, decide, plan_fit
from fitzle.core.fit.loop import Telling
from fitzle.core.fit.making import Made, judge_fit, look_at
from fitzle.core.fit.moving import make_moving_file, still_file, wanted_for
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.motion.choreography import proposed
from fitzle.core.motion.document import Motion, motion_changes
from fitzle.core.motion.footage import Cut, Footage, footage_of
from fitzle.core.piece.changes import apply_changes, free_id
from fitzle.core.piece.document import Piece
from fitzle.core.piece.editing import ground_part
from fitzle.core.piece.parts import Follow
from fitzle.core.plan.placed import PlacedArtwork
from fitzle.core.preflight.file_facts import read_file_facts
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

CLIP = "artwork"


class Animated(NamedTuple):
    """A moving file, judged, and a still of its first frame."""

    made: Made
    still: Encoded | None


def of_piece(
    piece: Piece,
    sheet: SpecSheet,
    artworks: Mapping[str, Artwork],
    *,
    take: str = "",
    liveliness: float = 0.5,
    seconds: float | None = None,
    tell: Telling | None = None,
) -> Animated:
    """The moving file of a piece; where none of its parts moves yet they do as `proposed` says."""
    decided = _decided(piece, sheet, artworks, take)
    if not decided.resolved.moves:
        piece = with_motion(piece, proposed(decided.plan, liveliness, sheet.motion.max_seconds))
        decided = _decided(piece, sheet, artworks, take)
    return _made(decided, artworks, {}, seconds, tell)


def of_clip(
    data: bytes,
    name: str,
    sheet: SpecSheet,
    cut: Cut,
    subject: str,
    focus: tuple[float, float] | None = None,
    follow: Follow = "nothing",
    seconds: float | None = None,
    tell: Telling | None = None,
) -> Animated:
    """The moving file of a part of a clip or of a moving picture, cropped to the place by its focus.

    The focus may `follow` what it shows.
    """
    cut = cut._replace(longest=sheet.motion.max_seconds)
    poster = footage_of(data, name, cut, POSTER_SIZE, fps=POSTER_FPS)
    still = _artwork_of(poster)
    decided = _decided(
        piece_of(still, Asked(mode="fill", focus=focus, follow=follow, subject=subject)), sheet, {CLIP: still}
    )
    part = next(part for part in decided.plan.parts if isinstance(part, PlacedArtwork))
    footage = footage_of(data, name, cut, wanted_for(part, poster.natural))
    return _made(decided, {CLIP: still}, {CLIP: footage}, seconds, tell)


def with_motion(piece: Piece, motion: Motion) -> Piece:
    """The piece with its parts moving as a motion says; it gets a ground where it has none, which keeps the period."""
    if ground_part(piece) is None:
        ids = {part.id for part in piece.parts}
        ground = {"id": free_id("ground", ids), "role": "ground"}
        piece = Piece.model_validate({**piece.model_dump(), "parts": [ground, *piece.model_dump()["parts"]]})
    return apply_changes(piece, motion_changes(piece.parts, motion))


POSTER_SIZE, POSTER_FPS = Size(640, 640), 2.0


def _artwork_of(footage: Footage) -> Artwork:
    """A clip as a picture of its own size, by which it is planned; judged by the picture in its middle."""
    return read_artwork(plain_png(footage.full_picture(footage.period / 2)), "clip.png")


def _decided(piece: Piece, sheet: SpecSheet, artworks: Mapping[str, Artwork], take: str = "") -> Decided:
    known = {name: FitArtwork(artwork.facts, name) for name, artwork in artworks.items()}
    request = FitRequest(piece, sheet, placement_in(piece, sheet), known, take=take)
    return decide(plan_fit(request), {name: artwork.source for name, artwork in artworks.items()})


def _made(
    decided: Decided,
    artworks: Mapping[str, Artwork],
    footage: Mapping[str, Footage],
    seconds: float | None,
    tell: Telling | None,
) -> Animated:
    sources = {name: artwork.source for name, artwork in artworks.items()}
    budget = Budget(seconds) if seconds else None
    choice: Choice = make_moving_file(decided, sources, budget, footage, tell)
    still = still_file(decided, sources, footage, choice.best.size(decided.plan.size)) if choice.best else None
    file = read_file_facts(choice.best.data) if choice.best else None
    made = Made(decided, choice, judge_fit(decided, choice, file, look_at(decided, sources)))
    return Animated(made, still)
