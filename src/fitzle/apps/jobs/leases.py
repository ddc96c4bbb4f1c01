"""Who runs a job: one worker at a time, for as long as it lives and no longer than its time limit."""

from __future__ import annotations

import uuid
from collections.abc import Iterable
from datetime import timedelta
from typing import NamedTuple

from django.db import transaction
from django.db.models import F, Q
from django.utils import timezone

from fitzle.apps.jobs.models import Job
from fitzle.apps.jobs.queue import Argument, send, subject_of

MOST_ATTEMPTS = 10  # whole workers that died over one job before it is given up
MOST_CRASHES = 3  # processes that died over one job, on their own or by somebody's hand
GRACE = timedelta(seconds=20)  # after the time limit: by then the task was ended


class Lease(NamedTuple):
    """A job that is run now: by whom, and for which of its wishes."""

    pk: int
    owner: str
    wanted: str
    attempts: int

    @property
    def hopeless(self) -> bool:
        """Whether it has cost too many workers already."""
        return self.attempts > MOST_ATTEMPTS


_node = "here"


def begin_as(node: str) -> None:
    """Names this worker; its children inherit the name. What an earlier worker of that name held is free again."""
    global _node  # noqa: PLW0603
    _node = node
    Job.objects.filter(owner__startswith=f"{node}/").update(owner="", leased_until=None, sent_at=None)


def take(kind: str, arguments: Iterable[Argument], limit_seconds: float) -> Lease | None:
    """Leases a job; None where it is done already or somebody else runs it."""
    now, owner = timezone.now(), f"{_node}/{uuid.uuid4().hex}"
    free = Q(owner="") | Q(leased_until__lt=now)
    taken = Job.objects.filter(free, kind=kind, subject=subject_of(arguments)).update(
        owner=owner, leased_until=now + timedelta(seconds=limit_seconds) + GRACE, attempts=F("attempts") + 1
    )
    if not taken:
        return None
    job = Job.objects.filter(owner=owner).first()
    return Lease(job.pk, owner, job.wanted, job.attempts) if job else None


def finish(lease: Lease) -> None:
    """Ends a job, or has it run once more where it was wanted again meanwhile."""
    with transaction.atomic():
        if Job.objects.filter(pk=lease.pk, owner=lease.owner, wanted=lease.wanted).delete()[0]:
            return
        job = Job.objects.select_for_update().filter(pk=lease.pk, owner=lease.owner).first()
        if job is None:
            return
        job.owner, job.leased_until, job.sent_at = "", None, timezone.now()
        job.save()
        transaction.on_commit(lambda: send(job.kind, job.arguments) or None)


def put_off(lease: Lease, message: str, seconds: float) -> None:
    """Gives a job back, to be tried again later; `message` says what it waits for. That is no attempt that failed."""
    Job.objects.filter(pk=lease.pk, owner=lease.owner).update(
        owner="", leased_until=None, sent_at=None, due_at=timezone.now() + timedelta(seconds=seconds),
        attempts=0, message=message,
    )  # fmt: skip


def try_again(kind: str, arguments: tuple[Argument, ...]) -> bool:
    """Gives back a job whose process died: somebody may have ended it, or the job itself did. False after the third."""
    jobs = Job.objects.filter(kind=kind, subject=subject_of(arguments))
    if not jobs.filter(crashes__lt=MOST_CRASHES - 1).update(
        owner="", leased_until=None, sent_at=timezone.now(), crashes=F("crashes") + 1
    ):
        return False
    send(kind, arguments)
    return True


def release_all() -> None:
    """Frees all jobs: nobody of those who ran them is there any more."""
    Job.objects.update(owner="", leased_until=None, sent_at=None)


def end(kind: str, arguments: Iterable[Argument]) -> None:
    """Ends a job whose worker was ended over it."""
    Job.objects.filter(kind=kind, subject=subject_of(arguments)).delete()
