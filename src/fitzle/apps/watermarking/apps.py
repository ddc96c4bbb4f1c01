"""Registers the app with Django."""

from django.apps import AppConfig


class WatermarkingConfig(AppConfig):
    name = "fitzle.apps.watermarking"
    label = "watermarking"
