"""The record: what was handed over when, for which placement, from which fit and rendition."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class Delivery(models.Model):
    """Files handed over together."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]


class DeliveredFile(models.Model):
    """One file: where it went, its name and folder, and the fit and rendition that it is of.

    The record stands by itself: it keeps names, sizes and the file key when its placement, fit or rendition go.
    `muted` are the findings that it was handed over with: rule, message, reason and who gave it.
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
    format = models.CharField(max_length=10)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    bytes = models.BigIntegerField()
    sha256 = models.CharField(max_length=64)
    version = models.PositiveIntegerField(default=1)
    muted = models.JSONField(default=list)

    class Meta:
        ordering = ["folder", "name"]
