"""Where a file lost most."""

from __future__ import annotations

import numpy as np
import pytest
from PIL import Image

from fitzle.core.encode.local_error import BLOCK_PX, MOST_ALPHA, local_error, painted, worst_area
from fitzle.core.geometry.rect import Rect
from tests.make import opened, photo, saved

PICTURE = np.asarray(photo(320, 240).convert("RGB"))


def _damaged(box: tuple[int, int, int, int]) -> np.ndarray:
    """The picture as a poor JPEG in one box alone."""
    poor = opened(saved(Image.fromarray(PICTURE), "JPEG", quality=4)).convert("RGB")
    out = Image.fromarray(PICTURE)
    out.paste(poor.crop(box), box[:2])
    return np.asarray(out)


@pytest.mark.parametrize("box", [(0, 0, 80, 60), (240, 180, 320, 240), (120, 90, 200, 150)])
def test_the_worst_part_is_where_the_damage_is(box: tuple[int, int, int, int]) -> None:
    errors = local_error(PICTURE, _damaged(box))
    assert errors.shape == (240 // BLOCK_PX, 320 // BLOCK_PX)
    worst = worst_area(errors)
    there = Rect(box[0] / 320, box[1] / 240, 0.25, 0.25)
    assert abs(worst.centre.x - there.centre.x) < 0.09 and abs(worst.centre.y - there.centre.y) < 0.09
    veil = painted(errors)
    left, top = box[0] // BLOCK_PX, box[1] // BLOCK_PX
    inside = veil[top + 1 : top + 3, left + 1 : left + 4, 3]
    assert inside.mean() > 4 * max(1.0, float(np.median(veil[..., 3]))) and veil[..., 3].max() <= MOST_ALPHA


def test_what_lost_nothing_has_no_veil() -> None:
    errors = local_error(PICTURE, PICTURE)
    assert errors.max() < 1e-4 and painted(errors)[..., 3].max() == 0


@pytest.mark.parametrize("size", [(16, 16), (17, 40), (300, 9)])
def test_small_and_narrow_pictures_have_errors_too(size: tuple[int, int]) -> None:
    width, height = size
    one = np.asarray(photo(width, height).convert("RGB"))
    other = np.zeros_like(one)
    errors = local_error(one, other)
    assert errors.shape == (-(-height // BLOCK_PX), -(-width // BLOCK_PX))
    worst = worst_area(errors)
    assert 0 <= worst.x <= worst.right <= 1.0001 and 0 <= worst.y <= worst.bottom <= 1.0001
