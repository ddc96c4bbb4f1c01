"""What a moving file will weigh, from a few of its frames: the first one whole, and what changes between some pairs."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from fitzle.core.encode.settings import MovingSettings
from fitzle.core.formats import Format
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.frame_bytes import frame_bytes
from fitzle.core.motion.looking import differences
from fitzle.core.motion.reel import Reel

PAIRS = 4
QUICK = ("avif", "mp4", "webm")  # encoded whole at once: what it saves by following movement is told by no pair


class Sample(NamedTuple):
    """Frames in pairs that follow each other; of all `frames` so many are `moving` on, most at the `busiest`.

    `begins` are the places in the reel where a run of pairs begins: one that follows another shares its frame.
    """

    reel: Reel
    begins: tuple[int, ...]
    frames: int
    moving: int
    busiest: int

    def run(self, most: int) -> range:
        """The numbers of at most so many frames that follow each other, where much changes."""
        begin = max(0, min(self.busiest - most // 2, self.frames - most))
        return range(begin, min(self.frames, begin + most))


def sample_of(reel: Reel) -> Sample:
    """Pairs by how much changes between them: of equal parts of all steps that change something the middle one."""
    changes = differences(reel)[:-1]
    moving = [step for step in np.argsort(changes, kind="stable") if changes[step] > 0]
    count = min(PAIRS, len(moving))
    chosen = [int(moving[(2 * part + 1) * len(moving) // (2 * count)]) for part in range(count)]
    numbers = sorted({number for step in chosen for number in (step, step + 1)}) or [0]
    begins = tuple(at for at, number in enumerate(numbers) if number - 1 not in chosen)
    period = reel.period * len(numbers) / len(reel)
    pairs = Reel((reel[number] for number in numbers), period)
    return Sample(pairs, begins, len(reel), len(moving), chosen[-1] if chosen else 0)


def weight_of(fmt: Format, sample: Sample, settings: MovingSettings, playing: Playing) -> int:
    """The bytes of the file with all frames, likely. Formats leave out frames that change nothing."""
    data = moving_file(fmt, sample.reel, settings, playing)
    sizes = frame_bytes(data, fmt)
    if len(sizes) < 2:
        return len(data)
    pairs, begins = len(sample.reel) - len(sample.begins), sample.begins
    if len(sizes) == len(sample.reel):
        changes = [size for at, size in enumerate(sizes) if at not in begins]
    else:
        changes = sorted(sizes)[: max(0, len(sizes) - len(begins))]
    return round(len(data) - sum(sizes) + sizes[0] + sample.moving * sum(changes) / pairs)
