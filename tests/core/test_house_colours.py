"""House colours that a mark proposes, and the names that they are given."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.colour.contrast import contrast_ratio
from fitzle.core.colour.house import proposed_colours
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.names import colour_name
from fitzle.core.colour.srgb import parse_hex

HEX = st.from_regex(r"#[0-9a-f]{6}", fullmatch=True)


@pytest.mark.parametrize(
    ("colour", "name"),
    [
        ("#000000", "Black"), ("#ffffff", "White"), ("#808080", "Grey"), ("#d9d9d9", "Light grey"),
        ("#3a3a3a", "Dark grey"), ("#ff0000", "Red"), ("#7a1010", "Deep red"), ("#ffd400", "Light yellow"),
        ("#17443c", "Deep teal"), ("#1f8a3b", "Green"), ("#0057b8", "Blue"), ("#0a2342", "Deep blue"),
        ("#6a2fb0", "Violet"), ("#3d1a6b", "Deep violet"), ("#e6007e", "Pink"), ("#7a4a1e", "Brown"),
        ("#e7d3a8", "Sand"), ("#f6e7c8", "Pale sand"), ("#ff8c00", "Orange"), ("#00a3a3", "Teal"),
        ("#cfe8ff", "Pale blue"),
    ],
)  # fmt: skip
def test_colours_are_called_as_people_call_them(colour: str, name: str) -> None:
    assert colour_name(colour) == name


def shares(*colours: tuple[str, float]) -> list[ColourShare]:
    return [ColourShare(hex=colour, share=share) for colour, share in colours]


def test_a_mark_proposes_its_own_colours_first_with_an_ink_and_a_paper() -> None:
    found = proposed_colours(shares(("#1f6f4a", 0.7), ("#f4b41a", 0.28), ("#8a9a3a", 0.01)))
    assert [one.hex for one in found[:2]] == ["#1f6f4a", "#f4b41a"]
    assert len(found) == 4 and "#8a9a3a" not in {one.hex for one in found}


def test_what_lies_behind_a_mark_is_none_of_its_colours() -> None:
    found = proposed_colours(shares(("#ffffff", 0.8), ("#c01818", 0.2)), backdrop="#fefefe")
    assert found[0].hex == "#c01818"


def test_colours_that_look_alike_are_taken_once_and_names_differ() -> None:
    found = proposed_colours(shares(("#1f6f4a", 0.5), ("#21714c", 0.3), ("#2f9e44", 0.2)))
    assert [one.hex for one in found[:2]] == ["#1f6f4a", "#2f9e44"]
    assert len({one.name for one in found}) == len(found)


@given(st.lists(st.tuples(HEX, st.floats(0, 1)), max_size=9), st.none() | HEX)
def test_some_pair_reads_whatever_the_mark_is_made_of(colours: list[tuple[str, float]], backdrop: str | None) -> None:
    found = proposed_colours(shares(*colours), backdrop)
    pairs = [contrast_ratio(parse_hex(a.hex), parse_hex(b.hex)) for a in found for b in found]
    assert max(pairs) >= 4.5
    assert len(found) <= 7 and len({one.name for one in found}) == len(found)
