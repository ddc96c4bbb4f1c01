"""Registers the app with Django."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    name = "fitzle.apps.jobs"
    label = "jobs"

    def ready(self) -> None:
        """Has the workers bounded."""
        from fitzle.apps.jobs import bounds  # noqa: F401
