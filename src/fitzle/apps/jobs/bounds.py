"""What a task may take: memory by the operating system's own limit, time by Celery's.

Within the limit a task ends with MemoryError and the process lives on. A library that ends the process instead, or a
call that does not come back before the hard time limit, costs the process: the pool starts another one, and what the
task left is ended in the parent (tasks.end_what_it_left).
"""

from __future__ import annotations

import gc
import logging
import time
from collections.abc import Callable
from typing import Any, TypeVar

from celery import Task, shared_task
from celery.signals import worker_init, worker_process_init, worker_ready
from django.conf import settings
from django.db import InterfaceError, OperationalError, close_old_connections, connections

from fitzle.apps.artwork.library import remember_less
from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.jobs import leases
from fitzle.apps.jobs.later import Later
from fitzle.apps.jobs.sweeping import sweep_for_ever
from fitzle.apps.watching.context import begin
from fitzle.core.bounds import bound_memory, give_back_memory

log = logging.getLogger(__name__)
Result = TypeVar("Result")
FULL_PAUSE_SECONDS, AWAY_PAUSE_SECONDS = 30.0, 2.0
DATABASE_PAUSES_SECONDS = (1, 1, 2, 3, 5, 8)


class WorkersLost(Exception):
    """A job over which whole workers died, again and again."""


class OutOfMemory(Exception):
    """Stands for MemoryError, which Celery's parent process would take for its own."""


class BoundedTask(Task[Any, Any]):
    """A task that runs while it holds the lease of its job; its lack of memory is its own failure only.

    `memory_bytes` is what it may take in a worker. Where the disk is full or the database away, the job waits.
    """

    abstract = True
    memory_bytes = settings.WORKER_FILE_BYTES
    in_a_worker = False

    def __call__(self, *args: Any, **kwargs: Any) -> Any:
        if BoundedTask.in_a_worker:
            begin(task=str(self.request.id or ""), kind=self.kind)
        lease = _patiently(lambda: leases.take(self.kind, args, self.time_limit or settings.CELERY_TASK_TIME_LIMIT))
        if lease is None:
            return None  # done already, or run by another worker
        if lease.hopeless:
            raise WorkersLost(self.name)
        if BoundedTask.in_a_worker:
            bound_memory(self.memory_bytes)
        try:
            self._run(args, kwargs)
        except MemoryError as error:
            raise OutOfMemory(self.name) from error
        except StorageFullError as error:
            words = error.message
            _patiently(lambda: leases.put_off(lease, words, FULL_PAUSE_SECONDS))
        except Later as later:
            words, pause = later.words, later.seconds
            _patiently(lambda: leases.put_off(lease, words, pause))
        except (OperationalError, InterfaceError):
            log.exception("the database was away from %s", self.name)
            _patiently(lambda: leases.put_off(lease, "", AWAY_PAUSE_SECONDS))
        else:
            _patiently(lambda: leases.finish(lease))
        return None

    def _run(self, args: tuple[Any, ...], kwargs: dict[str, Any]) -> None:
        try:
            super().__call__(*args, **kwargs)
        finally:
            if BoundedTask.in_a_worker:
                give_back_memory()

    @property
    def kind(self) -> str:
        """What jobs of this task are called."""
        return str(self.name).rpartition(".")[2]


def _patiently(step: Callable[[], Result]) -> Result | None:
    """Does a step with the table of jobs, and waits for the database where it is away; None where it stays away.

    The lease then runs out by itself.
    """
    for pause in DATABASE_PAUSES_SECONDS:
        try:
            return step()
        except (OperationalError, InterfaceError) as error:
            if not BoundedTask.in_a_worker:
                raise
            log.warning("the database is away: %s", error)
            time.sleep(pause)
            close_old_connections()
    return None


def bounded_task(
    memory_bytes: int = settings.WORKER_FILE_BYTES, **options: Any
) -> Callable[[Callable[..., Any]], BoundedTask]:
    """Makes a function a task that may take so much memory; options are Celery's."""
    return shared_task(base=BoundedTask, memory_bytes=memory_bytes, **options)


@worker_init.connect
def begin_worker(sender: Any = None, **_: Any) -> None:
    """Takes over what an earlier worker of the same name left in the middle."""
    leases.begin_as(f"{settings.NODE}:{getattr(sender, 'hostname', '')}"[:80])
    connections.close_all()  # its children must not inherit it
    gc.freeze()  # a collection of a child would write to each object, and the page it lies in would be shared no more


@worker_ready.connect
def watch(**_: Any) -> None:
    """Looks from now on for what was lost with a queue."""
    sweep_for_ever()


@worker_process_init.connect
def begin_child(**_: Any) -> None:
    """From here on tasks of this process are bounded; where they run in the pages' or a test's process they are not."""
    BoundedTask.in_a_worker = True
    remember_less()
