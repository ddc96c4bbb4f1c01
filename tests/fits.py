"""Fits for tests: requests made of facts or of artworks that were read."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.reading import Artwork
from fitzle.core.artwork.sources import Source
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.contest import Contest
from fitzle.core.encode.registry import ENCODERS
from fitzle.core.encode.rendered import Rendered, rendered_pixels
from fitzle.core.encode.result import Candidate, Encoded
from fitzle.core.fit.deciding import Decided, Planned, decide, plan_fit
from fitzle.core.fit.making import Made, make_fit
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.fit.resolving import resolve
from fitzle.core.formats import Format
from fitzle.core.piece.document import Piece, parts_in
from fitzle.core.plan.placed import Plan
from fitzle.core.plan.planning import plan_parts
from fitzle.core.spec.sheet import SpecSheet


class Search(NamedTuple):
    """The best file of one format under a limit, or None, and everything that was tried."""

    best: Encoded | None
    candidates: list[Candidate]


def searched(fmt: Format, rendered: Rendered, limit: int | None, budget: Budget | None = None) -> Search:
    """The search for a file of one format."""
    encoder = ENCODERS[fmt]
    contest = Contest(encoder.exact(rendered), encoder.lines, rendered, limit)
    best = contest.exact() or contest.best(budget or unhurried())
    return Search(best, contest.candidates)


UNHURRIED = 600.0  # seconds: what a test looks at must not depend on how busy the machine is
Known = Mapping[str, "Artwork | ArtworkFacts | FitArtwork"]


def facts_and_sources(artworks: Mapping[str, Artwork]) -> tuple[dict[str, ArtworkFacts], dict[str, Source]]:
    """Artworks by id as their facts and their sources."""
    facts = {key: artwork.facts for key, artwork in artworks.items()}
    return facts, {key: artwork.source for key, artwork in artworks.items()}


def request_for(
    piece: Piece | dict[str, Any], sheet: SpecSheet, known: Known, placement: str = "here", **more: Any
) -> FitRequest:
    """A request; artworks are known by facts, as read, or with a hash of their own (else their id stands for it)."""
    document = piece if isinstance(piece, Piece) else Piece.model_validate(piece)
    artworks = {name: _fit_artwork(name, entry) for name, entry in known.items()}
    return FitRequest(document, sheet, placement, artworks, **more)


def _fit_artwork(name: str, entry: Artwork | ArtworkFacts | FitArtwork) -> FitArtwork:
    if isinstance(entry, FitArtwork):
        return entry
    return FitArtwork(entry.facts if isinstance(entry, Artwork) else entry, name)


def planned_fit(piece: Piece | dict[str, Any], sheet: SpecSheet, known: Known, *place: str, **more: Any) -> Planned:
    """A fit, planned."""
    return plan_fit(request_for(piece, sheet, known, *place, **more))


def decided_fit(
    piece: Piece | dict[str, Any], sheet: SpecSheet, artworks: Mapping[str, Artwork], *place: str, **more: Any
) -> Decided:
    """A fit, planned and looked at."""
    return decide(planned_fit(piece, sheet, artworks, *place, **more), facts_and_sources(artworks)[1])


def made_fit(
    piece: Piece | dict[str, Any], sheet: SpecSheet, artworks: Mapping[str, Artwork], *place: str, **more: Any
) -> Made:
    """A fit as a judged file."""
    sources = facts_and_sources(artworks)[1]
    return make_fit(decided_fit(piece, sheet, artworks, *place, **more), sources, Budget(UNHURRIED))


def plan_of(piece: Piece, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts], placement: str | None = None) -> Plan:
    """The plan alone, before any version of a mark is chosen."""
    return plan_parts(parts_in(piece, placement), sheet, facts)


def resolved_parts(piece: Piece, placement: str) -> Any:
    """The parts as they are in one placement."""
    return resolve(FitRequest(piece, SpecSheet.model_validate(ANY_SHEET), placement, {})).parts


ANY_SHEET: dict[str, Any] = {"fitzle_spec": 1, "name": "Card", "size": {"width": 8, "height": 8}, "formats": ["png"]}


def pixels(raster: Any) -> Rendered:
    """Pixels as encoders take them."""
    return rendered_pixels(raster)


def unhurried() -> Budget:
    """A budget that no test uses up."""
    return Budget(UNHURRIED)
