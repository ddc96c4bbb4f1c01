"""Registers the app with Django."""

from django.apps import AppConfig


class PiecesConfig(AppConfig):
    name = "fitzle.apps.pieces"
    label = "pieces"
