"""What a task may take: memory by the operating system's own limit, time by Celery's.

Within the limit a task ends with MemoryError and the process lives on. A library that ends the process instead, or a
call that does not come back before the hard time limit, costs the process: the pool starts another one, and what the
task left is ended in the parent (tasks.end_what_it_left).
"""

from __future__ import annotations

import resource
from typing import Any

from celery import Task
from celery.signals import worker_process_init
from django.conf import settings


class OutOfMemory(Exception):
    """Stands for MemoryError, which Celery's parent process would take for its own."""


class BoundedTask(Task):
    """A task whose lack of memory is its own failure only."""

    abstract = True

    def __call__(self, *args: Any, **kwargs: Any) -> Any:
        try:
            return super().__call__(*args, **kwargs)
        except MemoryError as error:
            raise OutOfMemory(self.name) from error


@worker_process_init.connect
def bound_memory(**_: Any) -> None:
    """Limits what this process may take to WORKER_LIMIT_BYTES; stacks that are reserved and not used do not count."""
    used, reserved = _memory_bytes("VmRSS"), _memory_bytes("VmData")
    most = settings.WORKER_LIMIT_BYTES + max(0, reserved - used)
    resource.setrlimit(resource.RLIMIT_DATA, (most, most))


def _memory_bytes(name: str) -> int:
    with open("/proc/self/status", encoding="ascii") as lines:
        return next(int(line.split()[1]) * 1024 for line in lines if line.startswith(f"{name}:"))
