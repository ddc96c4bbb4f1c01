"""Registers the app with Django."""

from django.apps import AppConfig


class ArtworkConfig(AppConfig):
    name = "fitzle.apps.artwork"
    label = "artwork"
