"""Settings, addresses, Celery: the wiring."""

from fitzle.config.celery import app as celery_app

__all__ = ["celery_app"]
