"""Photos with hard edges that were enlarged are found out, and how far; those of their own size are not accused."""

import cv2
import numpy as np
import pytest
from PIL import Image

from fitzle.core.artwork.detail import detail_share
from tests.make import opened, saved
from tests.scenes import SHAPES, hard_edged

WIDTH, HEIGHT, QUALITY = 1200, 900, 88
FACTORS = (2.0, 2.4, 3.0, 4.0)
GRAINS = (0.0, 4.0)
RESAMPLING = {
    "bicubic": Image.Resampling.BICUBIC,
    "lanczos": Image.Resampling.LANCZOS,
    "bilinear": Image.Resampling.BILINEAR,
}


def enlarged(picture: np.ndarray, way: str) -> Image.Image:
    if way == "in steps":
        between = (round((WIDTH * picture.shape[1]) ** 0.5), round((HEIGHT * picture.shape[0]) ** 0.5))
        return Image.fromarray(picture).resize(between, Image.Resampling.BICUBIC).resize((WIDTH, HEIGHT))
    if way == "sharper bicubic":
        return Image.fromarray(cv2.resize(picture, (WIDTH, HEIGHT), interpolation=cv2.INTER_CUBIC))
    return Image.fromarray(picture).resize((WIDTH, HEIGHT), RESAMPLING[way])


def told(picture: Image.Image) -> float:
    grey = np.asarray(opened(saved(picture, "JPEG", quality=QUALITY)).convert("L")).astype(np.float32)
    return 1 / detail_share(grey)


@pytest.mark.parametrize("grain", GRAINS)
@pytest.mark.parametrize("way", ["bicubic", "sharper bicubic", "lanczos", "bilinear", "in steps"])
def test_enlarged_photos_are_found_out_and_how_far(way: str, grain: float) -> None:
    found = within = 0
    for number, shapes in enumerate(SHAPES):
        for factor in FACTORS:
            small = hard_edged(shapes, (round(WIDTH / factor), round(HEIGHT / factor)), number + 10, grain)
            ratio = told(enlarged(small, way)) / factor
            found += ratio * factor > 1
            within += abs(ratio - 1) <= 0.15
    of_all = len(SHAPES) * len(FACTORS)
    assert found == of_all, found
    assert within >= (0.75 if way == "bilinear" else 0.8) * of_all, within


def averaged(shapes: str, factor: float, seed: int) -> np.ndarray:
    """A small scene as it comes from a large one of three times its size: each px is the mean of nine."""
    width, height = round(WIDTH / factor), round(HEIGHT / factor)
    large = hard_edged(shapes, (3 * width, 3 * height), seed, 3.0)
    return np.asarray(Image.fromarray(large).resize((width, height), Image.Resampling.BOX))


@pytest.mark.parametrize("way", ["bicubic", "sharper bicubic", "lanczos", "bilinear", "in steps"])
def test_enlarged_photos_that_were_scaled_down_before_are_found_out_as_well(way: str) -> None:
    cases = [(shapes, factor, 60 + number) for number, shapes in enumerate(SHAPES) for factor in (1.9, 2.6, 3.4)]
    ratios = [told(enlarged(averaged(shapes, factor, seed), way)) / factor for shapes, factor, seed in cases]
    found = sum(ratio * factor > 1 for ratio, (_, factor, _) in zip(ratios, cases, strict=True))
    assert found >= len(cases) - 1, found
    assert sum(abs(ratio - 1) <= 0.15 for ratio in ratios) >= 0.8 * len(cases), ratios


@pytest.mark.parametrize("grain", GRAINS)
@pytest.mark.parametrize("shapes", SHAPES)
def test_photos_of_their_own_size_are_taken_at_their_word(shapes: str, grain: float) -> None:
    for number in range(5):
        assert told(Image.fromarray(hard_edged(shapes, (WIDTH, HEIGHT), number, grain))) == 1, number


@pytest.mark.parametrize("sigma", [0.5, 0.7, 0.9])
@pytest.mark.parametrize("shapes", [shapes for shapes in SHAPES if shapes != "wires"])  # too few edges to tell
def test_a_soft_lens_is_no_enlarging(shapes: str, sigma: float) -> None:
    soft = cv2.GaussianBlur(hard_edged(shapes, (WIDTH, HEIGHT), 3), (0, 0), sigma)
    assert told(Image.fromarray(soft)) == 1
