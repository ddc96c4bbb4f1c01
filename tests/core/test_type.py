"""Typefaces, shaping, line breaking and fitting words to a box."""

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fitzle.core.errors import DocumentError
from fitzle.core.geometry.rect import Rect
from fitzle.core.type.bidi import embedding_levels, visual_order
from fitzle.core.type.breaking import best_breaks, break_positions, line_width, lines_needed, tokens_of
from fitzle.core.type.font_files import font_of
from fitzle.core.type.library import families, family_named, offered_families
from fitzle.core.type.sample import sample_svg
from fitzle.core.type.setting import Setting, set_words
from fitzle.core.type.shaping import graphemes, shaped
from fitzle.core.type.small import reads, small_figures

BOX = Rect(40, 30, 600, 240)
SANS = family_named("Work Sans").face(600)
HEADLINE = "How to true a wheel without a stand, in ten minutes flat"


def test_there_are_thirty_families_of_ten_kinds_with_their_licences() -> None:
    offered = offered_families()
    assert len(offered) >= 30
    assert {family.kind for family in offered} == {
        "sturdy", "plain", "condensed", "rounded", "hand", "script", "slab", "serif", "display", "monospaced",
    }  # fmt: skip
    assert sum(len(family.faces) >= 3 for family in offered) >= 10, "several with many weights"
    for family in families().values():
        assert family.licence in ("OFL-1.1", "Apache-2.0")
        folder = family.faces[0].files[0].parent
        assert list(folder.glob("*.LICENSE.txt"))
        assert all(file.exists() for face in family.faces for file in face.files)


def test_the_nearest_cut_is_taken_and_a_slant_is_kept_where_there_is_one() -> None:
    lora = family_named("Lora")
    assert lora.face(690).weight == 700
    assert lora.face(100).weight == 400
    assert lora.face(700, italic=True).italic
    assert not family_named("Anton").face(900, italic=True).italic
    with pytest.raises(DocumentError, match="no typeface 'Nobody'"):
        family_named("Nobody")


def test_kerning_brings_letters_together_and_ligatures_join_them() -> None:
    apart = sum(shaped(letter, SANS).clusters[0].advance for letter in "AV")
    assert sum(cluster.advance for cluster in shaped("AV", SANS).clusters) < apart - 0.01
    lora = family_named("Lora").face(400)
    joined = shaped("fi", lora).clusters
    loose = shaped("fi", lora, ligatures=False).clusters
    assert len(loose) == 2
    assert len(joined) <= 2


def test_combining_marks_stay_with_their_letter() -> None:
    assert graphemes("e\u0301a") == ["e\u0301", "a"]
    paragraph = shaped("e\u0301a", SANS)
    assert [cluster.letters for cluster in paragraph.clusters] == ["é", "a"]
    assert paragraph.missing == ""


@pytest.mark.parametrize("text", ["Привет", "שלום", "مرحبا", "नमस्ते", "สวัสดี", "🚲", "ő"])
def test_letters_that_the_typeface_lacks_come_from_another(text: str) -> None:
    paragraph = shaped(text, family_named("Anton").face(400))
    assert paragraph.missing == ""
    assert all(glyph.glyph for cluster in paragraph.clusters for glyph in cluster.glyphs)


def test_letters_that_nobody_has_are_told() -> None:
    assert shaped("a\U00012000\U00012000b", SANS).missing == "\U00012000"
    assert set_words("𒀀", Setting(SANS), BOX).missing == "𒀀"


def test_arabic_letters_are_joined() -> None:
    alone = {glyph.glyph for glyph in shaped("ب", SANS).clusters[0].glyphs}
    inside = {glyph.glyph for glyph in shaped("ببب", SANS).clusters[1].glyphs}
    assert alone != inside


@pytest.mark.parametrize(
    ("text", "levels"),
    [
        ("abc", [0, 0, 0]),
        ("אבג", [1, 1, 1]),
        ("a אב b", [0, 0, 1, 1, 0, 0]),
        ("אב 12", [1, 1, 1, 2, 2]),
        ("אב ab", [1, 1, 1, 2, 2]),
        ("1+2", [0, 0, 0]),
        ("ا 12", [1, 1, 2, 2]),
        ("אב, ab!", [1, 1, 1, 1, 2, 2, 1]),
    ],
)
def test_levels_follow_the_bidirectional_algorithm(text: str, levels: list[int]) -> None:
    assert embedding_levels(text) == levels


