"""Made pieces and places of other shapes, to arrange the ones for the others: half of both were not used for tuning."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts, Face
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.piece.document import Piece
from fitzle.core.spec.sheet import SpecSheet
from tests.make import photo, saved, svg

GREEN, RUST, YELLOW, SAND = "#17443c", "#b4541a", "#f4d06f", "#f6e7b8"
WIDE = (1280, 720)
PILL = {"colour": RUST, "shape": "pill", "padding": 0.6}


class Composed(NamedTuple):
    """A piece, the size that it was composed for, and whether it was kept apart while weights were set."""

    name: str
    size: tuple[int, int]
    piece: Piece
    apart: bool


class Target(NamedTuple):
    """A place to arrange for, and whether it was kept apart."""

    sheet: SpecSheet
    apart: bool


def facts() -> dict[str, ArtworkFacts]:
    """What is known of the artwork: photos with and without a face, a wide mark and a square one."""
    landscape = read_artwork(saved(photo(600, 400), "JPEG"), "p.jpg").facts
    portrait = read_artwork(saved(photo(400, 500), "JPEG"), "g.jpg").facts
    face = Face(x=140, y=130, width=120, height=120, score=0.9)
    aside = Face(x=390, y=120, width=110, height=110, score=0.9)
    return {
        "ride": landscape,
        "street": landscape,
        "guest": portrait.model_copy(update={"faces": (face,)}),
        "talk": landscape.model_copy(update={"faces": (aside,)}),
        "wordmark": read_artwork(svg('<path d="M2 20H98V30H2z" fill="#17443c"/>'), "w.svg").facts,
        "wheel": read_artwork(svg('<circle cx="50" cy="25" r="20" fill="#b4541a"/>'), "o.svg").facts,
    }


def at(anchor: str, width: float, height: float, dx: float = 0, dy: float = 0) -> dict[str, Any]:
    """A box by its anchor, in fractions of the short side."""
    return {"anchor": anchor, "width": width, "height": height, "dx": dx, "dy": dy}


def words(role: str, text: str, stands: Any, **keys: Any) -> dict[str, Any]:
    """A part of words, named after its role."""
    return {"id": role.replace(" ", "-"), "role": role, "text": text, "stands": stands, **keys}


def art(role: str, artwork: str, stands: Any, **keys: Any) -> dict[str, Any]:
    """A picture or mark, named after its artwork."""
    return {"id": artwork, "role": role, "artwork": artwork, "stands": stands, **keys}


def solid(colour: str) -> dict[str, Any]:
    """A fill of one colour."""
    return {"kind": "solid", "colour": colour}


def block(shape: str, stands: Any, colour: str = GREEN) -> dict[str, Any]:
    """A shape."""
    return {"id": "block", "role": "shape", "shape": shape, "fill": solid(colour), "stands": stands}


CIRCLE, ROUNDED = {"shape": "circle"}, {"shape": "rounded"}
PIECES: list[tuple[str, tuple[int, int], bool, Any, list[dict[str, Any]]]] = [
    ("lesson", WIDE, False, None, [
        art("picture", "ride", "fill", focal_point={"x": 0.56, "y": 0.7}),
        art("picture", "street", at("top-right", 0.34, 0.34, -0.07, 0.07), die=CIRCLE),
        words("headline", "True a\nwheel", at("top-left", 0.84, 0.5, 0.07, 0.09)),
        words("second line", "Lesson 12", at("bottom-left", 0.8, 0.16, 0.07, -0.08))]),
    ("half", WIDE, False, solid(GREEN), [
        art("picture", "ride", at("right", 0.8, 1)),
        words("headline", "Spokes, rims and patience", at("top-left", 0.84, 0.62, 0.07, 0.08)),
        art("mark", "wordmark", at("bottom-left", 0.5, 0.16, 0.07, -0.08))]),
    ("guest", WIDE, False, solid(SAND), [
        art("picture", "guest", at("right", 0.72, 0.72, -0.08), die=CIRCLE),
        words("headline", "Gears with a guest", at("left", 0.82, 0.5, 0.07, -0.06)),
        words("byline", "Rowan Thistle, frame maker", at("bottom-left", 0.86, 0.13, 0.07, -0.09))]),
    ("plain", (1600, 500), False, solid(SAND), [
        words("headline", "Slow roads, quick repairs", at("left", 1.7, 0.5, 0.14, -0.1)),
        words("second line", "Open from Tuesday to Saturday", at("bottom-left", 1.5, 0.14, 0.14, -0.14)),
        art("mark", "wordmark", at("right", 1.0, 0.4, -0.14))]),
    ("centred", (1080, 1080), False, solid(YELLOW), [
        art("mark", "wheel", at("top", 0.22, 0.22, 0, 0.08)),
        words("headline", "Winter check", at("centre", 0.86, 0.36), align="centre"),
        words("second line", "Brakes and lights for one price", at("bottom", 0.8, 0.14, 0, -0.13), align="centre"),
        words("badge", "New", at("top-right", 0.22, 0.12, -0.06, 0.07), plate=PILL, align="centre")]),
    ("panel", WIDE, False, None, [
        art("picture", "ride", "fill", focal_point={"x": 0.56, "y": 0.7}),
        block("rectangle", at("left", 0.72, 0.84, 0.08)),
        words("headline", "Ride out at dusk", at("left", 0.56, 0.42, 0.16, -0.12)),
        words("second line", "Every Friday at seven, lights needed", at("left", 0.56, 0.2, 0.16, 0.22))]),
    ("offer", WIDE, True, solid(SAND), [
        art("picture", "street", at("left", 0.85, 1)),
        words("headline", "The Otter 7 is back", at("top-right", 0.78, 0.46, -0.07, 0.1)),
        words("second line", "Eight speeds, steel frame", at("right", 0.78, 0.14, -0.07, 0.12)),
        words("badge", "Now 490", at("left", 0.38, 0.15, 0.62, 0.3), plate=PILL, align="centre"),
        art("mark", "wordmark", at("bottom-right", 0.42, 0.13, -0.07, -0.07))]),
    ("pair", WIDE, True, solid(SAND), [
        words("headline", "Before and after", at("top", 1.4, 0.2, 0, 0.08), align="centre"),
        art("picture", "ride", at("left", 0.5, 0.5, 0.3, 0.08), die=ROUNDED),
        art("picture", "street", at("right", 0.5, 0.5, -0.3, 0.08), die=ROUNDED),
        words("byline", "A wheel saved in one afternoon", at("bottom", 1.3, 0.1, 0, -0.07), align="centre")]),
    ("talk", WIDE, True, None, [
        art("picture", "talk", "fill"),
        words("headline", "How a frame is brazed, from the first cut to the last", at("left", 0.95, 0.46, 0.07)),
        words("second line", "Thursday 14 May", at("bottom-left", 0.7, 0.1, 0.07, -0.08))]),
    ("quote", (1080, 1350), True, solid(GREEN), [
        words("headline", "“It runs quieter than the day I bought it.”", at("top-left", 0.84, 0.7, 0.08, 0.12)),
        words("byline", "A rider from Mist Lane", at("bottom-left", 0.7, 0.07, 0.08, -0.12)),
        art("mark", "wheel", at("bottom-right", 0.14, 0.14, -0.08, -0.08))]),
    ("story", (1080, 1920), True, solid(RUST), [
        art("picture", "street", at("top", 1, 0.9)),
        words("headline", "Three stops on the canal path", at("left", 0.84, 0.4, 0.08, 0.3)),
        words("second line", "Bread, a ford and a view", at("bottom-left", 0.8, 0.1, 0.08, -0.14))]),
    ("right to left", WIDE, True, solid(SAND), [
        words("headline", "إصلاح العجلات ببطء وعناية", at("top-right", 0.9, 0.5, -0.07, 0.1), align="right"),
        words("second line", "كل سبت من التاسعة", at("bottom-right", 0.8, 0.14, -0.07, -0.1), align="right"),
        art("mark", "wheel", at("left", 0.4, 0.4, 0.1))]),
]  # fmt: skip


def composed() -> Iterator[Composed]:
    """The pieces."""
    for name, size, apart, ground, parts in PIECES:
        document = {"subject": name, "parts": [{"id": "ground", "role": "ground", "fill": ground}, *parts]}
        yield Composed(name, size, Piece.model_validate(document), apart)


def place(name: str, width: int, height: int, seen: int, **keys: Any) -> SpecSheet:
    """A sheet of a size that is seen so many px wide."""
    document = {"fitzle_spec": 1, "name": name, "size": {"width": width, "height": height}, "formats": ["png"]}
    return SpecSheet.model_validate({**document, "seen": [{"name": "seen", "width": seen}], **keys})


def zone(x: float, y: float, width: float, height: float) -> dict[str, Any]:
    """A covered zone."""
    return {"x": x, "y": y, "width": width, "height": height, "label": "title"}


TARGETS = [
    Target(place("wide banner", 2000, 500, 1280), False),
    Target(place("page header", 1704, 433, 780, covered=[zone(0.05, 0.3, 0.5, 0.4)]), False),
    Target(place("card", 640, 640, 220, cut={"shape": "rounded", "radius": 0.06}), False),
    Target(place("story", 1080, 1920, 390, covered=[zone(0, 0, 1, 0.12), zone(0, 0.84, 1, 0.16)]), False),
    Target(place("list tile", 320, 132, 320), False),
    Target(place("strip", 880, 220, 300), False),
    Target(place("touch icon", 180, 180, 60, cut={"shape": "rounded", "radius": 0.22}), False),
    Target(place("tall", 300, 900, 300), True),
    Target(place("very wide", 3000, 500, 900), True),
    Target(place("square", 1080, 1080, 320), True),
    Target(place("with a face", 1500, 500, 600, covered=[zone(0, 0.55, 0.25, 0.45)]), True),
    Target(place("almost", 640, 480, 320), True),
    Target(place("phone", 720, 1280, 360), True),
    Target(place("round", 400, 400, 160, cut={"shape": "circle"}), True),
]
