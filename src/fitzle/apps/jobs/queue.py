"""Wanting work, in the transaction that it depends on; workers are told after its commit.

Tasks are named, not imported: they call the apps, and the apps' actions queue them. What is wanted stands in the table
of jobs until it is done, so that nothing is lost with the queue (jobs.sweeping sends it again).
"""

from __future__ import annotations

import logging
import uuid
from collections.abc import Iterable
from datetime import timedelta
from functools import partial
from uuid import UUID

from celery import current_app
from django.db import transaction
from django.utils import timezone
from kombu.exceptions import OperationalError

from fitzle.apps.jobs.models import Job

log = logging.getLogger(__name__)
Argument = str | int


def read_later(artwork_id: UUID | str) -> None:
    """Has an artwork read."""
    _want("take_in_artwork", [(str(artwork_id),)])


def propose_later(artwork_id: UUID | str) -> None:
    """Has stills of a clip looked for."""
    _want("propose_clip_stills", [(str(artwork_id),)])


def make_later(fit_ids: Iterable[UUID], after_seconds: float = 0.0) -> None:
    """Has the files of fits made and judged, so many seconds after the commit."""
    _want("make_fit_file", [(str(fit_id),) for fit_id in fit_ids], after_seconds)


ROW_WORKERS = 2  # how many work on the rows of one run; each gives way to other people's work after a turn


def look_at_rows_later(piece_id: UUID, after_seconds: float = 0.0) -> None:
    """Has the rows of a piece's run looked at, before any file of them is made."""
    _want("look_at_rows", [(str(piece_id), share) for share in range(ROW_WORKERS)], after_seconds)


def make_rows_later(piece_id: UUID) -> None:
    """Has the files of the rows of a piece's run made that are wanted."""
    _want("make_rows", [(str(piece_id), share) for share in range(ROW_WORKERS)])


def hand_over_later(delivery_id: UUID) -> None:
    """Has the files of a delivery handed over."""
    _want("hand_over_files", [(str(delivery_id),)])


def watermark_later(key: UUID) -> None:
    """Has the pictures of a watermarking looked at, and marked where that is wanted."""
    _want("mark_pictures", [(str(key),)])


def prepare_later(artwork_id: UUID | str, revision: int) -> None:
    """Has the steps of an artwork made that a revision of its preparation has."""
    _want("make_costly", [(str(artwork_id), revision)])


def write_prepared_later(artwork_id: UUID | str, revision: int, after_seconds: float) -> None:
    """Has the prepared file of an artwork made at full size."""
    _want("make_prepared_file", [(str(artwork_id), revision)], after_seconds)


def learn_later(learning_id: UUID) -> None:
    """Has a place learnt from a screenshot."""
    _want("learn_place", [(str(learning_id),)])


def clear_later(workspace_ids: Iterable[int]) -> None:
    """Has taken away what nobody in these workspaces needs any more."""
    _want("clear_away_unneeded", [(number,) for number in workspace_ids])


def catch_up_later(workspace_ids: Iterable[int]) -> None:
    """Has made in these workspaces what this version makes otherwise than the one before it."""
    _want("catch_up", [(number,) for number in workspace_ids])


def erase_later(workspace_ids: Iterable[int]) -> None:
    """Has deleted workspaces taken away for good."""
    _want("erase_workspace", [(number,) for number in workspace_ids])


def mail_later(number: int) -> None:
    """Has a mail sent that waits."""
    _want("send_mail", [(number,)])


def want_again(kind: str, arguments: Iterable[Argument]) -> None:
    """Has a job of any kind done once more."""
    _want(kind, [tuple(arguments)])


def is_under_way(kind: str, argument: Argument) -> bool:
    """Whether a job of a kind whose first argument this is waits or runs."""
    return Job.objects.filter(kind=kind, subject__startswith=subject_of([argument])).exists()


def send(kind: str, arguments: Iterable[Argument], after_seconds: float = 0.0) -> bool:
    """Tells the workers of a job; False where the queue cannot be reached, which costs time and nothing else."""
    task = current_app.tasks.get(f"fitzle.apps.jobs.tasks.{kind}")
    if task is None:
        log.error("nobody knows how to do %s; is this version older than the database?", kind)
        return False
    try:
        task.apply_async(tuple(arguments), countdown=after_seconds)
    except OperationalError as error:
        log.warning("the queue cannot be reached: %s", error)
        return False
    return True


def subject_of(arguments: Iterable[Argument]) -> str:
    """What makes a job of a kind the same as another one."""
    return ":".join(str(argument) for argument in arguments)


def _want(kind: str, wanted: Iterable[tuple[Argument, ...]], after_seconds: float = 0.0) -> None:
    now = timezone.now()
    due = now + timedelta(seconds=after_seconds)
    jobs = [
        Job(
            kind=kind, subject=subject_of(arguments), arguments=list(arguments), wanted=uuid.uuid4().hex,
            wanted_at=now, due_at=due, sent_at=now, attempts=0,
        )
        for arguments in sorted(set(wanted))  # in one order, so that no two transactions wait for each other
    ]  # fmt: skip
    if not jobs:
        return
    Job.objects.bulk_create(
        jobs,
        update_conflicts=True,
        update_fields=["wanted", "wanted_at", "due_at", "sent_at", "attempts", "crashes", "message"],
        batch_size=500,
    )
    for job in jobs:
        transaction.on_commit(partial(send, kind, tuple(job.arguments), after_seconds))
