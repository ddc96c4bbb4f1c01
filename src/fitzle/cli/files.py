"""Files read and written, as the command line does it: whole or not at all."""

from __future__ import annotations

import os
import tempfile
from pathlib import Path

from fitzle.core.errors import ArtworkError

LARGEST_INPUT_BYTES = 100_000_000


def begin_of(path: Path) -> bytes:
    """The first bytes of a file, by which its format is told."""
    with path.open("rb") as file:
        return file.read(4096)


def check_file(path: Path) -> None:
    """Raises ArtworkError for a folder, OSError for a file that is not there."""
    if path.is_dir():
        raise ArtworkError("this is a folder", subject=str(path), advice="Name a file.")
    path.stat()


def bytes_of(path: Path) -> bytes:
    """All bytes of a file; raises ArtworkError for one that is too heavy."""
    check_file(path)
    if path.stat().st_size > LARGEST_INPUT_BYTES:
        raise ArtworkError("the file is too heavy", subject=path.name, advice="At most 100 MB are taken.")
    return path.read_bytes()


def written(folder: Path, name: str, data: bytes) -> Path:
    """Writes beside the target first and then replaces it, so that a full disk never leaves half a file."""
    folder.mkdir(parents=True, exist_ok=True)
    handle, beside = tempfile.mkstemp(dir=folder, prefix=".fitzle-")
    try:
        with os.fdopen(handle, "wb") as out:
            out.write(data)
        umask = os.umask(0)
        os.umask(umask)
        os.chmod(beside, 0o666 & ~umask)
        os.replace(beside, folder / name)
    except OSError as error:
        os.unlink(beside)
        error.filename = str(folder / name)  # what people asked for, not what stood beside it for a moment
        raise
    return folder / name
