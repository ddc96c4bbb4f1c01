"""A picture looked for in a screenshot: candidates, the closer look at each, and the verdict."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

import numpy as np

from fitzle.core.colour.srgb import Rgb, to_hex
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.learning.analysing import Analysis, analysed
from fitzle.core.learning.correlating import by_correlation
from fitzle.core.learning.features import by_features
from fitzle.core.learning.placement import Candidate, Pixels, Placement, Region, overlap
from fitzle.core.learning.pyramid import Pyramid
from fitzle.core.learning.repeating import repeats
from fitzle.core.learning.result import Asked, CoveredBox, Learning, Learnt, LearntCut, LearntVeil, PixelBox

DENSITIES = (1.0, 1.5, 2.0, 3.0)
SURE_SCORE = 0.7  # of a correlation that is looked at although the picture is found already
MOST_RELATIVES = 4  # of a series on one page, found in one way: each takes as long as the picture itself
LEAST_TEXTURE, LEAST_SEEN, LEAST_LIKE, LEAST_WHOLE = 3.0, 0.08, 0.45, 0.35
GONE, GONE_ASKED, COVERED = 0.15, 0.1, 0.004
FEW_BLOCKS, SMALL_SIDE, FAINT_VEIL, CLEAR = 25.0, 40.0, 0.08, 0.6
LEAST_BREAK = 0.3  # how sure an edge has to be for the picture to end there
WHOLE_WITHIN = 0.004  # of a side: a window that lacks less than that is the whole picture

Progress = Callable[[float], None]


def learn(picture: Pixels, screenshot: Pixels, density: float = 1.0, progress: Progress | None = None) -> Learning:
    """Where a picture (height, width, 3) stands in a screenshot of a density in px for each px of the page.

    `progress` is told the share that is done, 0 to 1. Raises ValueOutOfRange for another density.
    """
    if density not in DENSITIES:
        raise ValueOutOfRange(f"a density of {density:g} is unknown", advice="1, 1.5, 2 and 3 are known.")
    tell = progress or (lambda _share: None)
    pyramid = Pyramid(picture)
    judged = _looked_at(pyramid, screenshot, tell)
    tell(1.0)
    kept = _apart(sorted(judged, key=_rank, reverse=True))
    periodic = repeats(picture)
    learnt = [(verdict, _learnt(pyramid, one, density, periodic)) for verdict, one in kept]
    return Learning(
        found=tuple(one for verdict, one in learnt if verdict == "yes"),
        relatives=tuple(one for verdict, one in learnt if verdict == "relative"),
    )


Judged = tuple[str, Analysis]


def _looked_at(pyramid: Pyramid, shot: Pixels, tell: Progress) -> list[Judged]:
    judged: list[Judged] = []
    for candidate, share in _candidates(pyramid, shot, judged):
        tell(share)
        relatives = sum(verdict == "relative" and one.candidate.how == candidate.how for verdict, one in judged)
        if relatives >= MOST_RELATIVES or _is_known(candidate.placement, judged, pyramid):
            continue
        found = analysed(pyramid, shot, candidate, lambda at: _is_known(at, judged, pyramid))
        if found:
            judged.append((verdict_on(found), found))
    return [one for one in judged if one[0] != "no"]


def _candidates(pyramid: Pyramid, shot: Pixels, judged: list[Judged]) -> Iterator[tuple[Candidate, float]]:
    """Candidates with the share of the work that is done before each."""
    features = by_features(pyramid, shot)
    for number, one in enumerate(features):
        yield one, 0.25 + 0.35 * number / len(features)
    correlated = by_correlation(pyramid, shot, thorough=not any(verdict == "yes" for verdict, _ in judged))
    for number, one in enumerate(correlated):
        if one.score >= SURE_SCORE or not any(verdict == "yes" for verdict, _ in judged):
            yield one, 0.7 + 0.3 * number / len(correlated)


def _is_known(at: Placement, judged: list[Judged], pyramid: Pyramid) -> bool:
    """Whether something was found at that place and scale already."""
    x, y = _middle(at, pyramid)
    for verdict, one in judged:
        there = _middle(one.at, pyramid)
        near = 0.1 * at.scale * pyramid.width
        alike = abs(math.log(at.scale / one.at.scale)) < 0.12
        if verdict != "no" and alike and max(abs(x - there[0]), abs(y - there[1])) < near:
            return True
    return False


def _middle(at: Placement, pyramid: Pyramid) -> tuple[float, float]:
    return at.scale * pyramid.width / 2 + at.x, at.scale * pyramid.height / 2 + at.y


def verdict_on(one: Analysis) -> str:
    """yes, relative (the same ground with other words on it), or no."""
    if one.agreement.texture < LEAST_TEXTURE or one.seen < LEAST_SEEN:
        return "no"
    if one.candidate.how == "correlation" and (one.agreement.texture < 10 or one.noise > 9 or one.keeps < 0.3):
        return "no"
    if one.candidate.how == "correlation" and one.agreement.texture < FEW_BLOCKS and one.keeps < CLEAR:
        return "no"  # the smallest pictures are not looked for under a strong veil: anything smooth looks like them
    if one.agreement.share * min(1.0, one.match / 0.6) < LEAST_LIKE or one.agreement.whole < LEAST_WHOLE:
        return "no"
    return "relative" if one.gone > GONE and one.covered > COVERED else "yes"


def _rank(judged: Judged) -> tuple[bool, float]:
    """By how much there is to tell by: a large place outweighs a small one inside of it."""
    verdict, one = judged
    return verdict == "yes", one.agreement.share * one.match * math.sqrt(one.agreement.texture)


def _apart(judged: list[Judged]) -> list[Judged]:
    kept: list[Judged] = []
    for one in judged:
        if all(overlap(one[1].edges.box, other[1].edges.box) < 0.3 for other in kept):
            kept.append(one)
    return kept


def _learnt(pyramid: Pyramid, one: Analysis, density: float, periodic: bool) -> Learnt:
    box, lacking = one.edges.box, _lacking(one.window, pyramid)
    veil = LearntVeil(colour=to_hex(Rgb(*one.veil)), opacity=round(min(1.0, one.opacity), 3)) if one.opacity else None
    return Learnt(
        box=_box(box),
        window=None if max(lacking) < 1 else _box(one.window.within(_whole(pyramid))),
        veil=veil,
        cut=LearntCut(shape=one.shape, radius=round(one.radius / density, 2)),  # type: ignore[arg-type]
        covered=tuple(_covered(zone, box) for zone in one.zones),
        seen_width=round(box.width / density, 2),
        grounds=_grounds(one),
        sure=round(_sure(one), 3),
        ask=(*_asked(one, box), *_asked_of_window(one, lacking), *(("repeats",) if periodic else ())),
    )


def _box(region: Region) -> PixelBox:
    return PixelBox(
        x=round(region.left, 3), y=round(region.top, 3), width=round(region.width, 3), height=round(region.height, 3)
    )


def _covered(zone: Region, box: Region) -> CoveredBox:
    part = zone.within(box)
    share = PixelBox(
        x=round((part.left - box.left) / box.width, 4),
        y=round((part.top - box.top) / box.height, 4),
        width=round(part.width / box.width, 4),
        height=round(part.height / box.height, 4),
    )
    return CoveredBox(**_box(part).model_dump(), share=share)


def _whole(pyramid: Pyramid) -> Region:
    return Region(0, 0, pyramid.width, pyramid.height)


def _lacking(window: Region, pyramid: Pyramid) -> tuple[float, ...]:
    """How much of the picture is not seen at its left, top, right and bottom; 1 is what counts as nothing."""
    across, down = WHOLE_WITHIN * pyramid.width, WHOLE_WITHIN * pyramid.height
    beyond = ((pyramid.width - window.right) / across, (pyramid.height - window.bottom) / down)
    return (window.left / across, window.top / down, *beyond)


def _grounds(one: Analysis) -> tuple[str, ...]:
    """The colours beside the picture, each once, those on most sides first."""
    told = [ground for ground in one.edges.grounds if ground is not None]
    kept: list[tuple[tuple[int, int, int], int]] = []
    for ground in told:
        for number, (other, count) in enumerate(kept):
            if np.abs(np.subtract(ground, other)).max() <= 6:
                kept[number] = (other, count + 1)
                break
        else:
            kept.append((ground, 1))
    return tuple(to_hex(Rgb(*ground)) for ground, _ in sorted(kept, key=lambda entry: -entry[1]))


def _sure(one: Analysis) -> float:
    """0 to 1: how much of the structure agrees, less where little was there to tell by."""
    told = min(1.0, one.agreement.texture / FEW_BLOCKS)
    return max(0.0, min(1.0, one.agreement.share * min(1.0, one.match / 0.6) * (0.6 + 0.4 * told)))


def _asked_of_window(one: Analysis, lacking: tuple[float, ...]) -> tuple[Asked, ...]:
    """What cannot be told of a picture that is seen in part.

    What it lacks on one side may be cut off, or covered by something opaque; and where the screenshot goes on beyond
    the picture's own edge without a break, it may be another crop of the same photo.
    """
    asked: list[Asked] = []
    if sum(one_side >= 1 for one_side in lacking) == 1:
        asked.append("strip")
    own = [number for number, one_side in enumerate(lacking) if one_side < 1]
    beside = [number for number in own if one.edges.grounds[number] is not None]
    if max(lacking) >= 1 and any(one.edges.sure[number] < LEAST_BREAK for number in beside):
        asked.append("crop")
    return tuple(asked)


def _asked(one: Analysis, box: Region) -> tuple[Asked, ...]:
    """What cannot be told and has to be asked (docs/learning.md)."""
    asked: list[Asked] = []
    if one.gone > GONE_ASKED:
        asked.append("relative")
    if (one.opacity and one.opacity < FAINT_VEIL) or not one.told:
        asked.append("veil")
    if one.corners.looked_at < 2:
        asked.append("cut")
    if box.short < SMALL_SIDE or one.agreement.texture < FEW_BLOCKS:
        asked.append("small")
    return tuple(asked)
