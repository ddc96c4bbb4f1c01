"""The history of a run: changes of rows kept with what takes them back, so that each person takes back their own."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction
from pydantic import TypeAdapter

from fitzle.apps.history import CannotTakeBack, Kind, names_of, ways_of
from fitzle.apps.pieces.models import Run, RunRow, RunStep
from fitzle.apps.pieces.rows import rows_of
from fitzle.core.errors import FitzleError
from fitzle.core.runs.changes import AnyRowChange, Applied, RowChange, apply_row_changes
from fitzle.core.runs.document import Entry

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User

KEPT_STEPS = 200
_CHANGES: TypeAdapter[list[AnyRowChange]] = TypeAdapter(list[RowChange])


@transaction.atomic
def keep_changes(
    run: Run, user: User | None, changes: Iterable[AnyRowChange], step: str, key: UUID | None = None
) -> Applied:
    """Makes changes, except those that clash, as the next step; nothing where its `key` came before."""
    locked = Run.objects.select_for_update().get(pk=run.pk)
    if key and locked.steps.filter(key=key).exists():
        return Applied([], [])
    changes = list(changes)
    applied = _made(locked, changes)
    if applied.inverse or not changes:
        _remember(locked, user, applied, step, key=key)
    run.refresh_from_db()
    return applied


@transaction.atomic
def step_back(run: Run, user: User) -> None:
    """Takes the person's own last step back; nothing where there is none."""
    _moved(run, user, Kind.UNDO)


@transaction.atomic
def step_forward(run: Run, user: User) -> None:
    """Makes the step again that the person took back last; nothing where there is none."""
    _moved(run, user, Kind.REDO)


def undo_and_redo_of_rows(run: Run, user_id: int) -> tuple[str | None, str | None]:
    """What undo would take back and redo would make again for a person, in words; None where there is nothing."""
    return names_of(list(run.steps.defer("inverse")), user_id)


def _moved(run: Run, user: User, kind: Kind) -> None:
    locked = Run.objects.select_for_update().get(pk=run.pk)
    ways = ways_of(list(locked.steps.defer("inverse")), user.pk)
    way = ways.undo if kind == Kind.UNDO else ways.redo
    if not way:
        return
    step = locked.steps.get(position=way[-1])
    stood_on = CannotTakeBack(
        f'"{step.step}" cannot be taken back: something was changed there since', advice="Change it by hand."
    )
    try:
        applied = _made(locked, _CHANGES.validate_python(step.inverse))
    except FitzleError as error:
        raise stood_on from error
    if applied.clashes:
        raise stood_on
    _remember(locked, user, applied, step.step, kind=kind, of=step.position)


def _made(run: Run, changes: Sequence[AnyRowChange]) -> Applied:
    """Changes the rows that are kept; only those that differ are written."""
    rows = rows_of(run)
    before = {entry.id: entry for entry in rows}
    applied = apply_row_changes(rows, changes)
    after = {entry.id: entry for entry in rows}
    gone = before.keys() - after.keys()
    if gone:
        run.rows.filter(row__in=gone).delete()
    new = [_row(run, entry) for name, entry in after.items() if name not in before]
    RunRow.objects.bulk_create(new, batch_size=500)
    changed = {name: entry for name, entry in after.items() if name in before and entry != before[name]}
    kept = list(run.rows.filter(row__in=changed)) if changed else []
    for one in kept:
        one.document = _plain(changed[one.row])
    RunRow.objects.bulk_update(kept, ["document"], batch_size=200)
    run.order = list(after)
    run.revision += 1
    run.save(update_fields=["order", "revision"])
    return applied


def _remember(
    run: Run, user: User | None, applied: Applied, step: str, *, kind: Kind = Kind.STEP, of: int | None = None,
    key: UUID | None = None,
) -> None:  # fmt: skip
    run.position += 1
    run.save(update_fields=["position"])
    inverse = _CHANGES.dump_python(applied.inverse, mode="json")
    RunStep.objects.create(
        run=run, position=run.position, inverse=inverse, step=step[:120], kind=kind, of=of, key=key, made_by=user
    )
    run.steps.filter(position__lte=run.position - KEPT_STEPS).delete()


def _row(run: Run, entry: Entry) -> RunRow:
    return RunRow(run=run, row=entry.id, document=_plain(entry))


def _plain(entry: Entry) -> dict[str, object]:
    return entry.model_dump(mode="json", exclude_defaults=True)
