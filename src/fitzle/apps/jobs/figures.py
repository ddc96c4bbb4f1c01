"""The table of jobs in a few figures, for people."""

from __future__ import annotations

from typing import NamedTuple

from django.utils import timezone

from fitzle.apps.jobs.models import Job

WHAT = {
    "take_in_artwork": "Artwork to read",
    "propose_clip_stills": "Clips to look through for stills",
    "learn_place": "Places to learn from screenshots",
    "make_costly": "Cut-outs and outlines to make",
    "make_prepared_file": "Prepared artwork to make",
    "make_fit_file": "Files to make for places",
    "look_at_rows": "Runs whose rows are to be looked at",
    "make_rows": "Runs whose files are to be made",
    "hand_over_files": "Deliveries to hand over",
    "mark_pictures": "Pictures to mark",
    "erase_workspace": "Deleted workspaces to take away",
    "send_mail": "Mails to send",
    "catch_up": "Workspaces to bring up to this version",
    "clear_away_unneeded": "Clearing away",
}


class JobsOfAKind(NamedTuple):
    """How many wait and run, since when the oldest is due, and what the last trouble with one was."""

    kind: str
    what: str
    waiting: int
    running: int
    seconds: int
    trouble: str


def jobs_by_kind() -> list[JobsOfAKind]:
    """Every kind that there is, those that nobody waits for too."""
    now, found = timezone.now(), []
    jobs = list(Job.objects.all())
    for kind, what in WHAT.items():
        own = [job for job in jobs if job.kind == kind]
        waiting = [job for job in own if not job.owner]
        oldest = max((int((now - job.due_at).total_seconds()) for job in waiting), default=0)
        trouble = next((job.message for job in own if job.message), "")
        found.append(JobsOfAKind(kind, what, len(waiting), len(own) - len(waiting), max(0, oldest), trouble))
    return found
