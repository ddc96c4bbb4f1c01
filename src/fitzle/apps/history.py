"""Histories: each person takes back their own last step, unless somebody else's change stands on it.

Nothing is ever taken out of the middle of a history: taking back is a step too.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from typing import Any, NamedTuple

from django.conf import settings
from django.db import models
from django.utils import timezone

from fitzle.core.errors import FitzleError
from fitzle.core.history import Place, StoodOn, difference, taken_back

Plain = dict[str, Any]


class Kind(models.TextChoices):
    """What a step of a history is."""

    STEP = "step"
    UNDO = "undo"
    REDO = "redo"


class Step(models.Model):
    """One step of a history; `step` names what was done.

    `of` is for an undo or redo the position of the step that it took back. `key` is the browser's own name for a save,
    so that one that is sent again is made once.
    """

    position = models.PositiveIntegerField()
    step = models.CharField(max_length=120)
    kind = models.CharField(max_length=4, choices=Kind, default=Kind.STEP)
    of = models.PositiveIntegerField(null=True)
    key = models.UUIDField(null=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        abstract = True
        ordering = ["position"]


class HistoryStep(Step):
    """A step with the document as it was after it."""

    document = models.JSONField()

    class Meta(Step.Meta):
        abstract = True


class CannotTakeBack(FitzleError):
    """Somebody else's change stands on a step."""


class Ways(NamedTuple):
    """The positions of a person's steps that can be taken back and made again, the last one last."""

    undo: list[int]
    redo: list[int]


class Moved(NamedTuple):
    """A step taken back, or made again, and what the document is then."""

    of: HistoryStep
    document: Plain


def names_of(rows: Iterable[Step], user_id: int | None) -> tuple[str | None, str | None]:
    """What undo would take back and redo would make again for a person, in words; None where there is nothing."""
    known = {row.position: row.step for row in rows}
    undo, redo = ways_of(rows, user_id)
    return known[undo[-1]] if undo else None, known[redo[-1]] if redo else None


def moved(
    rows: Sequence[HistoryStep],
    plain_at: Callable[[int], Plain],
    newest: Plain,
    kind: Kind,
    user_id: int | None,
    entries: str,
) -> Moved | None:
    """The newest document without a person's last step (undo), or with the last one taken back again (redo).

    `plain_at` gives the document at a position, `entries` is the name of its list. None where there is no such step;
    raises CannotTakeBack.
    """
    way = ways_of(rows, user_id)[0 if kind == Kind.UNDO else 1]
    if not way:
        return None
    step = next(row for row in rows if row.position == way[-1])
    try:
        return Moved(step, taken_back(newest, plain_at(step.position - 1), plain_at(step.position), entries))
    except StoodOn as blocked:
        raise stood_on(step, rows, plain_at, entries, blocked.places) from blocked


def stood_on(
    step: HistoryStep,
    rows: Sequence[HistoryStep],
    plain_at: Callable[[int], Plain],
    entries: str,
    places: set[Place] | None = None,
) -> CannotTakeBack:
    """Says whose change stands on a step, at these places or anywhere."""
    problem = f'"{step.step}" cannot be taken back'
    for row in reversed([row for row in rows if row.position > step.position]):
        changed = difference(plain_at(row.position - 1), plain_at(row.position), entries)
        if not places or changed.touches(places):
            other = row.made_by if row.made_by_id != step.made_by_id else None
            by = f"{other.name or other.email}'s" if other else "a later"
            return CannotTakeBack(f'{problem}: {by} change "{row.step}" stands on it', advice="Change it by hand.")
    return CannotTakeBack(f"{problem}: something else was changed there since", advice="Change it by hand.")


def ways_of(rows: Iterable[Step], user_id: int | None) -> Ways:
    """Walks through a person's own steps. The first that is kept cannot be taken back: what was before it is gone."""
    ways, first = Ways([], []), True
    for row in rows:
        if not first and row.made_by_id == user_id:
            if row.kind == Kind.UNDO:
                ways.undo[:] = [position for position in ways.undo if position != row.of]
                ways.redo.append(row.position)
            else:
                ways.redo[:] = [one for one in ways.redo if row.kind == Kind.REDO and one != row.of]
                ways.undo.append(row.position)
        first = False
    return ways
