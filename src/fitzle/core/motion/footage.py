"""A clip or a moving picture as a source with a picture for each moment: cut, slower or faster, closed to a loop."""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from typing import Literal, NamedTuple

import numpy as np
from PIL import Image

from fitzle.core.artwork.clips.frames import still_of
from fitzle.core.artwork.clips.opening import OpenClip, opened_clip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.lottie import read_lottie
from fitzle.core.artwork.lottie_player import LottiePlayer
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.straight import premultiplied
from fitzle.core.errors import FitzleError, ValueOutOfRange
from fitzle.core.formats import CLIPS, FORMATS, label_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.motion.looking import resized
from fitzle.core.motion.played import clip_frames, frames_at, playing_time
from fitzle.core.motion.reel import Reel
from fitzle.core.units import Size

Closing = Literal["cut", "back", "smooth"]
USUAL_FPS, LONGEST_CUT_S, SHORTEST_CUT_S = 25.0, 60.0, 0.04
SMOOTH_SHARE, LONGEST_FADE_S = 0.25, 0.8
HELD_PIXELS = 500_000_000  # of all frames on disk, 2 GB
LEAST_FPS = 2.0
SLOWEST, FASTEST = 0.1, 10.0


class Cut(NamedTuple):
    """What is taken of a clip, in its own seconds (end None: to its end), how fast, and how the loop closes.

    `longest` is how many seconds of it are taken at most. `smooth` fades the end into what comes before the
    beginning, over `fade` seconds; `back` plays it backwards again.
    """

    begin: float = 0.0
    end: float | None = None
    speed: float = 1.0
    closing: Closing = "cut"
    fade: float | None = None
    longest: float | None = None


class Footage:
    """The frames of a cut on disk, no larger than they are wanted; `fps` of them differ in a second of the loop."""

    def __init__(self, frames: Reel, cut: Cut, length: float, natural: Size, own_fps: float) -> None:
        self.fps = own_fps * cut.speed
        self._frames, self._closing, self._natural = frames, cut.closing, natural
        self._length = length
        fade = min(length * SMOOTH_SHARE, LONGEST_FADE_S) if cut.fade is None else cut.fade
        self._fade = max(0.0, min(fade, length / 2))

    @property
    def period(self) -> float:
        """How long the loop lasts."""
        if self._closing == "back":
            return max(self._step, 2 * (self._length - self._step))
        return self._length - (self._fade if self._closing == "smooth" else 0.0)

    @property
    def _step(self) -> float:
        return self._length / len(self._frames)

    @property
    def pixels(self) -> int:
        """Of all frames together, as they are held on disk."""
        return self._frames.pixels

    def at(self, seconds: float) -> FrameSource:
        """The picture of a moment; a period later it is the same."""
        moment = seconds % self.period
        if self._closing == "back" and moment > self._length - self._step:
            moment = self.period - moment
        pixels = self._frame(moment)
        if self._closing == "smooth" and moment < self._fade:
            share = (moment + self._step / 2) / (self._fade + self._step / 2)
            pixels = _mixed(self._frame(moment + self.period), pixels, min(1.0, share))
        return FrameSource(pixels, self._natural)

    @property
    def begin(self) -> float:
        """Where the loop looks as the cut begins: after the end has faded into it."""
        return self._fade if self._closing == "smooth" else 0.0

    @property
    def natural(self) -> Size:
        """The size of the clip itself."""
        return self._natural

    def full_picture(self, seconds: float) -> Pixels:
        """The picture of a moment at the size of the clip itself, straight alpha."""
        import cv2

        frame = self.at(seconds)
        return np.asarray(cv2.resize(frame.kept, self._natural, interpolation=cv2.INTER_CUBIC), dtype=np.uint8)

    def _frame(self, moment: float) -> Pixels:
        return self._frames[max(0, min(len(self._frames) - 1, int(moment / self._step + 1e-6)))]


