"""Destinations that Fitzle may upload to."""

from __future__ import annotations

from django.db import models


class Connection(models.Model):
    """How files get to a destination: the adapter, where it is, and what it is opened with.

    `secret` is sealed with the installation's own secret; it is never given out again.
    """

    destination = models.OneToOneField("destinations.Destination", on_delete=models.CASCADE, related_name="+")
    adapter = models.CharField(max_length=20)
    address = models.CharField(max_length=500)
    folder = models.CharField(max_length=300, blank=True, default="")
    account = models.CharField(max_length=200, blank=True, default="")
    secret = models.TextField(blank=True, default="")
    made_at = models.DateTimeField(auto_now_add=True)
