"""Walking over everything that is kept, and telling what is lost or damaged."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from django.core.files.storage import default_storage

from fitzle.apps.files.keeping import is_whole, note_of
from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf, kept_path
from fitzle.apps.files.storage import UNFINISHED


class Damage(NamedTuple):
    """A file that is not as it was written; `lost` where there is nothing of it."""

    workspace_id: int
    shelf: Shelf
    key: str
    lost: bool

    @property
    def words(self) -> str:
        """For who runs the server: where it is and what is wrong."""
        path = kept_path(self.shelf, self.workspace_id, self.key)
        return f"{path}: {'is not there' if self.lost else 'is not as it was written'}"


def damaged_files() -> Iterator[Damage]:
    """Compares each kept file with its weight and hash."""
    for note in KeptFile.objects.order_by("workspace_id", "shelf", "key").iterator():
        if not is_whole(note, check=True):
            lost = not default_storage.exists(note.path)
            yield Damage(note.workspace_id, Shelf(note.shelf), note.key, lost)


def count_kept() -> int:
    """How many files are kept."""
    return KeptFile.objects.count()


def note_strangers() -> Iterator[str]:
    """Notes files from before there were notes; gives the paths of those that are not what their names say."""
    for shelf in Shelf:
        for workspace in _folders(shelf):
            for path, key in _files(f"{shelf}/{workspace}"):
                if key.startswith(UNFINISHED) or not workspace.isdigit():
                    continue
                if note_of(shelf, int(workspace), key) is None:
                    yield path


def _folders(path: str) -> list[str]:
    try:
        return sorted(default_storage.listdir(path)[0])
    except FileNotFoundError:
        return []


def _files(path: str) -> Iterator[tuple[str, str]]:
    for folder in _folders(path):
        for name in sorted(default_storage.listdir(f"{path}/{folder}")[1]):
            yield f"{path}/{folder}/{name}", name
