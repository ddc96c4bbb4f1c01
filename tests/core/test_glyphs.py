"""The glyph library: found by word and synonym, outlined or filled, made into marks, without anybody's brand."""

import pytest
from scripts.glyphs import brand_words, is_of_a_brand

from fitzle.core.artwork.glyphs import find_glyphs, glyph_svg, glyphs
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.straight import whole_picture
from fitzle.core.errors import ArtworkError

MANY = 4500


def names(words: str, style: str = "outline") -> list[str]:
    return [glyph.name for glyph in find_glyphs(words, style)]  # type: ignore[arg-type]


def test_there_are_many_and_none_is_a_brand() -> None:
    assert len(glyphs()) > MANY
    assert not [name for name in glyphs() if name.startswith("brand")]
    assert {glyph.group for glyph in glyphs().values()}.isdisjoint({"Brand"})


@pytest.mark.parametrize(
    ("words", "first"),
    [("bike", "bike"), ("heart", "heart"), ("arrow left", "arrow-left"), ("BELL", "bell"), ("star", "star")],
)
def test_the_nearest_comes_first(words: str, first: str) -> None:
    assert names(words)[0] == first


@pytest.mark.parametrize(("synonym", "among"), [("bicycle", "bike"), ("cycling", "bike"), ("repair", "tool")])
def test_other_words_find_it_too(synonym: str, among: str) -> None:
    assert among in names(synonym)[:40]


def test_every_word_must_be_there() -> None:
    assert set(names("arrow left")) <= set(names("arrow")) & set(names("left"))
    assert names("qqqxyz") == []


def test_filled_ones_are_fewer() -> None:
    assert 500 < len(find_glyphs("", "filled")) < len(find_glyphs("", "outline"))
    assert all(glyph.filled for glyph in find_glyphs("heart", "filled"))


def test_a_glyph_is_a_vector_mark_in_its_colour() -> None:
    art = read_artwork(glyph_svg("bike", "outline", "#17443C"), "bike.svg")
    assert (art.facts.kind, art.facts.vector) == ("mark", True)
    assert [entry.hex for entry in art.facts.colours] == ["#17443c"]


@pytest.mark.parametrize("style", ["outline", "filled"])
def test_a_wider_stroke_covers_more_where_it_is_stroked(style: str) -> None:
    def covered(stroke: float) -> float:
        source = read_artwork(glyph_svg("heart", style, "#000000", stroke), "x.svg").source  # type: ignore[arg-type]
        return float((whole_picture(source)[..., 3] > 128).mean())

    assert (covered(3) > covered(1)) is (style == "outline")


@pytest.mark.parametrize(("name", "style"), [("nothing-like-it", "outline"), ("a-b-2", "filled")])
def test_a_glyph_that_is_not_there_is_said(name: str, style: str) -> None:
    with pytest.raises(ArtworkError, match="no glyph"):
        glyph_svg(name, style, "#000000")  # type: ignore[arg-type]


def test_products_of_brands_are_told_by_their_words() -> None:
    entries = {
        "brand-acmewheels": {"name": "brand-acmewheels", "category": "Brand", "tags": []},
        "device-pad": {"name": "device-pad", "category": "Devices", "tags": ["acmewheels", "tablet"]},
        "pad": {"name": "pad", "category": "Devices", "tags": ["tablet"]},
    }
    brands = brand_words(entries)
    assert [name for name, entry in entries.items() if is_of_a_brand(entry, brands)] == [
        "brand-acmewheels", "device-pad"]  # fmt: skip


def test_currencies_of_the_net_and_registered_signs_are_marks_of_projects_too() -> None:
    said = {word for name in glyphs() for word in glyphs()[name].words}
    assert not said & {"crypto", "cryptocurrency", "blockchain"}
    signs = ("bluetooth", "usb", "nfc", "creative-commons", "markdown")
    assert not [name for name in glyphs() for sign in signs if sign in name]
    assert {"currency-euro", "currency-yen", "coin"} <= set(glyphs())
