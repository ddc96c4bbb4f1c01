"""Boxes around a subject: one proposed where nothing is sure, and a wider one where the box cuts the subject."""

import numpy as np
import pytest

from fitzle.core.artwork.cutout.cutting import Wishes, cut_out
from fitzle.core.artwork.cutout.salient import salient_box
from fitzle.core.errors import NoSubjectFound
from fitzle.core.geometry.rect import Rect
from tests.scenes import SUBJECTS, scene

NUMBERS = range(20, 26)


def box_of(mask: np.ndarray) -> Rect:
    rows, columns = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
    return Rect(columns[0], rows[0], columns[-1] + 1 - columns[0], rows[-1] + 1 - rows[0])


def rgba(picture: np.ndarray) -> np.ndarray:
    return np.dstack([picture, np.full(picture.shape[:2], 255, np.uint8)])


def test_the_proposed_box_holds_the_subject_and_little_else() -> None:
    """Of 24 scenes that were not looked at while it was made, in nearly all of them."""
    held = 0
    for subject in SUBJECTS:
        for number in NUMBERS:
            picture, mask = scene(subject, number)
            box = salient_box(rgba(picture))
            assert box is not None, (subject, number)
            inside = mask[round(box.y) : round(box.bottom), round(box.x) : round(box.right)].sum() / mask.sum()
            truth = box_of(mask)
            held += inside > 0.99 and box.width * box.height < 2 * truth.width * truth.height
    assert held >= 21


def test_where_nothing_stands_out_nothing_is_proposed() -> None:
    assert salient_box(np.full((300, 400, 4), 128, np.uint8)) is None


@pytest.mark.parametrize("subject", ["cup", "ball"])
def test_choosing_for_me_proposes_the_box(subject: str) -> None:
    picture, mask = scene(subject, 31)
    with pytest.raises(NoSubjectFound, match="Use the box that is proposed") as caught:
        cut_out(rgba(picture))
    x, y, width, height = caught.value.box or (0, 0, 0, 0)
    truth = box_of(mask)
    assert x * picture.shape[1] <= truth.x and (x + width) * picture.shape[1] >= truth.right
    assert y * picture.shape[0] <= truth.y and (y + height) * picture.shape[0] >= truth.bottom


@pytest.mark.parametrize("subject", SUBJECTS)
@pytest.mark.parametrize("number", [41, 42])
def test_a_box_that_cuts_the_subject_gets_a_wider_one_offered(subject: str, number: int) -> None:
    picture, mask = scene(subject, number)
    truth = box_of(mask)
    half = Rect(truth.x + truth.width / 2, truth.y - 10, truth.width / 2 + 10, truth.height + 20)
    cut = cut_out(rgba(picture), "object", Wishes(box=half))
    assert cut.wider is not None
    assert cut.wider.x < half.x - 0.1 * truth.width
    assert (cut.wider.right, cut.wider.bottom) == pytest.approx((half.right, half.bottom)), "the other sides stay"


@pytest.mark.parametrize("subject", SUBJECTS)
@pytest.mark.parametrize("number", [41, 42])
def test_a_box_that_holds_the_subject_is_left_alone(subject: str, number: int) -> None:
    picture, mask = scene(subject, number)
    truth = box_of(mask)
    air = 0.12 * truth.width
    box = Rect(truth.x - air, truth.y - air, truth.width + 2 * air, truth.height + 2 * air)
    cut = cut_out(rgba(picture), "object", Wishes(box=box))
    assert cut.wider is None
    assert np.abs(cut.pixels[..., 3] / 255 - mask).mean() < 0.02
