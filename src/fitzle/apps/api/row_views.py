"""From runs to the shapes of the API."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.core.cache import cache

from fitzle.apps.accounts.access import Access, Capability, naming_rule
from fitzle.apps.api.row_schemas import (
    CellPicture,
    PlaceOfRows,
    PossibleField,
    RowField,
    RowProblem,
    RowsProgress,
    RunOut,
    RunState,
)
from fitzle.apps.artwork.library import newest_change, ready_names
from fitzle.apps.jobs.queue import is_under_way
from fitzle.apps.pieces.opening import open_fits
from fitzle.apps.pieces.row_actions import own_cells
from fitzle.apps.pieces.row_files import progress_of
from fitzle.apps.pieces.row_fits import places_of_run
from fitzle.apps.pieces.row_history import undo_and_redo_of_rows
from fitzle.apps.pieces.rows import OF_ARTWORK, OpenRow, naming_of, open_rows, pictures_for, rows_of
from fitzle.apps.pieces.saving import document_of
from fitzle.core.findings import Finding
from fitzle.core.piece.document import Piece as Document
from fitzle.core.preflight.registry import label_of_finding
from fitzle.core.runs.fields import Column, columns_of, counted, possible_fields
from fitzle.core.spec.naming import file_name
from fitzle.core.spec.stems import safe_stem
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.apps.pieces.models import Run

MOST_PROBLEMS = 1000


def run_view(access: Access, run: Run) -> RunOut:
    """A run with all that its table shows at once."""
    piece, space = run.piece, access.workspace
    document = document_of(piece)
    pictures = pictures_for(space, document)
    rows = list(rows_of(run))
    opened = open_rows(space, document, run, rows, pictures)
    columns = columns_of(document)
    named = [name for name, column in columns.items() if column.kind in OF_ARTWORK]
    own = own_cells(document)
    cells = {entry.get(name, "").strip() for entry in (own, *(one.cells for one in rows)) for name in named} - {""}
    found = {text: key for text in cells if (key := pictures.get(text) or pictures.get(text.casefold()))}
    names = dict(ready_names(space)) if found else {}
    undo, redo = undo_and_redo_of_rows(run, access.actor.pk)
    places = open_fits(space, places_of_run(piece))
    naming = naming_of(run, document, naming_rule(space))
    return RunOut(
        **state_view(run, opened).model_dump(),
        piece=piece.pk,
        subject=document.subject,
        may_change=access.may(Capability.CHANGE),
        may_deliver=access.may(Capability.DELIVER),
        fields=[RowField(**_told(one)) for one in columns.values()],
        possible=[
            PossibleField(**_told(one), of=_owner(document, one.target.part), named=name in columns)
            for name, one in possible_fields(document).items()
        ],
        places=[
            PlaceOfRows(
                fit=one.fit.pk,
                placement=one.fit.placement_id,
                name=one.sheet.name,
                destination=one.fit.placement.destination.name,
                width=one.size.width,
                height=one.size.height,
            )
            for one in places
        ],
        rows=rows,
        own=own,
        counted={
            name: [counted(one.target.counter, number) for number in range(len(rows))]
            for name, one in columns.items()
            if one.target.counter
        },
        pictures={text: CellPicture(id=key, name=names.get(key, text)) for text, key in found.items()},
        naming=naming,
        own_naming=run.naming,
        example=_example(naming, opened, document.subject, places[0].sheet.name, places[0].size) if places else "",
        by_hand={entry.id: entry.by_hand for entry in rows if entry.by_hand},
        undo=undo,
        redo=redo,
    )


def _told(column: Column) -> dict[str, Any]:
    target = column.target
    return {
        "name": column.name, "kind": column.kind, "part": target.part, "field": target.field, "counter": target.counter,
    }  # fmt: skip


def _owner(document: Document, part: str) -> str:
    """What people call a part: its name, what it says, else its role."""
    own = next(one for one in document.parts if one.id == part)
    return getattr(own, "name", "") or " ".join(getattr(own, "text", "").split()) or own.role


def state_view(run: Run, opened: Sequence[OpenRow] | None = None) -> RunState:
    """What is said of a run's rows now, and how the making of files gets on."""
    artwork = newest_change(run.piece.workspace)
    numbers, problems = _cells(run, opened, artwork)
    wrong = {one.row for one in problems}  # what cannot be used yet shows what the piece shows
    whole = {row: number for row, number in numbers.items() if row not in wrong}
    problems += _judged(run, numbers) + _twins(run, whole)
    progress = progress_of(run)
    return RunState(
        revision=run.revision,
        piece_revision=run.piece.revision,
        artwork=artwork,
        alike=[UUID(placement) for placement, pairs in run.twins.items() if not pairs],
        problems=sorted(problems, key=lambda one: one.number)[:MOST_PROBLEMS],
        looking=is_under_way("look_at_rows", str(run.piece_id)),
        progress=RowsProgress(
            wanted=progress.wanted,
            done=progress.done,
            failed=progress.failed,
            failures=[
                RowProblem(row=row, number=numbers.get(row, 0), placement=place, words=words)
                for row, place, words in progress.failures
            ],
        ),
    )


def _cells(run: Run, opened: Sequence[OpenRow] | None, artwork: str) -> tuple[dict[str, int], list[RowProblem]]:
    """The numbers of all rows that are not put away, and what is wrong with their cells; kept while nothing changes."""
    place = f"cells-of-rows/{run.pk}/{run.revision}/{run.piece.revision}/{artwork.replace(' ', 'T')}"
    held = cache.get(place)
    if held is None:
        if opened is None:
            opened = open_rows(run.piece.workspace, document_of(run.piece), run, rows_of(run))
        there = [one for one in opened if not one.entry.put_away]
        held = (
            {one.entry.id: one.number + 1 for one in there},
            [(one.entry.id, one.number + 1, problem.field, problem.words) for one in there for problem in one.problems],
        )
        cache.set(place, held)
    numbers, wrong = held
    return numbers, [RowProblem(row=row, number=at, field=field, words=words) for row, at, field, words in wrong]


def _judged(run: Run, numbers: dict[str, int]) -> list[RowProblem]:
    found = []
    for row, placement, findings in run.judgements.exclude(findings=[]).values_list("row", "placement", "findings"):
        for finding in map(Finding.model_validate, findings if row in numbers else ()):
            if finding.severity in ("refused", "risky") and not finding.muted:
                found.append(
                    RowProblem(
                        row=row,
                        number=numbers[row],
                        placement=placement,
                        severity=finding.severity,
                        words=label_of_finding(finding),
                    )
                )
    return found


def _twins(run: Run, numbers: dict[str, int]) -> list[RowProblem]:
    return [
        RowProblem(
            row=other,
            number=numbers[other],
            placement=placement,
            severity="risky",
            words=f"looks like row {numbers[one]}",
            twin=one,
        )
        for placement, pairs in run.twins.items()
        for one, other in pairs
        if one in numbers and other in numbers
    ]


def _example(naming: str, opened: Sequence[OpenRow], subject: str, place: str, size: Size) -> str:
    first = next((one for one in opened if not one.entry.put_away), None)
    if first is None:
        return ""
    name = file_name(naming, "png", subject=subject, placement=safe_stem(place), size=size, more=first.tokens)
    return name.rpartition(".")[0]
