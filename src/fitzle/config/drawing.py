"""The entrance of the drawing service for gunicorn, and its settings (`gunicorn -c` reads this file too)."""

import os
import signal

from fitzle.core.bounds import bound_memory

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")
os.environ["FITZLE_DRAWING"] = ""  # what is drawn here is drawn here

preload_app = True
worker_class = "sync"
# Two for each processor: one that draws for eight seconds in vain holds up half as many others (benchmarks/load.py).
workers = int(os.environ.get("FITZLE_DRAWING_PROCESSES") or 2 * (os.cpu_count() or 1))
max_requests, max_requests_jitter = 500, 50
timeout = 60  # a process that does not come back to gunicorn at all; drawings have bounds of their own
loglevel = "warning"


def post_fork(_server: object, _worker: object) -> None:
    """Bounds a process before it draws anything, and lets it end with the one that made it."""
    import ctypes

    from django.conf import settings
    from django.db import connections

    ctypes.CDLL(None).prctl(1, signal.SIGKILL)  # PR_SET_PDEATHSIG
    connections.close_all()
    bound_memory(settings.DRAWING_BYTES)
