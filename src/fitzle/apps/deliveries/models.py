"""The record: what was handed over when, for which placement, from which fit and rendition, and what is live."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models

WAITING, RUNNING, DONE, FAILED, CANCELLED = "waiting", "running", "done", "failed", "cancelled"


class Delivery(models.Model):
    """Files handed over together, by one way: saved as a ZIP, written into a `folder` of the server, or uploaded.

    `flat` puts all files into one folder. It is `waiting`, `running`, `done` or `cancelled`; each file has a state of
    its own.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True, default=None)
    state = models.CharField(max_length=10, default=DONE)
    way = models.CharField(max_length=10, default="zip")
    folder = models.CharField(max_length=120, blank=True, default="")
    flat = models.BooleanField(default=False)

    class Meta:
        ordering = ["-made_at"]


class DeliveredFile(models.Model):
    """One file: where it went, its name and folder, and the fit and rendition that it is of.

    The record stands by itself: it keeps names, sizes and the file key when its placement, fit or rendition go.
    `row` is that of a run. `muted` are the findings that it was handed over with: rule, message, reason and who gave
    it. `variant` says which of a place's files it is (empty: the file itself), `inside` that it is one of a set. One
    that waits may not know its bytes yet (`sha256` empty). `written` says what writing it into a folder came to,
    `answer` what the destination said. It is live from `live_at` until `down_at`.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    delivery = models.ForeignKey(Delivery, on_delete=models.CASCADE, related_name="files")
    placement = models.ForeignKey("destinations.Placement", null=True, on_delete=models.SET_NULL, related_name="+")
    fit = models.ForeignKey("pieces.Fit", null=True, on_delete=models.SET_NULL, related_name="+")
    rendition = models.ForeignKey("pieces.Rendition", null=True, on_delete=models.SET_NULL, related_name="+")
    destination_name = models.CharField(max_length=120)
    placement_name = models.CharField(max_length=120)
    file_key = models.CharField(max_length=32)
    folder = models.CharField(max_length=160)
    name = models.CharField(max_length=255)
    format = models.CharField(max_length=20)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    bytes = models.BigIntegerField()
    sha256 = models.CharField(max_length=64, blank=True)
    version = models.PositiveIntegerField(default=1)
    muted = models.JSONField(default=list)
    variant = models.CharField(max_length=20, blank=True, default="")
    inside = models.BooleanField(default=False)
    score = models.FloatField(null=True, default=None)
    subject = models.CharField(max_length=120, blank=True, default="")
    piece = models.UUIDField(null=True, default=None)
    row = models.CharField(max_length=40, blank=True, default="")
    piece_revision = models.PositiveIntegerField(default=1)
    sheet_revision = models.PositiveIntegerField(default=1)
    fields = models.JSONField(default=dict)
    state = models.CharField(max_length=10, default=DONE)
    message = models.TextField(blank=True, default="")
    written = models.CharField(max_length=10, blank=True, default="")
    answer = models.JSONField(default=dict)
    live_at = models.DateTimeField(null=True, default=None)
    down_at = models.DateTimeField(null=True, default=None)

    @property
    def path(self) -> str:
        """Its path in the ZIP or folder."""
        return f"{self.folder}/{self.name}" if self.folder else self.name

    class Meta:
        ordering = ["folder", "name"]
        indexes = [models.Index(fields=["delivery", "state"]), models.Index(fields=["placement", "state"])]
