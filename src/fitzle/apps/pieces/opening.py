"""Fits opened: resolved for their placement with one look-up of their artwork and of what was made of them."""

from __future__ import annotations

import hashlib
import logging
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.core.cache import cache
from django.db.models import QuerySet
from django.http import Http404
from pydantic import ValidationError

from fitzle.apps.accounts.access import house_colours
from fitzle.apps.artwork.library import sound_facts, source_of
from fitzle.apps.artwork.versions import group_of, ready_with_versions
from fitzle.apps.pieces.models import Fit, Judgement, Rendition
from fitzle.apps.pieces.rows import OpenRow, rows_for
from fitzle.apps.pieces.saving import document_of
from fitzle.apps.pieces.sharing import common_among, shared_files, slug_among
from fitzle.core.artwork.sources import Source
from fitzle.core.encode.wish import NO_WISH, Wish
from fitzle.core.engine import RULES_VERSION
from fitzle.core.errors import FitzleError
from fitzle.core.findings import Finding, muting
from fitzle.core.fit.arrangement import Stance, by_hand, is_arranged, stance_of
from fitzle.core.fit.deciding import Decided, Planned, decide, decide_again, plan_resolved
from fitzle.core.fit.keys import FitKeys, fit_keys
from fitzle.core.fit.record import RenditionRecord, failed
from fitzle.core.fit.request import FitArtwork, FitRequest, Resolved
from fitzle.core.fit.resolving import resolve
from fitzle.core.fit.state import Standing
from fitzle.core.piece.document import Differences, artworks_in, layer_of, with_take
from fitzle.core.piece.document import Piece as Document
from fitzle.core.plan.planning import planned_size
from fitzle.core.preflight.readings import reading_of
from fitzle.core.preflight.rule import Demand
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork
    from fitzle.apps.destinations.models import Placement


log = logging.getLogger(__name__)
UNREADABLE = "What is known of this file is damaged. Change something here, and it is made anew."


@dataclass
class OpenFit:
    """A fit with everything that its states, its plan and its pixels follow from; what is costly waits to be asked for.

    `artworks` are by their ids, the other versions of its marks among them; `rendition` and `judgement` are those of
    its present keys, None where they are not made. `of_row` is the row of a run that it is for.
    """

    fit: Fit
    resolved: Resolved
    artworks: Mapping[str, Artwork]
    rendition: Rendition | None = None
    judgement: Judgement | None = None
    of_row: OpenRow | None = None

    @property
    def document(self) -> Document:
        """The piece."""
        return self.resolved.request.piece

    @property
    def sheet(self) -> SpecSheet:
        """The spec sheet of its place."""
        return self.resolved.own_sheet

    @property
    def slug(self) -> str:
        """What its piece keeps adjustments for it under; the same for all places that its file serves."""
        return layer_of(self.resolved.request.placement, self.fit.take)

    @cached_property
    def keys(self) -> FitKeys:
        """What its file, proof and judgement depend on."""
        return fit_keys(self.resolved)

    @property
    def file_key(self) -> str:
        """What its file depends on."""
        return self.keys.file

    @property
    def judgement_key(self) -> str:
        """What its findings depend on."""
        return self.keys.judgement

    @property
    def proof_key(self) -> str:
        """What its proof depends on."""
        return self.keys.proof

    @cached_property
    def size(self) -> Size:
        """The size of its file in px."""
        return planned_size(self.resolved.parts, self.resolved.sheet, self.resolved.facts)

    @property
    def is_arranged(self) -> bool:
        """Whether its parts are arranged by calculation here, so that what is moved is moved here alone."""
        return is_arranged(self.document.composed, self.resolved.request.placement, self.resolved.arranged, self.size)

    @property
    def stances(self) -> dict[str, Stance]:
        """For each part whether it was put where it stands, was arranged, or stands as it was composed."""
        hand = by_hand(self.resolved.request)
        return stance_of(self.resolved.arranged, hand, self.resolved.parts)

    @cached_property
    def planned(self) -> Planned:
        """Where everything stands."""
        return plan_resolved(self.resolved)

    @cached_property
    def record(self) -> RenditionRecord | None:
        """What was made of it, without what was tried; that it failed, in words, where it cannot be read."""
        made = self.rendition
        if made is None:
            return None
        try:
            if self.judgement and self.findings is None:
                return failed(UNREADABLE)
            return RenditionRecord.model_validate({"files": made.files, "beside": made.beside, "outcome": made.outcome})
        except ValidationError:
            log.exception("what is known of fit %s cannot be read", self.fit.pk)
            return failed(UNREADABLE)

    @property
    def candidates(self) -> list[dict[str, Any]]:
        """What was tried for its file; looked up when somebody asks."""
        return list(self.rendition.candidates) if self.rendition else []

    @cached_property
    def findings(self) -> list[Finding] | None:
        """What the rules say of its file; None while it is not judged."""
        try:
            found = [Finding.model_validate(entry) for entry in self.judgement.findings] if self.judgement else None
            return None if found is None else self.muting(found)
        except ValidationError:
            log.exception("the findings of fit %s cannot be read", self.fit.pk)
            return None

    @property
    def demands(self) -> list[Demand]:
        """The demands as they were measured; none while it is not judged."""
        try:
            return [Demand.model_validate(entry) for entry in self.judgement.demands] if self.judgement else []
        except ValidationError:
            return []

    def muting(self, findings: Iterable[Finding]) -> list[Finding]:
        """Findings with the reasons of those that somebody muted here."""
        return muting(findings, {rule: str(entry.get("reason", "")) for rule, entry in self.fit.muted.items()})

    def standing(self, delivered: frozenset[str] | None, expected: Iterable[Finding] = ()) -> Standing:
        """What its state follows from; `expected` is what is known before its file is judged.

        A take that is not the chosen one was never handed over, so it cannot be out of date.
        """
        before = delivered if self.fit.chosen or not self.fit.take else None
        return Standing(self.file_key, self.record, self.findings, tuple(self.muting(expected)), before)

    def sources(self, *, preview: bool) -> dict[str, Source]:
        """The pixels of its artwork, by all ids."""
        return {name: source_of(artwork, preview=preview) for name, artwork in self.artworks.items()}

    def standing_in(self, artwork: str) -> Artwork:
        """The artwork that stands in the place of one: itself, or the version of it that shows better there."""
        return self.artworks[self.planned.stand_ins.get(artwork, artwork)]


