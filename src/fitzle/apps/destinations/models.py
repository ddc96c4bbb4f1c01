"""Destinations are shelves, placements stand on them."""

from __future__ import annotations

import uuid
from datetime import timedelta
from functools import cached_property

from django.db import models
from django.utils import timezone

from fitzle.core.spec.sheet import SpecSheet

CHECKED_FOR = timedelta(days=365)


class Destination(models.Model):
    """A site or program where files are uploaded.

    `help_address` is the page that its figures came from, `checked_on` the day when somebody last compared them.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    name = models.CharField(max_length=120)
    position = models.PositiveIntegerField(default=0)
    note = models.TextField(blank=True, default="")
    help_address = models.CharField(max_length=500, blank=True, default="")
    checked_on = models.DateField(null=True, default=None)

    class Meta:
        ordering = ["position", "name"]

    @property
    def wants_checking(self) -> bool:
        """Whether its figures were compared more than a year ago."""
        return self.checked_on is not None and timezone.localdate() - self.checked_on > CHECKED_FOR


class Placement(models.Model):
    """One place that takes a file; `sheet` is its spec sheet as JSON.

    `unnoted_from` is the revision since which nobody has noted what changed, null where everybody knows.

    One that is put away stands on no shelf and takes nothing until it is brought back; its fits are kept.
    `handing` is how its files are handed over (core.handover.handing).
    `slug` names it in documents and on command lines for good, whatever it is called later; one in each workspace.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    destination = models.ForeignKey(Destination, on_delete=models.CASCADE, related_name="placements")
    slug = models.CharField(max_length=80)
    sheet = models.JSONField()
    position = models.PositiveIntegerField(default=0)
    put_away = models.BooleanField(default=False)
    revision = models.PositiveIntegerField(default=1)
    unnoted_from = models.PositiveIntegerField(null=True, default=None)
    handing = models.JSONField(default=dict)

    class Meta:
        ordering = ["position"]
        constraints = [models.UniqueConstraint(fields=["destination", "slug"], name="one_placement_each_slug")]

    @cached_property
    def spec(self) -> SpecSheet:
        """The spec sheet as a frozen document, with the placement's slug."""
        return SpecSheet.model_validate({**self.sheet, "slug": self.slug})


class EarlierSheet(models.Model):
    """A sheet that a placement had before, as revision `revision`, and who replaced it."""

    placement = models.ForeignKey(Placement, on_delete=models.CASCADE, related_name="earlier")
    revision = models.PositiveIntegerField()
    sheet = models.JSONField()
    replaced_by = models.ForeignKey("accounts.User", null=True, on_delete=models.SET_NULL, related_name="+")
    replaced_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-revision"]
        constraints = [models.UniqueConstraint(fields=["placement", "revision"], name="one_sheet_each_revision")]


class ShownScene(models.Model):
    """What somebody showed a place by: the part of a screenshot around the picture, as the scene that it is seen in.

    `picture` is a PNG at `density`; `box` is where the picture stands in it, in px of the page.
    """

    placement = models.OneToOneField(Placement, on_delete=models.CASCADE, related_name="shown_scene")
    picture = models.BinaryField()
    density = models.FloatField()
    box = models.JSONField()


class Learning(models.Model):
    """A place being learnt from a screenshot, for a day: what was shown, how far it is, and what came of it.

    `picture` and `screenshot` are keys of kept files; without a picture `box` is what somebody drew on the screenshot.
    `result` is what the core's learning found, null while it is under way.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    picture = models.CharField(max_length=64, blank=True)
    screenshot = models.CharField(max_length=64)
    name = models.CharField(max_length=120)
    density = models.FloatField(default=1.0)
    box = models.JSONField(null=True)
    progress = models.PositiveSmallIntegerField(default=0)
    message = models.TextField(blank=True)
    result = models.JSONField(null=True)
    created_at = models.DateTimeField(auto_now_add=True)
