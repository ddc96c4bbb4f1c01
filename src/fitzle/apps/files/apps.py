"""Registers the app with Django."""

from django.apps import AppConfig


class FilesConfig(AppConfig):
    name = "fitzle.apps.files"
    label = "files"
