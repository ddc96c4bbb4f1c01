"""The search for the best file: never over the limit, exact pixels, scores as the reference gives them."""

import io
import itertools
from pathlib import Path

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from fitzle.core.encode import ssimulacra2
from fitzle.core.encode.choosing import best_file
from fitzle.core.encode.ico import ico_file
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.result import Choice
from fitzle.core.encode.settings import Lossless
from fitzle.core.encode.ssimulacra2 import Reference
from fitzle.core.findings import Finding
from fitzle.core.preflight.registry import judged
from fitzle.core.preflight.rule import Evidence
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size
from tests.fits import pixels as pixels_of
from tests.fits import searched, unhurried
from tests.make import disc, opened, photo, saved, sheet

PHOTO = np.asarray(photo(320, 200).convert("RGBA"))
MARK = np.asarray(disc(128))


def chosen(pixels: np.ndarray, target: SpecSheet) -> Choice:
    """The best file of these pixels for a sheet."""
    return best_file(pixels_of(pixels), target, Size(pixels.shape[1], pixels.shape[0]), unhurried())


def said(choice: Choice, target: SpecSheet) -> list[Finding]:
    """What the rules say where there is no file, and of its quality where there is one."""
    return judged(Evidence(target, choice=choice), "file")


OPAQUE = ("png", "jpeg", "webp", "bmp")


@pytest.mark.parametrize("fmt", OPAQUE)
def test_an_unlimited_file_has_the_exact_size_and_format_and_no_metadata(fmt: str) -> None:
    found = searched(fmt, pixels_of(PHOTO), None).best
    assert found is not None
    picture = opened(found.data)
    assert (picture.size, picture.format) == ((320, 200), fmt.upper())
    assert not {"exif", "icc_profile", "xmp", "comment"} & picture.info.keys()


@pytest.mark.parametrize(
    ("fmt", "limit"), list(itertools.product(["png", "jpeg", "webp"], [60_000, 30_000, 9_000, 4_000, 100]))
)
def test_no_file_is_ever_over_the_limit(fmt: str, limit: int) -> None:
    found = searched(fmt, pixels_of(PHOTO), limit)
    assert found.best is None or len(found.best.data) <= limit
    assert found.candidates
    if limit == 100:
        assert found.best is None


def test_more_bytes_never_look_worse() -> None:
    scores = [searched("jpeg", pixels_of(PHOTO), limit).best.score for limit in (8_000, 16_000, 32_000)]  # type: ignore[union-attr]
    assert scores == sorted(scores)


def test_png_is_lossless_where_it_fits_and_smaller_than_pillow_s() -> None:
    found = searched("png", pixels_of(MARK), 100_000).best
    assert found is not None
    assert found.settings == Lossless()
    back = np.asarray(opened(found.data).convert("RGBA"))
    assert np.array_equal(back[back[..., 3] > 0], MARK[MARK[..., 3] > 0])
    assert len(found.data) < len(saved(disc(128), "PNG", optimize=True))


def test_clear_pixels_hide_no_colour() -> None:
    """What is transparent is made zero: it costs nothing and leaks nothing."""
    hidden = MARK.copy()
    hidden[hidden[..., 3] == 0] = (200, 10, 10, 0)
    found = searched("png", pixels_of(hidden), None).best
    assert found is not None
    pixels = np.asarray(opened(found.data).convert("RGBA"))
    assert pixels[pixels[..., 3] == 0][:, :3].max() == 0


@pytest.mark.parametrize("side", [16, 32, 48, 256])
def test_an_ico_holds_its_picture_exactly(side: int) -> None:
    pixels = Raster(np.asarray(disc(side, margin=1)))
    for compressed in (False, True):
        data = ico_file([pixels], compressed)
        picture = opened(data)
        assert picture.size == (side, side)
        assert np.array_equal(np.asarray(picture.convert("RGBA")), pixels.pixels)


def test_an_ico_above_256_px_is_refused_in_words() -> None:
    target = sheet(formats=["ico"], size={"width": 300, "height": 300})
    choice = chosen(np.asarray(disc(300)), target)
    assert choice.best is None
    assert "256" in said(choice, target)[0].message


@settings(max_examples=60, deadline=None)
@given(st.integers(1, 30_000), st.floats(0.5, 3), st.integers(0, 500))
def test_the_knob_finds_the_highest_position_under_the_limit(limit: int, power: float, wobble: int) -> None:
    """On a growing curve with a wobble: what is found is under the limit, and close to the best that is."""

    def encode(position: int) -> bytes:
        return b"x" * int(100 + 3 * position**power + (position * 7919) % (wobble + 1))

    found, tried = largest_under(encode, limit, 1, 100)
    assert len(tried) <= 11
    if found is None:
        assert len(encode(1)) > limit or wobble
    else:
        assert len(found.data) <= limit
        if wobble == 0 and found.position < 95:
            assert len(encode(min(100, found.position + 12))) > limit * 0.9


