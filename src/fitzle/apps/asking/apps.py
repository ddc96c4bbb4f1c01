"""Registers the app with Django."""

from django.apps import AppConfig


class AskingConfig(AppConfig):
    name = "fitzle.apps.asking"
    label = "asking"
