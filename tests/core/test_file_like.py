"""Files like one that was found for a sibling: never over the limit, as good as searched from the beginning."""

from functools import cache
from typing import Any

import numpy as np
import pytest
from PIL import ImageDraw

from fitzle.core.encode.choosing import best_file
from fitzle.core.encode.like import MOST_ENCODES, WORSE, file_like
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Choice
from fitzle.core.encode.wish import Wish
from fitzle.core.units import Size
from tests.make import photo, sheet

SIZE = Size(640, 360)
PLACES: dict[str, dict[str, Any]] = {
    "jpeg, tight": {"formats": ["jpeg"], "max_bytes": 24_000},
    "jpeg, roomy": {"formats": ["jpeg"], "max_bytes": 400_000},
    "webp": {"formats": ["webp", "jpeg"], "max_bytes": 20_000},
    "png of few colours": {"formats": ["png"], "max_bytes": 300_000},
    "avif": {"formats": ["avif", "jpeg"], "max_bytes": 15_000},
    "no limit": {"formats": ["jpeg"]},
}


def rendered(words: str, busy: bool = False) -> Rendered:
    """One of a series: a photo beside words, or noise that weighs many times as much."""
    picture = photo(*SIZE).convert("RGB").filter(BLUR)
    ImageDraw.Draw(picture).text((24, 120), words, "#ffffff", font_size=52)
    pixels = np.dstack([np.asarray(picture), np.full((SIZE.height, SIZE.width), 255, np.uint8)])
    if busy:
        noise = np.random.default_rng(4).integers(0, 256, (SIZE.height, SIZE.width, 3))
        pixels = np.dstack([noise.astype(np.uint8), pixels[..., 3]])
    return Rendered(lambda: pixels, lambda: b"")


def _blur() -> Any:
    from PIL import ImageFilter

    return ImageFilter.GaussianBlur(6)


BLUR = _blur()


@cache
def first(place: str) -> Choice:
    return best_file(rendered("Lesson 1"), there(place), SIZE)


def there(place: str) -> Any:
    return sheet(size={"width": SIZE.width, "height": SIZE.height}, transparency="forbidden", **PLACES[place])


@pytest.mark.parametrize("place", PLACES)
def test_a_sibling_gets_a_file_as_good_with_few_encodes(place: str) -> None:
    before, own = first(place).best, rendered("Lesson 12: find the click")
    assert before
    found, whole = file_like(before, own, there(place), SIZE), best_file(own, there(place), SIZE)
    assert found.best and whole.best and not found.problem
    limit = PLACES[place].get("max_bytes")
    assert limit is None or len(found.best.data) <= limit
    assert found.best.format == before.format and found.best.score >= whole.best.score - 1.5
    assert len(found.candidates) <= MOST_ENCODES
    again = file_like(before, own, there(place), SIZE).best
    assert again and again.data == found.best.data, "each time alike"


def test_what_is_nothing_like_it_is_looked_for_from_the_beginning() -> None:
    place = "webp"
    before = first(place).best
    assert before
    found = file_like(before, rendered("", busy=True), there(place), SIZE)
    assert found.best is None or len(found.best.data) <= 20_000
    whole = best_file(rendered("", busy=True), there(place), SIZE)
    assert (found.best is None) == (whole.best is None) and found.problem == whole.problem
    assert before.score > WORSE


@pytest.mark.parametrize("before", ["none", "another format", "another wish"])
def test_without_one_that_serves_all_is_searched(before: str) -> None:
    place, own = "jpeg, tight", rendered("Lesson 2")
    wish = Wish(chroma="4:4:4") if before == "another wish" else Wish()
    sibling = {"none": None, "another format": first("png of few colours").best, "another wish": first(place).best}
    found = file_like(sibling[before], own, there(place), SIZE, wish=wish).best
    whole = best_file(own, there(place), SIZE, wish=wish).best
    assert found and whole and found.format == whole.format == "jpeg"
    assert found.score >= whole.score - 1.5
