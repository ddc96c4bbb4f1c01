"""ZIPs of kept files, written while they are sent: no copy of all of it in memory or on the disk."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Generator
from typing import Any

from fitzle.apps.files.errors import DamagedFileError
from fitzle.apps.files.keeping import CHUNK_BYTES, open_checked
from fitzle.apps.files.shelves import Shelf

ZIP_DATE = (1980, 1, 1, 0, 0, 0)  # the same files give the same archive


class Sending(io.RawIOBase):
    """Where a ZIP is written to, emptied whenever what is in it is sent."""

    def __init__(self) -> None:
        super().__init__()
        self._waiting = bytearray()

    def writable(self) -> bool:
        """It is."""
        return True

    def write(self, data: Any) -> int:
        """Keeps it until it is sent."""
        self._waiting += data
        return len(data)

    def taken(self) -> bytes:
        """What was written since."""
        data = bytes(self._waiting)
        self._waiting.clear()
        return data


def add_kept(
    archive: zipfile.ZipFile, out: Sending, workspace_id: int, path: str, shelf: Shelf, key: str
) -> Generator[bytes, None, bool]:
    """Adds a kept file, giving what can be sent; returns whether it was there, whole."""
    try:
        file = open_checked(shelf, workspace_id, key, check=True)
    except (FileNotFoundError, DamagedFileError):
        return False
    with file, archive.open(zipfile.ZipInfo(path, ZIP_DATE), "w", force_zip64=True) as entry:
        while chunk := file.read(CHUNK_BYTES):
            entry.write(chunk)
            yield out.taken()
    yield out.taken()
    return True
