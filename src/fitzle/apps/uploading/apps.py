"""Registers the app with Django."""

from django.apps import AppConfig


class UploadingConfig(AppConfig):
    name = "fitzle.apps.uploading"
    label = "uploading"
