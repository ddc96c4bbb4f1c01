"""Starting points for a placement, made of the workspace's own colours, typefaces and marks: three for each kind."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Literal, NamedTuple

from fitzle.core.colour.contrast import BLACK, WHITE, relative_luminance
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.piece.document import Piece
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.type.library import USUAL_FAMILY
from fitzle.core.units import Size

ICON_UP_TO_PX = 192
WIDE_FROM_RATIO = 2.2
SQUARE_UP_TO_RATIO = 1.25
TYPICAL = Size(512, 512)

Kind = Literal["wide banner", "thumbnail", "card", "watermark", "sticker", "header logo", "icon"]
Part = dict[str, Any]


class House(NamedTuple):
    """What a business makes its pieces of: hex colours, typefaces, ids of its marks and pictures."""

    name: str
    colours: tuple[str, ...] = ()
    heading: str = USUAL_FAMILY
    text: str = USUAL_FAMILY
    marks: tuple[str, ...] = ()
    pictures: tuple[str, ...] = ()

    @property
    def dark(self) -> str:
        """Its darkest colour."""
        return min([*self.colours, BLACK][: max(1, len(self.colours))], key=_light)

    @property
    def light(self) -> str:
        """Its lightest colour."""
        return max([*self.colours, WHITE][: max(1, len(self.colours))], key=_light)

    @property
    def strong(self) -> str:
        """The colour between them that stands out: the most saturated one."""
        return max(self.colours or (BLACK,), key=lambda colour: max(parse_hex(colour)) - min(parse_hex(colour)))


class StartingPoint(NamedTuple):
    """A piece to begin with and what it is."""

    name: str
    piece: Piece


_BY_KIND: dict[str, Kind] = {
    "video-thumbnail": "thumbnail", "lesson-picture": "thumbnail", "event-header": "thumbnail",
    "corner-watermark": "watermark", "sticker": "sticker", "moving-sticker": "sticker", "small-sticker": "sticker",
    "print-sticker": "sticker", "shop-badge": "sticker", "site-icon": "icon", "touch-icon": "icon", "app-icon": "icon",
    "header-logo": "header logo", "header-logo-dark": "header logo", "sign-in-logo": "header logo",
    "wide-banner": "wide banner", "narrow-banner": "wide banner", "course-header": "wide banner",
    "course-card": "card", "podcast-cover": "card", "product-square": "card",
}  # fmt: skip


def kind_of_placement(sheet: SpecSheet) -> Kind:
    """What its starting points are made for: by the sheet's kind, else by size, shape and transparency."""
    if sheet.kind in _BY_KIND:
        return _BY_KIND[sheet.kind]
    size = delivered_size(sheet, TYPICAL, vector=True)
    square = max(size.ratio, 1 / size.ratio) <= SQUARE_UP_TO_RATIO
    if square and size.short_side <= ICON_UP_TO_PX:
        return "icon"
    if square and sheet.transparency == "required":
        return "sticker" if sheet.capacity else "watermark"
    if size.ratio >= WIDE_FROM_RATIO:
        return "wide banner" if sheet.transparency == "forbidden" else "header logo"
    return "thumbnail" if size.ratio > SQUARE_UP_TO_RATIO else "card"


def starting_points(sheet: SpecSheet, house: House) -> list[StartingPoint]:
    """Three pieces for the placement; what the workspace has no picture or mark for is done with words and shapes."""
    return [
        StartingPoint(name, Piece.model_validate({"subject": house.name[:120], "parts": make(house)}))
        for name, make in _KINDS[kind_of_placement(sheet)]
    ]


def _light(colour: str) -> float:
    return relative_luminance(parse_hex(colour))


def _box(anchor: str, width: float, height: float, dx: float = 0, dy: float = 0) -> Part:
    return {"anchor": anchor, "width": width, "height": height, "dx": dx, "dy": dy}


def _ground(fill: Any = None, **more: Any) -> Part:
    return {"id": "ground", "role": "ground", "fill": fill, **more}


def _solid(colour: str) -> Part:
    return {"kind": "solid", "colour": colour}


def _gradient(*colours: str, angle: float = 20) -> Part:
    stops = [{"at": index / (len(colours) - 1), "colour": colour} for index, colour in enumerate(colours)]
    return {"kind": "gradient", "stops": stops, "angle": angle}


