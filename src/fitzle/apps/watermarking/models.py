"""Batches of pictures that get a mark in their corner. They are no artwork: they pass through, and go after a while."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models

OPEN, WAITING, RUNNING, DONE, CANCELLED = "open", "waiting", "running", "done", "cancelled"
READING, READY, FAILED = "reading", "ready", "failed"  # of a picture, which may also be WAITING and DONE


class Watermarking(models.Model):
    """Pictures that get the same mark, in the same way; `stamp` is a core Stamp.

    It is `open` while pictures are added, then `waiting` for a worker, `running`, and `done` or `cancelled`. The files
    are saved as a ZIP, or written into a `folder` of the server.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True, default=None)
    state = models.CharField(max_length=10, default=OPEN)
    mark = models.ForeignKey("artwork.Artwork", null=True, on_delete=models.SET_NULL, related_name="+")
    stamp = models.JSONField(default=dict)
    keep_details = models.BooleanField(default=False)
    folder = models.CharField(max_length=120, blank=True, default="")

    class Meta:
        ordering = ["-made_at"]


class MarkedPicture(models.Model):
    """One picture or clip: what came (`original`, a SHA-256), and what was made of it.

    It is being read, `ready` to be marked, `waiting`, `done` or `failed`. `look` is a small PNG of it, by which
    `contrast` and `version` are foreseen until they are measured on the file. `attempts` counts the workers that began
    with it and did not come back.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    watermarking = models.ForeignKey(Watermarking, on_delete=models.CASCADE, related_name="pictures")
    position = models.PositiveIntegerField()
    name = models.CharField(max_length=255)
    original = models.CharField(max_length=64)
    original_bytes = models.BigIntegerField()
    state = models.CharField(max_length=10, default=READING)
    message = models.TextField(blank=True, default="")
    attempts = models.PositiveIntegerField(default=0)
    width = models.PositiveIntegerField(default=0)
    height = models.PositiveIntegerField(default=0)
    clip = models.BooleanField(default=False)
    look = models.BinaryField(default=b"")
    version = models.PositiveIntegerField(default=0)
    contrast = models.FloatField(null=True, default=None)
    sha256 = models.CharField(max_length=64, blank=True, default="")
    bytes = models.BigIntegerField(default=0)
    extension = models.CharField(max_length=8, blank=True, default="")

    class Meta:
        ordering = ["position", "id"]
        indexes = [models.Index(fields=["watermarking", "state"])]
