"""A folder that is kept current: files are whole or not there, unchanged ones are not touched, nothing else is."""

from __future__ import annotations

import contextlib
import hashlib
import os
import tempfile
from pathlib import Path, PurePosixPath
from typing import Literal

from fitzle.core.errors import FitzleError

Written = Literal["new", "changed", "unchanged"]
PREFIX = ".fitzle-"  # of files that are still being written


class FolderError(FitzleError):
    """A folder that cannot be written to."""


def keep_current(folder: Path, name: str, data: bytes) -> Written:
    """Writes a file below a folder unless it has these bytes already.

    `name` is a relative path with slashes. Raises FolderError where it would lead out of the folder or cannot be
    written; the file that was there before is then as it was.
    """
    target = path_below(folder, name)
    there = state_of(target, hashlib.sha256(data).hexdigest())
    if there == "unchanged":
        return there
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        if not target.parent.resolve().is_relative_to(folder.resolve()):
            raise FolderError(f"{name} leads out of the folder", advice="Take the link away.", subject=str(folder))
        _write_whole(target, data)
    except OSError as error:
        raise FolderError(
            f"{name} could not be written: {error.strerror or error}",
            advice="Look whether the folder is there, may be written to and has room.",
            subject=str(folder),
        ) from error
    return there


def state_of(target: Path, sha256: str) -> Written:
    """What writing a file with this hash would come to."""
    try:
        kept = hashlib.sha256(target.read_bytes()).hexdigest()
    except OSError:
        return "new"
    return "unchanged" if kept == sha256 else "changed"


def path_below(folder: Path, name: str) -> Path:
    """The path of a file below a folder; raises FolderError for a name that leads out of it."""
    parts = PurePosixPath(name).parts
    if not parts or PurePosixPath(name).is_absolute() or any(part in ("..", ".", "") or "\\" in part for part in parts):
        raise FolderError(f"{name!r} is no name of a file in a folder", subject=str(folder))
    return folder.joinpath(*parts)


def _write_whole(target: Path, data: bytes) -> None:
    handle, temporary = tempfile.mkstemp(prefix=PREFIX, dir=target.parent)
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        Path(temporary).chmod(0o644)
        Path(temporary).replace(target)
    except BaseException:
        with contextlib.suppress(OSError):
            Path(temporary).unlink()
        raise
