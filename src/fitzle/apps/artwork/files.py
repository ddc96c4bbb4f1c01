"""Where the bytes of artwork are kept: originals under their hash, what is made of them beside them."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
from tempfile import SpooledTemporaryFile
from typing import Literal

from django.core.files.base import ContentFile, File
from django.core.files.storage import default_storage

_IN_MEMORY_BYTES = 5_000_000
Shelf = Literal["originals", "working", "prepared", "costly", "strips"]


def kept_path(shelf: Shelf, workspace_id: int, key: str) -> str:
    """The place of a file in the storage, by its hash or key; the same bytes are kept once for each workspace."""
    return f"{shelf}/{workspace_id}/{key[:2]}/{key}"


def keep_original(workspace_id: int, chunks: Iterable[bytes]) -> tuple[str, int]:
    """Stores the bytes and gives their SHA-256 and count."""
    digest, count = hashlib.sha256(), 0
    with SpooledTemporaryFile(max_size=_IN_MEMORY_BYTES) as spool:
        for chunk in chunks:
            digest.update(chunk)
            count += len(chunk)
            spool.write(chunk)
        spool.seek(0)
        _save_once(kept_path("originals", workspace_id, digest.hexdigest()), File(spool))
    return digest.hexdigest(), count


def keep(shelf: Shelf, workspace_id: int, key: str, data: bytes) -> None:
    """Stores something under its key."""
    _save_once(kept_path(shelf, workspace_id, key), ContentFile(data))


def read_kept(shelf: Shelf, workspace_id: int, key: str) -> bytes | None:
    """All bytes of something stored; None where it is not there."""
    path = kept_path(shelf, workspace_id, key)
    if not default_storage.exists(path):
        return None
    with default_storage.open(path) as file:
        return bytes(file.read())


def first_bytes(workspace_id: int, sha256: str, count: int) -> bytes:
    """The beginning of an original; nothing where it is not there."""
    path = kept_path("originals", workspace_id, sha256)
    if not default_storage.exists(path):
        return b""
    with default_storage.open(path) as file:
        return bytes(file.read(count))


def _save_once(path: str, content: File[bytes]) -> None:
    if not default_storage.exists(path):
        default_storage.save(path, content)


class CostlyShelf:
    """Cuts and tracings of one workspace; see core.artwork.steps.costly.Shelf."""

    def __init__(self, workspace_id: int) -> None:
        self._workspace_id = workspace_id

    def get(self, key: str) -> bytes | None:
        """What is kept, or None."""
        return read_kept("costly", self._workspace_id, key)

    def put(self, key: str, data: bytes) -> None:
        """Keeps it."""
        keep("costly", self._workspace_id, key, data)
