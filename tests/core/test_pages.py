"""PDF pages: vector pages are marks, pages with photos are pictures; what bad documents are told."""

import io
from concurrent.futures import ThreadPoolExecutor

import numpy as np
import pytest
from PIL import Image

from fitzle.core.artwork.inspecting import inspected
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.pages import page_alone, page_of
from fitzle.core.artwork.reading import read_and_judge, read_artwork
from fitzle.core.artwork.straight import whole_picture
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.editing import new_piece
from fitzle.core.units import Size
from tests.fits import made_fit
from tests.make import opened, photo, saved, sheet
from tests.pdf import pdf

GREEN = b"0.0902 0.2667 0.2353 rg 30 30 240 90 re f"  # #17443c
LOGO = pdf((300, 150, GREEN))
SLIDES = saved(photo(960, 540), "PDF", resolution=96, save_all=True, append_images=[photo(960, 540, 3)])


def test_a_vector_page_is_a_mark_on_a_clear_ground() -> None:
    facts = read_artwork(LOGO, "logo.pdf").facts
    assert (facts.kind, facts.format, facts.vector, facts.pages) == ("mark", "pdf", True, 1)
    assert (facts.width, facts.height) == (400, 200), "4/3 px to the point"
    assert tuple(facts.trimmed.rect) == pytest.approx((40, 40, 320, 120), abs=1)
    assert (facts.transparency, facts.colours[0].hex, facts.detail_px) == ("edges", "#17443c", None)


def test_a_page_with_a_photo_is_a_picture() -> None:
    artwork = read_artwork(SLIDES, "talk.pdf")
    assert (artwork.facts.kind, artwork.facts.vector, artwork.facts.transparency) == ("picture", False, "none")
    assert (artwork.facts.width, artwork.facts.height, artwork.facts.pages) == (960, 540, 2)
    assert artwork.facts.warnings == ("It has 2 pages; the first one is used.",)
    shown = whole_picture(artwork.source)[..., :3].astype(int)
    assert np.abs(shown - np.asarray(photo(960, 540))).mean() < 6


@pytest.mark.parametrize("dots", [50, 72, 96, 300])
def test_a_page_that_is_one_bitmap_has_the_px_of_that_bitmap(dots: int) -> None:
    """Its size on paper says nothing of how sharp it is."""
    picture = photo(960, 540)
    artwork = read_and_judge(saved(picture, "PDF", resolution=dots, quality=95), "scan.pdf")
    assert (artwork.facts.width, artwork.facts.height) == pytest.approx((960, 540), abs=1)
    assert artwork.facts.detail_px == pytest.approx(960, rel=0.01)
    shown = whole_picture(artwork.source)[..., :3].astype(int)[:540, :960]
    assert np.abs(shown - np.asarray(picture)[: len(shown), : shown.shape[1]]).mean() < 3


def test_an_enlarged_bitmap_in_a_page_is_found_out() -> None:
    large = photo(300, 200).resize((1500, 1000), Image.Resampling.BICUBIC)
    facts = read_and_judge(saved(large, "PDF", resolution=150, quality=90), "poster.pdf").facts
    assert facts.detail_px == pytest.approx(300, rel=0.15)
    assert "It was enlarged" in facts.warnings[-1]


BLOT = b"q %d 0 0 %d 0 0 cm BI /W 400 /H 2 /CS /G /BPC 8 /F /AHx ID " + b"80" * 800 + b"> EI Q "


@pytest.mark.parametrize(
    ("drawn", "px_per_point"),
    [
        (BLOT % (150, 20), 400 / 150),  # half of the page's width, and finer than CSS
        (BLOT % (150, 20) + GREEN, 400 / 150),
        (BLOT % (60, 20), 4 / 3),  # a small emblem does not decide for the page
        (BLOT % (300, 150), 4 / 3),
        (BLOT % (300, 2) + GREEN, 4 / 3),
    ],
)
def test_the_finest_large_bitmap_decides_how_many_px_a_page_has(drawn: bytes, px_per_point: float) -> None:
    page = page_of(pdf((300, 150, drawn)), 0, Limits())
    assert page.width == pytest.approx(300 * px_per_point, rel=0.01)
    assert not page.vector


def test_a_page_of_a_tiny_dense_bitmap_stays_within_bounds() -> None:
    page = page_of(saved(photo(2000, 2000), "PDF", resolution=100_000), 0, Limits())
    assert max(page.width, page.height) <= 8192
    wide = page_of(pdf((3000, 3000, BLOT % (1000, 1))), 0, Limits())
    assert wide.width * wide.height <= 25_100_000


def test_the_document_itself_is_a_document() -> None:
    facts = inspected(io.BytesIO(SLIDES), "talk.pdf")
    assert (facts.kind, facts.pages) == ("document", 2)


