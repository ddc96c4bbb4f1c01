"""Demands that cannot hold together, and ways out that end them."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.spec.checking.draft import look_at
from fitzle.core.spec.sizing import aspect_allowed
from fitzle.core.spec.words.reading import read_words

BASE: dict[str, Any] = {
    "fitzle_spec": 1,
    "name": "Shop banner",
    "size": {"width": 1280, "height": 720},
    "formats": ["png"],
}
NOT_TOGETHER: list[tuple[dict[str, Any], str, str]] = [
    ({"size": {"min_width": 500, "max_width": 300}}, "size", "at least 500 px and at most 300 px wide"),
    ({"size": {"min_height": 90, "max_height": 30}}, "size", "at least 90 px and at most 30 px high"),
    (
        {"size": {"min_width": 500, "max_width": 600, "min_height": 500, "max_height": 600, "aspect": "16:9"}},
        "size",
        "has the shape 16:9",
    ),
    ({"size": {"max_width": 800, "recommended": {"width": 900, "height": 9}}}, "size", "more than the most, 800 px"),
    ({"size": {"min_height": 80, "recommended": {"width": 90, "height": 9}}}, "size", "less than the least, 80 px"),
    ({"size": {"aspect": "2:1", "recommended": {"width": 900, "height": 900}}}, "size", "are not 2:1"),
    ({"formats": ["jpeg"], "transparency": "required"}, "transparency", "JPEG cannot be"),
    ({"formats": ["jpeg", "bmp"], "transparency": "required"}, "transparency", "JPEG and BMP cannot be"),
    ({"motion": {"allowed": True, "required": True}}, "motion", "has to move, and PNG cannot"),
    ({"formats": ["jpeg"], "max_bytes": 3000}, "max_bytes", "weigh at least 3.7 KB"),
    ({"formats": ["bmp"], "max_bytes": 2_000_000}, "max_bytes", "at least 2.8 MB"),
    ({"formats": ["ico"]}, "formats", "ICO is at most 256 px long"),
    ({"formats": ["png", "png"]}, "formats", "PNG is listed twice"),
    ({"formats": []}, "formats", "at least one format"),
    ({"covered": [{"x": 0.9, "y": 0, "width": 0.3, "height": 0.1, "label": "time"}]}, "covered", "time reaches beyond"),
    ({"windows": [{"x": 0, "y": 0.9, "width": 0.3, "height": 0.2, "name": "TV"}]}, "windows", "TV reaches beyond"),
    ({"covered": [{"x": 0, "y": 0, "width": 1, "height": 1, "label": "bar"}]}, "covered", "bar covers all"),
    ({"veil": {"colour": "#000000", "opacity": 1}}, "veil", "Nothing shows"),
]


@pytest.mark.parametrize(("changed", "key", "words"), NOT_TOGETHER)
def test_demands_that_cannot_hold_are_said_at_their_key(changed: dict[str, Any], key: str, words: str) -> None:
    found = look_at({**BASE, **changed}).contradictions
    assert [one.keys[0] for one in found] == [key]
    assert words in found[0].message


@pytest.mark.parametrize("changed", [changed for changed, _, _ in NOT_TOGETHER])
def test_each_way_out_ends_what_it_is_offered_for(changed: dict[str, Any]) -> None:
    data = {**BASE, **changed}
    [found] = look_at(data).contradictions
    assert found.ways_out, "nobody is left without one"
    for way in found.ways_out:
        after = look_at({**data, **way.change})
        assert after.sheet is not None, way.label
        assert found.message not in [one.message for one in after.contradictions], way.label


@pytest.mark.parametrize(
    ("changed", "key", "words"),
    [
        ({"size": {"width": 0, "height": 5}}, "size", "Width: should be at least 1 (found 0)."),
        ({"size": "large"}, "size", "Size: "),
        ({"size": {"min_width": 10, "max_width": "wide"}}, "size", "Most width: "),
        ({"veil": {"colour": "red", "opacity": 0.3}}, "veil", "write it as #1d3b4f"),
        ({"cut": {"shape": "star"}}, "cut", "Cut: "),
        ({"max_bytes": -4}, "max_bytes", "Weight: should be at least 1 (found -4)."),
        ({"covered": [{"x": 0, "y": 0, "width": 0.1, "height": 0.1, "label": "x"}] * 10_000}, "covered", "at most 50"),
        ({"colour": "red"}, "colour", "is not a key of this document"),
    ],
)
def test_what_is_no_sheet_says_where(changed: dict[str, Any], key: str, words: str) -> None:
    found = look_at({**BASE, **changed})
    assert found.sheet is None
    assert found.contradictions[0].keys == (key,)
    assert words in found.contradictions[0].message


def test_a_sheet_that_holds_has_nothing_said_of_it() -> None:
    found = look_at({**BASE, "max_bytes": 200, "transparency": "required"})
    assert found.sheet is not None
    assert found.contradictions == []


JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=6,
)
ZONE = st.fixed_dictionaries({}, optional=dict.fromkeys(("x", "y", "width", "height", "label", "name"), JSON))
SIZE = st.fixed_dictionaries(
    {}, optional={key: st.integers(-5, 900) | JSON for key in ("min_width", "max_width", "aspect", "recommended")}
)


@given(
    st.fixed_dictionaries(
        {},
        optional={
            "size": SIZE | JSON,
            "formats": st.lists(st.sampled_from(["png", "ico", "x"])) | JSON,
            "covered": st.lists(ZONE, max_size=3) | JSON,
            "windows": st.lists(ZONE, max_size=3) | JSON,
            "veil": JSON,
            "motion": JSON,
        },
    )
)
def test_whatever_is_written_is_answered_and_no_sheet_always_says_why(changed: dict[str, Any]) -> None:
    found = look_at({**BASE, **changed})
    assert found.sheet is not None or found.contradictions


@pytest.mark.parametrize(
    ("words", "said", "places"),
    [
        ("JPG 1280 x 720 px, max. 2 KB", "weigh at least 3.7 KB", ["JPG", "1280 x 720 px", "max. 2 KB"]),
        ("ICO, 512 x 512 px", "at most 256 px long", ["ICO", "512 x 512 px"]),
    ],
)
def test_the_reader_of_words_says_them_too_with_the_places(words: str, said: str, places: list[str]) -> None:
    read = read_words(words)
    assert read.sheet is None
    assert said in read.problems[0].message
    assert [place.text for place in read.problems[0].places] == places


@pytest.mark.parametrize(
    ("aspect", "width", "height", "taken"),
    [
        ("1.91:1", 1200, 630, True),
        ("1.91:1", 1200, 620, False),
        ("16:9", 1280, 720, True),
        ("16:9", 853, 480, True),
        ("16:9", 1285, 720, False),
        ("2.35:1", 1880, 800, True),
        ("0.8:1", 800, 1000, True),
        ("1:1.91", 630, 1200, True),
    ],
)
def test_a_shape_written_with_decimals_holds_as_far_as_it_is_written(
    aspect: str, width: int, height: int, taken: bool
) -> None:
    assert aspect_allowed(aspect, width, height) is taken
    size = {"aspect": aspect, "recommended": {"width": width, "height": height}}
    assert (look_at({**BASE, "size": size}).contradictions == []) is taken
