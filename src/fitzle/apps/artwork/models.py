"""Artwork as it is kept: the original under its hash, what it really is, how it is prepared, where it comes from."""

from __future__ import annotations

import uuid
from collections.abc import Iterable
from typing import Any, NamedTuple

from django.conf import settings
from django.db import models

from fitzle.apps.history import HistoryStep
from fitzle.core.artwork.steps.document import NOT_PREPARED

MOST_TAGS, LONGEST_TAG = 20, 40
FOUND_BY = frozenset({"name", "tags", "facts"})  # what `kind` and `said` are taken from
SHOWN_FROM = 40  # percent of the reading: from there on the picture can be shown


def plain_tags(tags: Iterable[str]) -> list[str]:
    """Tags as they are kept: without needless space, none twice, none empty, not too long and not too many."""
    plain = (" ".join(tag.split())[:LONGEST_TAG] for tag in tags)
    return list(dict.fromkeys(tag for tag in plain if tag))[:MOST_TAGS]


class State(models.TextChoices):
    """How far an artwork has come."""

    QUEUED = "queued"
    READING = "reading"
    READY = "ready"
    FAILED = "failed"


class Content(NamedTuple):
    """A file that stands for an artwork: the original, or what its preparation made."""

    sha256: str
    facts: dict[str, Any]
    working_format: str
    is_original: bool


class Artwork(models.Model):
    """One file that was brought in. `targets` are the places that still wait for it; ["suited"] for all that it suits.

    `parent` and `origin` say what it was taken from: {"still": seconds}, {"loop": a cut of it}, {"page": number},
    {"glyph": name} or {"web": address}.
    `prepared` is what its preparation made: {"sha256", "bytes", "facts", "working_format"}, null for nothing.
    `earlier` are the files that it was before it was replaced: [{"sha256", "name", "bytes", "at"}], the last one last.
    `version_of` is the mark that this one is a version of, for other grounds; which of them stands where is calculated.
    `put_away` hides it where artwork is chosen; nothing is deleted, and what shows it goes on.
    `kind` and `said` (name, tags, kind and format in small letters) are taken from the other fields, to be found by.
    `likeness` is a hash of how it looks; pictures of the same thing differ in few bits of it.
    """

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
    prepared = models.JSONField(null=True)
    parent = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="children")
    version_of = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="versions")
    origin = models.JSONField(default=dict)
    put_away = models.BooleanField(default=False)
    tags = models.JSONField(default=list)
    likeness = models.CharField(max_length=16, blank=True)
    kind = models.CharField(max_length=10, blank=True, default="")
    said = models.TextField(blank=True, default="")
    earlier = models.JSONField(default=list)
    targets = models.JSONField(default=list)
    created_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        indexes = [
            models.Index(fields=["workspace", "sha256"]),
            models.Index(fields=["workspace", "created_at"]),
            models.Index(fields=["workspace", "kind", "created_at"]),
        ]
        ordering = ["-created_at"]

    def save(self, *args: Any, **kwargs: Any) -> None:
        """Saves it with what it is found by."""
        facts = self.facts if isinstance(self.facts, dict) else {}
        self.kind = str(facts.get("kind", ""))[:10]
        self.said = " ".join([self.name, *self.tags, self.kind, str(facts.get("format", ""))]).lower()
        fields = kwargs.get("update_fields")
        if fields is not None and FOUND_BY.intersection(fields):
            kwargs["update_fields"] = [*fields, "kind", "said"]
        super().save(*args, **kwargs)

    @property
    def visible(self) -> bool:
        """Whether there is a picture of it: once it is ready, and before that as soon as it could be opened."""
        if self.state == State.READY:
            return str(self.known_facts["format"]) != "lottie" or bool(self.working_format)
        return self.state == State.READING and self.progress >= SHOWN_FROM

    @property
    def known_facts(self) -> dict[str, Any]:
        """What reading found in the original; only for artwork that was read."""
        assert self.facts is not None, "this artwork is not read yet"  # a fault of the caller's
        found: dict[str, Any] = self.facts
        return found

    @property
    def content(self) -> Content:
        """The file that stands for it now; only for artwork that is ready."""
        if self.prepared:
            return Content(self.prepared["sha256"], self.prepared["facts"], self.prepared["working_format"], False)
        return Content(self.sha256, self.facts or {}, self.working_format, True)


def _not_prepared() -> dict[str, Any]:
    return NOT_PREPARED.model_dump(mode="json")


class Preparation(models.Model):
    """The steps of one artwork. `made` is the revision that the artwork's prepared file belongs to."""

    artwork = models.OneToOneField(Artwork, on_delete=models.CASCADE, related_name="preparation")
    document = models.JSONField(default=_not_prepared)
    revision = models.PositiveIntegerField(default=0)
    position = models.PositiveIntegerField(default=0)
    made = models.PositiveIntegerField(default=0)
    progress = models.PositiveSmallIntegerField(default=100)
    message = models.TextField(blank=True)
    changed_at = models.DateTimeField(auto_now=True)


class PreparationState(HistoryStep):
    """One step of a preparation's history."""

    preparation = models.ForeignKey(Preparation, on_delete=models.CASCADE, related_name="states")

    class Meta(HistoryStep.Meta):
        constraints = [
            models.UniqueConstraint(fields=["preparation", "position"], name="one_preparation_state_each"),
            models.UniqueConstraint(fields=["preparation", "key"], name="each_preparation_save_once"),
        ]
