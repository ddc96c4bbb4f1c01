"""The best-looking moving file under a limit: formats, rates and settings compete on some frames, few are made."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import ThreadPoolExecutor
from copy import copy
from functools import cached_property, partial
from typing import NamedTuple

from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import BAD_SCORE
from fitzle.core.encode.knob import Setting, largest_under
from fitzle.core.encode.result import Candidate, Choice, Encoded, Problem
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.formats import MOVING, Format
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.ladders import highest, settings_at
from fitzle.core.motion.looking import SCORED_FRAMES, Looks, largest_step, looks_of, resized, smoothness_of
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.weighing import QUICK, sample_of, weight_of
from fitzle.core.units import Size

USUAL_SECONDS = 36.0
RATES = (25.0, 50 / 3, 12.5, 25 / 3, 5.0)  # whole steps of the delays of a GIF
FEWEST_FRAMES = 2
HELD_PIXELS = 60_000_000  # of all frames: encoders hold them, 240 MB
SAMPLED_FRAMES = 4
RUN = 5  # frames that follow each other: what a tolerance loses adds up
THREADS = 2
GOOD_ENOUGH = 88.0  # fewer frames a second are not tried where all of them look so good
NEAR = 3.0  # points: what is put so near to the best is made whole too
HOPELESS = 30.0  # where all looks so bad every other rate is left out
DAMAGED = BAD_SCORE  # where all looks so bad smaller sizes are tried, which are then shown enlarged
NEAR_TIE = 1.0  # points: the order of the spec sheet breaks it
MOST_WHOLE = 3  # files of one line
MOST_LINES = 3
FORESEEN_ENOUGH, WHOLE_ENOUGH = 0.9, 0.94
MOST_FORESEEN = 5
SURELY_OVER = 1.5  # times the limit
Drawing = Callable[[float], Iterable[Pixels]]  # frames a second to the frames of the loop
Telling = Callable[[str], None]


class Asked(NamedTuple):
    """What the file is for: formats in the order of the sheet, bytes, frames a second, and what the file says.

    `smaller` are sizes in px that the place takes too, for where all looks bad as large as it was drawn.
    """

    formats: Sequence[Format]
    limit: int | None
    max_fps: float | None = None
    playing: Playing = Playing()
    smaller: Sequence[Size] = ()


class Moving(NamedTuple):
    """The outcome: the choice as of a still, the looks of its file, and the reel that was made for it."""

    choice: Choice
    looks: Looks | None
    reel: Reel


class _Line:
    """One format at one frame rate, weighed on pairs of frames and looked at on some."""

    def __init__(self, fmt: Format, shown: _Shown, asked: Asked) -> None:
        self.format, self.shown, self._asked = fmt, shown, asked
        self.seconds = 0.0
        self.looks: Looks | None = None  # of its whole file, once that is made
        self._weights: dict[int, int] = {}

    def position(self, part: float = 1.0) -> int:
        """The highest position whose file has likely at most so large a part of the limit."""
        limit = None if self._asked.limit is None else max(1, round(part * self._asked.limit))
        known = [Setting(at, bytes(weight)) for at, weight in self._weights.items()]  # only how long they are counts
        found = largest_under(
            lambda at: bytes(self._weight(at)), limit, 0, highest(self.format), enough=FORESEEN_ENOUGH,
            most=MOST_FORESEEN, known=known,
        )  # fmt: skip
        return found.best.position if found.best else 0

    def bytes_at(self, position: int) -> float:
        """What the file likely has there."""
        return float(self._weight(position))

    @cached_property
    def likely(self) -> Looks:
        """How the file likely looks that it comes to; nothing at all where even the lightest is far over the limit."""
        position = self.position()
        if self._asked.limit is not None and self.bytes_at(position) > SURELY_OVER * self._asked.limit:
            return Looks(0.0, 0.0, 0.0)
        shown = self.shown
        few, beside = (shown.reel, shown.drawn) if self.format in QUICK else (shown.few, shown.drawn_few)
        return self._looks(self._file(position, few), beside, SAMPLED_FRAMES)

    def whole(self, budget: Budget, tried: list[Candidate]) -> Encoded | None:
        """Its best file under the limit, with its score; what was made is added to `tried`."""

        def encode(position: int) -> bytes:
            began = time.perf_counter()
            settings = self._settings(position)
            data = moving_file(self.format, self.shown.reel, settings, self._asked.playing)
            took = round(time.perf_counter() - began, 3)
            tried.append(Candidate(self.format, settings, len(data), None, took))
            return data

        found = largest_under(
            encode, self._asked.limit, 0, highest(self.format), expected=self, budget=budget, most=MOST_WHOLE,
            enough=WHOLE_ENOUGH,
        ).best  # fmt: skip
        if found is None:
            return None
        settings = self._settings(found.position)
        looks = self.looks = self._looks(found.data, self.shown.drawn, SCORED_FRAMES)
        tried[:] = [one._replace(score=looks.score) if one.settings == settings else one for one in tried]
        return Encoded(found.data, self.format, settings, round(looks.score, 1))

    def _looks(self, data: bytes, reel: Reel, most: int) -> Looks:
        ground = self._asked.playing.ground if self.format == "gif" else None
        return looks_of(data, reel, self.shown.smoothness, ground, most)

    def _weight(self, position: int) -> int:
        if position not in self._weights:
            began = time.perf_counter()
            settings, sample = self._settings(position), self.shown.sample
            if self.format in QUICK:
                self._weights[position] = len(self._file(position, self.shown.reel))
            else:
                self._weights[position] = weight_of(self.format, sample, settings, self._asked.playing)
            seen = self.shown.reel if self.format in QUICK else sample.reel
            took = (time.perf_counter() - began) * self.shown.reel.pixels / seen.pixels
            self.seconds = max(self.seconds, took)
        return self._weights[position]

    def _file(self, position: int, reel: Reel) -> bytes:
        return moving_file(self.format, reel, self._settings(position), self._asked.playing)

    def _settings(self, position: int) -> MovingSettings:
        settings, small = settings_at(self.format, position, self.shown.reel.fps), self.shown.small
        return settings.model_copy(update={"width": small.width, "height": small.height}) if small else settings


class _Shown:
    """The loop at one frame rate and size: its frames, some of them, and how smoothly they follow each other.

    `small` is its size where it was made smaller than it was `drawn`; it is looked at beside that.
    """

    def __init__(self, frames: Iterable[Pixels], period: float) -> None:
        self.reel = self.drawn = Reel(frames, period)
        self.small: Size | None = None
        self.smoothness = smoothness_of(largest_step(self.reel), self.reel.fps)
        self._weigh()
        self.drawn_few = self.few

    def _weigh(self) -> None:
        self.sample = sample_of(self.reel)
        self.numbers = sorted({*self.sample.run(RUN), *self.reel.spread(SAMPLED_FRAMES)})
        self.few = _some(self.reel, self.numbers)

    def smaller(self, size: Size) -> _Shown:
        """The same frames made smaller."""
        small = copy(self)
        small.reel, small.small = self.reel.mapped(partial(resized, size=size)), size
        small._weigh()
        small.drawn_few = _some(self.drawn, small.numbers)
        return small


def _some(reel: Reel, numbers: Sequence[int]) -> Reel:
    return Reel((reel[number] for number in numbers), reel.period * len(numbers) / len(reel))


def best_moving(
    draw: Drawing, period: float, area: int, asked: Asked, budget: Budget | None = None, tell: Telling | None = None
) -> Moving:
    """The best file of a loop of `period` seconds whose frames have `area` px.

    `tell` hears what is being done; what it raises ends the search.
    """
    return _Search(draw, period, area, asked, budget or Budget(USUAL_SECONDS), tell or (lambda _words: None)).run()


def rates(period: float, area: int, max_fps: float | None) -> list[float]:
    """The frame rates that are tried, the highest first: as many frames as a file of the period and the memory hold."""
    held = max(FEWEST_FRAMES / period, HELD_PIXELS / area / period)
    most = min(max_fps or RATES[0], RATES[0], held)
    usual = [rate for rate in RATES if rate < most - 0.01]
    return [most, *usual][: len(RATES)]


class _Search:
    def __init__(self, draw: Drawing, period: float, area: int, asked: Asked, budget: Budget, tell: Telling) -> None:
        self._draw, self._period, self._asked, self._budget, self._tell = draw, period, asked, budget, tell
        self._rates = rates(period, area, asked.max_fps)
        self._shown: dict[float, _Shown] = {}
        self._tried: list[Candidate] = []

    def run(self) -> Moving:
        formats = [fmt for fmt in self._asked.formats if fmt in MOVING]
        lines = self._compete([(fmt, self._rates[0]) for fmt in formats])
        hopeless = bool(lines) and lines[0].likely.score < HOPELESS
        for rate in self._rates[1:]:
            if hopeless and rate != self._rates[-1]:
                hopeless = False
                continue  # the next one will not do either
            if not lines or lines[0].likely.score >= GOOD_ENOUGH or not self._budget.allows(self._budget.used / 2):
                break
            promising = [line.format for line in lines[:2]]
            slower = self._compete([(fmt, rate) for fmt in dict.fromkeys(promising)])
            lines = sorted([*lines, *slower], key=lambda line: -line.likely.score)
            hopeless = lines[0].likely.score < HOPELESS
        lines = self._with_smaller(lines)
        found = self._made(lines) or self._lightest(formats)
        best = self._chosen([one for _, one in found])
        line = next((line for line, one in found if one is best), None)
        reel = line.shown.reel if line else self._shown[self._rates[0]].reel
        choice = Choice(best, self._tried, _problem(formats, best), self._budget.ended_early, self._budget.seconds)
        return Moving(choice, line.looks if line else None, reel)

    def _compete(self, pairs: list[tuple[Format, float]]) -> list[_Line]:
        """Lines, the best-looking first."""
        lines = [_Line(fmt, self._at(rate), self._asked) for fmt, rate in pairs]
        if lines:
            self._tell(f"Comparing {len(lines)} ways at {lines[0].shown.reel.fps:.3g} frames a second")
        return _by_looks(lines)

    def _with_smaller(self, lines: list[_Line]) -> list[_Line]:
        """The same and, where all of them look bad, the best two at the smaller sizes that the place takes."""
        for size in self._asked.smaller:
            if not lines or lines[0].likely.sharp >= DAMAGED or not self._budget.allows(self._budget.used / 3):
                break
            self._tell(f"Comparing {size.width} × {size.height} px")
            best = [line for line in lines if line.shown.small is None][:2]
            smaller = [_Line(line.format, line.shown.smaller(size), self._asked) for line in best]
            lines = _by_looks([*lines, *smaller])
        return lines

    def _at(self, rate: float) -> _Shown:
        if rate not in self._shown:
            self._tell(f"Drawing {max(FEWEST_FRAMES, round(rate * self._period))} frames")
            self._shown[rate] = _Shown(self._draw(rate), self._period)
        return self._shown[rate]

    def _made(self, lines: list[_Line]) -> list[tuple[_Line, Encoded]]:
        """Whole files of the lines that may be the best; where none fits, of the lightest line too."""
        found: list[tuple[_Line, Encoded]] = []
        for line in lines:
            if len(found) >= MOST_LINES:
                break
            if found and (line.likely.score < lines[0].likely.score - NEAR or not self._budget.allows(line.seconds)):
                break
            if not found and self._tried and not self._budget.allows(line.seconds):
                break
            self._tell(f"Making the file at {line.shown.reel.fps:.3g} frames a second")
            one = line.whole(self._budget, self._tried)
            found += [(line, one)] if one else []
        return found

    def _lightest(self, formats: Sequence[Format]) -> list[tuple[_Line, Encoded]]:
        """Where the time is up and nothing fits yet: the first file at the lowest frame rate that does."""
        rate = self._rates[-1]
        if not self._budget.ended_early or rate in self._shown:
            return []
        for line in self._compete([(fmt, rate) for fmt in formats]):
            self._tell(f"Making the lightest file at {rate:.3g} frames a second")
            if one := line.whole(self._budget, self._tried):
                return [(line, one)]
        return []

    def _chosen(self, found: list[Encoded]) -> Encoded | None:
        if not found:
            return None
        least = max(one.score for one in found) - NEAR_TIE
        order = list(self._asked.formats)
        return min((one for one in found if one.score >= least), key=lambda one: (order.index(one.format), -one.score))


def _by_looks(lines: list[_Line]) -> list[_Line]:
    """The best-looking first."""
    with ThreadPoolExecutor(THREADS) as pool:
        list(pool.map(lambda line: line.likely, lines))
    return sorted(lines, key=lambda line: -line.likely.score)


def _problem(formats: Sequence[Format], best: Encoded | None) -> Problem:
    if not formats:
        return "no format"
    return "over limit" if best is None else ""