class _Arrangements:
    """Arrangements in the cache of all processes."""

    def get(self, key: str) -> Differences | None:
        """See Arrangements."""
        found: Differences | None = cache.get(f"arranged/{key}")
        return found

    def keep(self, key: str, found: Differences) -> None:
        """See Arrangements."""
        cache.set(f"arranged/{key}", found)


ARRANGEMENTS = _Arrangements()


def open_fits(
    workspace: Workspace,
    fits: Iterable[Fit],
    broken: list[Fit] | None = None,
    sheets: Mapping[UUID, SpecSheet] | None = None,
) -> list[OpenFit]:
    """Opens several fits with one look-up of their artwork; a fit whose artwork is gone is left out.

    So is one that cannot be read any more, and is added to those that are `broken`: one of them is no reason to show
    nothing of the others. `sheets` stand for those of their placements, by id, where somebody thinks of other ones.
    """
    fits, broken, sheets = list(fits), [] if broken is None else broken, sheets or {}
    documents = _documents(fits, broken)
    fits = [fit for fit in fits if fit.pk in documents]
    shared = shared_files(workspace, sheets)
    slugs = {fit.pk: slug_among(shared, fit.placement) for fit in fits}
    documents = {fit.pk: with_take(documents[fit.pk], fit.take) for fit in fits}
    rows = rows_for(fits, documents)
    fits = [fit for fit in fits if not fit.row or (fit.piece_id, fit.row) in rows]
    of_row = {fit.pk: rows[fit.piece_id, fit.row] for fit in fits if fit.row}
    row = {fit.pk: of_row[fit.pk].row if fit.row else None for fit in fits}
    shown = {fit.pk: artworks_in(documents[fit.pk], slugs[fit.pk], fit.take, row[fit.pk]) for fit in fits}
    names = set().union(*shown.values())
    ready = ready_with_versions(workspace, names) if names else {}
    versions, house = _versions_among(ready), house_colours(workspace)
    usable = {name: usable for name, artwork in ready.items() if (usable := _usable(artwork))}
    opened = []
    for fit in fits:
        if not shown[fit.pk] <= ready.keys():
            continue
        if not shown[fit.pk] <= usable.keys():
            broken.append(fit)
            continue
        names = shown[fit.pk].union(*(versions[name] for name in shown[fit.pk])) & usable.keys()
        own = sheets.get(fit.placement_id) or fit.placement.spec
        common = common_among(shared, fit.placement)
        request = FitRequest(
            documents[fit.pk],
            common or own,
            slugs[fit.pk],
            {name: usable[name] for name in names},
            take=fit.take,
            row=row[fit.pk],
            house=house,
            versions={name: there for name in names if (there := tuple(v for v in versions[name] if v in names))},
            own=own,
            wish=_wish_of(fit, common or own),
        )
        known = {name: ready[name] for name in names}
        opened.append(OpenFit(fit, resolve(request, ARRANGEMENTS), known, of_row=of_row.get(fit.pk)))
    _add_what_is_made(workspace, opened)
    return opened


