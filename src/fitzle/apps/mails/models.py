"""Mails that wait to be sent."""

from __future__ import annotations

from django.db import models


class WaitingMail(models.Model):
    """One mail to one or more people, until it is sent.

    `tries` are those that failed; `trouble` is what the mail server said of the last one.
    """

    sender = models.CharField(max_length=320)
    to = models.JSONField()
    subject = models.CharField(max_length=998)  # RFC 5322, 2.1.1: the most that a line may have
    body = models.TextField()
    wanted_at = models.DateTimeField(auto_now_add=True)
    tries = models.PositiveSmallIntegerField(default=0)
    trouble = models.CharField(max_length=300, blank=True, default="")
