"""A spec sheet as people read it, and what a drawing of it shows."""

import pytest

from fitzle.core.spec.sentences import drawn, sentences
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.words.reading import sheet_in_words
from fitzle.core.units import Size


@pytest.mark.parametrize(
    ("words", "key", "told"),
    [
        ("1280 x 720", "size", ["Exactly 1280 × 720 px."]),
        ("square, at least 150 x 150", "size", ["Square, 1:1.", "At least 150 × 150 px."]),
        ("250 px wide, 2:1", "size", ["Exactly 250 × 125 px."]),
        ("between 400 and 2000 px wide", "size", ["Between 400 and 2000 px wide."]),
        ("250 px wide", "size", ["Exactly 250 px wide."]),
        ("600 x 315 minimum, recommended 1200 x 630", "size",
         ["At least 600 × 315 px.", "Best at 1200 × 630 px."]),
        ("PNG or JPG, 9 x 9", "formats", ["PNG, else JPEG."]),
        ("between 400 and 2000 px wide, 50 px high", "size", ["Between 400 and 2000 px wide.", "Exactly 50 px high."]),
        ("9 x 9, 300 KB", "max_bytes", ["At most 300 KB."]),
        ("9 x 9, 2 MB", "max_bytes", ["At most 2 MB."]),
        ("PNG, 9 x 9, transparent", "transparency", ["Transparent around the picture."]),
        ("PNG, 9 x 9", "transparency", []),
        ("animated GIF, 9 x 9, 6 s, 12 fps, loops", "motion",
         ["Has to move.", "Plays at most 6 s.", "At most 12 frames a second.", "Plays again and again."]),
        ("9 x 9 in a circle", "cut", ["Shown in a circle."]),
        ("9 x 9, rounded corners of 22%", "cut", ["Shown with corners rounded by 22 % of the short side."]),
        ("9 x 9, 35% darkened", "veil", ["#000000 at 35 % lies over all of it."]),
        ("9 x 9, shown at 40 px on 2x", "seen", ["Seen 40 px wide at density 2."]),
        ("9 x 9, on white and on #22303c", "grounds", ["Stands on #ffffff and #22303c."]),
        ("up to 60 slots, 9 x 9", "capacity", ["Takes 60 files."]),
        ("9 x 9, alt text up to 125 characters", "fields", ["Asks for: Alt text, at most 125 letters."]),
    ],
)  # fmt: skip
def test_each_demand_is_a_sentence(words: str, key: str, told: list[str]) -> None:
    assert [one.text for one in sentences(sheet_in_words(words)) if one.key == key] == told


def test_what_is_drawn_over_is_said_with_where() -> None:
    zone = {"x": 0.82, "y": 0.86, "width": 0.18, "height": 0.14, "label": "running time"}
    window = {"name": "phone", "x": 0.2, "y": 0, "width": 0.6, "height": 1}
    data = {"fitzle_spec": 1, "name": "x", "size": {"width": 1280, "height": 720}, "formats": ["png"]}
    sheet = SpecSheet.model_validate({**data, "covered": [zone], "windows": [window]})
    told = [one.text for one in sentences(sheet)]
    assert "running time covers 18 % × 14 %, bottom, right." in told
    assert "phone shows 60 % of its width, 100 % of its height." in told


@pytest.mark.parametrize(
    ("words", "size", "least", "most"),
    [
        ("1280 x 720", (1280, 720), None, None),
        ("160 x 160 to 512 x 512 px, square, recommended 296 x 296", (296, 296), (160, 160), (512, 512)),
        ("at most 300 x 80 px", (300, 80), None, None),
        ("between 100 x 50 and 400 x 100 px", (400, 100), (200, 50), None),
        ("at least 600 px wide, 3:2", (1024, 683), (600, 400), None),
        ("at most 300 px wide, at most 80 px high, 4:1", (300, 75), None, None),
    ],
)
def test_a_range_is_drawn_with_its_limits(
    words: str, size: tuple[int, int], least: tuple[int, int] | None, most: tuple[int, int] | None
) -> None:
    found = drawn(sheet_in_words(words))
    assert found == (Size(*size), least and Size(*least), most and Size(*most))
