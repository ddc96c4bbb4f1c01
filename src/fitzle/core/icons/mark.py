"""A mark about to become icons: as it is, simpler where it is tiny, and for dark tabs."""

from __future__ import annotations

from functools import cached_property
from typing import NamedTuple

import numpy as np

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.own_colours import own_colours
from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.artwork.recolour import recoloured
from fitzle.core.artwork.sources import Pixels, Source, VectorSource
from fitzle.core.artwork.straight import straight
from fitzle.core.artwork.svg_recolour import recoloured_svg
from fitzle.core.colour.contrast import LEAST_GRAPHICS_CONTRAST, weakest_contrast
from fitzle.core.colour.dark_version import for_dark_grounds
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.eye.smudge import LONG_PX, RUNS_TOGETHER, contour_lost
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import PlacedArtwork, Plan
from fitzle.core.preflight.simplifying import simpler_mark
from fitzle.core.render.painting import paint
from fitzle.core.units import Size

LIGHT_TAB, DARK_TAB = "#f1f3f4", "#202124"


class Drawn(NamedTuple):
    """A square picture (side, side, 4), straight alpha, and how far the mark's edge is from its middle, in sides."""

    pixels: Pixels
    reach: float


class IconMark:
    """A mark with what its icons are made of."""

    def __init__(self, artwork: Artwork, recolour: tuple[tuple[str, str], ...] = ()) -> None:
        self.artwork, self._recolour = artwork, recolour

    @property
    def facts(self) -> ArtworkFacts:
        """What is known of it."""
        return self.artwork.facts

    def shows_on(self, ground: str) -> bool:
        """Whether its outline stands out on a ground, at 3 : 1."""
        colours = self.facts.edge_colours
        if self._recolour:
            return True
        return weakest_contrast(colours, parse_hex(ground)) >= LEAST_GRAPHICS_CONTRAST

    def for_dark(self) -> IconMark:
        """The same with the colours lightened that a dark tab would swallow."""
        pairs = for_dark_grounds([one.hex for one in own_colours(straight(self._pixels(LONG_PX)))])
        return IconMark(self.artwork, tuple(pairs))

    def smudged(self, side: int) -> float:
        """The share of its contour that runs together where it is seen `side` px large, on the worse of both tabs."""
        drawn = straight(self._pixels(LONG_PX))
        return max(contour_lost(drawn, parse_hex(tab), side) for tab in (LIGHT_TAB, DARK_TAB))

    def simpler(self, side: int) -> IconMark | None:
        """With fewer parts, so that it can be told at `side` px; None where it can anyway, or that is no help."""
        source = self.artwork.source
        if not isinstance(source, VectorSource) or self.smudged(side) <= RUNS_TOGETHER:
            return None
        found = simpler_mark(source, [parse_hex(LIGHT_TAB), parse_hex(DARK_TAB)], side)
        return IconMark(read_artwork(found.svg, self.artwork.name), self._recolour) if found else None

    def square(self, side: int, *, room: float, ground: str | None = None, round_room: float | None = None) -> Drawn:
        """Drawn in the middle of a square of `side` px: its longer side takes `room` of that, 0 to 1.

        With `round_room` it stays in a circle of that radius, in sides, instead.
        """
        box, reach = self._box(side, room, round_room)
        window = self.facts.trimmed.rect
        placed = PlacedArtwork(
            part="mark", role="mark", artwork="mark", box=box, window=window, frame=box, stands=box, mode="whole",
            padding_px=0.0, tint=None, vector=self.facts.vector, recolour=self._recolour, palette=self._palette,
            grid=True,
        )  # fmt: skip
        plan = Plan(Size(side, side), ground, None, None, (placed,))
        return Drawn(paint(plan, {"mark": self.artwork.source}), reach)

    def tree(self) -> tuple[VectorSource, object] | None:
        """Its drawing, recoloured; None for a bitmap."""
        source = self.artwork.source
        if not isinstance(source, VectorSource):
            return None
        return source, recoloured_svg(source.root, dict(self._recolour)) if self._recolour else source.root

    def _box(self, side: int, room: float, round_room: float | None) -> tuple[Rect, float]:
        whole = self.facts.trimmed.rect
        half_diagonal = float(np.hypot(whole.width, whole.height)) / 2
        scale = room * side / max(whole.width, whole.height)
        if round_room is not None:
            scale = round_room * side / (self.facts.reach * half_diagonal)
        width, height = whole.width * scale, whole.height * scale
        box = Rect((side - width) / 2, (side - height) / 2, width, height)
        return box, self.facts.reach * half_diagonal * scale / side

    @cached_property
    def _palette(self) -> tuple[str, ...]:
        return tuple(one.hex for one in self.facts.colours)

    def _pixels(self, long_px: int) -> Pixels:
        """Premultiplied, `long_px` long."""
        window = self.facts.trimmed.rect
        scale = long_px / max(window.width, window.height)
        size = Size(max(1, round(window.width * scale)), max(1, round(window.height * scale)))
        source: Source = self.artwork.source
        pixels = source.pixels(window, size)
        return recoloured(pixels, self._palette, self._recolour) if self._recolour else pixels
