"""What memory a process may take, by the operating system's own limit."""

from __future__ import annotations

import resource


def bound_memory(most_bytes: int) -> None:
    """Limits what this process may take from now on; stacks that are reserved and not used do not count."""
    unused = max(0, _memory_bytes("VmData") - _memory_bytes("VmRSS"))
    _, hard = resource.getrlimit(resource.RLIMIT_DATA)
    resource.setrlimit(resource.RLIMIT_DATA, (most_bytes + unused, hard))


def _memory_bytes(name: str) -> int:
    with open("/proc/self/status", encoding="ascii") as lines:
        return next(int(line.split()[1]) * 1024 for line in lines if line.startswith(f"{name}:"))
