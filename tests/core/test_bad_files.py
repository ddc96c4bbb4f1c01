"""Each format cut off, mislabelled, with a lying head, without a size, far too large, with too many frames."""

import io
import time

import pytest

from fitzle.core.artwork.clips.filmstrip import filmstrip
from fitzle.core.artwork.clips.opening import opened_clip
from fitzle.core.artwork.inspecting import inspected
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.artwork.unreadable import unreadable
from fitzle.core.errors import ArtworkError, FitzleError, LimitError
from fitzle.core.formats import CLIPS
from tests.clips import clip, turned
from tests.hostile import FORMATS, bad_files, claiming, good_file, locked_pdf, many_frames
from tests.make import photo, saved

BAD = bad_files()
# A page without a box is Letter by convention (ISO 32000-1, 7.7.3.3); a clip's pixels say themselves how many they are.
OWN_SIZE = ("pdf", "mp4", "mov", "webm", "mkv")
NOISE = ("0x", "<_io", "vips", "Vips", "Traceback", "unable to call")


def said_of(data: bytes, name: str = "thing.bin") -> str:
    with pytest.raises(ArtworkError) as caught:
        inspected(io.BytesIO(data), name)
    return caught.value.message


@pytest.mark.parametrize("case", BAD)
def test_a_bad_file_has_a_clear_outcome_soon(case: str) -> None:
    """Facts or words, within 5 s of processor time; the words name the file and hold nothing of a decoder's insides."""
    data = BAD[case]()
    started = time.process_time()
    try:
        assert inspected(io.BytesIO(data), "logo.bin").width > 0
    except FitzleError as error:
        assert error.message.startswith("logo.bin: ")
        assert error.advice
        assert not [word for word in NOISE if word in error.message]
    assert time.process_time() - started < 5


@pytest.mark.parametrize("fmt", [fmt for fmt in FORMATS if fmt not in CLIPS])
def test_a_file_cut_in_half_is_told_so(fmt: str) -> None:
    words = said_of(BAD[f"{fmt}, cut in half"]())
    assert any(part in words for part in ("cut off", "ends too early", "damaged", "cannot be read"))


@pytest.mark.parametrize("fmt", [fmt for fmt in FORMATS if fmt not in OWN_SIZE])
def test_a_picture_without_a_size_is_refused(fmt: str) -> None:
    for case in (f"{fmt}, no size", f"{fmt}, no height"):
        assert said_of(BAD[case]())
    if fmt in ("png", "jpeg", "gif", "bmp"):
        assert "no pixels" in said_of(BAD[f"{fmt}, no height"]())


@pytest.mark.parametrize("fmt", [fmt for fmt in FORMATS if fmt not in ("svg", *CLIPS)])
def test_a_picture_of_65535_px_is_refused_without_decoding(fmt: str) -> None:
    for case in (f"{fmt}, 65,535 px wide", f"{fmt}, 65,535 px square"):
        data = BAD[case]()
        started = time.process_time()
        assert said_of(data)
        assert time.process_time() - started < 1


def test_65000_px_are_taken_and_a_px_more_is_not() -> None:
    from PIL import Image

    assert inspected(io.BytesIO(saved(Image.new("RGB", (65_000, 4), "#17443c"), "PNG")), "strip").width == 65_000
    assert "too long" in said_of(saved(Image.new("RGB", (65_001, 4), "#17443c"), "PNG"))


@pytest.mark.parametrize("fmt", ["gif", "apng", "webp"])
def test_ten_thousand_frames_are_taken_and_one_more_is_not(fmt: str) -> None:
    facts = inspected(io.BytesIO(many_frames(fmt, 10_000)), "loop")
    assert facts.frames == 10_000
    assert "It has 10000 frames; the first one stands where nothing may move." in facts.warnings
    assert "10001 frames" in said_of(many_frames(fmt, 10_001))


