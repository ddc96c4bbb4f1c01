"""What a process may take, by the operating system's own limits: they hold inside libraries too."""

from __future__ import annotations

import ctypes
import resource
import signal
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager


def bound_memory(most_bytes: int) -> None:
    """Limits what this process may take from now on; stacks that are reserved and not used do not count."""
    unused = max(0, _memory_bytes("VmData") - _memory_bytes("VmRSS"))
    _, hard = resource.getrlimit(resource.RLIMIT_DATA)
    resource.setrlimit(resource.RLIMIT_DATA, (most_bytes + unused, hard))


def give_back_memory() -> None:
    """Gives the operating system what the C library holds for nobody; does nothing where it is not glibc's.

    Pictures of many sizes leave its heap full of holes, which it keeps for ever: `malloc_trim(3)`.
    """
    trim = getattr(ctypes.CDLL(None), "malloc_trim", None)
    if trim is not None:
        trim(0)


@contextmanager
def bounded_seconds(most: float) -> Iterator[None]:
    """Ends the process (SIGALRM) where what is inside takes longer; only for processes that may be lost.

    A Python handler would have to wait until a library gives the interpreter back, which a drawing that hangs never
    does: the kernel's default action waits for nobody.
    """
    before = signal.signal(signal.SIGALRM, signal.SIG_DFL)
    signal.setitimer(signal.ITIMER_REAL, most)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
        signal.signal(signal.SIGALRM, before)


class Allowance:
    """Seconds and bytes for all drawing of one run, in a process that may be lost; used with `with`, again and again.

    Where the time is up the process ends (SIGALRM). Beyond the bytes libraries get no memory: some raise MemoryError,
    others end the process.
    """

    def __init__(self, seconds: float, most_bytes: int) -> None:
        self._left, self._bytes = seconds, most_bytes
        self._open = ExitStack()

    def __enter__(self) -> None:
        self._began, self._limits = time.monotonic(), resource.getrlimit(resource.RLIMIT_DATA)
        bound_memory(self._bytes)
        self._open.enter_context(bounded_seconds(max(self._left, 0.001)))

    def __exit__(self, *_: object) -> None:
        self._open.close()
        resource.setrlimit(resource.RLIMIT_DATA, self._limits)
        self._left -= time.monotonic() - self._began


def _memory_bytes(name: str) -> int:
    with open("/proc/self/status", encoding="ascii") as lines:
        return next(int(line.split()[1]) * 1024 for line in lines if line.startswith(f"{name}:"))
