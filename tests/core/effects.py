"""One piece for each effect, shape and way of setting words; small golden pictures."""

from __future__ import annotations

from typing import Any

from fitzle.core.geometry.shapes import SHAPES
from tests.core.composed import mark, picture, piece, shape, words
from tests.make import solid

SMALL = {"size": {"width": 96, "height": 54}}
GREEN, SAND = solid("#17443c"), "#f6e7b8"
WHOLE = {"width": 1.6, "height": 0.8}


def said(text: str = "Hub", **more: Any) -> dict[str, Any]:
    return piece(words(text, **{"stands": WHOLE, "align": "centre", "colour": SAND, **more}), ground=GREEN)


EFFECTS: dict[str, dict[str, Any]] = {
    "effect-outline": said(outline={"width": 0.12, "colour": "#b4541a"}),
    "effect-outline-offset": said(outline={"width": 0.06, "offset": 0.08, "colour": "#b4541a"}),
    "effect-outline_only": said(outline_only=True),
    "effect-outline_only-outline": said(outline_only=True, outline={"width": 0.1, "colour": "#f4d06f"}),
    "effect-glow": said(glow={"radius": 0.6, "colour": "#f4d06f", "strength": 1}),
    "effect-shadow-hard": said(shadow={"dx": 0.15, "dy": 0.15, "softness": 0, "opacity": 1}),
    "effect-shadow-soft": said(shadow={"dx": 0, "dy": 0.2, "softness": 0.5}),
    "effect-plate": said(plate={"colour": "#b4541a", "padding": 0.3, "corner": 1}),
    "words-capitals-spaced": said("spoke", case="capitals", letter_spacing=0.4),
    "words-right-to-left": said("גלגל 26"),
    "words-emoji": said("🚲 ok"),
    "words-script": said("Ride", family="Pacifico", weight=400),
    "words-bottom-right": said("True a wheel", align="right", vertical_align="bottom", size=0.2),
    "words-turned": said(rotation=-20),
    "mark-tinted": piece(mark("wheel-glyph.svg", tint="#f4d06f"), ground=GREEN),
    "mark-recoloured": piece(mark("wheel-badge.svg", recolour={"#17443c": "#b4541a", "#f4d06f": "#ffffff"})),
    "picture-turned": piece(picture(stands={"width": 0.8, "height": 0.6}, rotation=25), ground=GREEN),
    "picture-half-seen": piece(picture(opacity=0.5), ground=GREEN),
    "picture-edge": piece(picture(stands={"width": 0.8, "height": 0.6}, edge={"width": 0.06, "colour": "#ffffff"})),
} | {
    f"shape-{name.replace(' ', '-')}": piece(
        shape(name, solid("#f4d06f"), border={"width": 0.06, "colour": "#17443c"}, stands={"width": 1.4, "height": 0.8})
    )
    for name in SHAPES
}  # fmt: skip
