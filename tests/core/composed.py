"""Twelve pieces that together use every kind of part, ground and effect; for golden pictures and for SVG."""

from __future__ import annotations

from functools import cache
from typing import Any

from demo.marks import MARKS

from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.fit.deciding import Decided
from tests.fits import decided_fit, facts_and_sources
from tests.make import photo, saved, sheet, solid

HOUSE = ("#17443c", "#f4d06f", "#b4541a")
SIZE = {"width": 320, "height": 180}


def gradient(form: str, **more: Any) -> dict[str, Any]:
    stops = [{"at": 0, "colour": "#17443c"}, {"at": 0.5, "colour": "#f4d06f"}, {"at": 1, "colour": "#b4541a"}]
    return {"kind": "gradient", "form": form, "stops": stops, **more}


def words(text: str = "True a wheel", **more: Any) -> dict[str, Any]:
    stands = {"anchor": "centre", "width": 1.2, "height": 0.6}
    return {"id": "w", "role": "headline", "text": text, "family": "Oswald", "weight": 700, "stands": stands, **more}


def piece(*parts: dict[str, Any], ground: Any = None, **more: Any) -> dict[str, Any]:
    return {"subject": "x", "parts": [{"id": "ground", "role": "ground", "fill": ground, **more}, *parts]}


def picture(**more: Any) -> dict[str, Any]:
    return {"id": "p", "role": "picture", "artwork": "photo", **more}


def mark(artwork: str, **more: Any) -> dict[str, Any]:
    return {"id": "m", "role": "mark", "artwork": artwork, **more}


def shape(name: str, fill: Any, **more: Any) -> dict[str, Any]:
    return {"id": "s", "role": "shape", "shape": name, "fill": fill, **more}


LINE = {"width": 0.08, "colour": "#1c2324"}
PIECES: dict[str, dict[str, Any]] = {
    "linear": piece(words(), ground=gradient("linear", angle=35)),
    "radial": piece(words(colour="#ffffff", outline=LINE), ground=gradient("radial", centre={"x": 0.3, "y": 0.2})),
    "angled": piece(words(outline_only=True, colour="#ffffff"), ground=gradient("angled", mix="oklch")),
    "glow-shadow": piece(
        words(colour="#ffffff", glow={"radius": 0.5, "colour": "#f4d06f"}, shadow={"dx": 0.1, "dy": 0.1}),
        ground=solid("#17443c"),
    ),
    "offset-plate": piece(
        words(outline={"width": 0.06, "offset": 0.06, "colour": "#b4541a"},
              plate={"colour": "#f6e7b8", "shape": "torn edge"}),
        ground=solid("#ffffff"),
    ),
    "mark-on-photo": piece(
        picture(), mark("ottermoor-light.svg", tint="#ffffff",
                        stands={"anchor": "bottom-left", "dx": 0.05, "dy": -0.05, "width": 0.8, "height": 0.2}),
    ),
    "die": piece(
        picture(stands={"width": 0.8, "height": 0.8}, zoom=1.4, focal_point={"x": 0.3, "y": 0.4},
                die={"shape": "burst", "border": {"width": 0.05, "colour": "#f4d06f"}}),
    ),
    "blends": piece(
        picture(), shape("circle", gradient("linear"), stands={"width": 0.7, "height": 0.7}, blend="multiply"),
        {**shape("star", solid("#ffffff"), blend="soft light", opacity=0.8, rotation=20,
                 stands={"anchor": "right", "width": 0.4, "height": 0.4}), "id": "s2"},
    ),
    "blurred-ground": piece(
        words(colour="#ffffff", rotation=-8),
        ground={"kind": "picture", "artwork": "photo", "blur": 0.02, "overlay": {"colour": "#17443c", "opacity": 0.5}},
    ),
    "pattern": piece(
        words(plate={"colour": "#17443c"}, colour="#f6e7b8"),
        ground={"kind": "pattern", "artwork": "wheel-glyph.svg", "colour": "#f6e7b8", "rotation": 20, "size": 0.15},
    ),
    "sticker": piece(
        mark("ding.svg", recolour={"#b4541a": "#17443c"}, padding={"value": 5, "unit": "%"}),
        edge={"width": 0.04, "colour": "#f4d06f"},
    ),
    "shape-with-edge": piece(
        shape("tag", gradient("angled"), border={"width": 0.05, "colour": "#1c2324"},
              stands={"width": 1, "height": 0.5}, edge={"width": 0.03, "colour": "#ffffff"}),
        words("50 % off", opacity=0.7, rotation=6, stands={"width": 0.6, "height": 0.3}),
        ground=solid("#dddddd"),
    ),
}  # fmt: skip


@cache
def read_artworks() -> dict[str, Artwork]:
    """The artwork that the pieces use."""
    read = {name: read_artwork(text.encode(), name) for name, text in MARKS.items()}
    read["photo"] = read_artwork(saved(photo(360, 240), "PNG"), "photo.png")
    return read


@cache
def artworks() -> tuple[dict[str, Any], dict[str, Any]]:
    """Facts and sources of the artwork that the pieces use."""
    return facts_and_sources(read_artworks())


def decided(data: dict[str, Any], **place: Any) -> Decided:
    """A piece, planned and looked at."""
    return decided_fit(data, sheet(**{"size": SIZE, **place}), read_artworks(), house=HOUSE)
