"""What can go wrong with kept files, in words."""

from __future__ import annotations

import errno
from collections.abc import Callable

from fitzle.core.errors import FitzleError

FULL = (errno.ENOSPC, errno.EDQUOT)
FULL_ADVICE = "Nothing was lost. Whoever runs this server has to make room; what waits goes on by itself then."


class StorageFullError(FitzleError):
    """There is no room left where files are kept."""

    def __init__(self, problem: str = "the disk of this server is full", **more: str) -> None:
        super().__init__(problem, **{"advice": FULL_ADVICE, **more})


class StorageAwayError(StorageFullError):
    """The storage of files does not answer; what waits for it goes on by itself, as with a full one."""

    def __init__(self, problem: str = "the storage of files does not answer", **more: str) -> None:
        advice = "Nothing was lost that was saved, and what waits goes on by itself. Try again in a moment."
        super().__init__(problem, **{"advice": advice, **more})


class DamagedFileError(FitzleError):
    """A kept file is not what was written any more.

    `remedy` has it made anew. Whoever tells a person calls it: by then the transaction that the error ended is undone.
    """

    remedy: Callable[[], None] | None = None

    def about(self, subject: str) -> DamagedFileError:
        """The same error about a named file, with the same remedy."""
        named = DamagedFileError(self.problem, subject=subject, advice=self.advice)
        named.remedy = self.remedy
        return named


def is_full(error: OSError) -> bool:
    """Whether the storage said that it has no room."""
    return error.errno in FULL
