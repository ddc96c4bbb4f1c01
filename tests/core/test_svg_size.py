"""The natural size of an SVG: what people mean, and what would round to nothing."""

import pytest
from lxml import etree

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.svg_size import svg_frame
from fitzle.core.errors import ArtworkError

DOT = '<circle cx="5" cy="5" r="5"/>'


def drawing(attributes: str) -> bytes:
    return f'<svg xmlns="http://www.w3.org/2000/svg" {attributes}>{DOT}</svg>'.encode()


@pytest.mark.parametrize(
    ("attributes", "size"),
    [
        ('width="40" height="20"', (40, 20)),
        ('width="1in" height="0.5in"', (96, 48)),
        ('viewBox="0 0 30 10"', (30, 10)),
        ('width="60" viewBox="0 0 30 10"', (60, 20)),
        ('height="5" viewBox="0 0 30 10"', (15, 5)),
        ('width="100%" viewBox="0 0 30 10"', (30, 10)),
        ('width="0" height="0" viewBox="0 0 30 10"', (30, 10)),
        ('width="90000" viewBox="0 0 30 10"', (20_000, 20_000 / 3)),
        ("", (300, 150)),
        ('width="0.6" height="0.6"', (0.6, 0.6)),
    ],
)
def test_a_drawing_is_as_large_as_it_says(attributes: str, size: tuple[float, float]) -> None:
    frame = svg_frame(etree.fromstring(drawing(attributes)))
    assert (frame.width, frame.height) == pytest.approx(size)


@pytest.mark.parametrize(
    "attributes",
    [
        'width="1e-30" height="1e-30"',
        'width="1e-30" viewBox="0 0 30 10"',
        'width="0.0004" height="0.0004"',
        'width="0.4" height="100"',
        'viewBox="0 0 0.0004 0.0004"',
        'viewBox="0 0 1e-30 1e-30"',
        'width="100" height="100" viewBox="0 0 1e-30 1e-30"',
    ],
)
def test_a_drawing_that_rounds_to_nothing_is_refused_in_words(attributes: str) -> None:
    """Kept with a width of 0, such a drawing made every list that showed it fail."""
    with pytest.raises(
        ArtworkError, match=r"nothing of it would be seen|viewBox of this SVG|too long to be drawn"
    ) as told:
        read_artwork(drawing(attributes), "dot.svg")
    assert told.value.message.startswith("dot.svg: ")
