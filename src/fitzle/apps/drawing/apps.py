"""Registers the app with Django."""

from django.apps import AppConfig


class DrawingConfig(AppConfig):
    name = "fitzle.apps.drawing"
    label = "drawing"
