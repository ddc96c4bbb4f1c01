"""Rows of a run in the places of their piece: opened whether or not somebody made a file of them."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import islice
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.http import Http404
from django.utils import timezone

from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.pieces.fits import fits_of_piece
from fitzle.apps.pieces.models import Fit, Piece, Run
from fitzle.apps.pieces.opening import OpenFit, open_fits

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

AT_ONCE = 24  # fits opened together: one look-up for all, and not much in memory


class RowPlace(NamedTuple):
    """A row in a place, by their ids."""

    row: str
    placement: UUID


def places_of_run(piece: Piece) -> list[Fit]:
    """Where a piece stands, and so each of its rows: a fit for each place, in the order of the shelves."""
    fits = [fit for fit in fits_of_piece(piece) if not fit.placement.put_away]
    chosen = [fit for fit in fits if fit.chosen]
    return chosen or [fit for fit in fits if not fit.take]


def row_fits(piece: Piece, rows: Sequence[str], places: Iterable[Fit]) -> list[Fit]:
    """Rows in places, row by row; those that nobody made a file of yet are not in the database."""
    places = list(places)
    kept = Fit.objects.filter(piece=piece, row__in=rows, placement__in=[fit.placement_id for fit in places])
    found = {(fit.row, fit.placement_id): fit for fit in kept}
    all_of_them = []
    for row in rows:
        for own in places:
            fit = found.get((row, own.placement_id)) or Fit(row=row, take=own.take)
            fit.piece, fit.placement = piece, own.placement
            all_of_them.append(fit)
    return all_of_them


def opened_in_turn(workspace: Workspace, piece: Piece, rows: Sequence[str], places: Sequence[Fit]) -> Iterator[OpenFit]:
    """The same opened, a few together."""
    together = max(1, AT_ONCE // max(1, len(places)))
    left = iter(rows)
    while some := list(islice(left, together)):
        yield from open_fits(workspace, row_fits(piece, some, places))


def open_row(workspace: Workspace, piece: Piece, row: str, placement: UUID) -> OpenFit:
    """One row in one place; Http404 where either is not there, or its artwork is gone."""
    own = next((fit for fit in places_of_run(piece) if fit.placement_id == placement), None)
    if own is None:
        [there] = placements_of(workspace, [placement])
        own = Fit(piece=piece, placement=there)
    opened = open_fits(workspace, row_fits(piece, [row], [own]))
    if not opened:
        raise Http404("This row is not there any more, or its artwork is gone.")
    return opened[0]


def keep_row_fits(run: Run, rows: Sequence[str], places: Sequence[Fit]) -> list[Fit]:
    """Rows in places as fits of the database, so that files can be made and handed over."""
    fits = row_fits(run.piece, rows, places)
    now = timezone.now()
    new = [fit for fit in fits if fit._state.adding]
    for fit in new:
        fit.placed_at = now
    Fit.objects.bulk_create(new, batch_size=500, ignore_conflicts=True)
    return row_fits(run.piece, rows, places) if new else fits
