"""One file for several places: what their sheets have in common, or why there is nothing."""

from itertools import permutations
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.registry import judged
from fitzle.core.preflight.rule import Evidence
from fitzle.core.spec.serving import Obstacle, common_sheet, groups, worse_for
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size
from tests.make import sheet


def place(name: str = "Badge", **keys: Any) -> SpecSheet:
    return sheet(**{"name": name, "destination": "", **keys})


SQUARE = {"size": {"width": 512, "height": 512}, "formats": ["png"]}
AT_LEAST = {"size": {"min_width": 150, "min_height": 150, "aspect": "1:1"}, "formats": ["webp", "png"]}


def test_what_all_of_them_take_is_left() -> None:
    common = common_sheet(
        [
            place(**SQUARE, max_bytes=500_000, transparency="required", grounds=["#ffffff"]),
            place(
                "Portrait",
                **AT_LEAST,
                max_bytes=200_000,
                grounds=["#000000", "#ffffff"],
                cut={"shape": "circle"},
                seen=[{"name": "list", "width": 48}],
                covered=[{"x": 0, "y": 0, "width": 0.1, "height": 0.1, "label": "dot"}],
            ),
        ]
    )
    assert isinstance(common, SpecSheet)
    assert (common.size, common.formats) == (place(**SQUARE).size, ("png",))
    assert (common.max_bytes, common.transparency) == (200_000, "required")
    assert common.grounds == ("#ffffff", "#000000")
    assert common.mask is not None
    assert common.mask.shape == "circle"
    assert [one.label for one in common.covered] == ["dot"]
    assert [one.width for one in common.seen] == [48]


@pytest.mark.parametrize(
    ("one", "other", "key", "words"),
    [
        (
            {"size": {"width": 500, "height": 500}},
            {"size": {"width": 512, "height": 512}},
            "size",
            "Badge takes exactly 500 × 500 px, Banner takes exactly 512 × 512 px.",
        ),
        (
            {"size": {"width": 100, "height": 100}},
            {"size": {"min_width": 150}},
            "size",
            "takes at least 150 px wide",
        ),
        ({"size": {"width": 640, "height": 360}}, {"size": {"aspect": "1:1"}}, "size", "of the shape 1:1"),
        ({"size": {"aspect": "16:9"}}, {"size": {"aspect": "4:3"}}, "size", "takes the shape 16:9, Banner 4:3"),
        ({"size": {"max_height": 90}}, {"size": {"min_height": 91}}, "size", "at most 90 px high"),
        ({"formats": ["jpeg"]}, {"formats": ["png", "webp"]}, "formats", "takes JPEG, Banner PNG or WebP."),
        (
            {"transparency": "required"},
            {"transparency": "forbidden"},
            "transparency",
            "Badge has to be transparent, Banner may not be.",
        ),
        (
            {"formats": ["gif"], "motion": {"allowed": True, "required": True}},
            {"formats": ["gif"]},
            "motion",
            "Badge has to move, Banner has to stand still.",
        ),
        (
            {"formats": ["bmp"], "max_bytes": 3_000_000},
            {"formats": ["bmp"], "max_bytes": 3_000, "size": {"max_width": 9000, "max_height": 9000}},
            "max_bytes",
            "Together they ask for what no file can be",
        ),
    ],
)
def test_where_nothing_serves_both_it_is_said_which_and_why(
    one: dict[str, Any], other: dict[str, Any], key: str, words: str
) -> None:
    exact = {"size": {"width": 640, "height": 640}, "formats": ["png"]}
    found = common_sheet([place(**{**exact, **one}), place("Banner", **{**exact, **other})])
    assert isinstance(found, Obstacle), found
    assert found.key == key
    assert words in found.message


def test_the_pair_that_does_not_go_together_is_named_among_many() -> None:
    found = common_sheet([place("One"), place("Two"), place("Three", formats=["bmp"]), place("Four")])
    assert isinstance(found, Obstacle)
    assert found.message.startswith("One takes ")
    assert "Three BMP" in found.message


