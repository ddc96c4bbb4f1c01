"""Files of the rows of a run: wanted, made by workers in turns, cancelled, gone on with."""

from __future__ import annotations

import logging
import time
from collections.abc import Sequence
from itertools import islice
from typing import NamedTuple
from uuid import UUID

from django.db.models import Count, F, QuerySet

from fitzle.apps.accounts.access import Access, Capability, action, naming_rule
from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.jobs.later import Later
from fitzle.apps.jobs.queue import ROW_WORKERS, make_rows_later
from fitzle.apps.pieces.making import NOT_MADE, make_open
from fitzle.apps.pieces.models import Fit, RowFile, Run
from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.apps.pieces.row_fits import AT_ONCE, keep_row_fits, places_of_run
from fitzle.apps.pieces.rows import OpenRow, naming_of, open_rows, rows_of, run_of
from fitzle.apps.pieces.saving import document_of, piece_of
from fitzle.core.encode.result import Encoded
from fitzle.core.errors import DocumentError, FitzleError
from fitzle.core.fit.record import choice_of
from fitzle.core.runs.rows import RunRow
from fitzle.core.runs.stems import RunFile, check_stems, stem_for
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.spec.stems import safe_stem
from fitzle.core.units import Size

log = logging.getLogger(__name__)
WAITING, DONE, FAILED = "waiting", "done", "failed"
TURN_SECONDS = 8.0  # then other people's files get their turn
MOST_ATTEMPTS = 2
VECTOR = Size(1, 1)


class Progress(NamedTuple):
    """How many files of rows are wanted, made, and failed; `failures` names each of those in words."""

    wanted: int
    done: int
    failed: int
    failures: list[tuple[str, UUID, str]]

    @property
    def waiting(self) -> int:
        """How many are to come."""
        return self.wanted - self.done - self.failed


@action(Capability.FILL)
def make_row_files(access: Access, piece_id: UUID, rows: Sequence[str] | None = None) -> Progress:
    """Has the files of rows made, all or some; what is made already is not made again.

    Rows that are put away or have a cell that cannot be used are left out. Raises DocumentError where none is left, and
    where two files would be one on some system.
    """
    piece = piece_of(access.workspace, piece_id)
    run = run_of(piece)
    whole = whole_rows(access, run, rows)
    if not whole:
        raise DocumentError("there is no row to make files of", advice="Fill its cells, or mend what is marked.")
    places = places_of_run(piece)
    if not places:
        raise DocumentError("this piece stands in no place", advice="Put it into a place first.")
    check_names(access, run, whole, places)
    fits = keep_row_fits(run, [one.entry.id for one in whole], places)
    run.files.exclude(state=WAITING).delete()
    shares = {one.entry.id: number % ROW_WORKERS for number, one in enumerate(whole)}
    wanted = [RowFile(run=run, fit=fit, share=shares[fit.row], state=WAITING) for fit in fits]
    RowFile.objects.bulk_create(wanted, batch_size=500, ignore_conflicts=True)
    make_rows_later(piece.pk)
    return progress_of(run)


@action(Capability.FILL)
def cancel_row_files(access: Access, piece_id: UUID) -> Progress:
    """Stops before the next file; what is made stays."""
    run = run_of(piece_of(access.workspace, piece_id))
    run.files.filter(state=WAITING).delete()
    return progress_of(run)


def whole_rows(access: Access, run: Run, rows: Sequence[str] | None = None) -> list[OpenRow]:
    """The rows that files can be made of, all or some, in their order."""
    wanted = None if rows is None else set(rows)
    entries = [one for one in rows_of(run) if not one.put_away and (wanted is None or one.id in wanted)]
    opened = open_rows(access.workspace, document_of(run.piece), run, entries)
    return [one for one in opened if not one.problems and (any(one.told.values()) or one.entry.by_hand)]


def check_names(access: Access, run: Run, rows: Sequence[OpenRow], places: Sequence[Fit]) -> None:
    """Raises DocumentError where two files of rows would be one on some system."""
    document = document_of(run.piece)
    rule = naming_of(run, document, naming_rule(access.workspace))
    files = []
    for one in rows:
        row = RunRow(one.number + 1, one.number + 1, {}, one.row)
        for place, fit in enumerate(places):
            sheet = fit.placement.spec
            folder = safe_stem(fit.placement.destination.name)
            told = {**one.tokens, "subject": safe_stem(document.subject), "placement": safe_stem(sheet.name)}
            size = delivered_size(sheet, VECTOR, vector=True)
            files.append(RunFile(row, place, f"{folder}/{stem_for(rule, row, told, size)}"))
    check_stems(files)


def progress_of(run: Run) -> Progress:
    """How the files of rows that were wanted last are getting on."""
    counted = dict(run.files.values_list("state").annotate(count=Count("pk")).order_by())
    failed = run.files.filter(state=FAILED).values_list("fit__row", "fit__placement", "message")
    return Progress(sum(counted.values()), counted.get(DONE, 0), counted.get(FAILED, 0), list(failed[:50]))


def work_on_rows(piece_id: str, share: int) -> None:
    """Makes the files of one share that wait, as many as fit into one turn; raises Later where there are more."""
    run = Run.objects.filter(piece=UUID(piece_id)).select_related("piece__workspace").first()
    if run is None:
        return
    until = time.monotonic() + TURN_SECONDS
    likes = _likes(run)
    while some := list(islice(_waiting(run, share), AT_ONCE)):
        fits = list(Fit.objects.filter(pk__in=[one.fit_id for one in some]).select_related("placement__destination"))
        for fit in fits:
            fit.piece = run.piece
        opened = {one.fit.pk: one for one in open_fits(run.piece.workspace, fits)}
        for one in some:
            if not RowFile.objects.filter(pk=one.pk, state=WAITING).update(attempts=F("attempts") + 1):
                continue  # cancelled meanwhile
            _make(one, opened.get(one.fit_id), likes)
            if time.monotonic() > until and _waiting(run, share).exists():
                raise Later("the next files of these rows", 0)


def end_unmade_rows(piece_id: str, share: int) -> bool:
    """Notes a file over which workers were lost; whether there are others, which go on."""
    waiting = RowFile.objects.filter(run__piece=UUID(piece_id), share=share, state=WAITING)
    waiting.filter(attempts__gte=MOST_ATTEMPTS).update(state=FAILED, message=NOT_MADE)
    return waiting.exists()


def _waiting(run: Run, share: int) -> QuerySet[RowFile]:
    return run.files.filter(share=share, state=WAITING).order_by("pk")


def _make(one: RowFile, opened: OpenFit | None, likes: dict[UUID, Encoded]) -> None:
    state, message = DONE, ""
    if opened is None:
        state, message = FAILED, "Its row or its artwork is not there any more."
    else:
        try:
            make_open(opened, likes.get(opened.fit.placement_id))
        except StorageFullError:
            raise
        except FitzleError as error:
            state, message = FAILED, str(error)
        else:
            if opened.record and opened.record.outcome.kind == "failed":
                state, message = FAILED, opened.record.outcome.message
    RowFile.objects.filter(pk=one.pk, state=WAITING).update(state=state, message=message)


def _likes(run: Run) -> dict[UUID, Encoded]:
    """The file of the piece itself in each of its places, where one was made."""
    found = {}
    for opened in open_fits(run.piece.workspace, places_of_run(run.piece)):
        best = choice_of(opened.record).best if opened.record else None
        if best:
            found[opened.fit.placement_id] = best
    return found
