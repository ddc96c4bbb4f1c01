"""What moves by itself: words that can be read, units in reading order, pictures that stay; and how it looks."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.fit.animating import with_motion
from fitzle.core.geometry.path import polygon
from fitzle.core.motion.choices import choices_for, ground_choices
from fitzle.core.motion.choreography import READ_SHARE, proposed, read_share
from fitzle.core.motion.document import Motion, motion_of
from fitzle.core.motion.timing import at, best_moment
from fitzle.core.motion.units import plate_of, taken_apart
from fitzle.core.piece.document import Piece
from fitzle.core.piece.fills import Gradient, Pattern, Solid
from fitzle.core.piece.motion import Keep, PartMotion
from fitzle.core.plan.placed import Look, PlacedShape, PlacedWords
from fitzle.core.render.painting import paint
from tests.core.test_motion import moving


def words_of(text: str, **more: Any) -> PlacedWords:
    from fitzle.core.fit.deciding import plan_fit
    from fitzle.core.fit.request import FitRequest
    from tests.make import sheet

    part = {"id": "w", "role": "headline", "text": text, "colour": "#17443c", **more}
    piece = Piece.model_validate({"subject": "x", "parts": [{"id": "ground", "role": "ground"}, part]})
    place = sheet(size={"width": 400, "height": 120}, formats=["png"])
    found = plan_fit(FitRequest(piece, place, "p", {})).plan.parts[0]
    assert isinstance(found, PlacedWords)
    return found


@pytest.mark.parametrize(
    ("text", "letters", "words", "lines"),
    [("True a wheel", 10, 3, 1), ("Bells\nand brakes", 14, 3, 2), ("O", 1, 1, 1), ("Öl für Äxte", 9, 3, 1)],
)
def test_words_are_taken_apart_in_reading_order(text: str, letters: int, words: int, lines: int) -> None:
    whole = words_of(text)
    assert [len(taken_apart(whole, unit)) for unit in ("letter", "word", "line")] == [letters, words, lines]  # type: ignore[arg-type]
    for unit in ("letter", "word", "line"):
        parts = taken_apart(whole, unit)  # type: ignore[arg-type]
        assert sum(len(one.layout.glyphs) for one in parts) <= len(whole.layout.glyphs)
        starts = [(round(one.layout.block.bottom / 40), one.layout.block.x) for one in parts]
        assert starts == sorted(starts)


def test_words_from_right_to_left_come_from_the_right() -> None:
    parts = taken_apart(words_of("אבג דהו"), "word")
    assert len(parts) == 2 and parts[0].layout.block.x > parts[1].layout.block.x


def test_a_plate_stays_in_one_piece_behind_letters_that_come_one_by_one() -> None:
    whole = words_of("True a wheel", plate={"colour": "#ffffff"})
    plate = plate_of(whole)
    assert plate and not plate.layout.glyphs and plate.plate == whole.plate
    assert all(one.plate is None for one in taken_apart(whole, "letter"))


@pytest.mark.parametrize("how", ["letter by letter", "word by word", "line by line", "wiped", "drawn"])
def test_what_came_in_is_the_very_picture_and_before_there_is_less_of_it(how: str) -> None:
    come = {"how": how, "start": 0.2, "length": 1.0, "easing": "linear"}
    plan, motion, sources = moving(headline={"come": come})
    whole = paint(plan, sources).astype(int)
    missing = [np.abs(paint(at(plan, motion, t), sources) - whole).sum() for t in (0.1, 0.5, 0.9, 1.21)]
    assert missing[3] == 0 < min(missing[:3]) and missing[2] < missing[0]


@pytest.mark.parametrize(("part", "keep"), [("headline", "wave"), ("mark", "pan"), ("mark", "zoom")])
def test_movement_inside_of_a_part_closes_its_loop(part: str, keep: str) -> None:
    plan, motion, sources = moving(**{part: {"keep": {"how": keep, "every": 1.1, "strength": 1}}})
    first, end = (paint(at(plan, motion, t), sources).astype(int) for t in (0.0, motion.period - 1e-7))
    assert np.abs(first - end).max() <= 3
    assert max(np.abs(first - paint(at(plan, motion, t), sources)).max() for t in (0.2, 0.4, 0.7)) > 20


STRIPES = {"kind": "gradient", "stops": [{"at": 0, "colour": "#17443c"}, {"at": 1, "colour": "#f4d06f"}]}
DOTS = {"kind": "pattern", "artwork": "mark", "size": 0.3, "rotation": 20}


@pytest.mark.parametrize(("fill", "how", "rounds"), [(STRIPES, "turn", 2), (DOTS, "drift", 2), (DOTS, "drift", 1)])
def test_a_ground_that_keeps_moving_closes_its_loop(fill: dict[str, Any], how: str, rounds: int) -> None:
    plan, motion, sources = moving()
    kind = Gradient if how == "turn" else Pattern
    plan = plan._replace(fill=kind.model_validate(fill), parts=())
    found = ground_choices(plan.fill, motion.period)
    assert found and found.keepings == (how,) and found.keep.how == how
    motion = motion.model_copy(update={"ground": Keep(how=found.keep.how, every=motion.period / rounds)})
    first, end, again = (paint(at(plan, motion, t), sources).astype(int) for t in (0.0, motion.period - 1e-7, 3.0))
    assert np.abs(first - end).max() <= 3 and np.array_equal(first, again)
    assert np.abs(first - paint(at(plan, motion, 0.4), sources)).mean() > 1
    assert ground_choices(Solid(colour="#ffffff"), 3.0) is None and ground_choices(None, 3.0) is None


@given(st.floats(0, 1), st.one_of(st.none(), st.floats(1.5, 8)))
def test_a_proposal_can_be_read_and_fits_the_place(liveliness: float, longest: float | None) -> None:
    plan, _, _ = moving()
    motion = proposed(plan, liveliness, longest)
    assert read_share(plan, motion) >= READ_SHARE
    assert longest is None or motion.period <= longest + 1e-6
    headline = motion.parts["headline"]
    assert headline.keep is None, "nothing moves where words are read"
    assert headline.come and headline.come.start == 0, "the headline comes first"
    moment = best_moment(plan, motion)
    assert len(at(plan, motion, moment).parts) == len(plan.parts)


def test_livelier_moves_more() -> None:
    plan, _, sources = moving()

    def moved(liveliness: float) -> float:
        motion = proposed(plan, liveliness)
        frames = [paint(at(plan, motion, motion.period * n / 30), sources).astype(int) for n in range(30)]
        return float(sum(np.abs(one - other).mean() for one, other in pairwise(frames)))

    assert moved(0.1) < moved(0.5) < moved(1.0)


def test_a_part_s_times_beyond_the_period_are_played_faster() -> None:
    piece = Piece.model_validate({
        "subject": "x",
        "parts": [{"id": "g", "role": "ground", "motion": {"period": 1.0}},
                  {"id": "s", "role": "shape", "shape": "circle",
                   "motion": {"come": {"start": 1, "length": 1}, "keep": {"how": "bob", "every": 2}}},
                  {"id": "t", "role": "shape", "shape": "circle", "hidden": True, "motion": {"keep": {"how": "bob"}}}],
    })  # fmt: skip
    motion = motion_of(piece.parts)
    assert motion and list(motion.parts) == ["s"] and motion.parts["s"].end == pytest.approx(1.0)
    assert motion_of([piece.parts[0], piece.parts[2]]) is None
    long = motion.lasting(4.0)
    assert long.period == 4 and long.parts["s"].end == pytest.approx(4)


def test_a_part_whose_movements_were_all_taken_away_stands_still() -> None:
    part = {"id": "mark", "role": "mark", "artwork": "m", "motion": {"come": None, "keep": None, "go": None}}
    assert motion_of(Piece.model_validate({"subject": "x", "parts": [part]}).parts) is None


def test_what_suits_a_part_can_be_chosen_and_fits_the_loop() -> None:
    words = words_of("True a wheel")
    shape = PlacedShape("s", "shape", words.box, polygon([(0, 0), (9, 0), (9, 9)]), None, None, Look())
    for part, has, has_not in ((words, "letter by letter", "spin"), (shape, "drawn", "letter by letter")):
        for period in (0.4, 3.0):
            found = choices_for(part, period)
            assert has in found.entrances and has_not not in (*found.entrances, *found.keepings)
            own = PartMotion(come=found.come, keep=found.keep, go=found.go)
            assert Motion(period=period, parts={part.part: own}), "all of it at once has room"
            for how in found.keepings:
                assert own.keep and PartMotion(keep=own.keep.model_copy(update={"how": how}))


def test_the_motion_of_a_piece_is_part_of_its_document() -> None:
    plan, _, _ = moving()
    piece = Piece.model_validate({
        "subject": "x",
        "parts": [{"id": "ground", "role": "ground"}, {"id": "headline", "role": "headline", "text": "Bells"}],
    })  # fmt: skip
    moved = with_motion(
        piece, Motion(period=2, parts={"headline": PartMotion.model_validate({"come": {"how": "grow"}})})
    )
    again = Piece.model_validate_json(moved.model_dump_json())
    assert again == moved and again.parts[1].motion and plan
    assert again.parts[0].motion and again.parts[0].motion.period == 2  # type: ignore[union-attr]
