"""Lengths, ratios, bytes in words, and what errors say."""

import pytest

from fitzle.core.errors import ArtworkError, ValueOutOfRange
from fitzle.core.lengths import parse_length
from fitzle.core.units import parse_ratio, words_for_bytes, words_for_weight


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
        (240_400_000, "240 MB"),
        (1_540_000_000, "1.5 GB"),
        (20_000_000_000, "20 GB"),
    ],
)
def test_bytes_are_counted_in_thousands(count: int, words: str) -> None:
    assert words_for_bytes(count) == words


def test_an_error_says_what_where_and_what_to_do() -> None:
    error = ArtworkError("cut off", subject="a.png", expected="whole", actual="half", advice="Export it again.")
    assert error.message == "a.png: cut off (expected whole, found half). Export it again."
    assert error.about("b.png").message.startswith("b.png: ")


@pytest.mark.parametrize(
    ("count", "limit", "words"),
    [
        (246_400, 300_000, "246 of 300 KB"),
        (4_300, 30_000, "4.3 of 30 KB"),
        (400, 900, "400 of 900 bytes"),
        (1_250_000, 1_500_000, "1.2 of 1.5 MB"),
        (246_400, None, "246 KB"),
        (None, 300_000, "up to 300 KB"),
        (None, None, "any weight"),
    ],
)
def test_a_weight_stands_beside_its_limit_in_its_unit(count: int | None, limit: int | None, words: str) -> None:
    assert words_for_weight(count, limit) == words
