"""Structures of words, pictures and marks, each composed in a shape of its own; other shapes follow by calculation."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from fitzle.core.starting.house import (
    House,
    Part,
    box,
    gradient,
    ground,
    mark,
    picture,
    picture_ground,
    solid,
    surface,
    veiled,
    words,
)
from fitzle.core.units import Size

SCREEN, SQUARE, BANNER = Size(1280, 720), Size(1080, 1080), Size(1500, 500)
SAY = "Your headline here"
MORE = "and a second line"


class Structure(NamedTuple):
    """A composition: what it is called, the shape that its boxes are for, and its parts as a house fills them."""

    name: str
    size: Size
    parts: Callable[[House], list[Part]]


def _over_picture(house: House) -> list[Part]:
    return [
        veiled(house),
        words(house, "headline", SAY, box("left", 1.25, 0.5, 0.07, -0.08)),
        words(house, "second line", MORE, box("bottom-left", 1.2, 0.16, 0.07, -0.08)),
    ]


def _half_and_half(house: House) -> list[Part]:
    return [
        ground(solid(house.dark)),
        *picture(house, box("right", 0.8, 1), beyond=False),
        words(house, "headline", SAY, box("top-left", 0.84, 0.62, 0.07, 0.08)),
        *mark(house, box("bottom-left", 0.15, 0.15, 0.07, -0.07), tint=house.light),
    ]


def _guest_in_circle(house: House) -> list[Part]:
    border = {"width": 0.04, "colour": house.light}
    return [
        ground(gradient(house.dark, house.strong)),
        *picture(house, box("right", 0.72, 0.72, -0.08), die={"shape": "circle", "border": border}),
        words(house, "headline", "With a guest", box("left", 0.82, 0.5, 0.07, -0.06)),
        words(house, "byline", "Name of the guest", box("bottom-left", 0.86, 0.13, 0.07, -0.09)),
    ]


def _badge_and_headline(house: House) -> list[Part]:
    plate = {"colour": house.light, "padding": 0.5, "shape": "ribbon"}
    return [
        veiled(house),
        words(house, "badge", "New", box("top-left", 0.4, 0.16, 0.07, 0.08), plate=plate),
        words(house, "headline", SAY, box("bottom-left", 1.2, 0.46, 0.07, -0.08)),
    ]


def _words_alone(house: House) -> list[Part]:
    return [
        ground(solid(house.dark)),
        words(house, "headline", SAY, box("top-left", 1.3, 0.56, 0.08, 0.1), colour=house.light),
        words(house, "byline", "Who says so", box("bottom-left", 0.9, 0.12, 0.08, -0.1), colour=house.light),
    ]


def _panel_on_picture(house: House) -> list[Part]:
    return [
        picture_ground(house),
        surface("rectangle", box("left", 0.86, 0.8, 0.08), solid(house.dark)),
        words(house, "headline", SAY, box("left", 0.7, 0.42, 0.16, -0.1), colour=house.light),
        words(house, "second line", MORE, box("left", 0.7, 0.14, 0.16, 0.24), colour=house.light),
    ]


def _two_pictures(house: House) -> list[Part]:
    return [
        ground(solid(house.light)),
        *picture(house, box("top-left", 0.84, 0.56, 0.03, 0.03)),
        *picture(house, box("top-right", 0.84, 0.56, -0.03, 0.03), 1),
        words(house, "headline", SAY, box("bottom", 1.6, 0.28, 0, -0.06), align="centre", colour=house.dark),
    ]


def _picture_in_frame(house: House) -> list[Part]:
    return [
        ground(gradient(house.dark, house.strong, angle=45)),
        *picture(house, box("right", 0.78, 0.82, -0.08), die={"shape": "rounded"}),
        words(house, "headline", SAY, box("left", 0.74, 0.5, 0.08, -0.08)),
        words(house, "second line", MORE, box("left", 0.74, 0.12, 0.08, 0.28)),
    ]


def _centred_over_picture(house: House) -> list[Part]:
    return [
        veiled(house),
        words(house, "headline", SAY, box("centre", 0.86, 0.5, 0, -0.08), align="centre"),
        words(house, "second line", MORE, box("bottom", 0.86, 0.13, 0, -0.08), align="centre"),
    ]


def _picture_above(house: House) -> list[Part]:
    return [
        ground(solid(house.dark)),
        *picture(house, box("top", 1, 0.56)),
        words(house, "headline", SAY, box("bottom", 0.86, 0.34, 0, -0.05)),
    ]


def _guest_above(house: House) -> list[Part]:
    border = {"width": 0.04, "colour": house.light}
    return [
        ground(gradient(house.dark, house.strong, angle=60)),
        *picture(house, box("top", 0.54, 0.54, 0, 0.06), die={"shape": "circle", "border": border}),
        words(house, "headline", "With a guest", box("bottom", 0.86, 0.2, 0, -0.14), align="centre"),
        words(house, "byline", "Name of the guest", box("bottom", 0.8, 0.09, 0, -0.05), align="centre"),
    ]


def _mark_above_words(house: House) -> list[Part]:
    return [
        ground(solid(house.dark)),
        *mark(house, box("top", 0.34, 0.34, 0, 0.12), tint=house.light),
        words(house, "headline", SAY, box("bottom", 0.86, 0.32, 0, -0.12), align="centre", colour=house.light),
    ]


def _words_and_mark(house: House) -> list[Part]:
    return [
        ground(solid(house.light)),
        words(house, "headline", "Say one thing", box("left", 1.7, 0.5, 0.16), colour=house.dark),
        *mark(house, box("right", 0.8, 0.44, -0.16), tint=house.dark),
    ]


def _plate_over_picture(house: House) -> list[Part]:
    plate = {"colour": house.light, "padding": 0.5, "corner": 0.15}
    return [
        picture_ground(house),
        words(house, "headline", "Say one thing", box("left", 1.5, 0.6, 0.14), plate=plate, colour=house.dark),
    ]


def _outlined_words(house: House) -> list[Part]:
    outline = {"width": 0.07, "colour": house.dark}
    return [
        ground(gradient(house.dark, house.strong, house.dark, angle=12)),
        words(house, "headline", "Say one thing", box("centre", 2.2, 0.52), align="centre", outline=outline,
              colour=house.light),
    ]  # fmt: skip


COMPOSITIONS = (
    Structure("Headline over a picture", SCREEN, _over_picture),
    Structure("Half colour, half picture", SCREEN, _half_and_half),
    Structure("Guest in a circle", SCREEN, _guest_in_circle),
    Structure("Badge and headline", SCREEN, _badge_and_headline),
    Structure("Words alone", SCREEN, _words_alone),
    Structure("Words on a panel over a picture", SCREEN, _panel_on_picture),
    Structure("Two pictures and a headline", SCREEN, _two_pictures),
    Structure("Picture in a frame", SCREEN, _picture_in_frame),
    Structure("Centred over a picture", SQUARE, _centred_over_picture),
    Structure("Picture above, words below", SQUARE, _picture_above),
    Structure("Guest above the words", SQUARE, _guest_above),
    Structure("Mark above the words", SQUARE, _mark_above_words),
    Structure("Words and mark on a plain ground", BANNER, _words_and_mark),
    Structure("Words on a plate over a picture", BANNER, _plate_over_picture),
    Structure("Outlined words on a gradient", BANNER, _outlined_words),
)
