"""Files on a disk of one's own, each whole or absent: a full disk or a lost machine leaves no half of one behind."""

from __future__ import annotations

import os
import uuid
from pathlib import Path
from typing import Any

from django.core.files.base import File
from django.core.files.storage import FileSystemStorage

UNFINISHED = ".unfinished-"


class DurableFileSystemStorage(FileSystemStorage):
    """Writes under a temporary name, has the disk confirm it, and only then gives the file its name."""

    def _save(self, name: str, content: File[Any]) -> str:
        path = Path(self.path(name))
        path.parent.mkdir(parents=True, exist_ok=True)
        unfinished = path.parent / f"{UNFINISHED}{uuid.uuid4().hex}"
        try:
            with unfinished.open("xb") as out:
                for chunk in content.chunks():
                    out.write(chunk)
                out.flush()
                os.fsync(out.fileno())
            unfinished.replace(path)
        except BaseException:
            unfinished.unlink(missing_ok=True)
            raise
        _confirm_name(path.parent)
        return name

    def get_available_name(self, name: str, max_length: int | None = None) -> str:
        """The name itself: a file of the same name has the same content, or is damaged and replaced."""
        return name


def _confirm_name(folder: Path) -> None:
    """Has the disk keep the folder's new entry (rename(2) alone does not)."""
    handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
