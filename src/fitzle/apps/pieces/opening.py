"""Fits opened: planned for their placement, and looked at, with one look-up of their artwork."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, NamedTuple, Protocol

from django.core.cache import cache
from django.http import Http404

from fitzle.apps.accounts.access import house_colours
from fitzle.apps.artwork.library import contents_of, facts_of, source_of
from fitzle.apps.artwork.versions import group_of, ready_with_versions
from fitzle.apps.pieces.models import Fit
from fitzle.apps.pieces.saving import document_of
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Source
from fitzle.core.piece.document import Piece as Document
from fitzle.core.piece.document import artworks_in
from fitzle.core.pipeline import Planned, fit_key, look_at_fit, look_remembered, plan_fit
from fitzle.core.plan.planning import planned_size
from fitzle.core.plan.versions import Chosen, chosen_versions, version_note
from fitzle.core.preflight.legibility import Seen
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size


class Keyed(Protocol):
    """A fit and the hash of its present state."""

    @property
    def fit(self) -> Fit: ...
    @property
    def key(self) -> str: ...


class OpenFit(NamedTuple):
    """A fit with everything that planning and painting need.

    `artworks` are by the ids in the document, a version in the place of its mark where it shows better; `known` are all
    that were looked up, each by its own id.
    """

    fit: Fit
    document: Document
    sheet: SpecSheet
    key: str
    planned: Planned
    artworks: dict[str, Any]
    facts: dict[str, ArtworkFacts]
    known: dict[str, Any]

    def sources(self, *, preview: bool) -> dict[str, Source]:
        """The pixels of its artwork."""
        return {name: source_of(artwork, preview=preview) for name, artwork in self.artworks.items()}


class SizedFit(NamedTuple):
    """A fit of which no more is known than its state and its size: what a rail shows of it."""

    fit: Fit
    sheet: SpecSheet
    key: str
    size: Size


def is_made(opened: Keyed) -> bool:
    """Whether the file for the fit's present state is made."""
    return bool(opened.fit.result and opened.fit.result_key == opened.key)


def open_fits(workspace: Any, fits: Iterable[Fit]) -> list[OpenFit]:
    """Plans several fits with one look-up of their artwork; a fit whose artwork is gone is left out."""
    house = house_colours(workspace)
    return [_planned(*entry, house) for entry in _with_artwork(workspace, fits)]


def _planned(
    fit: Fit, document: Document, artworks: dict[str, Any], facts: dict[str, ArtworkFacts], house: tuple[str, ...]
) -> OpenFit:
    """A fit planned, with those versions of its marks that show best there in the place of the marks."""
    sheet, placement = fit.placement.spec, str(fit.placement_id)
    key = fit_key(document, sheet, placement, house, contents_of(artworks))
    planned = plan_fit(document, sheet, facts, placement, house)
    chosen, known = chosen_versions(planned.plan, sheet, facts, _versions_among(artworks)), artworks
    if chosen:
        artworks = artworks | {one.artwork: artworks[one.version] for one in chosen}
        facts = facts | {one.artwork: facts[one.version] for one in chosen}
        planned = _noted(plan_fit(document, sheet, facts, placement, house), chosen)
    return OpenFit(fit, document, sheet, key, planned, artworks, facts, known)


def _versions_among(artworks: dict[str, Any]) -> dict[str, list[str]]:
    """For each artwork the other versions of it that are there."""
    groups: dict[str, list[str]] = {}
    for name, artwork in artworks.items():
        groups.setdefault(group_of(artwork), []).append(name)
    return {name: [other for other in group if other != name] for group in groups.values() for name in group}


def _noted(planned: Planned, chosen: list[Chosen]) -> Planned:
    """The plan with a note for each mark of which another version stands there."""
    by_artwork = {one.artwork: one for one in chosen}
    notes = [
        version_note(by_artwork[part.artwork], part.part)
        for part in planned.plan.artworks
        if part.artwork in by_artwork
    ]
    return planned._replace(findings=planned.findings + notes)


def sized_fits(workspace: Any, fits: Iterable[Fit], known: dict[str, Any] | None = None) -> list[SizedFit]:
    """The sizes and states of several fits, without planning them; `known` is artwork that was looked up already."""
    house = house_colours(workspace)
    sized = []
    for fit, document, artworks, facts in _with_artwork(workspace, fits, known):
        sheet, placement = fit.placement.spec, str(fit.placement_id)
        key = fit_key(document, sheet, placement, house, contents_of(artworks))
        sized.append(SizedFit(fit, sheet, key, planned_size(document, sheet, facts, placement)))
    return sized


def open_fit(workspace: Any, fit: Fit) -> OpenFit:
    """One fit, planned; Http404 when its artwork is gone."""
    opened = open_fits(workspace, [fit])
    if not opened:
        raise Http404("The artwork of this fit is not there any more.")
    return opened[0]


def looked_fit(workspace: Any, fit: Fit) -> OpenFit:
    """One fit with its colours decided and contrasts measured.

    What was seen is remembered by the fit's key, so that the same state is looked at once.
    """
    opened = open_fit(workspace, fit)
    if not opened.planned.plan.parts:
        return opened
    key = f"seen/{workspace.pk}/{opened.key}"
    remembered = cache.get(key)
    if remembered is not None:
        seen = tuple(Seen(*entry) for entry in remembered)
        return opened._replace(planned=look_remembered(opened.planned, opened.sheet, seen))
    house, sources = house_colours(workspace), opened.sources(preview=True)
    looked = look_at_fit(opened.planned, opened.sheet, opened.facts, sources, house)
    cache.set(key, [tuple(entry) for entry in looked.seen])
    return opened._replace(planned=looked)


def _with_artwork(
    workspace: Any, fits: Iterable[Fit], known: dict[str, Any] | None = None
) -> Iterable[tuple[Fit, Document, dict[str, Any], dict[str, ArtworkFacts]]]:
    """Each fit whose artwork is all there, with its document and that artwork."""
    fits = list(fits)
    documents = {fit.pk: document_of(fit.piece) for fit in fits}
    wanted = {fit.pk: artworks_in(documents[fit.pk], str(fit.placement_id)) for fit in fits}
    ready = known or {}
    missing = set().union(*wanted.values()) - ready.keys()
    if missing:
        ready = ready | ready_with_versions(workspace, missing)
    versions = _versions_among(ready)
    facts = {name: facts_of(artwork) for name, artwork in ready.items()}
    for fit in fits:
        names = wanted[fit.pk]
        if names <= ready.keys():
            names = names.union(*(versions[name] for name in names))
            yield fit, documents[fit.pk], {name: ready[name] for name in names}, {name: facts[name] for name in names}
