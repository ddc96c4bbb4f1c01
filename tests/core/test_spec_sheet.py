"""The spec sheet: read whole, refused in plain words, and its schema as documented."""

import json
from pathlib import Path
from typing import Any

import pytest

from fitzle.core.errors import DocumentError
from fitzle.core.spec.reading import read_spec_sheet, spec_sheet_schema
from fitzle.core.spec.sheet import CircleMask, ExactSize, RangedSize
from fitzle.core.spec.sizing import aspect_allowed, delivered_size, size_allowed
from fitzle.core.units import Size
from tests.make import sheet

FULL: dict[str, Any] = {
    "fitzle_spec": 1, "name": "Lesson thumbnail", "destination": "Video channel",
    "size": {"width": 1280, "height": 720}, "formats": ["jpeg", "png"], "max_bytes": 1_500_000,
    "transparency": "forbidden", "motion": {"allowed": False},
    "covered": [{"x": 0.82, "y": 0.86, "width": 0.18, "height": 0.14, "label": "running time"}],
    "veil": {"colour": "#000000", "opacity": 0.4}, "cut": {"shape": "rounded", "radius": 0.2},
    "windows": [{"name": "phone", "x": 0.2, "y": 0, "width": 0.6, "height": 1}],
    "seen": [{"name": "phone list", "width": 168, "density": 2}], "grounds": ["#ffffff", "#17181a"],
    "naming": "{subject}_{width}x{height}", "fields": [{"name": "alt", "label": "Description", "max_length": 120}],
    "capacity": 3,
}  # fmt: skip


def test_every_key_is_read_and_written_back_the_same() -> None:
    found = read_spec_sheet(json.dumps(FULL))
    again = read_spec_sheet(found.model_dump_json())
    assert again == found
    assert found.covered[0].label == "running time"
    assert isinstance(found.size, ExactSize)


def test_a_minimal_sheet_has_sane_defaults() -> None:
    found = read_spec_sheet('{"fitzle_spec": 1, "name": "x", "size": {}, "formats": ["png"]}')
    assert isinstance(found.size, RangedSize)
    assert (found.transparency, found.grounds, found.motion.allowed) == ("allowed", ("#ffffff",), False)
    assert isinstance(sheet(cut={"shape": "circle"}).mask, CircleMask)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"vale": 1}, '"vale" is not a key'),
        ({"veil": {"colour": "#000", "opacity": 0.4, "blur": 2}}, '"veil.blur" is not a key'),
        ({"size": {"width": 0, "height": 5}}, '"size.width"'),
        ({"size": {"width": 10}}, '"size.height" is missing'),
        ({"size": {"min_width": 9, "max_width": 5}}, "min_width (9) is more than max_width (5)"),
        ({"size": {"aspect": "wide"}}, "width:height"),
        ({"size": {"min_width": 64, "recommended": {"width": 32, "height": 32}}}, "outside its own limits"),
        ({"formats": []}, '"formats"'),
        ({"formats": ["jpg"]}, "found \"jpg\""),
        ({"formats": ["png", "png"]}, "listed twice"),
        ({"max_bytes": -1}, '"max_bytes"'),
        ({"transparency": "maybe"}, '"transparency"'),
        ({"motion": {"allowed": False, "required": True}}, "required and not allowed"),
        ({"covered": [{"x": 0.9, "y": 0, "width": 0.2, "height": 1, "label": "x"}]}, "beyond the picture"),
        ({"grounds": ["white"]}, "is not a colour"),
        ({"naming": "{subjct}"}, "unknown token {subjct}"),
        ({"naming": "{subject"}, "curly bracket"),
        ({"cut": {"shape": "star"}}, '"cut"'),
        ({"name": ""}, '"name"'),
    ],
)  # fmt: skip
def test_a_wrong_sheet_is_refused_with_the_place_and_the_reason(change: dict[str, Any], words: str) -> None:
    with pytest.raises(DocumentError) as caught:
        read_spec_sheet(json.dumps({**FULL, **change}), "place.json")
    assert caught.value.message.startswith("place.json: ")
    assert words in caught.value.message


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "not valid JSON"), ("[]", "not a JSON object"),
        ("{}", '"fitzle_spec": 1'), ("{" * 100_000, "not valid JSON"),
        ('{"fitzle_spec": 2}', "version 2; this Fitzle reads up to version 1"),
        ('{"fitzle_spec": "1"}', "whole number"),
        (b"\xff\xfe\x00", "not"), (" " * 1_000_001, "larger than 1 MB"),
    ],
)  # fmt: skip
def test_what_is_no_sheet_at_all_is_refused(text: str | bytes, words: str) -> None:
    with pytest.raises(DocumentError) as caught:
        read_spec_sheet(text)
    assert words in caught.value.message


def test_the_documented_schema_is_the_generated_one() -> None:
    """Write it anew with: python -m tests.core.test_spec_sheet"""
    assert json.loads(SCHEMA_FILE.read_text()) == spec_sheet_schema()


@pytest.mark.parametrize(
    ("size", "natural", "vector", "wanted"),
    [
        ({"width": 320, "height": 180}, (50, 50), False, (320, 180)),
        ({"recommended": {"width": 512, "height": 512}}, (9, 9), False, (512, 512)),
        ({"min_width": 160, "max_width": 800, "aspect": "1:1"}, (500, 300), False, (300, 300)),
        ({"min_width": 160, "max_width": 800, "aspect": "1:1"}, (500, 300), True, (800, 800)),
        ({"min_width": 160, "aspect": "1:1"}, (90, 40), False, (160, 160)),
        ({"max_height": 100}, (400, 200), True, (200, 100)),
        ({}, (400, 200), False, (400, 200)),
        ({}, (400, 200), True, (1024, 512)),
    ],
)
def test_a_range_gives_the_recommended_or_the_largest_useful_size(
    size: dict[str, Any], natural: tuple[int, int], vector: bool, wanted: tuple[int, int]
) -> None:
    assert delivered_size(sheet(size=size, seen=[]), Size(*natural), vector=vector) == wanted


def test_seen_sizes_say_how_large_is_useful() -> None:
    place = sheet(size={"min_width": 100, "aspect": "2:1"}, seen=[{"name": "list", "width": 300, "density": 2}])
    assert delivered_size(place, Size(4000, 4000), vector=True) == (600, 300)


@pytest.mark.parametrize(
    ("size", "width", "height", "allowed"),
    [
        ({"width": 320, "height": 180}, 320, 180, True), ({"width": 320, "height": 180}, 321, 180, False),
        ({"min_width": 100, "max_width": 200}, 100, 1, True), ({"min_width": 100, "max_width": 200}, 201, 1, False),
        ({"min_height": 50}, 10, 49, False),
    ],
)  # fmt: skip
def test_sizes_are_judged_to_the_pixel(size: dict[str, Any], width: int, height: int, allowed: bool) -> None:
    assert size_allowed(sheet(size=size).size, width, height) is allowed


@pytest.mark.parametrize(("width", "height", "allowed"), [(1600, 900, True), (853, 480, True), (850, 480, False)])
def test_an_aspect_is_exact_to_half_a_pixel(width: int, height: int, allowed: bool) -> None:
    assert aspect_allowed("16:9", width, height) is allowed


SCHEMA_FILE = Path(__file__).parents[2] / "docs" / "spec-sheet.schema.json"
if __name__ == "__main__":
    SCHEMA_FILE.write_text(json.dumps(spec_sheet_schema(), indent=2, ensure_ascii=False) + "\n")
