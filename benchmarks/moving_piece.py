"""A sticker of parts that move."""

from __future__ import annotations

from typing import Any


def decided_piece() -> tuple[Any, dict[str, Any]]:
    """A mark that sways and words that come in letter by letter, decided, with its sources."""
    from demo.marks import MARKS

    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.fit.deciding import decide, plan_fit
    from fitzle.core.fit.request import FitArtwork, FitRequest
    from fitzle.core.piece.document import Piece
    from fitzle.core.spec.sheet import SpecSheet

    artwork = read_artwork(MARKS["wheel-badge.svg"].encode(), "badge.svg")
    piece = Piece.model_validate({
        "subject": "Ding",
        "parts": [
            {"id": "ground", "role": "ground", "motion": {"period": 2}},
            {"id": "mark", "role": "mark", "artwork": "mark", "motion": {"keep": {"how": "sway"}},
             "stands": {"anchor": "top", "dy": 0.05, "width": 0.6, "height": 0.6}},
            {"id": "words", "role": "headline", "text": "Ding!", "colour": "#17443c",
             "motion": {"come": {"how": "letter by letter", "length": 0.6}},
             "stands": {"anchor": "bottom", "dy": 0.05, "width": 0.9, "height": 0.25}},
        ],
    })  # fmt: skip
    sheet = SpecSheet.model_validate({
        "fitzle_spec": 1, "name": "Sticker", "size": {"width": 320, "height": 320}, "formats": ["apng"],
        "motion": {"allowed": True},
    })  # fmt: skip
    request = FitRequest(piece, sheet, "sticker", {"mark": FitArtwork(artwork.facts, "mark")})
    sources = {"mark": artwork.source}
    return decide(plan_fit(request), sources), sources
