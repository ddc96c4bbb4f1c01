"""Lengths, ratios, bytes in words, and what errors say."""

import pytest

from fitzle.core.errors import ArtworkError, ValueOutOfRange
from fitzle.core.units import parse_length, parse_ratio, words_for_bytes


@pytest.mark.parametrize(
    ("text", "short_side", "px"), [("2px", 100, 2), ("6%", 200, 12), ("3", 50, 3), (" 2.5 px ", 9, 2.5), ("0%", 80, 0)]
)
def test_a_length_is_px_or_percent_of_the_short_side(text: str, short_side: float, px: float) -> None:
    assert parse_length(text).px(short_side) == pytest.approx(px)


@pytest.mark.parametrize("text", ["", "px", "-3px", "3em", "3 %%", "1e3px", "nan"])
def test_what_is_no_length_is_refused_with_an_example(text: str) -> None:
    with pytest.raises(ValueOutOfRange, match="2px or 6%"):
        parse_length(text)


@pytest.mark.parametrize(("text", "ratio"), [("16:9", 16 / 9), ("1:1", 1), ("2.35:1", 2.35)])
def test_a_ratio_is_width_by_height(text: str, ratio: float) -> None:
    assert parse_ratio(text) == pytest.approx(ratio)


@pytest.mark.parametrize("text", ["0:1", "1:0", "16", "a:b", "-1:2", "inf:1"])
def test_an_impossible_ratio_is_refused(text: str) -> None:
    with pytest.raises(ValueError, match="."):
        parse_ratio(text)


@pytest.mark.parametrize(
    ("count", "words"),
    [
        (0, "0 bytes"),
        (999, "999 bytes"),
        (1000, "1.0 KB"),
        (9949, "9.9 KB"),
        (246_000, "246 KB"),
        (1_500_000, "1.5 MB"),
    ],
)
def test_bytes_are_counted_in_thousands(count: int, words: str) -> None:
    assert words_for_bytes(count) == words


def test_an_error_says_what_where_and_what_to_do() -> None:
    error = ArtworkError("cut off", subject="a.png", expected="whole", actual="half", advice="Export it again.")
    assert error.message == "a.png: cut off (expected whole, found half). Export it again."
    assert error.about("b.png").message.startswith("b.png: ")
