"""What the heads of files state, read without a decoder; files whose end is missing."""

import io
import struct

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from fitzle.core.artwork.clips.wholeness import is_whole
from fitzle.core.artwork.completeness import is_complete
from fitzle.core.artwork.jpeg_segments import START_OF_SCAN, segments, start_of_frame
from fitzle.core.artwork.png_frames import png_frames
from fitzle.core.artwork.stated_size import stated_size
from tests.hostile import PATCHES, claiming, good_file, many_frames
from tests.make import photo, saved

WHOLE = ("png", "jpeg", "webp", "gif", "bmp", "avif", "heic", "ico")
sides = st.integers(1, 65_535)


@settings(max_examples=40, deadline=None)
@given(fmt=st.sampled_from(["png", "jpeg", "gif", "bmp"]), width=sides, height=sides)
def test_the_stated_size_is_the_one_in_the_head(fmt: str, width: int, height: int) -> None:
    assert stated_size(claiming(fmt, width, height), fmt) == (width, height)


@pytest.mark.parametrize("fmt", ["webp", "tiff", "avif", "svg", "pdf"])
def test_other_formats_are_left_to_their_readers(fmt: str) -> None:
    assert stated_size(good_file(fmt), fmt) is None


def test_rows_from_the_top_are_rows_all_the_same() -> None:
    """A BMP with a negative height keeps its rows from top to bottom."""
    assert stated_size(claiming("bmp", 64, -48), "bmp") == (64, 48)


@given(data=st.binary(max_size=60))
def test_heads_of_nonsense_state_nothing_and_do_no_harm(data: bytes) -> None:
    for fmt in ("png", "jpeg", "gif", "bmp"):
        size = stated_size(data, fmt)
        assert size is None or len(size) == 2
    assert png_frames(data) >= 1
    assert is_whole(io.BytesIO(data)) in (True, False)
    list(segments(data))


@pytest.mark.parametrize("options", [{}, {"progressive": True}, {"quality": 95}, {"comment": b"x" * 60_000}])
def test_the_segments_of_a_jpeg_end_with_its_scan(options: dict[str, object]) -> None:
    data = saved(photo(120, 90), "JPEG", **options)
    found = [marker for marker, _ in segments(data)]
    assert found[-1] == START_OF_SCAN
    assert found.count(START_OF_SCAN) == 1
    at = start_of_frame(data)
    assert at is not None
    assert data[at + 1] == (0xC2 if "progressive" in options else 0xC0)
    assert stated_size(data, "jpeg") == (120, 90)


def test_a_jpeg_with_a_preview_in_it_states_its_own_size() -> None:
    """A camera puts a small JPEG with its own frame into the EXIF segment, before the large one's."""
    exif = Image.Exif()
    inner = saved(photo(40, 30), "JPEG")
    data = saved(photo(200, 150), "JPEG", exif=exif.tobytes() + inner)
    assert data.count(b"\xff\xc0") == 2
    assert stated_size(data, "jpeg") == (200, 150)


@pytest.mark.parametrize("count", [2, 7, 10_000])
def test_the_frames_of_a_moving_png_are_counted(count: int) -> None:
    assert png_frames(many_frames("apng", count)) == count


def test_a_still_png_has_one_frame_also_where_its_pixels_look_like_more() -> None:
    assert png_frames(good_file("png")) == 1
    data = good_file("png")
    at = data.index(b"IDAT") + 20
    assert png_frames(data[:at] + b"acTL" + struct.pack(">II", 9, 0) + data[at:]) == 1


@pytest.mark.parametrize("fmt", WHOLE)
def test_a_whole_file_is_complete_and_any_beginning_of_it_is_not(fmt: str) -> None:
    """Where a format allows for padding behind its end, the last bytes may be that; nine tenths never are."""
    data = good_file(fmt)
    assert is_complete(fmt, data)
    for tenths in range(1, 10):
        assert not is_complete(fmt, data[: len(data) * tenths // 10]), f"{tenths} tenths"


def box(kind: bytes, body: bytes, *, wide: bool = False) -> bytes:
    """A box as ISO/IEC 14496-12, 4.2 has it; `wide` with its size in 64 bits."""
    if wide:
        return struct.pack(">I4sQ", 1, kind, 16 + len(body)) + body
    return struct.pack(">I4s", 8 + len(body), kind) + body


@pytest.mark.parametrize("wide", [False, True])
def test_boxes_that_reach_beyond_the_file_are_missed(wide: bool) -> None:
    data = box(b"ftyp", b"isom" * 3) + box(b"free", b"") + box(b"mdat", b"x" * 500, wide=wide)
    assert is_whole(io.BytesIO(data))
    assert not is_whole(io.BytesIO(data[:-1]))
    assert not is_whole(io.BytesIO(data[:200]))


def test_a_last_box_to_the_end_of_the_file_is_whole_at_any_length() -> None:
    head = box(b"ftyp", b"isom" * 3) + struct.pack(">I4s", 0, b"mdat")
    assert is_whole(io.BytesIO(head + b"x" * 10))
    assert is_whole(io.BytesIO(head))


EBML = b"\x1a\x45\xdf\xa3\x84\x42\x82\x81x"  # a head of four bytes
SEGMENT = b"\x18\x53\x80\x67"


@pytest.mark.parametrize(
    ("size", "body", "whole"),
    [
        (b"\x84", 4, True), (b"\x84", 3, False), (b"\x40\x04", 4, True), (b"\x40\x05", 4, False),
        (b"\x01\x00\x00\x00\x00\x00\x00\x04", 4, True), (b"\x01\x00\x00\x00\x00\x00\x10\x00", 4, False),
        (b"\xff", 4, True), (b"\x01\xff\xff\xff\xff\xff\xff\xff", 4, True),
    ],
)  # fmt: skip
def test_a_segment_is_as_long_as_it_says(size: bytes, body: int, whole: bool) -> None:
    """RFC 8794, section 4: numbers of 1 to 8 bytes; all ones stand for an unknown size, as recorders stream it."""
    assert is_whole(io.BytesIO(EBML + SEGMENT + size + b"x" * body)) is whole


@pytest.mark.parametrize("fmt", ["mp4", "mov", "webm", "mkv"])
def test_clips_as_writers_leave_them_are_whole(fmt: str) -> None:
    data = good_file(fmt)
    assert is_whole(io.BytesIO(data))
    assert not is_whole(io.BytesIO(data[: len(data) - 40]))


def test_there_is_a_lie_for_every_format() -> None:
    for fmt in PATCHES:
        assert claiming(fmt, 3, 5) != good_file(fmt)
