"""One size for the words of all rows: the longest sets it, and then all have it."""

import pytest

from fitzle.core.piece.document import Piece, Row
from fitzle.core.runs.sizes import common_size, sizes_in
from tests.core.arranging_set import facts, place
from tests.core.test_runs import lesson
from tests.fits import request_for

TITLES = {
    "a": "Ding",
    "b": "True a wheel without a stand",
    "c": "How to find the click in a bottom bracket that nobody but the rider ever heard on a bright day",
    "d": "",
}
PLACE = place("thumbnail", 1280, 720, 360)


def sizes(piece: Piece) -> dict[str, float]:
    known = {"rowan.png": facts()["guest"]}
    asked = {
        name: request_for(piece, PLACE, known, row=Row(id=name, values={"title": title}))
        for name, title in TITLES.items()
    }
    return sizes_in(asked, "headline")


def test_the_longest_words_set_the_size_of_all() -> None:
    piece = lesson(title={"part": "headline", "field": "text"})
    own = sizes(piece)
    assert set(own) == {"a", "b", "c"}, "a row without words has no size"
    assert own["a"] > own["b"] > own["c"]
    common = common_size(own)
    assert common and common.row == "c" and common.size <= own["c"]
    parts = tuple(
        part.model_copy(update={"size": common.size}) if part.id == "headline" else part for part in piece.parts
    )
    after = sizes(piece.model_copy(update={"parts": parts})).values()
    assert list(after) == pytest.approx([common.size] * 3, abs=1e-3)


def test_without_words_there_is_no_size() -> None:
    assert common_size({}) is None