def test_right_to_left_runs_are_reversed_and_numbers_in_them_are_not() -> None:
    assert visual_order([0, 0, 1, 1, 0]) == [0, 1, 3, 2, 4]
    assert visual_order([1, 1, 2, 2, 1]) == [4, 2, 3, 1, 0]
    assert visual_order([]) == []


@pytest.mark.parametrize(
    ("text", "parts"),
    [
        ("true a wheel", ["true ", "a ", "wheel"]),
        ("co-op 3-4", ["co-", "op ", "3-", "4"]),
        ("soft\u00adhyphen", ["soft\u00ad", "hyphen"]),
        ("no\u00a0break here", ["no\u00a0break ", "here"]),
        ("自転車", ["自", "転", "車"]),
    ],
)
def test_lines_may_end_after_spaces_hyphens_and_between_ideographs(text: str, parts: list[str]) -> None:
    ends = break_positions(text)
    assert [text[start:end] for start, end in itertools.pairwise((0, *ends))] == parts


def test_a_soft_hyphen_shows_only_where_the_line_breaks() -> None:
    narrow = set_words("super\u00adtrailer", Setting(SANS), Rect(0, 0, 200, 300))
    assert narrow.lines == ("super-", "trailer")
    wide = set_words("super\u00adtrailer", Setting(SANS), Rect(0, 0, 900, 90))
    assert wide.lines == ("supertrailer",)


def test_lines_are_balanced_and_no_word_is_left_alone() -> None:
    layout = set_words("How to true a wheel at home", Setting(SANS, largest_px=60), Rect(0, 0, 480, 300))
    assert len(layout.lines) == 2
    assert len(layout.lines[1].split()) > 1
    lengths = [len(line) for line in layout.lines]
    assert max(lengths) - min(lengths) <= 6


def brute_force(tokens: list, lines: int, width: float) -> float:
    """The least raggedness of all partitions, by trying each."""
    count, best = len(tokens), float("inf")
    for cuts in itertools.combinations(range(1, count), lines - 1):
        spans = list(itertools.pairwise((0, *cuts, count)))
        used = [line_width(tokens, start, end, 0) for start, end in spans]
        if max(used) <= width * (1 + 1e-9):
            lonely = lines > 1 and spans[-1][1] - spans[-1][0] == 1 and used[-1] < 0.4 * width
            best = min(best, sum((1 - entry / width) ** 2 for entry in used) + 0.5 * lonely)
    return best


@settings(max_examples=40, deadline=None)
@given(st.lists(st.sampled_from(["a", "to", "wheel", "spokes", "workshop", "ride"]), min_size=2, max_size=8))
def test_the_breaks_are_the_best_of_all(words: list[str]) -> None:
    clusters = shaped(" ".join(words), SANS).clusters
    tokens = tokens_of(clusters, 0.0, 0.3)
    width = max(token.width for token in tokens) * 1.6
    lines = lines_needed(tokens, width, 0)
    assert lines is not None
    spans = best_breaks(tokens, lines, width, 0)
    assert [start for start, _ in spans[1:]] == [end for _, end in spans[:-1]]
    used = [line_width(tokens, start, end, 0) for start, end in spans]
    lonely = lines > 1 and spans[-1][1] - spans[-1][0] == 1 and used[-1] < 0.4 * width
    found = sum((1 - entry / width) ** 2 for entry in used) + 0.5 * lonely
    assert found == pytest.approx(brute_force(tokens, lines, width))


TEXTS = st.text(alphabet=st.sampled_from("abgMW .,-\nאبé🚲"), min_size=1, max_size=40)
BOXES = st.builds(lambda w, h: Rect(5, 7, w, h), st.floats(20, 900), st.floats(20, 900))


