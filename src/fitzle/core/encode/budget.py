"""How long a search may take."""

from __future__ import annotations

import time
from collections.abc import Callable

USUAL_SECONDS = 10.0


class Budget:
    """Seconds for one search, counted from when it is made; `ended_early` once something had to be left out.

    `clock` gives seconds and is replaced in tests.
    """

    def __init__(self, seconds: float = USUAL_SECONDS, clock: Callable[[], float] = time.monotonic) -> None:
        self.seconds, self._clock, self._began = seconds, clock, clock()
        self.ended_early = False

    @property
    def used(self) -> float:
        """Seconds since it was made."""
        return self._clock() - self._began

    @property
    def left(self) -> float:
        """Seconds until it is used up; below 0 where it is."""
        return self.seconds - self.used

    def end(self) -> None:
        """Uses it up now: what was found so far has to do."""
        self.seconds = min(self.seconds, self.used)

    def share(self, searches: int, reserved: float = 0.0) -> Budget:
        """What is left, divided among so many searches: none takes the time of those that come after it.

        `reserved` seconds of each are kept for what follows the search.
        """
        return Budget(self.left / searches - reserved, self._clock)

    def allows(self, seconds: float = 0.0) -> bool:
        """Whether a step that takes about so long may still begin; a no is remembered."""
        fine = self.used + seconds <= self.seconds
        self.ended_early = self.ended_early or not fine
        return fine
