"""The table of formats, against the libraries that read and write them."""

import mimetypes
from typing import get_args

import pytest
from PIL import Image, features

from fitzle.core.encode.registry import ENCODERS, writable
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.formats import FORMATS, Format, format_named, format_of_extension, label_of
from fitzle.core.plan.grounds import takes_alpha
from tests.make import sheet


def test_every_format_that_a_sheet_may_ask_for_is_in_the_table() -> None:
    assert set(get_args(Format)) <= FORMATS.keys()
    assert set(ENCODERS) <= set(get_args(Format))


@pytest.mark.parametrize("fmt", [entry for entry in FORMATS.values() if entry.pillow], ids=lambda entry: entry.name)
def test_pillow_knows_each_format_by_the_name_in_the_table(fmt: object) -> None:
    Image.init()
    assert fmt.pillow in Image.ID or features.check("avif")  # type: ignore[attr-defined]


@pytest.mark.parametrize("name", ["png", "jpeg", "webp", "gif", "bmp", "svg", "tiff", "pdf", "mp4"])
def test_media_types_are_those_that_are_registered(name: str) -> None:
    """Python's table follows IANA; where it says otherwise for BMP it names the old x- type."""
    found = mimetypes.guess_type(f"a.{format_named(name).extension}")[0]
    assert found is not None and found.replace("x-ms-", "") == format_named(name).media_type


def test_an_ending_stands_for_one_format() -> None:
    assert [format_of_extension(text) for text in (".JPG", "jpeg", "tif", "png", ".nothing", "")] == [
        "jpeg", "jpeg", "tiff", "png", None, None,
    ]  # fmt: skip
    assert label_of("jpeg") == "JPEG"
    with pytest.raises(ValueOutOfRange, match="no such format"):
        format_named("nothing")


@pytest.mark.parametrize(("formats", "takes"), [(["jpeg"], False), (["bmp", "jpeg"], False), (["jpeg", "png"], True)])
def test_a_place_takes_transparency_where_one_of_its_formats_can_hold_it(formats: list[str], takes: bool) -> None:
    assert takes_alpha(sheet(formats=formats)) is takes


def test_what_cannot_be_written_is_known() -> None:
    assert writable("png") and not writable("lottie")
