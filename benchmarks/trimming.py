"""How near what a part of a clip will weigh is foreseen while it is trimmed, and how long that takes."""

from __future__ import annotations

import io
import itertools
import time
from typing import Any, NamedTuple, get_args

from fitzle.core.artwork.clips.opening import OpenClip, opened_clip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.formats import Format
from fitzle.core.motion import foreseeing
from fitzle.core.motion.footage import Closing, Cut
from fitzle.core.motion.trimming import Trimmed, measured
from fitzle.core.units import Size

PARTS = ((0.4, 3.4), (2.0, 3.8), (3.1, 5.5), (0.8, 1.6))
PLACES: tuple[tuple[Format, Size], ...] = (
    ("gif", Size(480, 120)), ("webp", Size(640, 160)), ("apng", Size(240, 240)), ("avif", Size(640, 160)),
    ("mp4", Size(640, 360)), ("webm", Size(640, 160)),
)  # fmt: skip
NEAR = 0.25


class Foreseen(NamedTuple):
    """How many of so many parts were foreseen to within 25 %, by how much the worst was wrong, and ms for one."""

    near: int
    of: int
    worst: float
    ms: float


def foreseen() -> Foreseen:
    """All parts of the sample's clip in each format and closing, corrected by the first one as on the screen."""
    from demo.clips import lesson_clip

    ratios, taken = list[float](), list[float]()
    with opened_clip(io.BytesIO(lesson_clip())) as clip:
        facts = probe(clip)
        for (fmt, size), closing in itertools.product(PLACES, get_args(Closing)):
            made = Trimmed(Size(facts.width, facts.height), fmt, size, 12.5)
            cuts = [Cut(begin, end, closing=closing) for begin, end in PARTS]
            ratios += _ratios(clip, facts.seconds, cuts, made, taken)
    off = [max(ratio, 1 / ratio) for ratio in ratios]
    near = sum(1 for ratio in ratios if abs(ratio - 1) <= NEAR)
    return Foreseen(near, len(off), max(off), 1000 * sorted(taken)[len(taken) // 2])


def _ratios(clip: OpenClip, seconds: float, cuts: list[Cut], made: Trimmed, taken: list[float]) -> list[float]:
    spans = foreseeing.spans_of(Cut(0, max(cut.end or 0.0 for cut in cuts)))
    frames = [frame for begin in spans for frame in foreseeing.span_frames(clip, begin, seconds, made)]
    found, wrong_by, grown = list[float](), 0.0, dict[Any, foreseeing.Growth]()
    for cut in cuts:
        part = foreseeing.part_of(frames, 0.0, cut, made)
        began = time.perf_counter()
        light = foreseeing.light_loop(part, cut, made)
        taken.append(time.perf_counter() - began)
        growth = grown.get(light.kind) or foreseeing.growth_of(clip, part, cut, made, light.size)
        grown[light.kind] = growth
        weighs = measured(clip, cut, made)
        if wrong_by:
            found.append(foreseeing.foreseen(light, growth, made, wrong_by) / weighs)
        wrong_by = wrong_by or foreseeing.turned_out(light, growth, weighs)
    return found
