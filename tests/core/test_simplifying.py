"""A mark with fewer parts: what stays holds at the size seen, and the drawing is otherwise the same."""

import numpy as np
import pytest
from demo.marks import MARKS
from lxml import etree

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.colour.srgb import Rgb
from fitzle.core.preflight.simplifying import ENOUGH, Simpler, simpler_mark
from tests.core.judged import drawings

WHITE = Rgb(255, 255, 255)


def simpler(svg: str, seen: float) -> Simpler | None:
    source = read_artwork(svg.encode(), "m.svg").source
    return simpler_mark(source, [WHITE], seen)  # type: ignore[arg-type]


def parts(count: int, small: float = 3) -> str:
    """A large square, `count` middling ones and many specks."""
    large = '<rect x="2" y="2" width="60" height="60" fill="#17443c"/>'
    middling = "".join(f'<rect x="70" y="{4 + 30 * n}" width="26" height="24" fill="#b4541a"/>' for n in range(count))
    specks = "".join(
        f'<g><circle cx="{6 + 7 * (n % 8)}" cy="{8 + 7 * (n // 8)}" r="{small}" fill="#f4d06f"/></g>' for n in range(56)
    )
    hidden = '<defs><clipPath id="c"><rect width="9" height="9"/></clipPath></defs>'
    return drawings.svg(hidden + large + middling + specks)


@pytest.mark.parametrize("seen", [12, 16, 24])
def test_the_large_parts_stay_and_hold(seen: int) -> None:
    found = simpler(parts(2, 1.4), seen)
    assert found and 1 <= found.kept < found.of == 59 and found.lost <= ENOUGH
    root = etree.fromstring(found.svg)
    assert root.findall(".//{*}clipPath/{*}rect"), "what is only referred to is left alone"
    assert 'fill="#17443c"' in found.svg.decode()


def test_a_crest_becomes_its_shield() -> None:
    found = simpler(drawings.crest(1, "#17443c", "#f4d06f"), 16)
    assert found and found.kept < 20 and found.lost <= ENOUGH
    drawn = read_artwork(found.svg, "m.svg").facts
    assert drawn.colours[0].hex == "#17443c"


def test_more_room_keeps_more() -> None:
    kept = [found.kept for seen in (12, 48, 120) if (found := simpler(parts(2), seen))]
    assert kept == sorted(kept)


@pytest.mark.parametrize("svg", [drawings.gear("#333333", 40), drawings.disc("#17443c"), MARKS["ottermoor-dark.svg"]])
def test_what_has_no_small_parts_is_left_alone(svg: str) -> None:
    assert simpler(svg, 16) is None


def test_nothing_is_simpler_than_nothing() -> None:
    clear = drawings.svg('<rect width="1" height="1" fill="none"/><rect width="2" height="2" fill="none"/>')
    found = simpler(clear, 16)
    assert found is None or found.lost == 0
    assert np.isfinite(found.lost if found else 0)
