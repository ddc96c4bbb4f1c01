"""Pieces with their history, and fits: one piece in one placement."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class Piece(models.Model):
    """A piece. `revision` guards each save; `position` is where its history stands for undo and redo."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    document = models.JSONField()
    revision = models.PositiveIntegerField(default=1)
    position = models.PositiveIntegerField(default=0)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)


class PieceState(models.Model):
    """The document as it was at one step of the history; `step` names what was done to get there."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="states")
    position = models.PositiveIntegerField()
    document = models.JSONField()
    step = models.CharField(max_length=120)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["piece", "position"], name="one_state_each_step")]
        ordering = ["position"]


class PieceRevision(models.Model):
    """The document of each saved revision, so that a save made on an older one can be merged."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="revisions")
    revision = models.PositiveIntegerField()
    document = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["piece", "revision"], name="one_document_each_revision")]


class Fit(models.Model):
    """One piece in one placement; of several in one placement the one placed last stands on the wall.

    `result` is the file that was made last (or why none could be) for the state with the hash `result_key`.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="fits")
    placement = models.ForeignKey("destinations.Placement", on_delete=models.CASCADE, related_name="+")
    placed_at = models.DateTimeField()
    result_key = models.CharField(max_length=32, blank=True)
    result = models.JSONField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["piece", "placement"], name="one_fit_each")]
        ordering = ["placement__destination__position", "placement__position"]
