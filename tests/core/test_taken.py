"""Sheets out of files: sheet files, ZIPs of them, and pictures that a place took."""

import io
import json
import zipfile
from typing import Any

import pytest
from PIL import Image

from fitzle.core.learning.taken import sheets_of
from tests.make import disc, saved, svg

SHEET: dict[str, Any] = {
    "fitzle_spec": 1,
    "name": "Header",
    "size": {"width": 320, "height": 96},
    "formats": ["png"],
}


def sheet_file(**more: Any) -> bytes:
    return json.dumps(SHEET | more).encode()


def packed(files: dict[str, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    return out.getvalue()


def test_a_sheet_file_gives_its_sheet() -> None:
    [one] = sheets_of("header.json", sheet_file(max_bytes=40_000))
    assert one.sheet and (one.sheet.name, one.sheet.max_bytes) == ("Header", 40_000)


@pytest.mark.parametrize(
    ("fmt", "expected"), [("PNG", "png"), ("JPEG", "jpeg"), ("WEBP", "webp"), ("GIF", "gif"), ("BMP", "bmp")]
)
def test_a_picture_that_a_place_took_gives_one_that_asks_for_such_a_file(fmt: str, expected: str) -> None:
    picture = disc(120).convert("RGB").resize((240, 100))
    [one] = sheets_of("Spring banner.x", saved(picture, fmt))
    assert one.sheet and one.sheet.name == "Spring banner"
    assert (one.sheet.formats, one.sheet.size.model_dump()) == ((expected,), {"width": 240, "height": 100})
    assert not one.sheet.motion.allowed


def test_a_moving_picture_may_move() -> None:
    out = io.BytesIO()
    frames = [Image.new("RGB", (40, 30), colour) for colour in ("red", "blue")]
    frames[0].save(out, "GIF", save_all=True, append_images=frames[1:])
    [one] = sheets_of("a.gif", out.getvalue())
    assert one.sheet and one.sheet.motion.allowed


def test_a_zip_gives_all_its_sheets_whatever_their_paths_say() -> None:
    files = {"a.json": sheet_file(), "../../outside.json": sheet_file(name="Outside"), "notes.txt": b"x"}
    found = sheets_of("sheets.zip", packed(files))
    assert [one.sheet.name for one in found if one.sheet] == ["Header", "Outside"]


def test_one_bad_sheet_does_not_hide_the_others() -> None:
    files = {"good.json": sheet_file(), "bad.json": b"{", "huge.json": b" " * 1_000_001}
    found = {one.file: one for one in sheets_of("sheets.zip", packed(files))}
    assert found["good.json"].sheet
    assert found["bad.json"].sheet is None and "bad.json" in found["bad.json"].message
    assert "larger than 1 MB" in found["huge.json"].message


@pytest.mark.parametrize(
    ("name", "data", "said"),
    [
        ("a.json", sheet_file(surprise=1), "surprise"),
        ("a.json", sheet_file(fitzle_spec=7), "of version 7"),
        ("a.json", sheet_file(covered=[{"x": 0, "y": 0, "width": 1, "height": 1, "label": "z"}] * 10_000), "covered"),
        ("a.json", sheet_file(seen=[{"name": "a", "width": 1e99}]), "seen"),
        ("a.json", b'{"fitzle_spec": NaN}', "fitzle_spec"),
        ("a.json", b"{" * 100_000, "a.json"),
        ("a.svg", svg(), "no sheet can be made"),
        ("a.mp4", b"\0\0\0\x18ftypmp42" + b"\0" * 60, "no sheet can be made"),
        ("a.txt", b"PNG of 300 x 100 px", "no sheet can be made"),
        ("a.png", b"\x89PNG\r\n\x1a\n", "a.png"),
        ("a.json", b"", "no sheet can be made"),
        ("a.zip", b"PK\x03\x04broken", "damaged"),
        ("a.zip", packed({"a.txt": b"x"}), "no sheet file"),
        ("a.zip", packed({f"{number}.txt": b"" for number in range(5001)}), "5,001 files"),
        ("a.zip", packed({f"{number}.json": b"" for number in range(501)}), "501 files"),
    ],
)
def test_what_gives_no_sheet_is_said_in_words(name: str, data: bytes, said: str) -> None:
    [one] = sheets_of(name, data)
    assert one.sheet is None and said in one.message, one.message
