"""A picture at any scale without aliasing, and as it would stand in a screenshot."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.learning.placement import Pixels, Placement, Planes

LEAST_SIDE, MOST_HELD = 64, 12
USUAL_LEAST_SCALE, SMALLEST_SEEN = 0.06, 30.0  # px of the short side


class View(NamedTuple):
    """A rectangle of the screenshot in px, drawn `across` by `down` px for each of its px."""

    x: float
    y: float
    width: int  # px drawn
    height: int
    across: float = 1.0
    down: float = 1.0


class Pyramid:
    """The picture, halved again and again, with the last few scales that were asked for."""

    def __init__(self, rgb: Pixels) -> None:
        self.height, self.width = rgb.shape[:2]
        self._halves: list[Pixels] = [rgb]
        while min(self._halves[-1].shape[:2]) > LEAST_SIDE:
            last = self._halves[-1]
            size = (last.shape[1] // 2, last.shape[0] // 2)
            self._halves.append(cv2.resize(last, size, interpolation=cv2.INTER_AREA))
        self._held: dict[tuple[int, int], Planes] = {}

    @property
    def long(self) -> int:
        """The long side in px."""
        return int(max(self.width, self.height))

    @property
    def least_scale(self) -> float:
        """The smallest scale at which it is looked for: a large photo may be shown very small."""
        return float(min(USUAL_LEAST_SCALE, SMALLEST_SEEN / min(self.width, self.height)))

    def at(self, scale: float) -> Planes:
        """The picture at about this scale, its sides whole px and 8 at the least."""
        size = (max(8, round(self.width * scale)), max(8, round(self.height * scale)))
        if size not in self._held:
            if len(self._held) >= MOST_HELD:
                self._held.clear()
            source = next(
                (one for one in reversed(self._halves) if one.shape[1] >= 2 * size[0] and one.shape[0] >= 2 * size[1]),
                self._halves[0],
            )
            way = cv2.INTER_AREA if scale < 1 else cv2.INTER_CUBIC
            self._held[size] = cv2.resize(source, size, interpolation=way).astype(np.float32)
        return self._held[size]

    def seen(self, at: Placement, view: View, *, smooth: bool = True) -> Planes:
        """The picture as it stands there, cut to a view; beyond its edges they go on."""
        source = self.at(at.scale * view.across)
        across = at.scale * self.width / source.shape[1] * view.across
        down = at.scale * self.height / source.shape[0] * view.down
        turn = np.array(
            [
                [across, 0, (at.x - view.x) * view.across + 0.5 * across - 0.5],
                [0, down, (at.y - view.y) * view.down + 0.5 * down - 0.5],
            ],
            dtype=np.float32,
        )
        way = cv2.INTER_CUBIC if smooth else cv2.INTER_LINEAR
        size = (view.width, view.height)
        return np.asarray(
            cv2.warpAffine(source, turn, size, flags=way, borderMode=cv2.BORDER_REPLICATE), dtype=np.float32
        )


def grey(planes: Pixels | Planes) -> Planes:
    """Luma (ITU-R BT.601), 0 to 255."""
    clipped = np.clip(planes, 0, 255).astype(np.float32)
    return np.asarray(cv2.cvtColor(clipped, cv2.COLOR_RGB2GRAY), dtype=np.float32)
