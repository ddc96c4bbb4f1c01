"""Damaged files of every format: only a clear answer or a clear refusal, never another exception."""

import io
import random

import pytest

from fitzle.core.artwork.clips.filmstrip import filmstrip
from fitzle.core.artwork.clips.opening import opened_clip
from fitzle.core.artwork.inspecting import inspected
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.errors import FitzleError
from fitzle.core.formats import CLIPS
from fitzle.core.geometry.rect import Rect
from fitzle.core.preflight.file_facts import read_file_facts
from fitzle.core.spec.reading import read_spec_sheet
from fitzle.core.units import Size
from tests.clips import clip
from tests.hostile import good_file
from tests.make import disc, photo, saved, sheet, svg
from tests.pdf import pdf

SEED = 20261124
ROUNDS = 200
PARTS = 4  # so that no process is left alone with the slowest reader
LIMITS = Limits(max_pixels=2_000_000)  # a mutated header may claim up to this much; it is decoded in a moment
SMALL = photo(40, 30)
TINY_CLIP = {"stamps_ms": [0, 40, 80, 400], "size": (128, 32)}

# By reader, several seeds each: every one is mutated as often as makes ROUNDS in all.
READERS: dict[str, list[bytes]] = {
    "png": [saved(disc(48, margin=5), "PNG"), saved(SMALL.quantize(16), "PNG"), good_file("apng")],
    "jpeg": [saved(SMALL, "JPEG"), saved(SMALL, "JPEG", progressive=True), saved(SMALL.convert("CMYK"), "JPEG")],
    "webp": [saved(SMALL, "WEBP"), saved(disc(48, margin=5), "WEBP", lossless=True), good_file("moving webp")],
    "gif": [saved(SMALL.quantize(32), "GIF", save_all=True, append_images=[photo(40, 30, 3).quantize(32)])],
    "bmp": [saved(SMALL, "BMP")],
    "tiff": [saved(SMALL, "TIFF"), saved(SMALL, "TIFF", compression="tiff_lzw")],
    "avif": [saved(SMALL, "AVIF"), saved(disc(48, margin=5), "AVIF")],
    "heic": [good_file("heic")],
    "ico": [good_file("ico")],
    "svg": [svg('<defs><linearGradient id="a"><stop offset="0"/></linearGradient></defs><g transform="scale(2)">'
                '<path d="M1 1L9 9" stroke="url(#a)"/><use href="#a"/><text>x</text></g>')],
    "pdf": [good_file("pdf"), saved(photo(96, 54), "PDF", save_all=True, append_images=[photo(96, 54, 3)]),
            pdf((90, 90, b"1 0 0 rg 0 0 90 90 re f"), (30, 30, b""))],
    "mp4": [clip(**TINY_CLIP), clip(pixels="yuv420p10le", **TINY_CLIP)],
    "mov": [clip("mov", "prores_ks", pixels="yuv422p10le", **TINY_CLIP)],
    "webm": [clip("webm", "libvpx", deadline="realtime", **TINY_CLIP)],
    "mkv": [clip("matroska", **TINY_CLIP)],
}  # fmt: skip
CHECKED = ("png", "jpeg", "webp", "gif", "bmp", "svg")  # formats of files that are handed over


def mutated(data: bytes, dice: random.Random) -> bytes:
    """The bytes with a few flipped, cut, doubled or overwritten."""
    found = bytearray(data)
    for _ in range(dice.randint(1, 6)):
        at = dice.randrange(len(found))
        kind = dice.randrange(5)
        if kind == 0:
            found[at] ^= 1 << dice.randrange(8)
        elif kind == 1:
            found[at] = dice.choice([0, 1, 127, 128, 255])
        elif kind == 2:
            found[at : at + dice.randint(1, 8)] = dice.randbytes(dice.randint(0, 8))
        elif kind == 3:
            found[at:at] = found[at : at + dice.randint(1, 30)]
        elif len(found) > 20:
            del found[at : at + dice.randint(1, len(found) // 3)]
    return bytes(found) or b"x"


def read_whole(data: bytes) -> None:
    """Reads a file as intake does, its pixels or its filmstrip included."""
    if sniff_format(data) in CLIPS:
        seconds = inspected(io.BytesIO(data), "damaged", LIMITS).seconds or 0.0
        with opened_clip(io.BytesIO(data), LIMITS) as open_clip:
            assert all(still.pixels.ndim == 3 for still in filmstrip(open_clip, seconds))
        return
    artwork = read_artwork(data, "damaged", LIMITS)
    whole = Rect(0, 0, artwork.source.width, artwork.source.height)
    assert artwork.source.pixels(whole, Size(24, 16)).shape == (16, 24, 4)


@pytest.mark.parametrize("part", range(PARTS))
@pytest.mark.parametrize("reader", READERS)
def test_a_damaged_file_is_read_or_refused_in_words(reader: str, part: int) -> None:
    dice = random.Random(f"{SEED} {reader} {part}")
    seeds = READERS[reader]
    refused = 0
    for number in range(ROUNDS // PARTS):
        try:
            read_whole(mutated(seeds[number % len(seeds)], dice))
        except FitzleError as error:
            assert len(error.message) > 10
            refused += 1
    assert refused > 0, "nothing was ever refused: the mutations do nothing"


@pytest.mark.parametrize("reader", CHECKED)
def test_checking_a_damaged_file_gives_an_answer_too(reader: str) -> None:
    dice = random.Random(f"{SEED} check {reader}")
    for number in range(ROUNDS // 5):
        try:
            data = mutated(READERS[reader][number % len(READERS[reader])], dice)
            assert read_file_facts(data, "damaged", LIMITS).width > 0
        except FitzleError as error:
            assert len(error.message) > 10


def test_damaged_spec_sheets_are_refused_in_words() -> None:
    dice = random.Random(SEED)
    text = sheet(veil={"colour": "#000", "opacity": 0.5}, seen=[{"name": "a", "width": 10}]).model_dump_json().encode()
    for _ in range(ROUNDS):
        try:
            read_spec_sheet(mutated(text, dice), "sheet.json")
        except FitzleError as error:
            assert error.message.startswith("sheet.json: ")
