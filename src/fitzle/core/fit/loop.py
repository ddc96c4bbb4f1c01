"""What a moving file shows at each moment."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import NamedTuple

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.motion.document import Motion
from fitzle.core.motion.following import FocusPath, window_at
from fitzle.core.motion.footage import Footage
from fitzle.core.motion.frames import frame_times
from fitzle.core.motion.timing import at
from fitzle.core.plan.placed import Placed, PlacedArtwork, Plan
from fitzle.core.render.painting import paint

Telling = Callable[[str], None]


class Loop(NamedTuple):
    """What a moving file shows: its plan, how parts move, what plays in it, for how long, and where it begins.

    `paths` are, for parts whose focus moves, the ways that it takes.
    """

    plan: Plan
    sources: Mapping[str, Source]
    motion: Motion | None
    footage: Mapping[str, Footage]
    period: float
    begin: float = 0.0
    paths: Mapping[str, FocusPath] = {}

    @property
    def moves(self) -> bool:
        """Whether anything moves; what was cut out of a moving picture, for one, does not."""
        return self.period > 0

    def picture(self, seconds: float, width_px: int | None = None) -> Pixels:
        """The picture (h, w, 4) of a moment of the file."""
        moment = self.begin + seconds
        plan = self._followed(moment)
        plan = at(plan, self.motion, moment) if self.motion else plan
        playing = {name: one.at(self._of(one, moment)) for name, one in self.footage.items()}
        return paint(plan, {**self.sources, **playing}, width_px)

    def frames(self, fps: float) -> Iterator[Pixels]:
        """All of them, drawn as they are asked for."""
        return (self.picture(seconds) for seconds in frame_times(self.period, fps))

    def _followed(self, moment: float) -> Plan:
        """The plan with windows where the focus is."""
        if not self.paths:
            return self.plan
        return self.plan._replace(parts=tuple(self._with_focus(part, moment) for part in self.plan.parts))

    def _with_focus(self, part: Placed, moment: float) -> Placed:
        path = self.paths.get(part.part)
        if path is None or not isinstance(part, PlacedArtwork):
            return part
        footage = self.footage[part.artwork]
        whole = Rect(0, 0, *footage.natural)
        return part._replace(window=window_at(part.window, whole, path.at(self._of(footage, moment))))

    def _of(self, footage: Footage, moment: float) -> float:
        """The moment of a clip: whole rounds of it fit into the loop, a little faster or slower than it is."""
        rounds = max(1, round(self.period / footage.period))
        return moment * rounds * footage.period / self.period
