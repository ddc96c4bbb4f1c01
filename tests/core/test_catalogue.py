"""The catalogue: enough kinds, each whole, each with a way to be filled."""

from datetime import date

import pytest

from fitzle.core.preflight.demand_words import size_words
from fitzle.core.spec.catalogue import CataloguePlace, catalogue
from fitzle.core.spec.sentences import drawn, sentences
from fitzle.core.spec.sheet import ExactSize
from fitzle.core.starting.points import kind_of_placement
from tests.make import sheet

GROUPS = ["Video", "Pages", "Learning", "Shop", "Chat", "Office", "Other"]


def test_there_are_many_kinds_in_groups() -> None:
    kinds = [entry.kind for entry in catalogue()]
    assert len(set(kinds)) == len(kinds) >= 40
    assert list(dict.fromkeys(entry.group for entry in catalogue())) == GROUPS


@pytest.mark.parametrize("entry", catalogue(), ids=lambda entry: entry.kind)
def test_each_says_what_goes_wrong_and_how_it_is_seen(entry: CataloguePlace) -> None:
    assert (entry.sheet.kind, entry.sheet.name) == (entry.kind, entry.name)
    assert entry.goes_wrong.endswith(".") and entry.checked <= date.today()
    assert entry.sheet.seen and entry.sheet.max_bytes
    sizes = drawn(entry.sheet)
    assert all(one.width <= max(sizes.size.width, 2560) for one in entry.sheet.seen), "seen no larger than it is"
    assert sentences(entry.sheet) and size_words(entry.sheet)
    if entry.sheet.motion.required:
        assert not {"jpeg", "png"} & set(entry.sheet.formats)
    if entry.sheet.transparency == "required":
        assert "jpeg" not in entry.sheet.formats
    if isinstance(entry.sheet.size, ExactSize) and "ico" in entry.sheet.formats:
        assert max(entry.sheet.size.size) <= 256


def test_starting_points_go_by_the_kind_and_never_by_a_name() -> None:
    square = {"size": {"width": 512, "height": 512}, "transparency": "required"}
    assert kind_of_placement(sheet(**square, name="Sticker")) == "watermark"
    assert kind_of_placement(sheet(**square, kind="sticker")) == "sticker"
    assert kind_of_placement(sheet(**square, kind="something-new")) == "watermark"
