"""Structures of stickers, watermarks, logos and icons: one or two things, on a clear ground."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from fitzle.core.starting.compositions import Structure
from fitzle.core.starting.house import (
    House,
    Part,
    box,
    ground,
    letter,
    mark,
    mark_or_letter,
    picture,
    solid,
    surface,
    words,
)
from fitzle.core.units import Size

TILE, LOGO = Size(512, 512), Size(880, 220)
Make = Callable[[House], list[Part]]


def _edge(colour: str, width: float = 0.04) -> dict[str, Any]:
    return {"width": width, "colour": colour}


def _mark_alone(house: House) -> list[Part]:
    return [ground(), *mark_or_letter(house, "fill")]


def _tinted(colour: Callable[[House], str]) -> Make:
    return lambda house: [ground(), *mark_or_letter(house, "fill", tint=colour(house))]


def _mark_on(shape: str, inner: float, behind: Callable[[House], str], tint: Callable[[House], str]) -> Make:
    def make(house: House) -> list[Part]:
        under = surface(shape, box("centre", 1, 1), solid(behind(house)))
        return [ground(), under, *mark_or_letter(house, box("centre", inner, inner), tint=tint(house))]

    return make


def _letter_on(shape: str, inner: float, behind: Callable[[House], str], colour: Callable[[House], str]) -> Make:
    def make(house: House) -> list[Part]:
        under = surface(shape, box("centre", 1, 1), solid(behind(house)))
        return [ground(), under, letter(house, box("centre", inner, inner), colour=colour(house))]

    return make


def _die_cut_mark(house: House) -> list[Part]:
    return [ground(edge=_edge(house.light)), *mark_or_letter(house, "fill")]


def _said_in(shape: str, text: str) -> Make:
    def make(house: House) -> list[Part]:
        plate = {"colour": house.dark, "padding": 0.5, "shape": shape}
        said = words(house, "badge", text, box("centre", 0.94, 0.8), plate=plate, align="centre", colour=house.light)
        return [ground(edge=_edge(house.light, 0.035)), said]

    return make


def _picture_in(shape: str) -> Make:
    def make(house: House) -> list[Part]:
        die = {"shape": shape, "border": _edge(house.strong)}
        return [ground(edge=_edge(house.light, 0.03)), *picture(house, "fill", die=die, mode="fill")]

    return make


def _torn_picture(house: House) -> list[Part]:
    return [ground(), *picture(house, box("centre", 0.96, 0.96), die={"shape": "torn edge"})]


def _mark_over_name(house: House) -> list[Part]:
    name = words(house, "headline", house.name, box("bottom", 0.96, 0.26), colour=house.dark, align="centre")
    return [ground(), *mark_or_letter(house, box("top", 0.66, 0.66)), name]


def _name_alone(house: House) -> list[Part]:
    return [ground(), words(house, "headline", house.name, "fill", colour=house.dark, align="centre")]


def _name_in_text(house: House) -> list[Part]:
    name = words(house, "headline", house.name, "fill", colour=house.dark, align="centre")
    return [ground(), {**name, "family": house.text, "weight": 700}]


def _mark_and_name(house: House) -> list[Part]:
    name = words(house, "headline", house.name, box("right", 2.8, 0.7, -0.04), colour=house.dark)
    return [ground(), *mark_or_letter(house, box("left", 0.84, 0.84, 0.08)), name]


def _name_and_mark(house: House) -> list[Part]:
    name = words(house, "headline", house.name, box("left", 2.8, 0.7, 0.04), colour=house.dark, align="right")
    return [ground(), name, *mark_or_letter(house, box("right", 0.84, 0.84, -0.08))]


def _tile_and_name(house: House) -> list[Part]:
    name = words(house, "headline", house.name, box("right", 2.7, 0.66, -0.04), colour=house.dark)
    tile = surface("rounded", box("left", 0.9, 0.9, 0.05), solid(house.dark))
    inner = mark_or_letter(house, box("left", 0.56, 0.56, 0.22), tint=house.light)
    return [ground(), tile, *[{**one, "id": "sign"} for one in inner], name]


def _name_on_plate(house: House) -> list[Part]:
    plate = {"colour": house.dark, "padding": 0.4, "corner": 0.3}
    name = words(house, "headline", house.name, box("centre", 3.8, 0.9), plate=plate, align="centre")
    return [ground(), {**name, "colour": house.light}]


def _name_with_line(house: House) -> list[Part]:
    name = words(house, "headline", house.name, box("top", 3.8, 0.66, 0, 0.04), colour=house.dark, align="centre")
    return [ground(), name, surface("rectangle", box("bottom", 3.6, 0.06, 0, -0.1), solid(house.dark))]


def _one_colour(house: House) -> list[Part]:
    name = words(house, "headline", house.name, box("right", 2.8, 0.7, -0.04), colour=house.dark)
    return [ground(), *mark(house, box("left", 0.84, 0.84, 0.08), tint=house.dark), name]


def _dark(house: House) -> str:
    return house.dark


def _light(house: House) -> str:
    return house.light


ON_SHAPES = (
    Structure("The mark in a circle", TILE, _mark_on("circle", 0.6, _dark, _light)),
    Structure("The mark on a tile", TILE, _mark_on("rounded", 0.62, _dark, _light)),
    Structure("The first letter on a circle", TILE, _letter_on("circle", 0.62, _dark, _light)),
    Structure("The first letter on a tile", TILE, _letter_on("rounded", 0.66, _dark, _light)),
)
WATERMARKS = (
    Structure("The mark alone", TILE, _mark_alone),
    *ON_SHAPES,
    Structure("The mark in the darkest colour", TILE, _tinted(_dark)),
    Structure("The mark over the name", TILE, _mark_over_name),
    Structure("The name on a ribbon", TILE, _said_in("ribbon", "Ours")),
    Structure("A picture with torn edges", TILE, _torn_picture),
    Structure("The mark on a shield", TILE, _mark_on("shield", 0.5, _dark, _light)),
)
STICKERS = (
    Structure("The mark with a die-cut edge", TILE, _die_cut_mark),
    Structure("Words in a bubble", TILE, _said_in("speech bubble", "Nice!")),
    Structure("A picture in a burst", TILE, _picture_in("burst")),
    Structure("Words on a ribbon", TILE, _said_in("ribbon", "Thanks")),
    Structure("Words in a burst", TILE, _said_in("burst", "Wow")),
    Structure("A picture in a circle", TILE, _picture_in("circle")),
    Structure("A picture in a star", TILE, _picture_in("star")),
    *ON_SHAPES,
    Structure("The mark on a shield", TILE, _mark_on("shield", 0.5, _dark, _light)),
)
LOGOS = (
    Structure("The mark alone", LOGO, _mark_alone),
    Structure("Mark and name", LOGO, _mark_and_name),
    Structure("The name alone", LOGO, _name_alone),
    Structure("Name and mark", LOGO, _name_and_mark),
    Structure("Mark on a tile, and the name", LOGO, _tile_and_name),
    Structure("The name on a plate", LOGO, _name_on_plate),
    Structure("The name with a line under it", LOGO, _name_with_line),
    Structure("All in one colour", LOGO, _one_colour),
    Structure("The name in the typeface of texts", LOGO, _name_in_text),
)
ICONS = (
    Structure("The mark alone", TILE, _mark_alone),
    *ON_SHAPES,
    Structure("The mark in the darkest colour", TILE, _tinted(_dark)),
    Structure("The mark on a light circle", TILE, _mark_on("circle", 0.62, _light, _dark)),
    Structure("The mark on a light tile", TILE, _mark_on("rounded", 0.64, _light, _dark)),
    Structure("The mark on a hexagon", TILE, _mark_on("hexagon", 0.56, _dark, _light)),
    Structure("The first letter on a light circle", TILE, _letter_on("circle", 0.62, _light, _dark)),
)
