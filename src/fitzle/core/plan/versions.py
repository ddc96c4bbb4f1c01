"""Which version of a mark stands in a fit: the one made for light grounds or the one for dark, by contrast."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.colour.contrast import LEAST_GRAPHICS_CONTRAST, weakest_contrast
from fitzle.core.colour.srgb import Rgb, parse_hex
from fitzle.core.piece.fills import Gradient, PictureFill, Solid
from fitzle.core.plan.grounds import grounds_behind, veiled, veiled_shares
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedShape, Plan
from fitzle.core.spec.sheet import SpecSheet

MAIN_SHARE = 0.1  # of a picture; a rarer colour behind a mark does not decide


class ChosenVersion(NamedTuple):
    """A version that stands for an artwork in a fit, and what it reaches on the ground there against the other."""

    artwork: str
    version: str
    contrast: float
    instead_of: float


def chosen_versions(
    plan: Plan, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts], versions: Mapping[str, Sequence[str]]
) -> list[ChosenVersion]:
    """For each mark of a plan that is better seen in another of its versions, that version.

    The mark that was put there stays where it reaches 3:1 (WCAG 2.2, 1.4.11); else the version with the best contrast
    takes its place. A mark that was coloured by hand there stays as it is.
    """
    found = {}
    for index, part in enumerate(plan.parts):
        others = versions.get(part.artwork, ()) if isinstance(part, PlacedArtwork) else ()
        if not isinstance(part, PlacedArtwork) or not others or part.tint or part.recolour:
            continue
        behind = _behind(plan, index, part, sheet, facts)
        best = _best(part.artwork, others, facts, behind, sheet)
        if best:
            found[part.artwork] = best
    return list(found.values())


def _best(
    own: str, others: Sequence[str], facts: Mapping[str, ArtworkFacts], behind: list[Rgb], sheet: SpecSheet
) -> ChosenVersion | None:
    reached = {name: _least(facts[name], behind, sheet) for name in (own, *others) if name in facts}
    best = max(reached, key=lambda name: reached[name])
    if best == own or reached[own] >= LEAST_GRAPHICS_CONTRAST:
        return None
    return ChosenVersion(own, best, reached[best], reached[own])


def _least(facts: ArtworkFacts, behind: list[Rgb], sheet: SpecSheet) -> float:
    if facts.transparency == "none":
        return 1.0  # it brings its own box, which no ground makes readable
    return min((weakest_contrast(veiled_shares(sheet, facts.edge_colours), colour) for colour in behind), default=21.0)


def _behind(
    plan: Plan, index: int, part: PlacedArtwork, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]
) -> list[Rgb]:
    """The colours behind a mark: of the part below that holds its middle, else of the ground, else of the page."""
    for below in reversed(plan.parts[:index]):
        colours = _colours_of(below, facts) if below.box.contains(part.box.centre) else []
        if colours:
            return [veiled(sheet, parse_hex(colour)) for colour in colours]
    colours = _colours_of_fill(plan, facts)
    if colours:
        return [veiled(sheet, parse_hex(colour)) for colour in colours]
    return [colour for _, colour in grounds_behind(sheet, plan.ground)]


def _colours_of(part: Placed, facts: Mapping[str, ArtworkFacts]) -> list[str]:
    if isinstance(part, PlacedArtwork) and facts[part.artwork].transparency == "none":
        return _main(facts[part.artwork])
    if isinstance(part, PlacedShape):
        if isinstance(part.fill, Solid):
            return [part.fill.colour]
        if isinstance(part.fill, Gradient):
            return [stop.colour for stop in part.fill.stops]
    return []


def _colours_of_fill(plan: Plan, facts: Mapping[str, ArtworkFacts]) -> list[str]:
    if isinstance(plan.fill, Gradient):
        return [stop.colour for stop in plan.fill.stops]
    if isinstance(plan.fill, PictureFill) and plan.fill.artwork in facts:
        return _main(facts[plan.fill.artwork])
    return []


def _main(facts: ArtworkFacts) -> list[str]:
    return [entry.hex for entry in facts.colours if entry.share >= MAIN_SHARE]