def test_three_may_clash_where_each_two_go_together() -> None:
    sizes: list[dict[str, Any]] = [
        {"formats": ["png", "webp"]},
        {"formats": ["webp", "avif"]},
        {"formats": ["avif", "png"]},
    ]
    found = common_sheet([place(f"Place {number}", **size) for number, size in enumerate(sizes)])
    assert isinstance(found, Obstacle)
    assert found.message.startswith("The others together: it takes WebP; Place 2 AVIF or PNG")


def test_groups_are_of_places_that_lose_nothing() -> None:
    small = place("Small", **AT_LEAST, seen=[{"name": "list", "width": 48}])
    large = place("Large", size={"width": 512, "height": 512}, formats=["png"])
    poster = place("Poster", size={"min_width": 100, "aspect": "1:1", "max_width": 2000}, formats=["png"])
    logo = place("Logo", size={"max_width": 600}, formats=["png"])
    wide = place("Wide", size={"width": 1600, "height": 400}, formats=["png"])
    assert groups([small, large, poster, logo, wide]) == [[0, 1]]
    assert worse_for(poster, large), "512 of 2000 px"
    assert worse_for(logo, wide), "it would be padded"
    assert not worse_for(small, large)
    assert groups([]) == []
    light, dark = (
        place(name, **SQUARE, grounds=[ground]) for name, ground in (("Day", "#ffffff"), ("Night", "#17181a"))
    )
    both = place("Any", **SQUARE, grounds=["#ffffff", "#17181a"])
    assert groups([light, dark, light]) == [[0, 2]], "one mark seldom reads on both"
    assert groups([both, both]) == [[0, 1]]


def test_nothing_is_no_question() -> None:
    with pytest.raises(ValueError, match="nothing"):
        common_sheet([])


SHEETS = st.fixed_dictionaries(
    {
        "size": st.one_of(
            st.fixed_dictionaries({"width": st.sampled_from([64, 500, 512]), "height": st.sampled_from([64, 512])}),
            st.fixed_dictionaries(
                {},
                optional={
                    "min_width": st.sampled_from([16, 100, 512]),
                    "max_width": st.sampled_from([512, 800, 2000]),
                    "max_height": st.sampled_from([512, 900]),
                    "aspect": st.sampled_from(["1:1", "16:9", "1.78:1"]),
                },
            ),
        ),
        "formats": st.lists(st.sampled_from(["png", "jpeg", "webp", "ico"]), min_size=1, max_size=4, unique=True),
        "max_bytes": st.none() | st.sampled_from([900, 40_000, 10**6]),
        "transparency": st.sampled_from(["allowed", "allowed", "required", "forbidden"]),
    }
)


@given(st.lists(SHEETS, min_size=1, max_size=4), st.booleans())
def test_what_meets_the_common_sheet_is_taken_by_each(all_keys: list[dict[str, Any]], clear: bool) -> None:
    sheets = [place(f"Place {number}", **keys) for number, keys in enumerate(all_keys)]
    common = common_sheet(sheets)
    if isinstance(common, Obstacle):
        return
    size = delivered_size(common, Size(700, 700 if common.size.model_dump().get("aspect") else 500), vector=True)
    clear = common.transparency == "required" or (clear and common.transparency == "allowed")
    weight = min(common.max_bytes or 700, 700)
    file = FileFacts(format=common.formats[0], width=size.width, height=size.height, bytes=weight, transparent=clear)
    if judged(Evidence(common, file=file), "file"):
        return
    for one in sheets:
        refused = [found for found in judged(Evidence(one, file=file), "file") if found.severity == "refused"]
        assert refused == []


@given(st.lists(SHEETS, min_size=2, max_size=3))
def test_whether_a_file_serves_them_does_not_depend_on_their_order(all_keys: list[dict[str, Any]]) -> None:
    sheets = [place(f"Place {number}", **keys) for number, keys in enumerate(all_keys)]
    answers = {isinstance(common_sheet(order), Obstacle) for order in permutations(sheets)}
    assert len(answers) == 1
