"""What is dear to work out and asked for again soon."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

V = TypeVar("V")


class Kept(Generic[V]):
    """Values by their key, the ones asked for longest ago dropped as soon as all together weigh more than `most`.

    A value that alone weighs more is worked out anew each time. Threads may share it; two that ask at once both work.
    """

    def __init__(self, most: float, weight: Callable[[V], float] = lambda _: 1.0) -> None:
        self._most, self._weight = most, weight
        self._values: dict[Hashable, V] = {}
        self._lock = Lock()

    def of(self, key: Hashable, make: Callable[[], V]) -> V:
        """The value of a key, made where it is not known."""
        with self._lock:
            if key in self._values:
                self._values[key] = self._values.pop(key)  # the newest
                return self._values[key]
        made = make()
        if self._weight(made) <= self._most:
            with self._lock:
                self._values[key] = made
                while sum(map(self._weight, self._values.values())) > self._most:
                    self._values.pop(next(iter(self._values)))
        return made
