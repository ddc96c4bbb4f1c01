"""Registers the app with Django."""

from __future__ import annotations

from django.apps import AppConfig


class RehearsalConfig(AppConfig):
    """The rehearsal."""

    name = "fitzle.rehearsal"
    label = "rehearsal"