@pytest.mark.parametrize("fmt", FORMATS)
def test_a_mislabelled_file_is_taken_for_what_it_is(fmt: str) -> None:
    """Called .bmp (a BMP .png): the extension is never believed, and what it really is is said."""
    called = "x.png" if fmt == "bmp" else "x.bmp"
    facts = inspected(io.BytesIO(good_file(fmt)), called)
    assert facts.format == {"apng": "png", "moving webp": "webp"}.get(fmt, fmt)
    if fmt not in CLIPS:
        assert any("but is really a" in warning for warning in facts.warnings)


def test_what_is_decoded_whole_may_have_fewer_pixels() -> None:
    limits = Limits(max_pixels_whole=2000)
    for fmt in ("webp", "avif", "heic", "ico", "gif"):
        with pytest.raises(LimitError, match="too large"):
            inspected(io.BytesIO(good_file(fmt)), fmt, limits)
    for fmt in ("png", "jpeg", "bmp", "tiff"):
        assert inspected(io.BytesIO(good_file(fmt)), fmt, limits).width == 64


def test_a_jpeg_that_claims_more_than_its_data_can_hold_is_cut_off() -> None:
    assert "cut off" in said_of(claiming("jpeg", 3000, 2000))
    flat = saved(photo(16, 16).resize((900, 900)), "JPEG", quality=5)
    assert inspected(io.BytesIO(flat), "flat.jpg").width == 900, "little data is not missing data"


def test_a_pdf_behind_a_password_is_told_so() -> None:
    assert "behind a password" in said_of(locked_pdf(), "slides.pdf")


@pytest.mark.parametrize("fmt", ["webm", "mkv"])
def test_of_a_clip_that_was_cut_off_the_rest_can_be_used(fmt: str) -> None:
    whole = good_file(fmt)
    facts = inspected(io.BytesIO(whole[: len(whole) * 2 // 3]), "half")
    assert any("end is missing" in warning for warning in facts.warnings)
    assert not inspected(io.BytesIO(whole), "whole").warnings
    with opened_clip(io.BytesIO(whole[: len(whole) * 2 // 3])) as open_clip:
        assert filmstrip(open_clip, facts.seconds)


def test_a_fragmented_clip_that_was_cut_off_gives_what_is_there() -> None:
    data = clip(written={"movflags": "frag_keyframe+empty_moov"}, key_every=10)
    cut = data[: len(data) * 3 // 5]
    assert any("end is missing" in warning for warning in inspected(io.BytesIO(cut), "a.mp4").warnings)
    with opened_clip(io.BytesIO(cut)) as open_clip:
        assert 5 < len(filmstrip(open_clip, 2.0)) < 40


def test_a_clip_s_streams_may_be_turned_uneven_deep_and_without_a_length() -> None:
    odd = {
        "turned": (turned(good_file("mp4"), 1), 90),
        "uneven": (clip(stamps_ms=[0, 40, 52, 200, 201, 900]), 0),
        "ten bits": (clip(pixels="yuv420p10le"), 0),
        "no length": (clip("webm", "libvpx", written={"live": "1"}, deadline="realtime"), 0),
    }
    for name, (data, rotation) in odd.items():
        facts = inspected(io.BytesIO(data), name)
        assert (facts.kind, facts.rotation) == ("clip", rotation), name
        assert facts.seconds is not None and facts.seconds > 0.5, name


@pytest.mark.parametrize(
    ("complaint", "words"),
    [
        (MemoryError(), "too much memory"),
        (OSError("vips_tracked: out of memory -- size == 381MB"), "too much memory"),
        (OSError("Image size (4294836225 pixels) exceeds limit of 178956970 pixels"), "too large"),
        (OSError("image file is truncated (0 bytes not processed)"), "ends too early"),
        (OSError("cannot identify image file <_io.BytesIO object at 0x7fe4827e55d0>"), "(cannot identify image file)"),
        (OSError(""), "the picture data is damaged."),
    ],
)
def test_a_decoder_s_complaint_becomes_plain_words(complaint: Exception, words: str) -> None:
    message = unreadable(complaint).message
    assert words in message
    assert not [word for word in NOISE if word in message]


def test_formats_of_the_list_are_known() -> None:
    names = {"moving webp": "webp"}
    assert [sniff_format(good_file(fmt)) for fmt in FORMATS] == [names.get(fmt, fmt) for fmt in FORMATS]
