"""Sending work to the workers, always after the transaction that it depends on.

Tasks are named, not imported: they call the apps, and the apps' actions queue them.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial
from uuid import UUID

from celery import current_app
from django.db import transaction


def read_later(artwork_id: UUID) -> None:
    """Has an artwork read."""
    _after_commit("take_in_artwork", str(artwork_id))


def make_later(fit_ids: Iterable[UUID], after_seconds: float = 0.0) -> None:
    """Has the files of fits made and judged, so many seconds after the commit."""
    for fit_id in fit_ids:
        _after_commit("make_fit_file", str(fit_id), after_seconds=after_seconds)


def prepare_later(artwork_id: UUID, revision: int) -> None:
    """Has the steps of an artwork made that a revision of its preparation has."""
    _after_commit("make_costly", str(artwork_id), revision)


def _after_commit(task: str, *arguments: str | int, after_seconds: float = 0.0) -> None:
    transaction.on_commit(partial(_send, f"fitzle.apps.jobs.tasks.{task}", arguments, after_seconds))


def _send(name: str, arguments: tuple[str | int, ...], after_seconds: float) -> None:
    current_app.tasks[name].apply_async(arguments, countdown=after_seconds)
