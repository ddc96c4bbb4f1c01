"""Harmonies in OKLCH and the matrix of contrasts."""

import numpy as np
import pytest

from fitzle.core.colour.contrast import contrast_matrix, reading
from fitzle.core.colour.harmonies import HARMONIES, harmonies
from fitzle.core.colour.oklab import oklab, to_lch
from fitzle.core.colour.srgb import parse_hex


def lch(colour: str) -> np.ndarray:
    return to_lch(oklab(np.array(parse_hex(colour), dtype=np.uint8)))


@pytest.mark.parametrize("colour", ["#17443c", "#b4541a", "#f4d06f", "#3050d0", "#808060"])
@pytest.mark.parametrize("name", HARMONIES)
def test_a_harmony_keeps_lightness_and_turns_the_hue(colour: str, name: str) -> None:
    own = lch(colour)
    for degrees, found in zip(HARMONIES[name], harmonies(colour)[name], strict=True):
        other = lch(found)
        assert other[0] == pytest.approx(own[0], abs=0.02)
        assert other[1] <= own[1] + 0.01
        away = (np.degrees(other[2] - own[2]) - degrees + 180) % 360 - 180
        assert abs(away) < 6


def test_a_grey_has_only_itself() -> None:
    assert {colour for group in harmonies("#808080").values() for colour in group} == {"#808080"}


@pytest.mark.parametrize(
    ("ratio", "said"), [(21, "reads"), (4.5, "reads"), (4.49, "large only"), (3, "large only"), (2.99, "too faint")]
)
def test_a_contrast_is_good_for_what_wcag_says(ratio: float, said: str) -> None:
    assert reading(ratio) == said


def test_the_matrix_is_that_of_wcag() -> None:
    """Published: black on white 21 : 1, #767676 on white 4.54 : 1."""
    matrix = contrast_matrix(["#000000", "#ffffff", "#767676"])
    assert matrix[0][1] == matrix[1][0] == 21
    assert matrix[1][2] == 4.54
    assert [matrix[index][index] for index in range(3)] == [1, 1, 1]
