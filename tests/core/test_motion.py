"""Time in the core: curves by published figures, loops that close, moments that are plans."""

from __future__ import annotations

import json
from functools import cache
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.fit.deciding import plan_fit
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.motion.document import Motion
from fitzle.core.motion.timing import at, best_moment
from fitzle.core.piece.document import Piece
from fitzle.core.piece.easing import NAMES, curve
from fitzle.core.plan.placed import Plan
from fitzle.core.render.painting import paint
from tests.make import sheet, svg


@pytest.mark.parametrize(
    ("easing", "progress", "expected"),
    [  # the curves of CSS Easing Functions Level 1, section 2.2
        ("ease", 0.25, 0.40851), ("ease", 0.5, 0.80240), ("ease", 0.75, 0.96046), ("ease-in", 0.5, 0.31536),
        ("ease-out", 0.5, 0.68464), ("ease-in-out", 0.5, 0.5), ("ease-in-out", 0.25, 0.12916), ("linear", 0.3, 0.3),
    ],
)  # fmt: skip
def test_curves_are_those_of_the_standard(easing: str, progress: float, expected: float) -> None:
    assert curve(easing)(progress) == pytest.approx(expected, abs=2e-5)


@given(st.sampled_from(NAMES), st.floats(0, 1), st.floats(0, 1))
def test_named_curves_begin_and_end_and_never_turn_back(easing: str, one: float, other: float) -> None:
    move = curve(easing)
    assert move(0) == 0 and move(1) == 1 and move(-1) == 0 and move(2) == 1
    low, high = sorted((one, other))
    assert move(low) <= move(high) + 1e-6


@given(st.floats(0, 1), st.floats(-2, 3), st.floats(0, 1), st.floats(-2, 3), st.floats(0.01, 0.99))
def test_a_point_of_any_curve_lies_on_it(x1: float, y1: float, x2: float, y2: float, progress: float) -> None:
    found = curve(f"cubic-bezier({x1:.6f}, {y1:.6f}, {x2:.6f}, {y2:.6f})")(progress)
    low, high = 0.0, 1.0
    for _ in range(60):
        middle = (low + high) / 2
        x = 3 * round(x1, 6) * (1 - middle) ** 2 * middle + 3 * round(x2, 6) * (1 - middle) * middle**2 + middle**3
        low, high = (middle, high) if x < progress else (low, middle)
    y = 3 * round(y1, 6) * (1 - low) ** 2 * low + 3 * round(y2, 6) * (1 - low) * low**2 + low**3
    assert found == pytest.approx(y, abs=1e-3)


@pytest.mark.parametrize(
    "easing", ["", "bounce", "cubic-bezier(2,0,0,1)", "cubic-bezier(0,9,0,1)", "cubic-bezier(0,0)"]
)
def test_what_is_no_curve_is_refused(easing: str) -> None:
    with pytest.raises(ValueError, match="cubic-bezier"):
        curve(easing)


PARTS = {
    "mark": {"come": {"how": "from left", "start": 0.2, "length": 0.6}, "keep": {"how": "sway", "every": 0.9}},
    "headline": {"come": {"how": "fade", "start": 0.5, "length": 0.5}, "go": {"how": "grow", "start": 2.4}},
}


def moving(**parts: Any) -> tuple[Plan, Motion, dict[str, Any]]:
    """A mark and a headline, and how they move."""
    artwork = read_artwork(svg(), "mark.svg")
    piece = Piece.model_validate({
        "subject": "Bells",
        "parts": [
            {"id": "ground", "role": "ground", "fill": {"kind": "solid", "colour": "#f6e7b8"}},
            {"id": "mark", "role": "mark", "artwork": "mark",
             "stands": {"anchor": "left", "dx": 0.1, "width": 0.6, "height": 0.6}},
            {"id": "headline", "role": "headline", "text": "True a wheel", "colour": "#17443c",
             "stands": {"anchor": "right", "dx": 0.1, "width": 0.8, "height": 0.4}},
        ],
    })  # fmt: skip
    place = sheet(size={"width": 320, "height": 180}, formats=["png"])
    planned = plan_fit(FitRequest(piece, place, place.placement, {"mark": FitArtwork(artwork.facts, "mark")}))
    motion = Motion.model_validate({"period": 3, "parts": parts or PARTS})
    return planned.plan, motion, {"mark": artwork.source}


