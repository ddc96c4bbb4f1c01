"""What a task may take: memory by the operating system's own limit, time by Celery's.

Within the limit a task ends with MemoryError and the process lives on. A library that ends the process instead, or a
call that does not come back before the hard time limit, costs the process: the pool starts another one, and what the
task left is ended in the parent (tasks.end_what_it_left).
"""

from __future__ import annotations

import resource
from collections.abc import Callable
from typing import Any

from celery import Task, shared_task
from celery.signals import worker_process_init
from django.conf import settings


class OutOfMemory(Exception):
    """Stands for MemoryError, which Celery's parent process would take for its own."""


class BoundedTask(Task[Any, Any]):
    """A task whose lack of memory is its own failure only; `memory_bytes` is what it may take in a worker."""

    abstract = True
    memory_bytes = settings.WORKER_FILE_BYTES
    in_a_worker = False

    def __call__(self, *args: Any, **kwargs: Any) -> Any:
        if BoundedTask.in_a_worker:
            bound_memory(self.memory_bytes)
        try:
            return super().__call__(*args, **kwargs)
        except MemoryError as error:
            raise OutOfMemory(self.name) from error


def bounded_task(
    memory_bytes: int = settings.WORKER_FILE_BYTES, **options: Any
) -> Callable[[Callable[..., Any]], BoundedTask]:
    """Makes a function a task that may take so much memory; options are Celery's."""
    return shared_task(base=BoundedTask, memory_bytes=memory_bytes, **options)


@worker_process_init.connect
def begin(**_: Any) -> None:
    """From here on tasks of this process are bounded; where they run in the pages' or a test's process they are not."""
    BoundedTask.in_a_worker = True


def bound_memory(most_bytes: int) -> None:
    """Limits what this process may take from now on; stacks that are reserved and not used do not count."""
    unused = max(0, _memory_bytes("VmData") - _memory_bytes("VmRSS"))
    _, hard = resource.getrlimit(resource.RLIMIT_DATA)
    resource.setrlimit(resource.RLIMIT_DATA, (most_bytes + unused, hard))


def _memory_bytes(name: str) -> int:
    with open("/proc/self/status", encoding="ascii") as lines:
        return next(int(line.split()[1]) * 1024 for line in lines if line.startswith(f"{name}:"))
