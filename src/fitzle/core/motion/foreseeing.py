"""What a part of a clip will weigh as a moving file, foreseen while it is trimmed: the same loop is encoded from small
frames, and a few frames at both sizes tell how it grows.

Encoded whole, because what codecs save by following movement, and what a fade costs, is told by no single frame.
"""

from __future__ import annotations

import math
import zlib
from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError
from fitzle.core.formats import Format
from fitzle.core.motion.footage import Cut, Footage
from fitzle.core.motion.looking import differences, resized
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.trimming import Trimmed, file_of, frames_of
from fitzle.core.motion.weighing import QUICK
from fitzle.core.units import Size

SPAN_S = 4.0  # of a clip that is read together: the part around a cut, not hours
HELD_PIXELS = 32_000  # of a frame that is kept
LEVELS = (16_000, 8_000, 4_000, 2_000)  # px of a frame that is encoded: the longer the loop, the smaller
MOST_PIXELS = 1_200_000  # of all frames of a loop: encoded in half a second
RUN, LONGER_RUN = 6, 12  # frames that are encoded at both sizes; more where each follows from those before
EMPTY = Size(16, 16)


class Light(NamedTuple):
    """A loop of so many frames of `size`, encoded: the bytes of its first frame alone, what the others add, and what a
    file of so many frames has anyway.
    """

    size: Size
    frames: int
    alone: int
    added: int
    anyway: int

    @property
    def kind(self) -> tuple[Size, int]:
        """Loops of one clip in one place whose kind is the same grow alike: what hardly moves does not as what does."""
        return self.size, math.floor(math.log2(max(1, self.alone + self.added) / self.frames))


class Growth(NamedTuple):
    """How many times heavier a first frame is at full size than in a small loop, and what others add."""

    alone: float
    added: float


def spans_of(cut: Cut) -> list[float]:
    """Where the spans begin, in seconds, that a cut with an end touches."""
    first, end = math.floor(cut.begin / SPAN_S) * SPAN_S, cut.end or 0.0
    return [first + number * SPAN_S for number in range(max(1, math.ceil((end - first) / SPAN_S)))]


def span_frames(clip: OpenClip, begin: float, length: float, made: Trimmed) -> list[Pixels]:
    """The small frames of one span of a clip of `length` seconds, at the moments of the place's frame rate.

    Raises ArtworkError where there is none.
    """
    numbers = range(_first_number(begin, made), _first_number(begin + SPAN_S, made))
    times = [number / made.fps for number in numbers if number / made.fps < length]
    frames = list(frames_of(clip, times, made._replace(size=_smaller(made.size, HELD_PIXELS))))
    if not frames:
        raise ArtworkError("there is no picture in this part", advice="Choose another part.")
    return frames


def packed(frames: Sequence[Pixels]) -> bytes:
    """Frames of one size for a cache; `unpacked` gives them back."""
    height, width = frames[0].shape[:2]
    return bytes(height.to_bytes(2) + width.to_bytes(2) + zlib.compress(np.stack(frames).tobytes(), 1))


def unpacked(data: bytes) -> list[Pixels]:
    """See `packed`."""
    height, width = int.from_bytes(data[:2]), int.from_bytes(data[2:4])
    return list(np.frombuffer(zlib.decompress(data[4:]), np.uint8).reshape(-1, height, width, 4))


def part_of(frames: Sequence[Pixels], begin: float, cut: Cut, made: Trimmed) -> list[Pixels]:
    """The frames of a cut, of those of all spans that it touches, the first of which begins at `begin` seconds."""
    first = _first_number(begin, made)
    from_, to = round(cut.begin * made.fps) - first, round((cut.end or 0.0) * made.fps) - first
    from_ = max(0, min(from_, len(frames) - 2))
    return list(frames[from_ : max(from_ + 2, to)])


