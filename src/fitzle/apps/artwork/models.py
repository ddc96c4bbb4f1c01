"""Artwork as it is kept: the original under its hash, what it really is, and how far reading it has come."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class State(models.TextChoices):
    """How far an artwork has come."""

    QUEUED = "queued"
    READING = "reading"
    READY = "ready"
    FAILED = "failed"


class Artwork(models.Model):
    """One file that was brought in. `fills` are the places that still wait for it; ["suited"] for all that it suits."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    name = models.CharField(max_length=255)
    sha256 = models.CharField(max_length=64)
    bytes = models.BigIntegerField()
    state = models.CharField(max_length=10, choices=State, default=State.QUEUED)
    progress = models.PositiveSmallIntegerField(default=0)
    message = models.TextField(blank=True)
    facts = models.JSONField(null=True)
    working_format = models.CharField(max_length=10, blank=True)
    fills = models.JSONField(default=list)
    created_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        indexes = [models.Index(fields=["workspace", "sha256"])]
        ordering = ["-created_at"]
