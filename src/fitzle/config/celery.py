"""The Celery application: `celery -A fitzle.config.celery worker`."""

import os

from celery import Celery

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")
# Django's checks load the whole API, 45 MB that no worker needs; `manage.py migrate` has run them before it starts.
os.environ.setdefault("CELERY_SKIP_CHECKS", "1")
app = Celery("fitzle", task_cls="fitzle.apps.jobs.bounds:BoundedTask")
app.config_from_object("django.conf:settings", namespace="CELERY")
app.autodiscover_tasks(["fitzle.apps.jobs"])
app.set_default()
