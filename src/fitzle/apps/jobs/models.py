"""What is to be made. The database knows it; the queue only tells the workers to look."""

from __future__ import annotations

from django.db import models


class Job(models.Model):
    """One thing that somebody waits for, from the transaction that wants it until it is done.

    `wanted` changes each time it is wanted again, so that a job that was wanted anew while it ran runs once more.
    `owner` is the lease of the worker that runs it; empty while it waits. A lease ends at `leased_until`.
    `attempts` are leases that were taken, `crashes` those of them whose process died.
    """

    kind = models.CharField(max_length=40)
    subject = models.CharField(max_length=80)
    arguments = models.JSONField()
    wanted = models.CharField(max_length=32)
    wanted_at = models.DateTimeField()
    due_at = models.DateTimeField()
    sent_at = models.DateTimeField(null=True)
    owner = models.CharField(max_length=120, blank=True, default="")
    leased_until = models.DateTimeField(null=True)
    attempts = models.PositiveSmallIntegerField(default=0)
    crashes = models.PositiveSmallIntegerField(default=0)
    message = models.TextField(blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["kind", "subject"], name="one_job_each_subject")]
        indexes = [models.Index(fields=["owner", "due_at"])]
