"""Takes: alternatives of a piece that stand beside it in its places; one of them is chosen, the others are kept."""

from __future__ import annotations

from string import ascii_lowercase
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action, house_style, workspace_numbered
from fitzle.apps.drawing.calls import drawable
from fitzle.apps.jobs.queue import make_later
from fitzle.apps.pieces import saving
from fitzle.apps.pieces.fits import choose, fit_of, fits_of_piece
from fitzle.apps.pieces.models import Fit, Piece
from fitzle.apps.pieces.opening import OpenFit, decided, open_fit, open_fits
from fitzle.apps.pieces.sharing import served_with, slug_of
from fitzle.apps.pieces.uses import note_uses
from fitzle.core.errors import DocumentError
from fitzle.core.fit.proposal import Proposal
from fitzle.core.fit.proposing import Ranked, ranked
from fitzle.core.piece.changes import AnyChange, SetField
from fitzle.core.piece.document import Piece as Document
from fitzle.core.piece.document import layer_of
from fitzle.core.piece.scoping import scoped

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

MOST_SIDE_BY_SIDE = 6
FIRST = "a"  # what the piece itself is called among its takes


def takes_beside(workspace: Workspace, fit: Fit) -> list[Fit]:
    """All takes of a piece in the place of one, the piece itself first."""
    there = [one for one in fits_of_piece(fit.piece, fit.row) if one.placement_id == fit.placement_id]
    return sorted(there, key=lambda one: one.take)


def name_of_take(take: str) -> str:
    """A letter: A is the piece itself."""
    return (take or FIRST).upper()


@action(Capability.CHANGE)
def add_take(access: Access, fit_id: UUID, proposal: str = "") -> Fit:
    """Another take beside a fit: a copy of it, or what a proposal makes of it.

    Raises DocumentError where six stand there already, or for a proposal that does not hold any more.
    """
    fit = fit_of(access.workspace, fit_id)
    if len(takes_beside(access.workspace, fit)) >= MOST_SIDE_BY_SIDE:
        raise DocumentError(
            f"{MOST_SIDE_BY_SIDE} takes stand side by side already", advice="Take one away that nobody wants."
        )
    document, place = saving.document_of(fit.piece), slug_of(fit.placement)
    take = _free_take(fit.piece, document)
    changes = _copied(document, place, fit.take, take)
    if proposal:
        found = work_out_proposal.ask(str(fit.piece.revision), access.workspace.pk, fit_id, proposal)
        arranged = open_fit(access.workspace, fit).is_arranged
        changes += scoped(document, place, found.values, everywhere=not found.here, take=take, arranged=arranged)
    with transaction.atomic():
        if changes:
            step = f"make take {name_of_take(take)}"
            fit.piece = saving.save_changes(fit.piece, access.actor, fit.piece.revision, changes, step)
        return _stand(access.workspace, fit, take)


@action(Capability.CHANGE)
@transaction.atomic
def choose_take(access: Access, fit_id: UUID, everywhere: bool) -> Fit:
    """Lets a take be the one that stands in its place, or in every place where its piece stands."""
    fit = fit_of(access.workspace, fit_id)
    standing = [one for one in fits_of_piece(fit.piece, fit.row) if one.chosen]
    places = {one.placement_id: one.placement for one in standing} if everywhere else {}
    places |= {one.pk: one for one in served_with(access.workspace, fit.placement)}
    now = timezone.now()
    fits = [
        Fit.objects.get_or_create(
            piece=fit.piece, placement=place, take=fit.take, row=fit.row, defaults={"placed_at": now}
        )[0]
        for place in places.values()
    ]
    for one in fits:
        choose(one)
    note_uses(fits, saving.document_of(fit.piece))
    make_later(one.pk for one in fits)
    return fit_of(access.workspace, fit_id)


def _free_take(piece: Piece, document: Document) -> str:
    """The next letter that no take of the piece ever had."""
    taken = {FIRST, *document.takes, *piece.fits.values_list("take", flat=True)}
    for letter in ascii_lowercase:
        if letter not in taken:
            return letter
    raise DocumentError("this piece has as many takes as there are letters", advice="Begin another piece.")


def _copied(document: Document, place: str, before: str, after: str) -> list[AnyChange]:
    """What a take differs in, for another one."""
    own = document.takes.get(before, {}) if before else {}
    here = document.adjustments.get(layer_of(place, before), {}) if before else {}
    copied: list[AnyChange] = [
        SetField(part=part, field=field, value=value, take=after)
        for part, fields in own.items()
        for field, value in fields.items()
    ]
    return copied + [
        SetField(part=part, field=field, value=value, placement=layer_of(place, after))
        for part, fields in here.items()
        for field, value in fields.items()
    ]


def _stand(workspace: Workspace, fit: Fit, take: str) -> Fit:
    now = timezone.now()
    fits = [
        Fit.objects.create(piece=fit.piece, placement=place, take=take, row=fit.row, placed_at=now)
        for place in served_with(workspace, fit.placement)
    ]
    note_uses(fits, saving.document_of(fit.piece))
    make_later(one.pk for one in fits)
    return next(one for one in fits if one.placement_id == fit.placement_id)


def proposals_for(workspace: Workspace, opened: OpenFit) -> list[Ranked]:
    """The takes that calculation proposes, the best first."""
    style = house_style(workspace)
    families = [family for family in (style.heading, style.text) if family]
    request = opened.resolved.request
    others = open_fits(workspace, [one for one in takes_beside(workspace, opened.fit) if one.pk != opened.fit.pk])
    beside = [(decided(workspace, one), one.sources(preview=True)) for one in others]
    return ranked(request, opened.sources(preview=True), opened.size, families, beside)


@drawable
def work_out_proposal(workspace: int, fit: UUID, proposal: str) -> Proposal:
    """A proposal as it is worked out now. Raises DocumentError where it does not hold any more."""
    space = workspace_numbered(workspace)
    found = proposals_for(space, open_fit(space, fit_of(space, fit)))
    known = next((one.proposal for one in found if one.proposal.id == proposal), None)
    if known is None:
        raise DocumentError("this proposal does not hold any more", advice="Look at the proposals again.")
    return known
