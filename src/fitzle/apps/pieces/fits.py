"""Fits: found, placed, chosen, taken away."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404
from django.utils import timezone

from fitzle.apps.artwork.library import artwork_of, facts_of
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.pieces.models import Fit, Piece
from fitzle.apps.pieces.saving import create_piece, document_of
from fitzle.apps.pieces.sharing import served_with
from fitzle.apps.pieces.uses import note_uses
from fitzle.core.piece.editing import new_piece
from fitzle.core.plan.suiting import suits
from fitzle.core.spec.stems import safe_stem

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace
    from fitzle.apps.destinations.models import Placement

SUITED = "suited"  # instead of placements: every empty one that the artwork suits


def fit_of(workspace: Workspace, fit_id: UUID | str) -> Fit:
    """One fit of the workspace; Http404 for any other."""
    found = _fits(workspace).filter(pk=fit_id).first()
    if found is None:
        raise Http404("There is no such fit.")
    return found


def fits_on_wall(workspace: Workspace) -> list[Fit]:
    """For each filled placement that stands on a shelf the fit that is chosen, in the order of the shelves."""
    return list(_many(workspace).filter(chosen=True, row="", placement__put_away=False))


def fits_of_piece(piece: Piece, row: str = "") -> list[Fit]:
    """All fits of a piece, or of one row of its run, in the order of the shelves."""
    return list(_fits(piece.workspace).filter(piece=piece, row=row))


def one_each(fits: Iterable[Fit], own: Fit) -> list[Fit]:
    """Of several takes in a placement the one that is looked at, else the chosen one, else the piece itself."""
    best: dict[tuple[UUID, str], Fit] = {}
    for fit in fits:
        place = (fit.placement_id, fit.row)
        rank = (fit.pk == own.pk, bool(fit.chosen), fit.take == "")
        held = best.get(place)
        if held is None or rank > (held.pk == own.pk, bool(held.chosen), held.take == ""):
            best[place] = fit
    return list(best.values())


def all_fits(workspace: Workspace, *, rows: bool = True) -> list[Fit]:
    """All fits of the workspace, those of the rows of runs among them or not."""
    return list(_many(workspace) if rows else _many(workspace).filter(row=""))


def fits_in(placements: Iterable[Placement]) -> list[Fit]:
    """All fits of placements, chosen or not."""
    found = Fit.objects.filter(placement__in=list(placements))
    return list(found.select_related("piece__workspace", "placement__destination"))


def standing_in(placement: Placement) -> Fit | None:
    """The fit that stands in a placement, None for an empty one."""
    return next((fit for fit in fits_in([placement]) if fit.chosen and not fit.row), None)


@transaction.atomic
def place(workspace: Workspace, user: User | None, artwork_id: UUID | str, targets: list[str]) -> list[Fit]:
    """Fits an artwork into placements (ids, or ["suited"]); one piece for the artwork, a fit for each placement."""
    artwork = artwork_of(workspace, artwork_id)
    facts = facts_of(artwork)
    placements = placements_of(workspace, None if targets == [SUITED] else targets)
    if targets == [SUITED]:
        taken = {fit.placement_id for fit in fits_on_wall(workspace)}
        placements = [entry for entry in placements if entry.pk not in taken and suits(facts, entry.spec)]
    piece = Piece.objects.filter(workspace=workspace, only_artwork=str(artwork.pk)).order_by("-created_at").first()
    if piece is None:
        subject = safe_stem(artwork.name.rpartition(".")[0] or artwork.name)
        piece = create_piece(workspace, user, new_piece(subject, str(artwork.pk), facts.kind))
    return stand(piece, placements)


@transaction.atomic
def stand(piece: Piece, placements: Iterable[Placement], take: str = "") -> list[Fit]:
    """Puts a piece into placements and those that their file serves; from then on it is the one chosen there."""
    now = timezone.now()
    all_of_them = {entry.pk: entry for one in placements for entry in served_with(piece.workspace, one)}
    fits = [
        Fit.objects.update_or_create(piece=piece, placement=entry, take=take, row="", defaults={"placed_at": now})[0]
        for entry in all_of_them.values()
    ]
    for fit in fits:
        choose(fit)
    note_uses(fits, document_of(piece))
    return fits


def choose(fit: Fit) -> None:
    """Lets one of several fits in a placement be the one that stands there; the others are kept beside it."""
    rivals = Fit.objects.select_for_update().filter(placement_id=fit.placement_id, row=fit.row)
    list(rivals.values_list("pk", flat=True))  # locks them: two people may choose at once
    rivals.exclude(pk=fit.pk).filter(chosen=True).update(chosen=None)
    rivals.filter(pk=fit.pk).update(chosen=True)
    fit.chosen = True


@transaction.atomic
def take_away(fit: Fit) -> None:
    """Empties a placement and those that its file serves; the piece stays.

    Of those that stood there before the one placed last comes back.
    """
    places = served_with(fit.piece.workspace, fit.placement)
    for one in Fit.objects.filter(piece=fit.piece, placement__in=places, take=fit.take, row=fit.row):
        was_chosen, placement, row = one.chosen, one.placement_id, one.row
        one.delete()
        before = Fit.objects.filter(placement_id=placement, row=row).order_by("-placed_at").first()
        if was_chosen and before:
            choose(before)


def _fits(workspace: Workspace) -> QuerySet[Fit]:
    """To find one of them."""
    return Fit.objects.filter(piece__workspace=workspace).select_related("piece__workspace", "placement__destination")


def _many(workspace: Workspace) -> QuerySet[Fit]:
    """To list many of them: each piece, destination and workspace is read once, since their documents are long."""
    found = Fit.objects.filter(piece__workspace=workspace).select_related("placement")
    return found.prefetch_related("piece__workspace", "placement__destination")
