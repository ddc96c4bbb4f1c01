"""Fits for the benchmarks: artworks known by facts alone, each by its id."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Source
from fitzle.core.fit.deciding import Decided, Planned, decide, plan_fit
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.piece.document import Piece
from fitzle.core.spec.sheet import SpecSheet


def sheet_of(width: int, height: int, **more: Any) -> SpecSheet:
    """A spec sheet of so many px."""
    size = {"width": width, "height": height}
    return SpecSheet.model_validate({"fitzle_spec": 1, "name": "bench", "size": size, **more})


def planned(piece: Piece, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts], house: tuple[str, ...] = ()) -> Planned:
    """A fit, planned."""
    artworks = {name: FitArtwork(known, name) for name, known in facts.items()}
    return plan_fit(FitRequest(piece, sheet, "bench", artworks, house=house))


def decided(
    piece: Piece,
    sheet: SpecSheet,
    facts: Mapping[str, ArtworkFacts],
    sources: Mapping[str, Source],
    house: tuple[str, ...] = (),
) -> Decided:
    """A fit, planned and looked at."""
    return decide(planned(piece, sheet, facts, house), sources)