@settings(max_examples=60, deadline=None)
@given(TEXTS, BOXES, st.sampled_from(["Work Sans", "Pacifico", "Anton", "Space Mono"]), st.floats(0, 0.5))
def test_words_never_leave_their_box(text: str, box: Rect, family: str, reach: float) -> None:
    layout = set_words(text, Setting(family_named(family).face(700), reach=reach), box)
    by = reach * layout.cap_height_px
    slack = 1e-3 * max(box.width, box.height)
    assert layout.block.x - by >= box.x - slack and layout.block.right + by <= box.right + slack
    assert layout.block.y - by >= box.y - slack and layout.block.bottom + by <= box.bottom + slack


@settings(max_examples=40, deadline=None)
@given(TEXTS, BOXES)
def test_a_box_twice_as_large_gives_words_twice_as_large(text: str, box: Rect) -> None:
    small, large = set_words(text, Setting(SANS), box), set_words(text, Setting(SANS), box.scaled(2))
    assert large.size_px == pytest.approx(2 * small.size_px, rel=1e-3)
    assert large.lines == small.lines


def test_the_size_is_the_largest_that_fits() -> None:
    layout = set_words(HEADLINE, Setting(SANS), BOX)
    touches = layout.block.width > 0.97 * BOX.width or layout.block.height > 0.97 * BOX.height
    assert touches
    capped = set_words(HEADLINE, Setting(SANS, largest_px=20.0), BOX)
    assert capped.size_px == 20.0


@pytest.mark.parametrize(("align", "share"), [("left", 0.0), ("centre", 0.5), ("right", 1.0)])
@pytest.mark.parametrize(("level", "down"), [("top", 0.0), ("middle", 0.5), ("bottom", 1.0)])
def test_words_stand_where_they_are_aligned(align: str, share: float, level: str, down: float) -> None:
    block = set_words("Hub", Setting(SANS, align=align, vertical_align=level, largest_px=40.0), BOX).block  # type: ignore[arg-type]
    assert block.x == pytest.approx(BOX.x + share * (BOX.width - block.width), abs=0.01)
    assert block.y == pytest.approx(BOX.y + down * (BOX.height - block.height), abs=0.01)


@pytest.mark.parametrize(
    ("case", "shown"),
    [("as typed", "straße 9"), ("capitals", "STRASSE 9"), ("small letters", "straße 9"), ("first letters", "Straße 9")],
)
def test_the_case_is_changed_by_the_rules_of_the_language(case: str, shown: str) -> None:
    layout = set_words("straße 9", Setting(SANS, case=case), Rect(0, 0, 900, 80))  # type: ignore[arg-type]
    assert " ".join(layout.lines) == shown


def test_letter_spacing_spreads_the_letters_in_letter_heights() -> None:
    plain = set_words("HUB", Setting(SANS, largest_px=40.0), BOX)
    spaced = set_words("HUB", Setting(SANS, largest_px=40.0, letter_spacing=0.5), BOX)
    assert spaced.block.width - plain.block.width == pytest.approx(2 * 0.5 * plain.cap_height_px, rel=0.06)


def test_a_long_text_is_set_too() -> None:
    layout = set_words("word " * 200, Setting(SANS), BOX)
    assert len(layout.lines) > 5
    assert layout.block.bottom <= BOX.bottom + 1


def test_the_height_of_a_capital_is_measured_on_its_outline() -> None:
    assert font_of(SANS.files[0]).cap_height == pytest.approx(0.66, abs=0.03)
    assert 0.45 < font_of(SANS.files[0]).x_height < 0.55


def test_thin_strokes_are_found_and_judged_small() -> None:
    thin = small_figures(family_named("Playfair Display").face(400).files[0])
    sturdy = small_figures(family_named("Rubik").face(800).files[0])
    assert thin.stroke < 0.03
    assert sturdy.stroke > 0.1
    assert reads(sturdy, 14.0) and not reads(thin, 14.0) and not reads(sturdy, 6.0)


def test_a_sample_shows_the_words_cropped_to_their_ink() -> None:
    data = sample_svg("Ride\nthere", family_named("Lobster").face(400)).decode()
    assert data.startswith("<svg") and "<path" in data and "<text" not in data