def _words(house: House, role: str, text: str, stands: Part | str, **more: Any) -> Part:
    heading = role in ("headline", "badge")
    return {
        "id": role.replace(" ", "-"), "role": role, "text": text, "stands": stands,
        "family": house.heading if heading else house.text, "weight": 800 if heading else 600, **more,
    }  # fmt: skip


def _mark(house: House, stands: Part | str, **more: Any) -> list[Part]:
    if not house.marks:
        return []
    return [{"id": "mark", "role": "mark", "artwork": house.marks[0], "stands": stands, **more}]


def _picture(house: House, stands: Part | str, **more: Any) -> list[Part]:
    """The newest picture, or a shape in its place."""
    if house.pictures:
        return [{"id": "picture", "role": "picture", "artwork": house.pictures[0], "stands": stands, **more}]
    shape = more.get("die", {}).get("shape", "rectangle")
    return [
        {"id": "shape", "role": "shape", "shape": shape, "fill": _gradient(house.strong, house.light), "stands": stands}
    ]


def _picture_ground(house: House, **more: Any) -> Part:
    if not house.pictures:
        return _ground(_gradient(house.dark, house.strong))
    return _ground({"kind": "picture", "artwork": house.pictures[0], **more})


def _over_picture(house: House) -> list[Part]:
    ground = _picture_ground(house, overlay={"colour": house.dark, "opacity": 0.66})
    return [
        ground,
        _words(house, "headline", "Your headline here", _box("left", 1.25, 0.5, 0.07, -0.08)),
        _words(house, "second line", "and a second line", _box("bottom-left", 1.2, 0.16, 0.07, -0.08)),
    ]


def _half_and_half(house: House) -> list[Part]:
    return [
        _ground(_solid(house.dark)),
        *_picture(house, _box("right", 0.8, 1), beyond=False),
        _words(house, "headline", "Your headline here", _box("top-left", 0.84, 0.62, 0.07, 0.08)),
        *_mark(house, _box("bottom-left", 0.15, 0.15, 0.07, -0.07), tint=house.light),
    ]


def _guest_in_circle(house: House) -> list[Part]:
    border = {"width": 0.04, "colour": house.light}
    return [
        _ground(_gradient(house.dark, house.strong)),
        *_picture(house, _box("right", 0.72, 0.72, -0.08), die={"shape": "circle", "border": border}),
        _words(house, "headline", "With a guest", _box("left", 0.82, 0.5, 0.07, -0.06)),
        _words(house, "byline", "Name of the guest", _box("bottom-left", 0.86, 0.13, 0.07, -0.09)),
    ]


def _card_over_picture(house: House) -> list[Part]:
    return [
        _picture_ground(house, overlay={"colour": house.dark, "opacity": 0.66}),
        _words(house, "headline", "Your headline here", _box("centre", 0.86, 0.5, 0, -0.08)),
        _words(house, "second line", "and a second line", _box("bottom", 0.86, 0.13, 0, -0.08)),
    ]


def _picture_above(house: House) -> list[Part]:
    return [
        _ground(_solid(house.dark)),
        *_picture(house, _box("top", 1, 0.56)),
        _words(house, "headline", "Your headline here", _box("bottom", 0.86, 0.34, 0, -0.05)),
    ]


def _guest_above(house: House) -> list[Part]:
    border = {"width": 0.04, "colour": house.light}
    return [
        _ground(_gradient(house.dark, house.strong, angle=60)),
        *_picture(house, _box("top", 0.54, 0.54, 0, 0.06), die={"shape": "circle", "border": border}),
        _words(house, "headline", "With a guest", _box("bottom", 0.86, 0.2, 0, -0.14), align="centre"),
        _words(house, "byline", "Name of the guest", _box("bottom", 0.8, 0.09, 0, -0.05), align="centre"),
    ]


def _words_and_mark(house: House) -> list[Part]:
    return [
        _ground(_solid(house.light)),
        _words(house, "headline", "Say one thing", _box("left", 2.2, 0.5, 0.16)),
        *_mark(house, _box("right", 1.1, 0.44, -0.16)),
    ]


def _banner_picture(house: House) -> list[Part]:
    plate = {"colour": house.light, "padding": 0.5, "corner": 0.15}
    return [
        _picture_ground(house),
        _words(house, "headline", "Say one thing", _box("left", 1.9, 0.6, 0.14), plate=plate),
    ]


