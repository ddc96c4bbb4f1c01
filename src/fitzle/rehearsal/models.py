"""What was uploaded, and what goes wrong on purpose."""

from __future__ import annotations

from django.db import models


class Upload(models.Model):
    """A picture that was taken: as it came, and as the destination shows it. `key` is the uploader's, once each."""

    place = models.CharField(max_length=40)
    slot = models.PositiveIntegerField()
    key = models.CharField(max_length=80, blank=True)
    name = models.CharField(max_length=255)
    fields = models.JSONField(default=dict)
    came = models.BinaryField()
    shown = models.BinaryField()
    media_type = models.CharField(max_length=40)
    taken_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """Where it belongs."""

        app_label = "rehearsal"
        indexes = [models.Index(fields=["place", "slot"])]
        constraints = [
            models.UniqueConstraint(fields=["place", "key"], condition=~models.Q(key=""), name="each_key_once")
        ]


class Fault(models.Model):
    """What goes wrong at a place (`*`: everywhere): `value` says how much, `left` how often (None: until ended)."""

    place = models.CharField(max_length=40)
    kind = models.CharField(max_length=10)
    value = models.FloatField(default=0)
    left = models.IntegerField(null=True, default=None)

    class Meta:
        """Where it belongs."""

        app_label = "rehearsal"
