"""Registers the app with Django."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    name = "fitzle.apps.jobs"
    label = "jobs"

    def ready(self) -> None:
        """Has the workers bounded, and the tasks known by name to every process that queues them."""
        from fitzle.apps.jobs import bounds, tasks  # noqa: F401
