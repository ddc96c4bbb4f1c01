"""What holds for any colour: there and back again, symmetry, what a proposal promises."""

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from fitzle.core.colour.contrast import best_against, contrast_matrix, contrast_ratio, reading, weakest_contrast
from fitzle.core.colour.dark_version import DARK_GROUND, for_dark_grounds
from fitzle.core.colour.harmonies import harmonies
from fitzle.core.colour.main_colours import ColourShare, main_colours
from fitzle.core.colour.oklab import ROWS, difference, from_oklab, oklab, oklab_picture, to_lch
from fitzle.core.colour.srgb import Rgb, encoded, linear, over, parse_hex, to_hex

MANY = settings(max_examples=80, deadline=None)
channel = st.integers(0, 255)
colours = st.builds(Rgb, channel, channel, channel)
codes = colours.map(to_hex)


@MANY
@given(colour=colours)
def test_a_hex_code_is_read_as_it_was_written(colour: Rgb) -> None:
    assert parse_hex(to_hex(colour)) == colour
    assert parse_hex(to_hex(colour).upper()) == colour


@MANY
@given(colour=colours)
def test_oklab_leads_back_to_the_same_colour(colour: Rgb) -> None:
    there = oklab(np.array(colour, dtype=np.uint8))
    assert np.abs(from_oklab(there) - np.array(colour)).max() < 0.51


@MANY
@given(width=st.integers(1, 9), height=st.integers(1, 2 * ROWS + 3), bands=st.sampled_from([3, 4]))
def test_a_picture_in_oklab_is_its_px_in_oklab(width: int, height: int, bands: int) -> None:
    pixels = np.random.default_rng(width * height).integers(0, 256, (height, width, bands), dtype=np.uint8)
    found = oklab_picture(pixels)
    assert (found.shape, found.dtype) == ((height, width, 3), np.float32)
    assert np.abs(found - oklab(pixels[..., :3])).max() < 1e-6


def test_light_of_bytes_is_that_of_the_same_figures_and_leads_back() -> None:
    values = np.arange(256, dtype=np.uint8)
    assert np.array_equal(linear(values), linear(values.astype(np.float64)))
    assert np.abs(encoded(linear(values)) - values).max() < 1e-9


@MANY
@given(one=colours, other=colours, third=colours)
def test_the_difference_is_a_distance(one: Rgb, other: Rgb, third: Rgb) -> None:
    assert difference(one, other) == pytest.approx(difference(other, one))
    assert difference(one, third) <= difference(one, other) + difference(other, third) + 1e-9
    assert (difference(one, other) == 0) == (one == other)


@MANY
@given(one=colours, other=colours)
def test_contrast_is_symmetrical_and_within_its_range(one: Rgb, other: Rgb) -> None:
    assert contrast_ratio(one, other) == contrast_ratio(other, one)
    assert 1 <= contrast_ratio(one, other) <= 21
    assert contrast_ratio(one, one) == 1


@MANY
@given(one=colours, ground=colours, share=st.floats(0, 1))
def test_what_is_laid_over_lies_between_both(one: Rgb, ground: Rgb, share: float) -> None:
    mixed = over(one, share, ground)
    for top, bottom, found in zip(one, ground, mixed, strict=True):
        assert min(top, bottom) - 1 <= found <= max(top, bottom) + 1


@MANY
@given(found=st.lists(codes, min_size=1, max_size=6))
def test_each_colour_for_dark_grounds_reaches_three_to_one(found: list[str]) -> None:
    dark = parse_hex(DARK_GROUND)
    changed = dict(for_dark_grounds(found))
    for code in found:
        now = changed.get(code, code)
        assert contrast_ratio(parse_hex(now), dark) >= 3
        if contrast_ratio(parse_hex(code), dark) >= 3:
            assert now == code, "what shows already is left alone"


@MANY
@given(code=codes)
def test_a_harmony_keeps_the_lightness_of_its_colour(code: str) -> None:
    own = to_lch(oklab(np.array(parse_hex(code), dtype=np.uint8)))
    assume(own[0] > 0.25)  # nearer to black a step of 8 bits is larger than the tolerance
    for found in harmonies(code).values():
        for other in found:
            lch = to_lch(oklab(np.array(parse_hex(other), dtype=np.uint8)))
            assert lch[0] == pytest.approx(own[0], abs=0.02)
            assert lch[1] <= own[1] + 0.02


@MANY
@given(candidates=st.lists(codes, max_size=4), ground=colours)
def test_there_is_always_a_colour_that_reads(candidates: list[str], ground: Rgb) -> None:
    """Black or white reaches 4.5 on any ground (WCAG 2.2), so the choice never falls below 3."""
    assert contrast_ratio(parse_hex(best_against(candidates, [ground])), ground) >= 3


@MANY
@given(found=st.lists(codes, min_size=1, max_size=5))
def test_the_matrix_is_symmetrical_with_ones_in_its_middle(found: list[str]) -> None:
    matrix = contrast_matrix(found)
    assert all(matrix[at][at] == 1 for at in range(len(found)))
    assert matrix == [list(line) for line in zip(*matrix, strict=True)]
    assert {reading(ratio) for line in matrix for ratio in line} <= {"reads", "large only", "too faint"}


@MANY
@given(found=st.lists(st.tuples(codes, st.floats(0.01, 1)), min_size=1, max_size=6), ground=colours)
def test_the_weakest_contrast_is_one_of_the_contrasts(found: list[tuple[str, float]], ground: Rgb) -> None:
    shares = tuple(ColourShare(hex=code, share=share) for code, share in found)
    ratios = [contrast_ratio(parse_hex(code), ground) for code, _ in found]
    assert min(ratios) <= weakest_contrast(shares, ground) <= max(ratios)


@settings(max_examples=30, deadline=None)
@given(found=st.lists(colours, min_size=1, max_size=4, unique=True), counts=st.lists(st.integers(1, 90), min_size=4))
def test_the_colours_of_flat_artwork_are_exact_and_their_shares_add_up(found: list[Rgb], counts: list[int]) -> None:
    apart = [one for at, one in enumerate(found) if all(difference(one, other) > 0.1 for other in found[:at])]
    pixels = np.repeat(np.array(apart, np.uint8), counts[: len(apart)], axis=0)
    shown = main_colours(pixels)
    assert sum(entry.share for entry in shown) == pytest.approx(1, abs=0.01)
    assert {entry.hex for entry in shown} <= {to_hex(one) for one in apart}
    assert [entry.share for entry in shown] == sorted((entry.share for entry in shown), reverse=True)
