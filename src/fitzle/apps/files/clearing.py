"""Taking kept files away that nobody needs any more."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from datetime import datetime

from django.core.files.storage import default_storage
from django.db import transaction

from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf


def unneeded(
    workspace_id: int, shelf: Shelf, is_needed: Callable[[str], bool], kept_before: datetime
) -> Iterator[KeptFile]:
    """Files of a shelf that were kept, or asked to be kept again, before that and are not needed, by their keys."""
    found = KeptFile.objects.filter(workspace_id=workspace_id, shelf=shelf, kept_at__lt=kept_before)
    return (note for note in found.iterator() if not is_needed(note.key))


def take_away(note: KeptFile, kept_before: datetime) -> bool:
    """Takes a file away, note and all; False where somebody keeps the same file again at this moment.

    The note is locked until both are gone: who keeps the same bytes meanwhile waits, finds no note, and writes anew.
    """
    with transaction.atomic():
        locked = KeptFile.objects.select_for_update().filter(pk=note.pk, kept_at__lt=kept_before).first()
        if locked is None:
            return False
        default_storage.delete(locked.path)
        locked.delete()
    return True