def _blur_like_the_oracle(plane: np.ndarray) -> np.ndarray:
    """The oracle surrounds a picture with zeros at its sides but mirrors it above and below; we use zeros all round."""
    wide = cv2.copyMakeBorder(plane, 0, 0, 5, 5, cv2.BORDER_CONSTANT, value=0)
    kernel = cv2.getGaussianKernel(11, 1.5, cv2.CV_32F)
    return cv2.sepFilter2D(wide, -1, kernel, kernel, borderType=cv2.BORDER_REFLECT)[:, 5:-5]


@pytest.mark.parametrize("size", [(901, 603), (320, 200), (97, 64), (40, 33)])
@pytest.mark.parametrize("quality", [15, 45, 75, 92])
def test_scores_agree_with_the_reference_implementation(
    size: tuple[int, int], quality: int, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The oracle is the PyPI package ssimulacra2, which calculates in float64: 0.3 points are left to float32."""
    from ssimulacra2 import compute_ssimulacra2

    monkeypatch.setattr(ssimulacra2, "_blur", _blur_like_the_oracle)
    original = photo(*size)
    damaged = opened(saved(original, "JPEG", quality=quality)).convert("RGB")
    original.save(tmp_path / "a.png")
    damaged.save(tmp_path / "b.png")
    expected = compute_ssimulacra2(str(tmp_path / "a.png"), str(tmp_path / "b.png"))
    assert Reference(np.asarray(original)).score(np.asarray(damaged)) == pytest.approx(expected, abs=0.3)


def test_the_same_picture_scores_a_hundred() -> None:
    assert Raster(PHOTO).score(saved(Image.fromarray(PHOTO), "PNG")) == 100
    tiny = np.asarray(disc(16, margin=1))
    assert Raster(tiny).score(saved(Image.fromarray(Raster(tiny).pixels), "PNG")) == 100


def test_alpha_is_judged_on_the_worse_of_two_grounds() -> None:
    """A pale disc made opaque white at its rim cannot be seen on light, only on dark."""
    pixels = np.asarray(disc(128, "#e6e6e6")).copy()
    wrong = pixels.copy()
    wrong[wrong[..., 3] == 0] = (230, 230, 230, 255)
    out = io.BytesIO()
    Image.fromarray(wrong).save(out, "PNG")
    assert Raster(pixels).score(out.getvalue()) < 50


def test_the_preferred_format_is_taken_where_it_looks_good() -> None:
    assert chosen(PHOTO, sheet(formats=["webp", "png"], max_bytes=60_000)).best.format == "webp"  # type: ignore[union-attr]


def test_the_next_format_is_taken_where_the_preferred_one_looks_bad() -> None:
    target = sheet(formats=["png", "jpeg"], max_bytes=20_000)
    choice = chosen(PHOTO, target)
    assert choice.best is not None
    assert choice.best.format == "jpeg"
    assert {candidate.format for candidate in choice.candidates} == {"png", "jpeg"}


def test_what_is_clear_is_never_put_into_a_format_without_alpha() -> None:
    target = sheet(formats=["jpeg", "png"])
    choice = chosen(MARK, target)
    assert choice.best is not None
    assert choice.best.format == "png"


@pytest.mark.parametrize("formats", [["jpeg"], ["bmp"]])
def test_a_limit_that_cannot_be_met_gives_no_file_and_says_what_was_tried(formats: list[str]) -> None:
    target = sheet(formats=formats, max_bytes=300)
    choice = chosen(PHOTO, target)
    assert choice.best is None
    finding = said(choice, target)[0]
    assert (finding.rule, finding.severity) == ("bytes", "refused")
    assert "would help" in finding.message
    assert isinstance(finding.measured, int)
    assert finding.measured > 300


def test_a_format_in_which_nothing_stands_still_is_said() -> None:
    target = sheet(formats=["lottie"])
    choice = chosen(PHOTO, target)
    assert choice.best is None
    assert "nothing moves here" in said(choice, target)[0].message


def test_a_visible_loss_is_never_silent() -> None:
    target = sheet(formats=["jpeg"], max_bytes=2_600)
    choice = chosen(PHOTO, target)
    assert choice.best is not None
    assert said(choice, target)[0].rule == "quality"
    assert said(choice, target)[0].measured == choice.best.score
