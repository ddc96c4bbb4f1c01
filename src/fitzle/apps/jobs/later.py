"""A job that cannot be done now and is tried again."""

from __future__ import annotations


class Later(Exception):
    """Raised by a task that waits for something outside of Fitzle: in words what it is, and in how many seconds."""

    def __init__(self, words: str, seconds: float) -> None:
        super().__init__(words)
        self.words, self.seconds = words, seconds
