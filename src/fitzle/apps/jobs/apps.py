"""Registers the app with Django."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    name = "fitzle.apps.jobs"
    label = "jobs"
