"""File names: by the rule, safe on every system, collisions numbered."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.spec.naming import file_name, unused_name
from fitzle.core.spec.stems import safe_stem
from fitzle.core.units import Size


@pytest.mark.parametrize(
    ("rule", "name"),
    [
        ("{subject}_{width}x{height}", "ding_320x180.png"), ("{placement}-{size}", "tab-icon-320x180.png"),
        ("{date}_{subject}_v{version}", "2026-11-24_ding_v3.png"), ("fixed", "fixed.png"),
    ],
)  # fmt: skip
def test_tokens_are_filled(rule: str, name: str) -> None:
    found = file_name(
        rule, "png", subject="Ding", placement="Tab icon", size=Size(320, 180), date="2026-11-24", version="3"
    )
    assert found == name


@pytest.mark.parametrize(
    ("text", "stem"),
    [
        ("Ottermoor: Größe / Nº1", "ottermoor-grosse-no1"), ("../../etc/passwd", "etc-passwd"), ("CON", "con-file"),
        ("lpt1.txt", "lpt1.txt-file"), ("", "picture"), ("...", "picture"), ("a\x00b\nc", "a-b-c"), ("Ærø", "aero"),
        ("trailing. ", "trailing"), ("日本語", "日本語"),
    ],
)  # fmt: skip
def test_names_are_safe_on_every_system(text: str, stem: str) -> None:
    assert safe_stem(text) == stem


@given(st.text(max_size=300))
def test_any_text_becomes_a_usable_name(text: str) -> None:
    stem = safe_stem(text)
    assert 0 < len(stem.encode()) <= 130
    assert not set(stem) & set('<>:"/\\|?*\x00\n\r\t')
    assert stem == stem.strip(" .")


def test_the_extension_follows_the_format() -> None:
    assert file_name("x", "jpeg", subject="", placement="", size=Size(1, 1)) == "x.jpg"


def test_collisions_are_numbered_whatever_the_case() -> None:
    assert unused_name("a.png", []) == "a.png"
    assert unused_name("a.png", ["A.PNG", "a-2.png"]) == "a-3.png"
