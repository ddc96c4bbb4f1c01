"""Damaged files of every format: only a clear answer or a clear refusal, never another exception."""

import random

import pytest

from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.errors import FitzleError
from fitzle.core.geometry.rect import Rect
from fitzle.core.preflight.file_facts import read_file_facts
from fitzle.core.spec.reading import read_spec_sheet
from fitzle.core.units import Size
from tests.make import disc, photo, saved, sheet, svg

SEED = 20261124
ROUNDS = 60
LIMITS = Limits(max_pixels=4_000_000)  # a mutated header may claim up to this much; it is decoded in a moment

SEEDS = {
    "png": saved(disc(48, margin=5), "PNG"),
    "png palette": saved(photo(40, 30).quantize(16), "PNG"),
    "jpeg": saved(photo(48, 32), "JPEG"),
    "progressive jpeg": saved(photo(48, 32), "JPEG", progressive=True),
    "webp": saved(photo(48, 32), "WEBP"),
    "clear webp": saved(disc(48, margin=5), "WEBP", lossless=True),
    "gif": saved(photo(48, 32).quantize(32), "GIF", save_all=True, append_images=[photo(48, 32, 3).quantize(32)]),
    "bmp": saved(photo(48, 32), "BMP"),
    "svg": svg('<defs><linearGradient id="a"><stop offset="0"/></linearGradient></defs><g transform="scale(2)">'
               '<path d="M1 1L9 9" stroke="url(#a)"/><use href="#a"/><text>x</text></g>'),
}  # fmt: skip


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


@pytest.mark.parametrize("seed", SEEDS)
def test_a_damaged_file_is_read_or_refused_in_words(seed: str) -> None:
    dice = random.Random(f"{SEED} {seed}")
    read = 0
    for _ in range(ROUNDS):
        data = mutated(SEEDS[seed], dice)
        try:
            artwork = read_artwork(data, "damaged", LIMITS)
            width, height = artwork.source.width, artwork.source.height
            pixels = artwork.source.pixels(Rect(0, 0, width, height), Size(24, 16))
            assert pixels.shape == (16, 24, 4)
            read += 1
        except FitzleError as error:
            assert len(error.message) > 10
    assert read < ROUNDS, "nothing was ever refused: the mutations do nothing"


@pytest.mark.parametrize("seed", SEEDS)
def test_checking_a_damaged_file_gives_an_answer_too(seed: str) -> None:
    dice = random.Random(f"{SEED} check {seed}")
    for _ in range(ROUNDS // 2):
        try:
            assert read_file_facts(mutated(SEEDS[seed], dice), "damaged", LIMITS).width > 0
        except FitzleError as error:
            assert len(error.message) > 10


def test_damaged_spec_sheets_are_refused_in_words() -> None:
    dice = random.Random(SEED)
    text = sheet(veil={"colour": "#000", "opacity": 0.5}, seen=[{"name": "a", "width": 10}]).model_dump_json().encode()
    for _ in range(ROUNDS * 3):
        try:
            read_spec_sheet(mutated(text, dice), "sheet.json")
        except FitzleError as error:
            assert error.message.startswith("sheet.json: ")