def _wish_of(fit: Fit, sheet: SpecSheet) -> Wish:
    """What somebody fixed of a file; nothing where the sheet has changed since and takes no such format any more."""
    wish = Wish.model_validate(fit.wish) if fit.wish else NO_WISH
    return wish if wish.format in (None, *sheet.formats) else NO_WISH


def _documents(fits: list[Fit], broken: list[Fit]) -> dict[UUID, Document]:
    """The pieces of fits by their ids, each read once, if they and the sheets of their places can be read."""
    pieces: dict[UUID, Document] = {}
    found = {}
    for fit in fits:
        try:
            if fit.piece_id not in pieces:
                pieces[fit.piece_id] = document_of(fit.piece)
            fit.placement.spec  # noqa: B018
        except (FitzleError, ValidationError, TypeError, AttributeError, KeyError):
            log.exception("fit %s cannot be read", fit.pk)
            broken.append(fit)
            continue
        found[fit.pk] = pieces[fit.piece_id]
    return found


def _usable(artwork: Artwork) -> FitArtwork | None:
    facts = sound_facts(artwork)
    return FitArtwork(facts, artwork.content.sha256) if facts else None


def open_fit(workspace: Workspace, fit: Fit) -> OpenFit:
    """One fit; Http404 when its artwork is gone."""
    opened = open_fits(workspace, [fit])
    if not opened:
        raise Http404("The artwork of this fit is not there any more.")
    return opened[0]


def open_elsewhere(workspace: Workspace, fit: Fit, placement: Placement) -> OpenFit:
    """The piece of a fit as if it stood in another placement, which nobody has put it into; Http404 as `open_fit`."""
    return open_fit(workspace, Fit(piece=fit.piece, placement=placement, take=fit.take))


def decided(workspace: Workspace, opened: OpenFit) -> Decided:
    """A fit with its colours decided and contrasts read.

    What was read is remembered, so that the same state is looked at once.
    """
    if not opened.planned.plan.parts:
        return decide_again(opened.planned, ())
    remembered = cache.get(_readings_key(workspace, opened))
    if remembered is not None:
        return decide_again(opened.planned, [reading_of(*entry) for entry in remembered])
    return decide_and_remember(workspace, opened, opened.sources(preview=True))


def decide_and_remember(workspace: Workspace, opened: OpenFit, sources: Mapping[str, Source]) -> Decided:
    """Decides by these sources; what is shown from then on is decided alike."""
    found = decide(opened.planned, sources)
    cache.set(_readings_key(workspace, opened), [tuple(entry) for entry in found.readings])
    return found


def _readings_key(workspace: Workspace, opened: OpenFit) -> str:
    """By what is drawn, and by the pages and the veil that it is read on: they change no pixel of a proof."""
    sheet = opened.resolved.sheet
    seen_on = hashlib.sha256(repr((sheet.grounds, sheet.veil)).encode()).hexdigest()[:16]
    return f"readings/{RULES_VERSION}/{workspace.pk}/{opened.proof_key}/{seen_on}"


def _versions_among(artworks: Mapping[str, Artwork]) -> dict[str, tuple[str, ...]]:
    """For each artwork the other versions of it that are there."""
    groups: dict[str, list[str]] = {}
    for name in sorted(artworks):
        groups.setdefault(group_of(artworks[name]), []).append(name)
    return {name: tuple(other for other in group if other != name) for group in groups.values() for name in group}


def _renditions(workspace: Workspace, keys: Collection[str]) -> QuerySet[Rendition]:
    """Without what was tried, which is long and only asked for when one is judged anew."""
    return Rendition.objects.filter(workspace=workspace, file_key__in=keys).defer("candidates")


def _add_what_is_made(workspace: Workspace, opened: list[OpenFit]) -> None:
    keys = {entry.file_key for entry in opened}
    made = {one.file_key: one for one in _renditions(workspace, keys)}
    asked = {entry.judgement_key for entry in opened if entry.file_key in made}
    judged = {
        (one.rendition_id, one.judgement_key): one
        for one in Judgement.objects.filter(rendition__in=made.values(), judgement_key__in=asked)
    }
    for entry in opened:
        entry.rendition = made.get(entry.file_key)
        if entry.rendition:
            entry.judgement = judged.get((entry.rendition.pk, entry.judgement_key))
