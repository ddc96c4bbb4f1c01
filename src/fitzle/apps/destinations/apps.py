"""Registers the app with Django."""

from django.apps import AppConfig


class DestinationsConfig(AppConfig):
    name = "fitzle.apps.destinations"
    label = "destinations"
