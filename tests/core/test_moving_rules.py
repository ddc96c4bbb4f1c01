"""Flashes, reading time, empty first frames, jumps: figures of made loops whose answer is known."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import pytest

from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.result import NOTHING_TRIED, MovingReading, ReadingTime
from fitzle.core.motion.judging import moving_reading
from fitzle.core.motion.reel import Reel
from fitzle.core.preflight.registry import RULES, judged, label_of_finding
from fitzle.core.preflight.rule import Evidence
from tests.make import sheet

FPS, SIDE = 24, (320, 400)
WHITE, BLACK, RED, DARK = (255, 255, 255), (0, 0, 0), (255, 0, 0), (30, 0, 0)


def blinking(times: int, one: tuple[int, ...] = WHITE, other: tuple[int, ...] = BLACK, share: float = 1.0) -> Reel:
    """One second in which the left part of a picture goes from one colour to the other so many times."""

    def frame(number: int) -> Pixels:
        pixels = np.full((*SIDE, 4), 255, np.uint8)
        pixels[..., :3] = (90, 90, 90)
        lit = (number * 2 * times // FPS) % 2 == 1
        pixels[:, : round(SIDE[1] * share), :3] = one if lit else other
        return pixels

    return Reel((frame(number) for number in range(FPS)), 1.0)


@pytest.mark.parametrize("times", [1, 2, 3, 4, 6])
def test_flashes_are_counted_in_pairs(times: int) -> None:
    assert moving_reading(blinking(times)).flashes == pytest.approx(times, abs=0.5)


@pytest.mark.parametrize(
    ("reel", "general", "red"),
    [
        (lambda: blinking(6, (200, 200, 200), (190, 190, 190)), False, False),  # not enough of a change
        (lambda: blinking(6, WHITE, (240, 240, 240)), False, False),  # neither is darker than 0.8
        (lambda: blinking(6, share=0.1), False, False),  # under a quarter of the field
        (lambda: blinking(6, share=0.3), True, False),
        (lambda: blinking(6, RED, DARK), True, True),
        (lambda: blinking(2, RED, DARK), False, False),  # three and fewer a second
    ],
)  # fmt: skip
def test_what_counts_as_a_flash_is_what_the_standard_says(reel: Callable[[], Reel], general: bool, red: bool) -> None:
    found = moving_reading(reel())
    assert (found.flashes > 3, found.red_flashes > 3) == (general, red)


def test_a_slow_change_is_no_flash() -> None:
    def grey(number: int) -> Pixels:
        pixels = np.full((*SIDE, 4), 255, np.uint8)
        pixels[..., :3] = round(127 + 120 * np.sin(2 * np.pi * number / FPS))
        return pixels

    assert moving_reading(Reel((grey(number) for number in range(FPS)), 1.0)).flashes <= 1.5


def test_an_empty_first_frame_is_found_and_a_full_one_is_not() -> None:
    def stripes(count: int) -> Pixels:
        pixels = np.full((60, 120, 4), 255, np.uint8)
        for number in range(count):
            pixels[:, 8 + 12 * number : 14 + 12 * number, :3] = 20
        return pixels

    assert moving_reading(Reel([stripes(0), stripes(4), stripes(8)], 1)).first_frame < 0.05
    assert moving_reading(Reel([stripes(8), stripes(4), stripes(0)], 1)).first_frame == 1


def reading(**values: object) -> MovingReading:
    usual = {"seconds": 3, "frames": 60, "flashes": 0, "red_flashes": 0, "first_frame": 1, "step": 0.01}
    return MovingReading.model_validate({**usual, **values})


@pytest.mark.parametrize(
    ("values", "rule"),
    [
        ({"flashes": 3}, None), ({"flashes": 3.5}, "flash"), ({"red_flashes": 4}, "flash"),
        ({"first_frame": 0.31}, None), ({"first_frame": 0.2}, "first-frame"),
        ({"frames": 24, "step": 0.2}, "strobing"), ({"frames": 24, "step": 0.02}, None), ({"step": 0.2}, None),
        ({"reading": [ReadingTime(part="words", words="True a wheel", there=1.4, needed=1.4)]}, None),
        ({"reading": [ReadingTime(part="words", words="True a wheel", there=0.6, needed=1.4)]}, "reading-time"),
    ],
)  # fmt: skip
def test_rules_say_what_is_beyond_their_limits(values: dict[str, object], rule: str | None) -> None:
    evidence = Evidence(sheet(), choice=NOTHING_TRIED._replace(moving=reading(**values)))
    found = [
        one for one in judged(evidence, "file") if one.rule in ("flash", "reading-time", "first-frame", "strobing")
    ]
    assert [one.rule for one in found] == ([rule] if rule else [])
    for one in found:
        assert one.measured and one.limit and one.message.endswith(".") and label_of_finding(one) != one.rule
        assert RULES[one.rule].page == f"{one.rule}.md"
