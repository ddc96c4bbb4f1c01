"""What a moving file shows at each moment."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import NamedTuple

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.motion.document import Motion
from fitzle.core.motion.footage import Footage
from fitzle.core.motion.frames import frame_times
from fitzle.core.motion.timing import at
from fitzle.core.plan.placed import Plan
from fitzle.core.render.painting import paint

Telling = Callable[[str], None]


class Loop(NamedTuple):
    """What a moving file shows: its plan, how parts move, what plays in it, for how long, and where it begins."""

    plan: Plan
    sources: Mapping[str, Source]
    motion: Motion | None
    footage: Mapping[str, Footage]
    period: float
    begin: float = 0.0

    @property
    def moves(self) -> bool:
        """Whether anything moves; what was cut out of a moving picture, for one, does not."""
        return self.period > 0

    def picture(self, seconds: float, width_px: int | None = None) -> Pixels:
        """The picture (h, w, 4) of a moment of the file."""
        moment = self.begin + seconds
        plan = at(self.plan, self.motion, moment) if self.motion else self.plan
        playing = {name: one.at(self._of(one, moment)) for name, one in self.footage.items()}
        return paint(plan, {**self.sources, **playing}, width_px)

    def frames(self, fps: float) -> Iterator[Pixels]:
        """All of them, drawn as they are asked for."""
        return (self.picture(seconds) for seconds in frame_times(self.period, fps))

    def _of(self, footage: Footage, moment: float) -> float:
        """The moment of a clip: whole rounds of it fit into the loop, a little faster or slower than it is."""
        rounds = max(1, round(self.period / footage.period))
        return moment * rounds * footage.period / self.period
