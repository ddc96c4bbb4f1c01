"""A moving piece as a Lottie animation, and what such a file cannot say of it."""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping
from typing import NamedTuple

import numpy as np

from fitzle.core.artwork.lottie_player import LottiePlayer
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.artwork.straight import premultiplied
from fitzle.core.geometry.path import polygon
from fitzle.core.geometry.rect import Rect
from fitzle.core.motion.document import Motion
from fitzle.core.motion.lottie.layers import Seen, asset_of, drawn, layer
from fitzle.core.motion.lottie.saying import sayable, unsaid_of
from fitzle.core.motion.timing import at
from fitzle.core.plan.placed import Look, Placed, PlacedShape, Plan
from fitzle.core.render.painting import paint

VERSION = "5.7.0"  # of the schema that all players know
USUAL_FPS = 30.0
CHECKED_FRAMES = 8
MOST_OFF = 2.0  # of 255, on average over px: what is drawn otherwise is made of bitmaps
GROUND = "ground"


class Written(NamedTuple):
    """The file; `bitmaps` are the ids of parts that are bitmaps inside, `unsaid` what was left out, in words; `off`
    how far its pictures are from ours on average, of 255.
    """

    data: bytes
    frames: int
    fps: float
    bitmaps: tuple[str, ...]
    unsaid: tuple[str, ...]
    off: float


def lottie_file(
    plan: Plan, motion: Motion, sources: Mapping[str, Source], *, begin: float = 0.0, fps: float | None = None
) -> Written:
    """The animation of a loop that begins at a moment of it; colours of words must be decided.

    Parts are outlines where outlines can say them, else bitmaps inside; where outlines are not drawn as ours are (more
    than MOST_OFF of 255), and bitmaps are, all are bitmaps.
    """
    made = _Animation(plan, motion, sources, begin, fps or USUAL_FPS)
    written = made.written(outlines=True)
    if written.off <= MOST_OFF:
        return written
    return min(written, made.written(outlines=False), key=lambda one: one.off)


def difference(one: Pixels, other: Pixels) -> float:
    """Between two pictures (h, w, 4): on average over px and channels, premultiplied, of 255."""
    return float(np.abs(premultiplied(one).astype(np.int16) - premultiplied(other)).mean())


class _Animation:
    def __init__(self, plan: Plan, motion: Motion, sources: Mapping[str, Source], begin: float, fps: float) -> None:
        self._unsaid = tuple(unsaid_of(plan, motion))
        self._plan, self._motion = plan._replace(edge=None), sayable(motion)
        self._sources, self._begin = sources, begin
        self._count = max(2, round(motion.period * fps))
        self._fps = self._count / motion.period
        self._layers = [*self._ground(), *self._parts()]

    def written(self, *, outlines: bool) -> Written:
        """The file, and how far it is from our pictures."""
        layers, assets, bitmaps = [], [], dict[str, None]()
        for number, seen in enumerate(self._layers, 1):
            name, asset = seen.part.part, f"bitmap {number}"
            drawing = drawn(self._alone(seen.part), self._sources, outlines=outlines)
            if drawing.shapes == []:
                continue
            if drawing.shapes is None:
                assets.append(asset_of(drawing, asset))
                bitmaps[name] = None
            layers.append(layer(seen, drawing, name, number, self._count, asset))
        document = {
            "v": VERSION, "fr": round(self._fps, 4), "ip": 0, "op": self._count, "w": self._plan.size.width,
            "h": self._plan.size.height, "nm": "Fitzle", "ddd": 0, "assets": assets, "layers": layers[::-1],
        }  # fmt: skip
        data = json.dumps(document, separators=(",", ":")).encode()
        return Written(data, self._count, self._fps, tuple(bitmaps), self._unsaid, self._off(data))

    def _alone(self, part: Placed) -> Plan:
        """The plan of one part, simply laid on top, or of the ground."""
        if part.part == GROUND:
            return self._plan._replace(parts=())
        plain = part._replace(look=part.look._replace(blend="normal"))
        return self._plan._replace(fill=None, under=None, parts=(plain,))

    def _ground(self) -> list[Seen]:
        plan = self._plan
        if plan.fill is None and plan.under is None:
            return []
        width, height = plan.size
        whole = Rect(0, 0, width, height)
        path = polygon([(0, 0), (width, 0), (width, height), (0, height)])
        return [Seen(PlacedShape(GROUND, GROUND, whole, path, None, None, Look()), 0, [Look()] * self._count)]

    def _parts(self) -> Iterator[Seen]:
        """Each part, or each letter of it, in the order in which they lie, with its looks."""
        places = {part.part: number for number, part in enumerate(self._plan.parts)}
        looks: dict[Placed, dict[int, Look]] = {}
        for frame in range(self._count):
            for part in self._at(frame).parts:
                still = part._replace(look=Look(edge=part.look.edge, blend=part.look.blend))
                looks.setdefault(still, {})[frame] = part.look
        for part in sorted(looks, key=lambda one: places[one.part]):  # a stable order: letters as they came
            own = looks[part]
            first, last = min(own), max(own)
            yield Seen(part, first, [own.get(frame) for frame in range(first, last + 1)])

    def _at(self, frame: int) -> Plan:
        return at(self._plan, self._motion, self._begin + frame / self._fps)

    def _off(self, data: bytes) -> float:
        """How far pictures of the file are from ours, without what is known to be left out."""
        player = LottiePlayer(data)
        frames = [number * self._count // CHECKED_FRAMES for number in range(CHECKED_FRAMES)]
        off = [difference(player.at(one / self._fps), paint(self._at(one), self._sources)) for one in frames]
        return round(float(np.mean(off)), 3)
