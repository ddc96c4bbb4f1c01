"""Colours against published values."""

import numpy as np
import pytest

from fitzle.core.colour.contrast import best_against, contrast_ratio, weakest_contrast
from fitzle.core.colour.main_colours import ColourShare, main_colours
from fitzle.core.colour.oklab import difference, oklab
from fitzle.core.colour.srgb import Rgb, linear, over, parse_hex, to_hex


@pytest.mark.parametrize(
    ("text", "rgb"), [("#1d3b4f", (29, 59, 79)), ("ABC", (170, 187, 204)), ("#FFFFFF", (255,) * 3)]
)
def test_hex_codes_are_read_with_and_without_hash_and_short(text: str, rgb: tuple[int, int, int]) -> None:
    assert parse_hex(text) == rgb
    assert parse_hex(to_hex(Rgb(*rgb))) == rgb


@pytest.mark.parametrize("text", ["", "#12", "#12345", "red", "#12345g", "#1234567"])
def test_what_is_no_colour_is_refused(text: str) -> None:
    with pytest.raises(ValueError, match="is not a colour"):
        parse_hex(text)


@pytest.mark.parametrize(
    ("one", "other", "ratio"),
    [("#000000", "#ffffff", 21.0), ("#ffffff", "#ffffff", 1.0), ("#777777", "#ffffff", 4.48),
     ("#0000ff", "#ffffff", 8.59),
     ("#ff0000", "#ffffff", 4.0)],
)  # fmt: skip
def test_contrast_is_that_of_wcag(one: str, other: str, ratio: float) -> None:
    """The figures are those that the W3C's own technique G18 leads to."""
    assert contrast_ratio(parse_hex(one), parse_hex(other)) == pytest.approx(ratio, abs=0.01)
    assert contrast_ratio(parse_hex(other), parse_hex(one)) == pytest.approx(ratio, abs=0.01)


def test_linear_light_has_the_knee_of_iec_61966() -> None:
    found = linear(np.array([0, 10, 11, 255], dtype=np.uint8))
    assert found[0] == 0
    assert found[3] == 1
    assert found[1] == pytest.approx(10 / 255 / 12.92)
    assert found[2] == pytest.approx(((11 / 255 + 0.055) / 1.055) ** 2.4)


@pytest.mark.parametrize(
    ("rgb", "lab"),
    [
        ((255, 255, 255), (1.0, 0.0, 0.0)),
        ((255, 0, 0), (0.6279, 0.2249, 0.1258)),
        ((0, 0, 255), (0.4520, -0.0325, -0.3115)),
    ],
)
def test_oklab_matches_published_values(rgb: tuple[int, int, int], lab: tuple[float, float, float]) -> None:
    assert oklab(np.array(rgb, dtype=np.uint8)) == pytest.approx(lab, abs=5e-4)


def test_difference_is_zero_only_for_the_same_colour() -> None:
    assert difference(Rgb(10, 20, 30), Rgb(10, 20, 30)) == 0
    assert difference(Rgb(10, 20, 30), Rgb(12, 20, 30)) > 0


def test_a_veil_is_mixed_as_browsers_do() -> None:
    assert over(Rgb(0, 0, 0), 0.4, Rgb(255, 255, 255)) == (153, 153, 153)


def test_main_colours_are_exact_for_flat_artwork_and_counted_by_share() -> None:
    pixels = np.array([[29, 59, 79]] * 75 + [[208, 106, 26]] * 25, dtype=np.uint8)
    found = main_colours(pixels)
    assert [(entry.hex, entry.share) for entry in found] == [("#1d3b4f", 0.75), ("#d06a1a", 0.25)]


def test_main_colours_merge_what_looks_the_same() -> None:
    pixels = np.array([[200, 30, 30]] * 50 + [[201, 30, 30]] * 30 + [[199, 31, 29]] * 20, dtype=np.uint8)
    assert [entry.hex for entry in main_colours(pixels)] == ["#c81e1e"]


def test_main_colours_of_nothing_are_none() -> None:
    assert main_colours(np.zeros((0, 3), dtype=np.uint8)) == ()


def test_a_fifth_of_the_outline_may_be_faint_but_not_more() -> None:
    white = Rgb(255, 255, 255)
    dark, pale = ColourShare(hex="#000000", share=0.85), ColourShare(hex="#fafafa", share=0.15)
    assert weakest_contrast((dark, pale), white) == pytest.approx(21)
    assert weakest_contrast((dark, pale.model_copy(update={"share": 0.5})), white) < 1.1


def test_the_first_candidate_that_reads_on_all_grounds_wins() -> None:
    grounds = [Rgb(255, 255, 255), Rgb(240, 240, 240)]
    assert best_against(["#f4d06f", "#17443c", "#000000"], grounds) == "#17443c"
    assert best_against([], [Rgb(10, 10, 10)]) == "#ffffff"