def test_every_page_can_be_drawn() -> None:
    data = pdf((300, 150, GREEN), (90, 90, b"1 0 0 rg 0 0 90 90 re f"))
    page = page_of(data, 1, Limits())
    assert (page.width, page.height) == (120, 120)
    assert tuple(page.pixels(Rect(0, 0, 120, 120), Size(10, 10))[5, 5]) == (255, 0, 0, 255)


@pytest.mark.parametrize("size", [Size(400, 200), Size(1600, 800), Size(40, 20)])
def test_a_window_is_drawn_where_it_lies(size: Size) -> None:
    """The left half of the page holds the rectangle from 40 px on, at every size."""
    drawn = open_source(LOGO).pixels(Rect(0, 0, 200, 200), size)
    scale = size.width / 200
    assert drawn.shape == (size.height, size.width, 4)
    assert drawn[size.height // 2, int(36 * scale), 3] < 40
    assert drawn[size.height // 2, int(46 * scale), 3] == 255
    assert drawn[int(size.height * 0.14), size.width // 2, 3] < 60


def test_a_logo_from_a_pdf_is_fitted_crisp_at_any_size() -> None:
    artwork = read_artwork(LOGO, "logo.pdf")
    there = sheet(size={"width": 1200, "height": 600}, grounds=["#ffffff"])
    made = made_fit(new_piece("logo", "a", "mark"), there, {"a": artwork})
    assert made.encoded is not None
    assert not any(finding.rule == "enlarging" for finding in made.judgement.findings)
    row = np.asarray(opened(made.encoded.data).convert("RGBA"))[300, :, 3]
    assert ((row > 10) & (row < 245)).sum() <= 2, "one px of edge on either side at most"


def behind_a_password() -> bytes:
    """What the head of an encrypted PDF looks like to a reader without the password (ISO 32000-1, 7.6)."""
    return LOGO.replace(
        b"/Root 1 0 R",
        b"/Root 1 0 R /ID [<00><00>] /Encrypt << /Filter /Standard /V 1 /R 2 /P -4 /O <" + b"41" * 32
        + b"> /U <" + b"42" * 32 + b"> >>",
    )  # fmt: skip


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (behind_a_password(), "behind a password"),
        (b"%PDF-1.7\n" + b"\x00" * 300, "damaged"),
        (LOGO[:120], "damaged"),
        (pdf(), "no page|damaged"),
    ],
)
def test_bad_documents_are_told_what_is_wrong(data: bytes, words: str) -> None:
    with pytest.raises(ArtworkError, match=words):
        read_artwork(data, "slides.pdf")


def test_what_is_said_of_a_document_is_not_that_of_the_one_before() -> None:
    with pytest.raises(ArtworkError, match="behind a password"):
        read_artwork(behind_a_password(), "locked.pdf")
    with pytest.raises(ArtworkError, match="damaged"):
        read_artwork(pdf(), "empty.pdf")


@pytest.mark.parametrize("number", [0, 1])
def test_a_page_alone_is_that_page_and_no_other(number: int) -> None:
    alone = page_alone(SLIDES, number, Limits())
    facts = read_artwork(alone, "page.pdf").facts
    assert (facts.kind, facts.pages) == ("picture", 1)
    shown, wanted = (
        whole_picture(page_of(data, at, Limits())).astype(int) for data, at in ((alone, 0), (SLIDES, number))
    )
    assert np.abs(shown - wanted).max() <= 1
    other = whole_picture(page_of(SLIDES, 1 - number, Limits())).astype(int)
    assert np.abs(shown - other).mean() > 5


@pytest.mark.parametrize("number", [-1, 2, 99])
def test_a_page_that_is_not_there_is_said(number: int) -> None:
    with pytest.raises(ArtworkError, match=f"no page {number + 1}"):
        page_alone(SLIDES, number, Limits())


def test_too_many_and_too_large_pages_are_not_read() -> None:
    with pytest.raises(LimitError, match="2000 pages"):
        read_artwork(pdf(*[(10, 10, b"")] * 2000), "book.pdf")
    with pytest.raises(LimitError, match="too large"):
        read_artwork(pdf((14_000, 50, GREEN)), "long.pdf", Limits(max_side_px=4000))


def test_pages_are_drawn_one_at_a_time_from_many_threads() -> None:
    """PDFium is not made for threads: without the lock this ends the process."""
    source = open_source(LOGO)
    with ThreadPoolExecutor(8) as pool:
        drawn = list(pool.map(lambda _: source.pixels(Rect(0, 0, 400, 200), Size(80, 40)).sum(), range(64)))
    assert len(set(drawn)) == 1
