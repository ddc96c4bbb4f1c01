"""The best moving file of a loop: made of frames, or drawn of its parts."""

from __future__ import annotations

import time

from fitzle.core.artwork.lottie_player import LottiePlayer
from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import GOOD_SCORE, NEAR_TIE
from fitzle.core.encode.result import Candidate, Choice, Encoded, MovingLooks
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.fit.loop import Loop, Telling
from fitzle.core.formats import DRAWN, MOVING
from fitzle.core.motion.judging import moving_reading
from fitzle.core.motion.looking import largest_step, looks_of, smoothness_of
from fitzle.core.motion.lottie.writing import USUAL_FPS, lottie_file
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.search import Asked, best_moving, rates

FORMAT = DRAWN[0]


def moving_choice(loop: Loop, asked: Asked, budget: Budget | None, tell: Telling | None) -> Choice:
    """The best file under the limit; within NEAR_TIE points the order of the sheet decides.

    A drawn file that comes first in the sheet and looks as it should is taken: it is sharp at any size.
    """
    area = loop.plan.size.width * loop.plan.size.height
    framed = [fmt for fmt in asked.formats if fmt in MOVING]
    drawn = _drawn(loop, asked, area) if FORMAT in asked.formats and _drawable(loop) else None
    if drawn and (not framed or (asked.formats[0] == FORMAT and _looks_right(drawn))):
        return drawn
    if not framed:
        return Choice(None, [], "no format")
    found = best_moving(loop.frames, loop.period, area, asked._replace(formats=framed), budget, tell)
    reading = moving_reading(found.reel, loop.plan, loop.motion)
    looks = MovingLooks(**found.looks._asdict()) if found.looks else None
    choice = found.choice._replace(moving=reading, looks=looks)
    return _better(drawn, choice, asked) if drawn else choice


def _looks_right(drawn: Choice) -> bool:
    return drawn.best is not None and drawn.best.score >= GOOD_SCORE


def drawn_first_frame(loop: Loop, fps: float) -> Pixels:
    """What a player draws of the drawn file first."""
    assert loop.motion is not None
    data = lottie_file(loop.plan, loop.motion, loop.sources, begin=loop.begin, fps=fps).data
    return LottiePlayer(data).at(0.0)


def _drawable(loop: Loop) -> bool:
    """Whether parts move; what plays in them has no outlines."""
    return loop.motion is not None and not loop.footage


def _drawn(loop: Loop, asked: Asked, area: int) -> Choice:
    assert loop.motion is not None
    began = time.perf_counter()
    fps = min(asked.max_fps or USUAL_FPS, USUAL_FPS)
    written = lottie_file(loop.plan, loop.motion, loop.sources, begin=loop.begin, fps=fps)
    took = round(time.perf_counter() - began, 3)
    reel = Reel(loop.frames(rates(loop.period, area, asked.max_fps)[0]), loop.period)
    smooth = smoothness_of(largest_step(reel), written.fps)
    looks = looks_of(written.data, reel, smooth, within=0.0)
    settings = MovingSettings(fps=round(written.fps, 3))
    reading = moving_reading(reel, loop.plan, loop.motion).model_copy(
        update={"unsaid": written.unsaid, "bitmaps": written.bitmaps, "frames": written.frames}
    )
    tried = Candidate(FORMAT, settings, len(written.data), looks.score, took)
    fits = asked.limit is None or len(written.data) <= asked.limit
    best = Encoded(written.data, FORMAT, settings, looks.score) if fits else None
    return Choice(best, [tried], "" if best else "over limit", moving=reading, looks=MovingLooks(**looks._asdict()))


def _better(drawn: Choice, framed: Choice, asked: Asked) -> Choice:
    """The better one of two, with what was tried of both."""
    tried = [*drawn.candidates, *framed.candidates]
    best = [one for one in (drawn, framed) if one.best]
    if not best:
        return framed._replace(candidates=tried)
    least = max(one.best.score for one in best if one.best) - NEAR_TIE
    order = list(asked.formats)
    near = [one for one in best if one.best and one.best.score >= least]
    chosen = min(near, key=lambda one: order.index(one.best.format) if one.best else len(order))
    return chosen._replace(candidates=tried, ended_early=framed.ended_early, budget_seconds=framed.budget_seconds)
