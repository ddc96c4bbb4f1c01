"""The one way to keep a file and to read it again.

What is written is noted in the database once the storage has all of it. What is read is compared with that note: its
weight always, its hash where a file leaves the house.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from tempfile import SpooledTemporaryFile
from typing import IO, Any

from django.core.files.base import ContentFile, File
from django.core.files.storage import default_storage
from django.utils import timezone

from fitzle.apps.files.errors import DamagedFileError, StorageFullError, is_full
from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf, kept_path

IN_MEMORY_BYTES = 5_000_000
CHUNK_BYTES = 1_000_000
BY_CONTENT = (Shelf.ORIGINALS, Shelf.MADE)


def keep(shelf: Shelf, workspace_id: int, key: str, data: bytes) -> None:
    """Keeps something under its key; raises StorageFullError where there is no room."""
    sha256 = hashlib.sha256(data).hexdigest()
    _keep_once(KeptFile(workspace_id=workspace_id, shelf=shelf, key=key, bytes=len(data), sha256=sha256), data)


def keep_by_content(shelf: Shelf, workspace_id: int, chunks: Iterable[bytes]) -> tuple[str, int]:
    """Keeps bytes under their SHA-256; gives that and their count."""
    digest, count = hashlib.sha256(), 0
    with _room_or_words(), SpooledTemporaryFile(max_size=IN_MEMORY_BYTES) as spool:
        for chunk in chunks:
            digest.update(chunk)
            count += len(chunk)
            spool.write(chunk)
        sha256 = digest.hexdigest()
        spool.seek(0)
        _keep_once(KeptFile(workspace_id=workspace_id, shelf=shelf, key=sha256, bytes=count, sha256=sha256), spool)
    return sha256, count


def read(shelf: Shelf, workspace_id: int, key: str, *, check: bool = False) -> bytes | None:
    """All bytes; None where it is not there, or not as it was written. `check` compares the hash as well."""
    note = note_of(shelf, workspace_id, key)
    try:
        with _opened(note) as file:
            data = bytes(file.read())
    except (FileNotFoundError, DamagedFileError):
        return None
    whole = note is not None and (not check or hashlib.sha256(data).hexdigest() == note.sha256)
    return data if whole else None


def first_bytes(shelf: Shelf, workspace_id: int, key: str, count: int) -> bytes:
    """The beginning of a file; nothing where it is not there or damaged."""
    try:
        with open_checked(shelf, workspace_id, key) as file:
            return bytes(file.read(count))
    except (FileNotFoundError, DamagedFileError):
        return b""


def open_checked(shelf: Shelf, workspace_id: int, key: str, *, check: bool = False) -> File[Any]:
    """A kept file to read from; `check` reads it through once and compares its hash.

    Raises FileNotFoundError, or DamagedFileError where it is not what was written.
    """
    note = note_of(shelf, workspace_id, key)
    file = _opened(note)
    if check and note and hash_of(file) != note.sha256:
        file.close()
        raise _damaged()
    return file


def _opened(note: KeptFile | None) -> File[Any]:
    if note is None:
        raise FileNotFoundError("this file was never kept")
    file = default_storage.open(note.path)
    if file.size != note.bytes:
        file.close()
        raise _damaged()
    return file


def _damaged() -> DamagedFileError:
    return DamagedFileError("a kept file is not as it was written any more", advice="It has to be made anew.")


def kept_files() -> Iterator[KeptFile]:
    """Everything that is kept, one after the other."""
    return KeptFile.objects.order_by("workspace_id", "shelf", "key").iterator()


def store_again(note: KeptFile, content: File[Any]) -> bool:
    """Writes the bytes of a file that is noted already; False, and nothing is written, where they are not its own."""
    if hash_of(content) != note.sha256:
        return False
    if not is_whole(note, check=True):
        with _room_or_words():
            default_storage.save(note.path, content)
    return True


def forget(shelf: Shelf, workspace_id: int, key: str) -> None:
    """Takes a file away, note and all."""
    KeptFile.objects.filter(workspace_id=workspace_id, shelf=shelf, key=key).delete()
    default_storage.delete(kept_path(shelf, workspace_id, key))


def forget_all(workspace_id: int) -> None:
    """Takes away every file of a workspace."""
    for note in KeptFile.objects.filter(workspace_id=workspace_id).iterator():
        default_storage.delete(note.path)
        note.delete()


def is_whole(note: KeptFile, *, check: bool = False) -> bool:
    """Whether the storage has a file as it was noted, by its weight; `check` compares the hash as well."""
    if not default_storage.exists(note.path) or default_storage.size(note.path) != note.bytes:
        return False
    if not check:
        return True
    with default_storage.open(note.path) as file:
        return hash_of(file) == note.sha256


def note_of(shelf: Shelf, workspace_id: int, key: str) -> KeptFile | None:
    """What is known of a file; one from before there were notes is noted now, if it is what its name says."""
    found = KeptFile.objects.filter(workspace_id=workspace_id, shelf=shelf, key=key).first()
    return found or _noted_now(shelf, workspace_id, key)


def hash_of(file: IO[bytes] | File[Any]) -> str:
    """SHA-256 of a file, which stands at its beginning afterwards."""
    digest = hashlib.sha256()
    while chunk := file.read(CHUNK_BYTES):
        digest.update(chunk)
    file.seek(0)
    return digest.hexdigest()


def _noted_now(shelf: Shelf, workspace_id: int, key: str) -> KeptFile | None:
    path = kept_path(shelf, workspace_id, key)
    if not default_storage.exists(path):
        return None
    with default_storage.open(path) as file:
        note = KeptFile(workspace_id=workspace_id, shelf=shelf, key=key, bytes=file.size, sha256=hash_of(file))
    if shelf in BY_CONTENT and note.sha256 != key:
        return None
    _note(note)
    return note


def _keep_once(note: KeptFile, content: bytes | IO[bytes]) -> None:
    """Writes what is not there yet, or there but damaged."""
    known = KeptFile.objects.filter(workspace_id=note.workspace_id, shelf=note.shelf, key=note.key).first()
    if known and known.sha256 == note.sha256 and is_whole(known, check=True) and _wanted_again(known):
        return
    with _room_or_words():
        default_storage.save(note.path, ContentFile(content) if isinstance(content, bytes) else File(content))
    if default_storage.size(note.path) != note.bytes:
        default_storage.delete(note.path)
        raise StorageFullError("this file could not be kept whole")
    _note(note)


def _wanted_again(known: KeptFile) -> bool:
    """Notes that it is needed from now on; False where it was just cleared away."""
    return bool(KeptFile.objects.filter(pk=known.pk).update(kept_at=timezone.now()))


def _note(note: KeptFile) -> None:
    values = {"bytes": note.bytes, "sha256": note.sha256}
    KeptFile.objects.update_or_create(
        workspace_id=note.workspace_id, shelf=note.shelf, key=note.key, defaults=values, create_defaults=values
    )


@contextmanager
def _room_or_words() -> Iterator[None]:
    try:
        yield
    except OSError as error:
        if is_full(error):
            raise StorageFullError() from error
        raise
