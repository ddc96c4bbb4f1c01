"""Sending work to the workers, always after the transaction that it depends on."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial
from uuid import UUID

from django.db import transaction

from fitzle.apps.jobs.tasks import make_costly, make_fit_file, take_in_artwork


def read_later(artwork_id: UUID) -> None:
    """Has an artwork read."""
    transaction.on_commit(partial(take_in_artwork.delay, str(artwork_id)))


def make_later(fit_ids: Iterable[UUID]) -> None:
    """Has the files of fits made."""
    for fit_id in fit_ids:
        transaction.on_commit(partial(make_fit_file.delay, str(fit_id)))


def prepare_later(artwork_id: UUID, revision: int) -> None:
    """Has the steps of an artwork made that a revision of its preparation has."""
    transaction.on_commit(partial(make_costly.delay, str(artwork_id), revision))
