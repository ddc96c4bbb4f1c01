"""The SVG emitter against skia: the same plan drawn twice, the second time by librsvg."""

import re

import numpy as np
import pytest
import pyvips

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.fit.making import make_fit
from fitzle.core.render.painting import paint
from fitzle.core.render.svg import svg_of
from tests.core.composed import PIECES, artworks, decided, piece, words
from tests.fits import decided_fit
from tests.make import sheet, solid

MEAN_TOLERANCE = 2.0  # of 255; two rasterisers cover an edge pixel a little differently, a wrong colour costs more


def premultiplied(pixels: np.ndarray) -> np.ndarray:
    if pixels.shape[2] == 3:
        pixels = np.dstack([pixels, np.full(pixels.shape[:2], 255, np.uint8)])
    alpha = pixels[..., 3:].astype(float)
    return np.dstack([pixels[..., :3] * alpha / 255, alpha])


@pytest.mark.parametrize("case", PIECES)
def test_the_svg_looks_like_the_picture(case: str) -> None:
    plan, sources = decided(PIECES[case]).plan, artworks()[1]
    drawn = premultiplied(paint(plan, sources))
    again = premultiplied(pyvips.Image.svgload_buffer(svg_of(plan, sources)).numpy())
    assert drawn.shape == again.shape
    assert np.abs(drawn - again).mean() <= MEAN_TOLERANCE


def test_words_are_outlines_and_marks_stay_vectors() -> None:
    data = svg_of(decided(PIECES["sticker"]).plan, artworks()[1]).decode()
    assert "<text" not in data and "<image" not in data
    assert data.count("<svg") == 2, "the mark as it came, nested"
    assert "#17443c" in data and "#b4541a" not in data, "recoloured in its own attributes"


def test_two_marks_with_the_same_ids_do_not_meet() -> None:
    body = '<defs><linearGradient id="g"><stop stop-color="#f00"/></linearGradient></defs>'
    body += '<path d="M0 0h9v9z" fill="url(#g)"/>'
    art = read_artwork(f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">{body}</svg>'.encode(), "g.svg")
    one = {"id": "a", "role": "mark", "artwork": "g", "stands": {"anchor": "left", "width": 0.5, "height": 0.5}}
    two = {**one, "id": "b", "stands": {"anchor": "right", "width": 0.5, "height": 0.5}}
    fit = decided_fit(piece(one, two), sheet(), {"g": art})
    ids = re.findall(r' id="([^"]+)"', svg_of(fit.plan, {"g": art.source}).decode())
    assert {"a-g", "b-g"} <= set(ids) and len(ids) == len(set(ids))


def test_a_place_that_prefers_svg_gets_one_and_accepts_it() -> None:
    place = {"formats": ["svg", "png"], "max_bytes": 60_000}
    made = make_fit(decided(piece(words(), ground=solid("#17443c")), **place), artworks()[1])
    assert made.encoded is not None and made.encoded.format == "svg"
    assert made.judgement.verdict == "fits"
    assert read_artwork(made.encoded.data, "own.svg").facts.vector


def test_a_too_heavy_svg_falls_back_to_the_next_format_or_says_so() -> None:
    made = make_fit(decided(PIECES["blends"], formats=["svg", "jpeg"], max_bytes=30_000), artworks()[1])
    assert made.encoded is not None and made.encoded.format == "jpeg"
    made = make_fit(decided(PIECES["blends"], formats=["svg"], max_bytes=2_000), artworks()[1])
    assert made.encoded is None
    assert "too many" in made.judgement.findings[0].message
