"""SVG with fewer bytes: the same drawing, never a longer file, and whatever is not understood stays."""

from __future__ import annotations

import numpy as np
import pytest
from demo.marks import MARKS
from hypothesis import given, settings
from hypothesis import strategies as st
from lxml import etree

from fitzle.core.encode.svg_minimise import MOST_DIFFERENCE, MOST_MEAN, _alike, _drawn, _shortened, minimised_svg
from tests.core.judged import drawings

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 100 80"'
WORDY = f"""<?xml version="1.0"?>
<!-- made by hand -->
{HEAD} xmlns:tool="http://example.com/tool" tool:version="7">
  <metadata><tool:info>nobody reads this</tool:info></metadata>
  <defs> <linearGradient id="g"><stop offset="0" stop-color="#ff0000"/><stop offset="1" stop-color="#0000ff"/>
  </linearGradient> </defs>
  <g> </g>
  <g fill-opacity="1" stroke="none" id="unused" tool:label="layer 1">
    <rect id="r" x="5.000000" y="5.123456789" width="40.0000001" height="30" fill="url(#g)"/>
    <path d="M 60.123456,10.5 C 70.1 10.2 , 80.33333333 20.0, 90 , 40 L60.5.5 z" fill="#aabbcc"/>
    <use xlink:href="#r" x="2" y="40.25"/>
  </g>
  <text x="10" y="75" font-size="8">two  words <tspan> here</tspan></text>
</svg>"""


def test_what_is_drawn_stays_and_the_rest_goes() -> None:
    data = minimised_svg(WORDY.encode())
    assert len(data) < 0.62 * len(WORDY)
    assert _alike(_drawn(WORDY.encode()), _drawn(data))
    said = data.decode()
    assert "nobody reads" not in said and "made by hand" not in said and "tool:" not in said and "unused" not in said
    assert 'id="g"' in said and 'id="r"' in said, "what is referred to keeps its name"
    assert "two  words <tspan> here</tspan>" in said, "space between words is drawn"


@pytest.mark.parametrize("name", sorted(MARKS))
def test_the_samples_marks_are_drawn_alike(name: str) -> None:
    data = minimised_svg(MARKS[name].encode())
    assert len(data) <= len(MARKS[name].encode())
    apart = np.abs(_drawn(MARKS[name].encode()) - _drawn(data))
    assert apart.max() <= MOST_DIFFERENCE and apart.mean() <= MOST_MEAN


@pytest.mark.parametrize("seed", range(4))
def test_crests_lose_no_part(seed: int) -> None:
    crest = drawings.crest(seed, "#17443c", "#f4d06f")
    data = minimised_svg(crest.encode())
    assert len(etree.fromstring(data).findall(".//{*}circle")) == crest.count("<circle")


@pytest.mark.parametrize(
    ("value", "short"),
    [
        ("M 10.50000 , 20.25", "M 10.5 20.25"), ("M0.5.5L.25-.125", "M.5 .5L.25-.125"), ("1e-9", "0"), ("-0.0001", "0"),
        ("A 5 5 0 01 10.123456 3", "A 5 5 0 01 10.123 3"), ("100", "100"), ("1.50,2.0", "1.5 2"),
    ],
)  # fmt: skip
def test_numbers_get_shorter_and_stay_apart(value: str, short: str) -> None:
    assert _shortened(value, 3) == short


@settings(max_examples=80, deadline=None)
@given(st.lists(st.floats(-900, 900, allow_nan=False), min_size=2, max_size=12), st.integers(0, 6))
def test_shortened_numbers_are_the_same_numbers(numbers: list[float], places: int) -> None:
    back = [float(one) for one in _shortened(" ".join(f"{one:.8f}" for one in numbers), places).split()]
    assert len(back) == len(numbers)
    assert np.abs(np.array(back) - np.array(numbers)).max() <= 0.5001 * 10**-places + 1e-8


def test_a_default_that_undoes_what_is_inherited_stays() -> None:
    inner = '<g stroke="#ff0000" stroke-width="9"><rect x="20" y="20" width="40" height="30" stroke="none"/></g></svg>'
    data = minimised_svg(f"{HEAD}>{inner}".encode())
    assert b'stroke="none"' in data and _alike(_drawn(f"{HEAD}>{inner}".encode()), _drawn(data))


def test_styles_are_left_alone() -> None:
    rect = '<rect id="a" x="10" y="10" width="50" height="40" stroke="none"/>'
    styled = f"{HEAD}><style>#a {{ fill: #00ff00 }} rect {{ stroke: red }}</style>{rect}</svg>"
    data = minimised_svg(styled.encode())
    assert b'id="a"' in data and _alike(_drawn(styled.encode()), _drawn(data))
