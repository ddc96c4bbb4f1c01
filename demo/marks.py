"""The sample's marks as SVG."""

from __future__ import annotations

import math

from demo.lettering import stroked_word, word_width

GREEN, ORANGE, YELLOW, SAND, INK = "#17443c", "#b4541a", "#f4d06f", "#f6e7b8", "#39464a"
SPOKES = 9


def wheel(cx: float, cy: float, radius: float, colour: str, rim: float = 0.13) -> str:
    """A wheel: rim, hub and spokes that leave the hub at a slant, as real ones do."""
    width = radius * rim
    spokes = []
    for index in range(SPOKES):
        out = 2 * math.pi * index / SPOKES
        start = out + 0.9
        spokes.append(
            f"M{cx + radius * 0.16 * math.cos(start):.2f} {cy + radius * 0.16 * math.sin(start):.2f}"
            f"L{cx + radius * 0.9 * math.cos(out):.2f} {cy + radius * 0.9 * math.sin(out):.2f}"
        )
    return (
        f'<g fill="none" stroke="{colour}"><circle cx="{cx}" cy="{cy}" r="{radius - width / 2:.2f}"'
        f' stroke-width="{width:.2f}"/><path d="{"".join(spokes)}" stroke-width="{width * 0.5:.2f}"/></g>'
        f'<circle cx="{cx}" cy="{cy}" r="{radius * 0.18:.2f}" fill="{colour}"/>'
    )


def word_and_picture(mark: str, first: str, second: str) -> str:
    """The full mark: wheel and two lines of words."""
    large, small = 46.0, 25.0
    width = 152 + max(word_width("OTTERMOOR", large, 15), word_width("CYCLE WORKS", small, 10.5)) + 12
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:.0f} 128">{wheel(64, 64, 62, mark)}'
        f"{stroked_word('OTTERMOOR', 152, 22, large, 10, first, 15)}"
        f"{stroked_word('CYCLE WORKS', 151, 88, small, 6, second, 10.5)}</svg>"
    )


def glyph(colour: str) -> str:
    """The wheel alone."""
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 128 128">{wheel(64, 64, 60, colour, 0.16)}</svg>'


def badge() -> str:
    """The wheel on a tile of its own."""
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 128 128"><rect width="128" height="128" rx="26"'
        f' fill="{GREEN}"/>{wheel(64, 64, 44, YELLOW, 0.15)}</svg>'
    )


def sticker() -> str:
    """A bell's sound for the riders' chat."""
    word = stroked_word("DING!", 31, 50, 25, 7, "#fffaf0", 12)
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 160 130"><path d="M80 6C124 6 154 28 154 62S124 116'
        f' 80 116Q62 116 46 111L20 124L26 101Q6 86 6 62C6 28 36 6 80 6Z" fill="{ORANGE}"/>{word}</svg>'
    )


MARKS: dict[str, str] = {
    "ottermoor-dark.svg": word_and_picture(GREEN, GREEN, ORANGE),
    "ottermoor-light.svg": word_and_picture(SAND, SAND, YELLOW),
    "wheel-glyph.svg": glyph(INK),
    "wheel-badge.svg": badge(),
    "ding.svg": sticker(),
}
