"""Places said in words: a table of sentences of our own with their sheets, and what is never guessed."""

import json
from itertools import pairwise
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fitzle.core.errors import ValueOutOfRange
from fitzle.core.scenes.working_out import scenes_for
from fitzle.core.spec.catalogue import catalogue
from fitzle.core.spec.words.kinds import _NAMES
from fitzle.core.spec.words.reading import LONGEST_TEXT, read_words
from fitzle.core.spec.words.text import folded
from fitzle.core.spec.words.vocabulary import sort_of
from fitzle.core.units import Size

SENTENCES = json.loads((Path(__file__).parent / "data" / "places-in-words.json").read_text())


def plainly(words: str) -> Any:
    """The sheet without what the words do not say; where they cannot hold, the places in the text."""
    found = read_words(words)
    if found.sheet is None:
        return [place.text for problem in found.problems for place in problem.places]
    data = found.sheet.model_dump(mode="json", exclude_defaults=True)
    left_out = {"fitzle_spec", *(key for key in ("name", "formats") if key in found.assumed)}
    for viewing in data.get("seen", []):
        del viewing["name"]
    return {key: value for key, value in data.items() if key not in left_out}


@pytest.mark.parametrize(("words", "sheet", "left"), SENTENCES, ids=[words for words, *_ in SENTENCES])
def test_sentences_become_their_sheets(words: str, sheet: Any, left: list[str]) -> None:
    assert plainly(words) == sheet
    assert [one.text for one in read_words(words).not_understood] == left


def test_there_are_many_sentences_each_once() -> None:
    words = [words for words, *_ in SENTENCES]
    assert len(set(words)) == len(words) >= 150


@pytest.mark.parametrize(("words", "_sheet", "_left"), SENTENCES[::7])
def test_every_letter_is_told_once_and_where_it_stands(words: str, _sheet: Any, _left: Any) -> None:
    found = read_words(words)
    spans = sorted((one.start, one.end) for one in (*found.understood, *found.not_understood))
    assert all(end <= start for (_, end), (start, _) in pairwise(spans)), "none of them overlap"
    assert all(words[one.start : one.end] == one.text for one in (*found.understood, *found.not_understood))


@pytest.mark.parametrize(
    ("more", "told"),
    [
        ("with a splendid border", "splendid border"),
        ("in the CMYK colour space", "CMYK colour space"),
        ("no faces", "faces"),
        ("at 300 dpi", "300 dpi"),
        ("printed 10 x 15 cm", "printed 10 x 15 cm"),
        ("text below 20%", "text below 20%"),
        ("at least 50 KB", "at least 50 KB"),
    ],
)
def test_what_is_not_understood_is_told_and_changes_nothing(more: str, told: str) -> None:
    alone = read_words("PNG, 640 x 480 px")
    found = read_words(f"PNG, 640 x 480 px, {more}")
    assert found.sheet == alone.sheet
    assert [one.text for one in found.not_understood] == [told]


def test_what_is_assumed_is_said() -> None:
    assert read_words("400 x 300 px with rounded corners").assumed == ("name", "formats", "cut.radius")
    assert read_words("Logo, 400 x 300 px, PNG").assumed == ()


def test_a_contradiction_names_both_places() -> None:
    found = read_words("Square PNG of 1280 x 720 px")
    assert found.sheet is None
    (problem,) = found.problems
    assert problem.message == "“1280 x 720 px” and “Square”: 1280 × 720 px are not 1:1."
    assert [(place.start, place.end) for place in problem.places] == [(14, 27), (0, 6)]


@pytest.mark.parametrize("words", ["", " ", "PNG", "as large as you like", "€" * 40])
def test_without_a_size_there_is_no_sheet(words: str) -> None:
    found = read_words(words)
    assert found.sheet is None
    assert "no size in these words" in found.problems[0].message


def test_too_many_words_are_refused() -> None:
    with pytest.raises(ValueOutOfRange, match="too much to read"):
        read_words("100 x 100 px " * LONGEST_TEXT)


PIECES = """min max least most 12 1,5 px x MB PNG wide tall between and ( ) , 16:9 square #fff on 2x no animated gif
up to s % : - or circle at shown title characters""".split()


@settings(max_examples=400, deadline=None)
@given(st.lists(st.one_of(st.sampled_from(PIECES), st.text(max_size=6)), max_size=24).map(" ".join))
def test_whatever_is_said_is_read_without_a_fault(words: str) -> None:
    found = read_words(words)
    assert (found.sheet is None) == bool(found.problems)
    told = sorted((one.start, one.end) for one in (*found.understood, *found.not_understood))
    assert all(0 <= start < end <= len(words) for start, end in told)
    assert all(end <= start for (_, end), (start, _) in pairwise(told))


def test_folding_keeps_every_letter_in_its_place() -> None:
    assert folded("İ 1.200 × 300 – “Ä”") == 'İ 1.200 x 300 - "ä"'


def test_abbreviations_may_have_a_dot_or_none() -> None:
    assert sort_of(("max.",)) == sort_of(("max",)) == "most"


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("Group badge, 256 x 256 px PNG, shown in a circle at 44 px on white", "group-badge"),
        ("Link preview image: 1200 x 630 px", "link-preview"), ("Newsletter header 600 x 200 px", "mail-header"),
        ("Chat sticker, 512 x 512 px PNG, transparent", "sticker"),
        ("Avatar 256 x 256 px with rounded corners", "avatar-rounded"),
        ("Video thumbnail 1280 x 720 px", "video-thumbnail"), ("Sign-in logo, 240 x 60 px", "sign-in-logo"),
        ("Thumbnail 1280 x 720 px", None), ("Avatar 256 x 256 px", None), ("Banner 1200 x 300 px", None),
    ],
)  # fmt: skip
def test_a_name_that_can_mean_one_thing_gives_the_scenes_of_that_kind(words: str, kind: str | None) -> None:
    sheet = read_words(words).sheet
    assert sheet is not None and sheet.kind == kind
    found = scenes_for(sheet, Size(256, 256))
    assert any(not one.id.startswith("page-") for one in found) is (kind is not None)


def test_every_kind_that_words_give_is_one_of_the_catalogue() -> None:
    assert set(_NAMES) <= {place.kind for place in catalogue()}