def light_loop(frames: Sequence[Pixels], cut: Cut, made: Trimmed) -> Light:
    """The loop of a cut of small frames, encoded as the place's format."""
    size = _loop_size(len(frames) * (2 if cut.closing == "back" else 1), made)
    small = made._replace(size=size)
    length = len(frames) / made.fps
    footage = Footage(Reel((resized(frame, size) for frame in frames), length), cut, length, size, made.fps)
    count = max(2, round(footage.period * made.fps))
    moments = (footage.begin + footage.period * number / count for number in range(count))
    alone, added = _weighed([footage.at(moment).kept for moment in moments], small)
    return Light(size, count, alone, added, overhead(made.format, count))


def growth_of(clip: OpenClip, frames: Sequence[Pixels], cut: Cut, made: Trimmed, size: Size) -> Growth:
    """How a loop grows from a small size to its own: by some frames of a cut where most changes, at both sizes.

    It is that of all loops of the same `Light.kind`.
    """
    if size == made.size:
        return Growth(1.0, 1.0)
    run = min(LONGER_RUN if made.format in QUICK else RUN, len(frames))
    begin = cut.begin + _busiest(frames, run) / made.fps
    times = [begin + number / made.fps for number in range(run)]
    large = list(frames_of(clip, times, made))
    small = [resized(frame, size) for frame in large]
    (alone, added), (own_alone, own_added) = (
        _weighed(small, made._replace(size=size)), _weighed(large, made),
    )  # fmt: skip
    grown = own_alone / max(1, alone)
    return Growth(grown, own_added / added if added > 0 else grown)


def foreseen(light: Light, growth: Growth, made: Trimmed, wrong_by: float = 1.0) -> int:
    """The bytes of the file of a loop; `wrong_by` is what earlier ones of the same clip turned out to weigh."""
    if light.size == made.size:
        wrong_by = 1.0  # it is the file itself
    return round(light.anyway + wrong_by * _grown(light, growth))


def turned_out(light: Light, growth: Growth, weighs: int) -> float:
    """What the pictures of a file that was made weigh in parts of what was foreseen."""
    return max(1.0, weighs - light.anyway) / max(1.0, _grown(light, growth))


@lru_cache(maxsize=256)
def overhead(fmt: Format, frames: int) -> int:
    """The bytes of a file of so many frames in which there is nothing to be seen."""
    grey = np.full((EMPTY.height, EMPTY.width, 4), 128, np.uint8)
    grey[..., 3] = 255
    nothing = Trimmed(EMPTY, fmt, EMPTY, 12.5)
    return len(file_of(Reel((grey for _ in range(frames)), frames / nothing.fps), nothing))


def _grown(light: Light, growth: Growth) -> float:
    return light.alone * growth.alone + light.added * growth.added


def _first_number(begin: float, made: Trimmed) -> int:
    """Of the first frame that is not before a moment; frames are counted from the clip's beginning."""
    return math.ceil(begin * made.fps - 1e-6)


def _loop_size(frames: int, made: Trimmed) -> Size:
    area = made.size.width * made.size.height
    if area <= HELD_PIXELS and area * frames <= MOST_PIXELS:
        return made.size
    level = next((one for one in LEVELS if one * frames <= MOST_PIXELS), LEVELS[-1])
    return _smaller(made.size, level)


def _smaller(size: Size, pixels: int) -> Size:
    factor = min(1.0, math.sqrt(pixels / (size.width * size.height)))
    return size if factor == 1.0 else Size(*(2 * max(4, round(side * factor / 2)) for side in size))


def _weighed(frames: Sequence[Pixels], made: Trimmed) -> tuple[int, int]:
    """The bytes of the first frame alone, and those that all others add to it, without what any file has.

    Where each frame follows from those before, none is alone: all is what is added.
    """
    whole = len(file_of(Reel(frames, len(frames) / made.fps), made)) - overhead(made.format, len(frames))
    if made.format in QUICK:
        return 0, max(1, whole)
    alone = max(1, len(file_of(Reel(frames[:1], 1 / made.fps), made)) - overhead(made.format, 1))
    return alone, max(0, whole - alone)


def _busiest(frames: Sequence[Pixels], run: int) -> int:
    """The number of the frame where a run begins in which most changes."""
    changes = differences(Reel(frames, 1.0))[:-1]
    sums = np.convolve(changes, np.ones(max(1, run - 1)), "valid")
    return int(np.argmax(sums))
