"""Questions with the pictures that people choose from, and their votes."""

from __future__ import annotations

import uuid

from django.db import models


class Question(models.Model):
    """Which of several takes people like better, in one scene.

    The token of its link is all that anybody needs to answer; `closed_at` is when somebody ended it before
    `ends_at`. The pictures are kept with it: what people vote on does not change any more.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    piece = models.ForeignKey("pieces.Piece", on_delete=models.CASCADE, related_name="+")
    placement = models.ForeignKey("destinations.Placement", on_delete=models.CASCADE, related_name="+")
    token = models.CharField(max_length=64, unique=True)
    scene = models.CharField(max_length=120)
    asked_by = models.ForeignKey("accounts.User", null=True, on_delete=models.SET_NULL, related_name="+")
    asked_at = models.DateTimeField(auto_now_add=True)
    ends_at = models.DateTimeField()
    closed_at = models.DateTimeField(null=True, default=None)

    class Meta:
        ordering = ["-asked_at"]
        indexes = [models.Index(fields=["piece", "placement"])]


class Option(models.Model):
    """One of the takes; `key` names it to those who answer, and says nothing of which take it is."""

    question = models.ForeignKey(Question, on_delete=models.CASCADE, related_name="options")
    take = models.CharField(max_length=40, blank=True)
    key = models.CharField(max_length=16)
    picture = models.BinaryField()

    class Meta:
        ordering = ["take"]
        constraints = [models.UniqueConstraint(fields=["question", "key"], name="one_option_each_key")]


class Vote(models.Model):
    """What one person chose, and why in a line. `voter` is a number that only their browser knows."""

    question = models.ForeignKey(Question, on_delete=models.CASCADE, related_name="votes")
    option = models.ForeignKey(Option, on_delete=models.CASCADE, related_name="votes")
    voter = models.CharField(max_length=40)
    why = models.CharField(max_length=200, blank=True)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["made_at"]
        constraints = [models.UniqueConstraint(fields=["question", "voter"], name="one_vote_each_person")]
