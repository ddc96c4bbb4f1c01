"""What would make faint words and marks stand out, each way with the contrast that it comes to."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from fitzle.core.colour.contrast import BLACK, HALF_LIGHT, WHITE, relative_luminance, weakest_contrast
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.srgb import parse_hex, to_hex
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.preflight.behind import Behind
from fitzle.core.preflight.readings import Stronger

ENOUGH = 4.5  # WCAG 2.2, 1.4.3: what a way has to reach, whatever the size of the letters
OPACITIES = tuple(step / 20 for step in range(3, 17))  # of a veil: more than four fifths hides the picture


def ways_for_words(part: PlacedWords, behind: Behind, house: Sequence[str]) -> tuple[Stronger, ...]:
    """Ways that reach ENOUGH, what changes least first: another colour, a line around, what is behind, a plate."""
    line = [*house, BLACK, WHITE]
    found = [*_coloured(part.colour, behind, line), *_outlined(part, behind, line), *_darkened(part.colour, behind)]
    if part.plate is None:
        found += _on_plate(part.colour, behind, line)
    return tuple(one for one in found if one.ratio >= ENOUGH)


def ways_for_mark(
    outline: tuple[ColourShare, ...], behind: Behind, house: Sequence[str], *, tints: bool
) -> tuple[Stronger, ...]:
    """The same for a mark by the colours along its outline; only one of a single colour is tinted."""
    own = _median_colour(outline)
    if own is None:
        return ()
    line = [*house, BLACK, WHITE]
    shown = behind.outline(outline)
    edges = ((colour, weakest_contrast(shown, behind.seen(colour))) for colour in line)
    found = list(_coloured(own, behind, line)) if tints else []
    found += [Stronger("outline", colour, round(ratio, 2)) for colour, ratio in edges if ratio >= ENOUGH][:1]
    return tuple(one for one in [*found, *_darkened(own, behind)] if one.ratio >= ENOUGH)


def _coloured(own: str, behind: Behind, line: Sequence[str]) -> Iterator[Stronger]:
    """The first house colour that reaches it, else black or white."""
    for colour in line:
        ratio = behind.on_all(colour)
        if ratio >= ENOUGH and parse_hex(colour) != parse_hex(own if own != "auto" else line[0]):
            yield Stronger("colour", to_hex(parse_hex(colour)), round(ratio, 2))
            return


def _outlined(part: PlacedWords, behind: Behind, line: Sequence[str]) -> Iterator[Stronger]:
    if part.outline is not None or part.outline_only or part.colour == "auto":
        return
    against = next((one for one in line if behind.between(part.colour, one) >= ENOUGH), None)
    if against:
        yield Stronger("outline", against, round(behind.between(part.colour, against), 2))


def _darkened(own: str, behind: Behind) -> Iterator[Stronger]:
    """The thinnest veil behind of black, or of white behind dark letters."""
    if own == "auto":
        return
    veil = BLACK if relative_luminance(parse_hex(own)) > HALF_LIGHT else WHITE
    for opacity in OPACITIES:
        ratio = behind.covered_by(veil, opacity).on_all(own)
        if ratio >= ENOUGH:
            yield Stronger("darken", veil, round(ratio, 2), opacity)
            return


def _on_plate(own: str, behind: Behind, line: Sequence[str]) -> Iterator[Stronger]:
    """On the lightest colour of the house, or on the darkest for light letters."""
    light = own != "auto" and relative_luminance(parse_hex(own)) < HALF_LIGHT
    plate = (max if light else min)(line, key=lambda one: relative_luminance(parse_hex(one)))
    letters = [own] if own != "auto" else list(line)
    ratio = max(behind.between(one, plate) for one in letters)
    yield Stronger("plate", plate, round(ratio, 2))


def _median_colour(outline: tuple[ColourShare, ...]) -> str | None:
    """The colour along an outline in the middle by luminance: light or dark."""
    if not outline:
        return None
    ordered = sorted(outline, key=lambda one: relative_luminance(parse_hex(one.hex)))
    shares = np.cumsum([one.share for one in ordered])
    return ordered[int(np.searchsorted(shares, shares[-1] / 2))].hex
