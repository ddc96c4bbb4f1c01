"""Where the bytes of artwork are kept: originals under their hash, working copies beside them. Django's storage API."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
from tempfile import SpooledTemporaryFile

from django.core.files.base import ContentFile, File
from django.core.files.storage import default_storage

_IN_MEMORY_BYTES = 5_000_000


def original_path(workspace_id: int, sha256: str) -> str:
    """The original's place in the storage; the same bytes are kept once for each workspace."""
    return f"originals/{workspace_id}/{sha256[:2]}/{sha256}"


def working_path(workspace_id: int, sha256: str) -> str:
    """The working copy's place in the storage."""
    return f"working/{workspace_id}/{sha256[:2]}/{sha256}"


def keep_original(workspace_id: int, chunks: Iterable[bytes]) -> tuple[str, int]:
    """Stores the bytes and gives their SHA-256 and count."""
    digest, count = hashlib.sha256(), 0
    with SpooledTemporaryFile(max_size=_IN_MEMORY_BYTES) as spool:
        for chunk in chunks:
            digest.update(chunk)
            count += len(chunk)
            spool.write(chunk)
        spool.seek(0)
        _save_once(original_path(workspace_id, digest.hexdigest()), File(spool))
    return digest.hexdigest(), count


def keep_working(workspace_id: int, sha256: str, data: bytes) -> None:
    """Stores a working copy."""
    _save_once(working_path(workspace_id, sha256), ContentFile(data))


def read_bytes(path: str) -> bytes:
    """All bytes of a stored file."""
    with default_storage.open(path) as file:
        return bytes(file.read())


def _save_once(path: str, content: File) -> None:
    if not default_storage.exists(path):
        default_storage.save(path, content)
