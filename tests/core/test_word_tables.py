"""What words take up for each number of lines: as wide and high as when they are set."""

from itertools import pairwise

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.words import known_family
from fitzle.core.type.setting import Setting, set_words
from fitzle.core.type.tables import MOST_LINES, word_table

TEXTS = [
    "True a wheel", "True a\nwheel", "How a frame is brazed, from the first cut to the last coat", "Ottermoor",
    "Rowan Thistle, frame maker", "Wo das Fahrrad herkommt: Geschichten aus der Werkstatt", "自転車の修理は土曜日から",
]  # fmt: skip


def setting(family: str = "Work Sans", **keys: float) -> Setting:
    return Setting(face=known_family(family).face(700, False), **keys)  # type: ignore[arg-type]


@pytest.mark.parametrize("text", TEXTS)
@pytest.mark.parametrize("keys", [{}, {"reach": 0.4}, {"letter_spacing": 0.1, "line_height": 1.4}])
def test_a_row_is_what_setting_needs(text: str, keys: dict[str, float]) -> None:
    table, how = word_table(text, setting(**keys)), setting(**keys)
    for row in table.rows:
        layout = set_words(text, how, Rect(0, 0, row.width * 100, row.height * 100))
        assert len(layout.lines) <= row.lines
        assert layout.size_px >= 97, "at 100 px an em they fit, but for a swash"


@pytest.mark.parametrize("text", TEXTS)
def test_fewer_lines_are_wider_and_less_high(text: str) -> None:
    rows = word_table(text, setting()).rows
    assert 1 <= len(rows) <= MOST_LINES
    assert [row.lines for row in rows] == sorted({row.lines for row in rows})
    assert all(one.width > other.width and one.height < other.height for one, other in pairwise(rows))
    assert rows[0].lines == text.count("\n") + 1


@settings(max_examples=60, deadline=None)
@given(st.sampled_from(TEXTS), st.floats(20, 900), st.floats(20, 900))
def test_the_size_that_a_table_gives_is_the_size_that_is_set(text: str, width: float, height: float) -> None:
    """By the best row, within what swashes and the steps of a long table cost."""
    table = word_table(text, setting())
    foreseen = max(min(width / row.width, height / row.height) for row in table.rows)
    layout = set_words(text, setting(), Rect(0, 0, width, height))
    assume(len(layout.lines) <= MOST_LINES)
    assert layout.size_px == pytest.approx(foreseen, rel=0.06)


def test_what_fits_a_width_is_the_fewest_lines() -> None:
    table = word_table("How a frame is brazed", setting())
    whole, longest = table.rows[0], table.rows[-1]
    assert table.fitting(10, whole.width * 10) == whole
    assert (table.fitting(10, longest.width * 10) or whole).lines == longest.lines
    assert table.fitting(10, longest.width * 10 * 0.9) is None
