"""How large things are where a picture is seen."""

from __future__ import annotations

from collections import Counter
from typing import NamedTuple

from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.spec.sheet import SpecSheet, Viewing
from fitzle.core.type.small import least_for, small_figures

MOST_DENSITY = 2  # what finer screens show more of nobody sees at a usual distance


def smallest_viewing(sheet: SpecSheet) -> Viewing | None:
    """Where the picture is seen smallest; None where the sheet does not say how large it is seen."""
    return min(sheet.seen, key=lambda viewing: viewing.width, default=None)


class SeenLetters(NamedTuple):
    """Letters as they are seen somewhere, in px of the viewer's screen.

    `height_px` is that of the x, or of capitals where there are no small letters. `needs` is how many times larger they
    would have to be; at most 1 where they read.
    """

    viewing: Viewing
    height_px: float
    cap_height_px: float
    rhythm_px: float
    least_px: float
    needs: float


def seen_letters(words: PlacedWords, plan: Plan, viewing: Viewing) -> SeenLetters:
    """The letters of words (at least one glyph) at a size at which the picture is seen."""
    [(file, _)] = Counter(glyph.file for glyph in words.layout.glyphs).most_common(1)
    small, em = small_figures(file), words.layout.size_px * viewing.width / plan.size.width
    capitals = not any(letter.islower() for line in words.layout.lines for letter in line)
    height, rhythm = (small.cap_height, small.cap_rhythm) if capitals else (small.x_height, small.rhythm)
    least = least_for(viewing.density)
    # A capital E has three bars and two gaps in its height: what holds across holds down too.
    tall = max(least.height_px, 2 * least.rhythm_px) if capitals else least.height_px
    needs = max(tall / max(height * em, 1e-6), least.rhythm_px / max(rhythm * em, 1e-6))
    return SeenLetters(viewing, height * em, small.cap_height * em, rhythm * em, tall, needs)
