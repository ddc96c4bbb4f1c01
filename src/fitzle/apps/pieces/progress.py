"""What a worker is doing for a file just now, in words: kept for a moment, since only those who wait read it."""

from __future__ import annotations

from collections.abc import Callable

from django.core.cache import cache

KEPT_SECONDS = 60
PREFIX = "making"


def teller(workspace_id: int, file_key: str) -> Callable[[str], None]:
    """What is told here is read by `told`."""

    def tell(words: str) -> None:
        cache.set(_key(workspace_id, file_key), words, KEPT_SECONDS)

    return tell


def told(workspace_id: int, file_key: str) -> str:
    """What was told last of a file that is being made; empty where nothing was."""
    return str(cache.get(_key(workspace_id, file_key)) or "")


def _key(workspace_id: int, file_key: str) -> str:
    return f"{PREFIX}:{workspace_id}:{file_key}"
