"""The colours of a Lottie animation: all found, replaced by house colours, and nothing else changed."""

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.artwork.lottie_colours import colours_in, in_house_colours, recoloured
from fitzle.core.artwork.lottie_player import LottiePlayer
from fitzle.core.errors import ArtworkError
from tests.core.test_lottie import wheel

HEX = st.from_regex(r"#[0-9a-f]{6}", fullmatch=True)


def with_everything() -> dict[str, Any]:
    """A wheel with key frames of colour, a gradient, a solid and words besides."""
    document = wheel()
    frames = [{"t": 0, "s": [1, 0, 0, 1]}, {"t": 30, "s": [0, 1, 0, 1], "e": [0, 0, 1, 1]}]
    changing = {"ty": "fl", "c": {"a": 1, "k": frames}, "o": {"a": 0, "k": 100}}
    stops = {"p": 2, "k": {"a": 0, "k": [0, 0.2, 0.2, 0.2, 1, 1, 1, 0, 0, 1, 1, 0.5]}}
    gradient = {"ty": "gf", "t": 1, "g": stops, "s": {"a": 0, "k": [0, 0]}, "e": {"a": 0, "k": [9, 0]}}
    document["layers"][0]["shapes"][0]["it"] += [changing, gradient]
    words = {"d": {"k": [{"t": 0, "s": {"t": "x", "fc": [0, 1, 1], "s": 12, "f": "A"}}]}}
    return document | {
        "layers": [*document["layers"], {"ty": 1, "sc": "#ABCDEF", "sw": 9, "sh": 9}, {"ty": 5, "t": words}]
    }


def packed(document: dict[str, Any]) -> bytes:
    return json.dumps(document).encode()


def test_every_colour_is_found_wherever_it_stands() -> None:
    assert set(colours_in(packed(with_everything()))) == {
        "#17443c", "#b4541a", "#ff0000", "#00ff00", "#0000ff", "#333333", "#ffff00", "#abcdef", "#00ffff"
    }  # fmt: skip


@given(st.lists(HEX, min_size=9, max_size=9, unique=True))
def test_each_is_replaced_and_nothing_else(others: list[str]) -> None:
    data = packed(with_everything())
    own = colours_in(data)
    changed = recoloured(data, dict(zip(own, others, strict=True)))
    assert set(colours_in(changed)) == set(others)
    back = recoloured(changed, dict(zip(others, own, strict=True)))
    shape = json.loads(back)["layers"][0]["shapes"][0]["it"]
    assert set(colours_in(back)) == set(own) and len(json.loads(changed)["layers"]) == 3
    assert shape[-1]["g"]["k"]["k"][8:] == [0, 1, 1, 0.5], "what follows the stops is how clear they are"


def test_what_is_drawn_has_the_new_colour() -> None:
    before = LottiePlayer(packed(wheel())).at(0.5)
    after = LottiePlayer(recoloured(packed(wheel()), {"#17443c": "#c02020"})).at(0.5)
    seen = before[..., 3] > 250
    green = seen & (np.abs(before[..., :3].astype(int) - (23, 68, 60)).max(axis=-1) < 8)
    assert green.sum() > 500
    assert np.abs(after[green][:, :3].astype(int) - (192, 32, 32)).max() < 8
    assert np.array_equal(after[..., 3], before[..., 3])


def test_house_colours_are_given_by_likeness_and_greys_stay() -> None:
    house = ["#17443c", "#b4541a", "#f6e7c8"]
    found = in_house_colours(["#205a50", "#d06020", "#ffffff", "#808080", "#2040c0"], house)
    assert found["#205a50"] == "#17443c" and found["#d06020"] == "#b4541a"
    assert found["#ffffff"] == "#f6e7c8", "a white is near the house's paper"
    assert "#808080" not in found and found["#2040c0"] in house
    assert in_house_colours(["#205a50"], []) == {}


def test_colours_that_are_not_there_are_said_and_odd_values_are_left_alone() -> None:
    with pytest.raises(ArtworkError, match="none of these colours"):
        recoloured(packed(wheel()), {"#123456": "#ffffff"})
    odd = wheel()
    odd["layers"] += [{"ty": 1, "sc": "red"}, {"ty": 5, "t": {"d": {"k": "x"}}}]
    odd["layers"][0]["shapes"][0]["it"] += [{"ty": "fl", "c": {"k": "x"}}, {"ty": "gf", "g": {"p": "x", "k": 3}}]
    assert set(colours_in(packed(odd))) == {"#17443c", "#b4541a"}
