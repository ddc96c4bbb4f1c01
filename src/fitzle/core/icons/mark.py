"""A mark about to become icons: as it is, simpler where it is tiny, and for dark tabs."""

from __future__ import annotations

from functools import cached_property

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

BADGE_EDGE, BADGE_FILLS = 0.8, 0.85  # of its outline in one colour, of its box filled
BADGE_PX, LOOKED_AT_PX = 64, 512
DIFFERS = 3  # of 255: less is rounding
LIGHT_TAB, DARK_TAB = "#f1f3f4", "#202124"


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
        pairs = dict(self._recolour)
        colours = tuple(one.model_copy(update={"hex": pairs.get(one.hex, one.hex)}) for one in self.facts.edge_colours)
        return weakest_contrast(colours, parse_hex(ground)) >= LEAST_GRAPHICS_CONTRAST

    def for_dark(self) -> IconMark:
        """The same with the colours lightened that a dark tab would swallow."""
        known = dict(self._recolour)
        own = self.own_colours()
        lightened = dict(for_dark_grounds([known.get(one, one) for one in own], DARK_TAB))
        pairs = [(one, lightened.get(known.get(one, one), known.get(one, one))) for one in own]
        return IconMark(self.artwork, tuple((one, other) for one, other in pairs if one != other))

    def own_colours(self) -> list[str]:
        """The colours of its drawing (hex), before any was replaced."""
        return [one.hex for one in own_colours(straight(IconMark(self.artwork)._pixels(LONG_PX)))]

    def in_one_colour(self, colour: str) -> IconMark:
        """The same, all of it in one colour."""
        return IconMark(self.artwork, tuple((one, colour) for one in self.own_colours() if one != colour))

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

    @cached_property
    def badge_colour(self) -> str | None:
        """The colour of a mark that is a filled shape all around; None for any other mark."""
        first = next(iter(self.facts.edge_colours), None)
        if first is None or first.share < BADGE_EDGE or self._recolour:
            return None
        return first.hex if self._pixels(BADGE_PX)[..., 3].mean() / 255 >= BADGE_FILLS else None

    def safe_room(self, ground: str, radius: float) -> float:
        """The most room, up to 1, at which all that differs from its ground lies in a circle of `radius` sides."""
        drawn = self.square(LOOKED_AT_PX, room=1.0, ground=ground)
        return min(1.0, radius / max(reach_of(drawn, ground), 1e-6))

    def square(self, side: int, *, room: float, ground: str | None = None) -> Pixels:
        """In the middle of a square of `side` px, straight alpha; its longer side takes `room` of that, 0 to 1."""
        box = self._box(side, room)
        window = self.facts.trimmed.rect
        placed = PlacedArtwork(
            part="mark", role="mark", artwork="mark", box=box, window=window, frame=box, stands=box, mode="whole",
            padding_px=0.0, tint=None, vector=self.facts.vector, recolour=self._recolour, palette=self._palette,
            grid=True,
        )  # fmt: skip
        plan = Plan(Size(side, side), ground, None, None, (placed,))
        return paint(plan, {"mark": self.artwork.source})

    def tree(self) -> tuple[VectorSource, object] | None:
        """Its drawing, recoloured; None for a bitmap."""
        source = self.artwork.source
        if not isinstance(source, VectorSource):
            return None
        return source, recoloured_svg(source.root, dict(self._recolour)) if self._recolour else source.root

    def _box(self, side: int, room: float) -> Rect:
        whole = self.facts.trimmed.rect
        scale = room * side / max(whole.width, whole.height)
        width, height = whole.width * scale, whole.height * scale
        return Rect((side - width) / 2, (side - height) / 2, width, height)

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


def reach_of(pixels: Pixels, ground: str) -> float:
    """How far from the middle of an opaque square (side, side, 4) anything differs from its ground, in sides."""
    side = pixels.shape[0]
    away = np.abs(pixels[..., :3].astype(np.int16) - np.array(parse_hex(ground), dtype=np.int16)).max(axis=-1)
    rows, columns = np.nonzero(away > DIFFERS)
    if not len(rows):
        return 0.0
    far_row, far_column = np.abs(rows + 0.5 - side / 2) + 0.5, np.abs(columns + 0.5 - side / 2) + 0.5
    return float(np.hypot(far_row, far_column).max() / side)
