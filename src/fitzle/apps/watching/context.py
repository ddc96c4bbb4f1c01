"""What a line in the log belongs to: request or task, person and workspace, as ids and nothing else."""

from __future__ import annotations

import logging
from contextvars import ContextVar

Context = dict[str, str | int]
_context: ContextVar[Context | None] = ContextVar("fitzle_log_context", default=None)


def begin(**first: str | int) -> None:
    """Something new begins here: a request or a task."""
    _context.set(dict(first))


def note(**more: str | int | None) -> None:
    """Adds what has become known about what goes on; nothing where nothing has begun."""
    known = _context.get()
    if known is not None:
        known.update({name: value for name, value in more.items() if value is not None})


def known() -> Context:
    """What is known of what goes on."""
    return dict(_context.get() or {})


class ContextFilter(logging.Filter):
    """Gives each line what is known of what it belongs to."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Adds it; keeps every line."""
        for name, value in known().items():
            setattr(record, name, value)
        return True