@cache
def usual() -> tuple[Plan, Motion, dict[str, Any]]:
    return moving()


@given(st.integers(0, 6000))
def test_a_period_later_everything_is_as_it_was(hundredths: int) -> None:
    plan, motion, _ = usual()
    seconds = hundredths / 100 + 0.005  # no part comes or goes just then
    one, other = at(plan, motion, seconds), at(plan, motion, seconds + motion.period)
    assert [part.part for part in one.parts] == [part.part for part in other.parts]
    for mine, theirs in zip(one.parts, other.parts, strict=True):
        assert mine.look.shift == pytest.approx(theirs.look.shift, abs=1e-6)
        assert mine.look.rotation == pytest.approx(theirs.look.rotation, abs=1e-6)


@pytest.mark.parametrize("how", ["sway", "bob", "pulse", "spin", "drift", "flicker"])
@pytest.mark.parametrize("every", [0.4, 0.7, 2, 7])
def test_what_keeps_moving_closes_its_loop(how: str, every: float) -> None:
    plan, motion, sources = moving(mark={"keep": {"how": how, "every": every, "strength": 1}})
    first, end = (paint(at(plan, motion, seconds), sources) for seconds in (0.0, motion.period - 1e-7))
    assert np.abs(first.astype(int) - end).max() <= 2
    between = [paint(at(plan, motion, motion.period * share), sources) for share in (0.04, 0.07, 0.13)]
    assert max(np.abs(first.astype(int) - one).max() for one in between) > 20, "and it does move"


def test_parts_are_not_there_before_they_come_and_after_they_went() -> None:
    plan, motion, _ = moving()
    there = {seconds: [part.part for part in at(plan, motion, seconds).parts] for seconds in (0.1, 1.5, 2.95)}
    assert there == {0.1: [], 1.5: ["mark", "headline"], 2.95: ["mark"]}


def test_a_still_motion_is_the_plan_itself() -> None:
    plan, motion, sources = moving(mark={"come": {"how": "at once", "start": 0}})
    for seconds in (0.0, 1.0, 2.9):
        assert at(plan, motion, seconds) == plan
    assert np.array_equal(paint(at(plan, motion, 1.0), sources), paint(plan, sources))


def test_a_part_moves_by_whole_and_part_px() -> None:
    plan, motion, sources = moving(mark={"come": {"how": "from left", "length": 1, "easing": "linear"}})
    xs = []
    for seconds in (0.25, 0.5, 0.75, 1.0):
        drawn = paint(at(plan, motion, seconds), sources)
        dark = np.nonzero((drawn[..., 2] < 110).any(axis=0))[0]
        xs.append(int(dark.min()) if len(dark) else -1)
    assert xs == sorted(xs) and xs[-1] > xs[0]


def test_the_best_moment_shows_all_parts_in_their_places() -> None:
    plan, motion, _ = moving()
    moment = best_moment(plan, motion)
    assert 1.0 <= moment <= 2.4
    shown = at(plan, motion, moment)
    assert [part.part for part in shown.parts] == ["mark", "headline"]
    assert abs(shown.parts[0].look.rotation) < 1


@pytest.mark.parametrize(
    "wrong",
    [
        {"period": 0}, {"period": 61}, {"parts": {"a": {"come": {"start": 2.9, "length": 0.5}}}},
        {"parts": {"a": {"come": {"start": 1, "length": 1}, "go": {"start": 1.5}}}},
        {"parts": {"a": {"come": {"easing": "bounce"}}}}, {"parts": {"a": {"keep": {"how": "jump"}}}},
    ],
)  # fmt: skip
def test_motion_that_cannot_be_is_refused(wrong: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        Motion.model_validate_json(json.dumps(wrong))
