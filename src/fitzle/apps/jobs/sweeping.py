"""Sending again what is wanted and neither queued nor running: after a queue, a worker or a machine was lost."""

from __future__ import annotations

import logging
import threading
import time
from datetime import timedelta
from typing import Any

from celery import current_app
from django.conf import settings
from django.core.cache import cache
from django.db import connections
from django.db.utils import Error as DatabaseError
from django.utils import timezone
from kombu.exceptions import OperationalError
from redis.exceptions import RedisError

from fitzle.apps.accounts.access import all_workspaces
from fitzle.apps.accounts.workspaces import workspaces_to_erase
from fitzle.apps.jobs.models import Job
from fitzle.apps.jobs.queue import catch_up_later, clear_later, erase_later, send
from fitzle.core.engine import ENGINE, RULES_VERSION

log = logging.getLogger(__name__)
EVERY_SECONDS = 5.0
SENT_FOR = timedelta(seconds=10)  # so long a message may take from the commit into the queue
AT_ONCE = 200
DAILY_SECONDS, WEEKLY_SECONDS = 23 * 3600, 7 * 24 * 3600


def sweep() -> int:
    """Sends waiting jobs again where nothing is queued any more; gives how many."""
    now = timezone.now()
    Job.objects.exclude(owner="").filter(leased_until__lt=now).update(owner="", leased_until=None, sent_at=None)
    waiting = Job.objects.filter(owner="", due_at__lte=now).exclude(sent_at__gte=now - SENT_FOR).order_by("pk")
    jobs = list(waiting[:AT_ONCE])
    if not jobs or queued() > 0:
        return 0
    Job.objects.filter(pk__in=[job.pk for job in jobs]).update(sent_at=now)
    return sum(1 for job in jobs if send(job.kind, job.arguments))


def clear_daily() -> None:
    """Once a day, has taken away what nobody needs any more; whoever asks first does."""
    if cache.add("clearing/today", True, DAILY_SECONDS):
        clear_later(workspace.pk for workspace in all_workspaces())
        erase_later(workspaces_to_erase())


def catch_up_weekly() -> None:
    """After an upgrade that makes files or judges them otherwise, has that done; whoever asks first does.

    Once a week it is looked after all the same: what was never made although it should be is found so.
    """
    if cache.add(f"caught up/{ENGINE}/{RULES_VERSION}", True, WEEKLY_SECONDS):
        catch_up_later(workspace.pk for workspace in all_workspaces())


def queued() -> int:
    """How many messages wait in the queue."""
    with current_app.connection_for_read() as connection:
        channel: Any = connection.default_channel
        return sum(int(channel.queue_declare(queue=name).message_count) for name in settings.QUEUES)


def oldest_wait_seconds() -> float:
    """For how long the oldest job that is due has waited; 0 where none waits."""
    oldest = Job.objects.filter(owner="", due_at__lte=timezone.now()).order_by("due_at").first()
    return (timezone.now() - oldest.due_at).total_seconds() if oldest else 0.0


def sweep_for_ever() -> threading.Thread:
    """Sweeps in a thread of this process until it ends."""
    thread = threading.Thread(target=_sweeping, name="sweeper", daemon=True)
    thread.start()
    return thread


def _sweeping() -> None:
    while True:
        try:
            sweep()
            clear_daily()
            catch_up_weekly()
        except (DatabaseError, RedisError, OperationalError, OSError) as error:
            log.warning("what waits could not be looked through: %s", error)
        finally:
            connections.close_all()  # a child that is forked meanwhile must not inherit it
        time.sleep(EVERY_SECONDS)