def _banner_gradient(house: House) -> list[Part]:
    outline = {"width": 0.07, "colour": house.dark}
    return [
        _ground(_gradient(house.dark, house.strong, house.light, angle=12)),
        _words(house, "headline", "Say one thing", _box("centre", 2.6, 0.52), align="centre", outline=outline,
               colour=house.light),
    ]  # fmt: skip


def _mark_alone(house: House) -> list[Part]:
    return [_ground(), *(_mark(house, "fill") or [_initial(house, "fill")])]


def _mark_in_circle(house: House) -> list[Part]:
    return _mark_on(house, "circle", 1.0, 0.6)


def _mark_on_tile(house: House) -> list[Part]:
    return _mark_on(house, "rounded", 1.0, 0.62)


def _mark_on(house: House, shape: str, size: float, mark: float) -> list[Part]:
    surface = {
        "id": "shape",
        "role": "shape",
        "shape": shape,
        "fill": _solid(house.dark),
        "stands": _box("centre", size, size),
    }
    inner = _mark(house, _box("centre", mark, mark), tint=house.light)
    return [_ground(), surface, *(inner or [_initial(house, _box("centre", mark, mark), colour=house.light)])]


def _torn_picture(house: House) -> list[Part]:
    return [_ground(), *_picture(house, _box("centre", 0.96, 0.96), die={"shape": "torn edge"})]


def _die_cut_mark(house: House) -> list[Part]:
    inner = _mark(house, "fill") or [_initial(house, "fill")]
    return [_ground(edge={"width": 0.04, "colour": house.light}), *inner]


def _bubble(house: House) -> list[Part]:
    plate = {"colour": house.strong, "padding": 0.5, "shape": "speech bubble"}
    return [
        _ground(edge={"width": 0.035, "colour": house.light}),
        _words(house, "badge", "Nice!", _box("centre", 0.94, 0.8), plate=plate, align="centre"),
    ]


def _burst_picture(house: House) -> list[Part]:
    die = {"shape": "burst", "border": {"width": 0.04, "colour": house.strong}}
    return [_ground(edge={"width": 0.03, "colour": house.light}), *_picture(house, "fill", die=die, mode="fill")]


def _mark_and_name(house: House) -> list[Part]:
    name = _words(house, "headline", house.name, _box("right", 2.8, 0.7), colour=house.dark)
    return [_ground(), *_mark(house, _box("left", 0.84, 0.84, 0.08)), name]


def _name_alone(house: House) -> list[Part]:
    return [_ground(), _words(house, "headline", house.name, "fill", colour=house.dark, align="centre")]


def _initial_on_circle(house: House) -> list[Part]:
    surface = {
        "id": "shape",
        "role": "shape",
        "shape": "circle",
        "fill": _solid(house.strong),
        "stands": _box("centre", 1, 1),
    }
    return [_ground(), surface, _initial(house, _box("centre", 0.62, 0.62))]


def _initial(house: House, stands: Part | str, **more: Any) -> Part:
    return _words(house, "headline", house.name[:1] or "F", stands, align="centre", **more)


Make = Callable[[House], list[Part]]
_KINDS: dict[Kind, tuple[tuple[str, Make], ...]] = {
    "wide banner": (
        ("Words and mark on a plain ground", _words_and_mark),
        ("Words on a plate over a picture", _banner_picture),
        ("Outlined words on a gradient", _banner_gradient),
    ),
    "thumbnail": (
        ("Headline over a picture", _over_picture),
        ("Half colour, half picture", _half_and_half),
        ("Guest in a circle", _guest_in_circle),
    ),
    "card": (
        ("Headline over a picture", _card_over_picture),
        ("Picture above, words below", _picture_above),
        ("Guest in a circle", _guest_above),
    ),
    "watermark": (
        ("The mark alone", _mark_alone),
        ("The mark in a circle", _mark_in_circle),
        ("A picture with torn edges", _torn_picture),
    ),
    "sticker": (
        ("The mark with a die-cut edge", _die_cut_mark),
        ("Words in a bubble", _bubble),
        ("A picture in a burst", _burst_picture),
    ),
    "header logo": (
        ("The mark alone", _mark_alone),
        ("Mark and name", _mark_and_name),
        ("The name alone", _name_alone),
    ),
    "icon": (
        ("The mark alone", _mark_alone),
        ("The mark on a tile", _mark_on_tile),
        ("The first letter on a circle", _initial_on_circle),
    ),
}
