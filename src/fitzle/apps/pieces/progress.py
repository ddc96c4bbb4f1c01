"""What a worker is doing for a file just now, in words, and whether somebody has waited enough for it.

Both are kept for a moment, since only those who wait read and say it.
"""

from __future__ import annotations

from collections.abc import Callable

from django.core.cache import cache

from fitzle.core.encode.budget import Budget

KEPT_SECONDS = 60
PREFIX, ENOUGH = "making", "enough"


def teller(workspace_id: int, file_key: str, budget: Budget) -> Callable[[str], None]:
    """What is told here is read by `told`; the budget ends once somebody said that it is enough."""
    enough = _key(ENOUGH, workspace_id, file_key)
    cache.delete(enough)

    def tell(words: str) -> None:
        cache.set(_key(PREFIX, workspace_id, file_key), words, KEPT_SECONDS)
        if cache.get(enough):
            budget.end()

    return tell


def told(workspace_id: int, file_key: str) -> str:
    """What was told last of a file that is being made; empty where nothing was."""
    return str(cache.get(_key(PREFIX, workspace_id, file_key)) or "")


def say_enough(workspace_id: int, file_key: str) -> None:
    """Has the search for a file end with the best that it has found."""
    cache.set(_key(ENOUGH, workspace_id, file_key), True, KEPT_SECONDS)


def _key(what: str, workspace_id: int, file_key: str) -> str:
    return f"{what}:{workspace_id}:{file_key}"