class FrameSource:
    """One frame as something that can be drawn; it stands for a picture of the clip's own size."""

    def __init__(self, pixels: Pixels, natural: Size) -> None:
        self.kept = pixels
        self.width, self.height = float(natural.width), float(natural.height)

    def pixels(self, window: Rect, size: Size) -> Pixels:
        """See Source."""
        import cv2

        height, width = self.kept.shape[:2]
        x, y = width / self.width, height / self.height
        scale_x, scale_y = window.width * x / size.width, window.height * y / size.height
        seen = premultiplied(self.kept)
        if max(scale_x, scale_y) > 1.02:
            left, top = max(0, math.floor(window.x * x)), max(0, math.floor(window.y * y))
            right, bottom = math.ceil(window.right * x), math.ceil(window.bottom * y)
            cropped = np.ascontiguousarray(seen[top : max(top + 1, bottom), left : max(left + 1, right)])
            return np.asarray(cv2.resize(cropped, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
        # Between px: a picture that pans would otherwise jump from px to px.
        move = np.array([[scale_x, 0, window.x * x], [0, scale_y, window.y * y]], dtype=np.float64)
        flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
        warped = cv2.warpAffine(seen, move, size, flags=flags, borderMode=cv2.BORDER_REPLICATE)
        return np.asarray(warped, dtype=np.uint8)


def footage_of(data: bytes, name: str, cut: Cut, wanted: Size | None = None, fps: float = USUAL_FPS) -> Footage:
    """The footage of a clip or a moving picture; `wanted` is the size at which all of its picture is needed.

    Raises ValueOutOfRange for a cut that cannot be, ArtworkError for what cannot be played; each about `name`.
    """
    try:
        fmt = sniff_format(data)
        if fmt in CLIPS:
            with opened_clip(io.BytesIO(data)) as clip:
                return footage_of_clip(clip, cut, wanted, fps)
        if fmt == "lottie":
            return _of_lottie(data, name, cut, wanted, fps)
        if fmt and FORMATS[fmt].frames and FORMATS[fmt].pillow:
            return _of_picture(data, cut, wanted, fps)
        raise ValueOutOfRange(
            f"this is a {label_of(fmt)}, which does not play" if fmt else "this is nothing that can be played",
            advice="Choose a clip (MP4, MOV or WebM) or a moving GIF, PNG, WebP, AVIF or Lottie file.",
        )
    except FitzleError as error:
        raise error.about(name) from error


def footage_of_clip(clip: OpenClip, cut: Cut, wanted: Size | None = None, fps: float = USUAL_FPS) -> Footage:
    """The same of an open clip, which is not held in memory."""
    facts = probe(clip)
    natural = Size(facts.width, facts.height)
    small = _wanted(natural, wanted)
    taken = _taken(cut, facts.seconds, fps, small)

    def frames() -> Iterator[Pixels]:
        for frame in clip_frames(clip, taken.moments):
            yield resized(still_of(clip, frame).pixels, small)

    return Footage(Reel(frames(), taken.length), cut, taken.length, natural, facts.fps or fps)


def _of_picture(data: bytes, cut: Cut, wanted: Size | None, fps: float) -> Footage:
    seconds, count = playing_time(data)
    with Image.open(io.BytesIO(data)) as picture:
        natural = Size(*picture.size)
    small = _wanted(natural, wanted)
    taken = _taken(cut, seconds, fps, small)
    frames = (resized(one, small) for one in frames_at(data, taken.moments))
    return Footage(Reel(frames, taken.length), cut, taken.length, natural, count / seconds)


def _of_lottie(data: bytes, name: str, cut: Cut, wanted: Size | None, fps: float) -> Footage:
    """Drawn anew as large as it is wanted."""
    read_lottie(data, name, DEFAULT_LIMITS)
    player = LottiePlayer(data)
    small = _fitting(player.natural, wanted)
    taken = _taken(cut, player.seconds, fps, small)
    reel = Reel(frames_at(data, taken.moments, small), taken.length)
    return Footage(reel, cut, taken.length, player.natural, player.fps)


class _Taken(NamedTuple):
    """Moments of the clip, in its own seconds, and how long they last in the loop."""

    moments: list[float]
    length: float


def _taken(cut: Cut, seconds: float, fps: float, size: Size) -> _Taken:
    end = seconds if cut.end is None else cut.end
    if not (math.isfinite(cut.begin) and math.isfinite(end) and math.isfinite(cut.speed)):
        raise ValueOutOfRange("this is not a part of a clip", expected="seconds from its beginning")
    if not SLOWEST <= cut.speed <= FASTEST:
        raise ValueOutOfRange("this is not a speed", expected=f"{SLOWEST:g} to {FASTEST:g}", actual=f"{cut.speed:g}")
    if cut.begin < 0 or end > seconds + 0.05 or end - cut.begin < SHORTEST_CUT_S:
        raise ValueOutOfRange(
            f"there is no part from {cut.begin:g} to {end:g} s",
            advice=f"The clip lasts {seconds:.2f} s; the end comes after the beginning.",
        )
    length = min((min(end, seconds) - cut.begin) / cut.speed, cut.longest or math.inf)
    if length > LONGEST_CUT_S:
        raise ValueOutOfRange(
            f"a part of {length:.0f} s is too long for a moving picture",
            advice=f"At most {LONGEST_CUT_S:g} s; name its beginning and its end.",
        )
    most = HELD_PIXELS / (size.width * size.height) / length
    rate = max(LEAST_FPS, min(fps, most))
    count = max(1, round(length * rate))
    return _Taken([cut.begin + cut.speed * length * number / count for number in range(count)], length)


def _wanted(natural: Size, wanted: Size | None) -> Size:
    """The size at which frames are kept: as they are, or as large as they are needed."""
    if wanted is None:
        return natural
    factor = min(1.0, max(wanted.width / natural.width, wanted.height / natural.height))
    return Size(max(1, round(natural.width * factor)), max(1, round(natural.height * factor)))


def _fitting(natural: Size, wanted: Size | None) -> Size:
    """The size at which a drawing is drawn so that it covers what is wanted."""
    factor = max(wanted.width / natural.width, wanted.height / natural.height) if wanted else 1.0
    return Size(max(1, round(natural.width * factor)), max(1, round(natural.height * factor)))


def _mixed(one: Pixels, other: Pixels, share: float) -> Pixels:
    import cv2

    return np.asarray(cv2.addWeighted(one, 1 - share, other, share, 0), dtype=np.uint8)
