"""Draws a plan with skia on the CPU. Rendering asks no questions: everything was decided in the plan."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.effects import Blend
from fitzle.core.plan.placed import Line, Look, Placed, PlacedArtwork, PlacedShape, PlacedWords, Plan
from fitzle.core.render.artwork import artwork_pixels, draw_artwork, draw_border, on_whole_px
from fitzle.core.render.drawn_outline import draw_outline_so_far
from fitzle.core.render.edges import with_edge
from fitzle.core.render.grounds import draw_ground
from fitzle.core.render.skia_paths import paint_of, skia_colour, skia_path
from fitzle.core.render.words import draw_words
from fitzle.core.units import Size

_BLENDS: dict[Blend, str] = {
    "normal": "kSrcOver",
    "multiply": "kMultiply",
    "screen": "kScreen",
    "overlay": "kOverlay",
    "soft light": "kSoftLight",
}


def paint(plan: Plan, sources: Mapping[str, Source], width_px: int | None = None) -> Pixels:
    """The picture of a plan: (height, width, 4) uint8, sRGB, straight alpha.

    With `width_px` the same plan is drawn at another width, for previews.
    """
    alone = _picture_alone(plan, sources, width_px)
    if alone is not None and alone[..., 3].min() == 255:
        return alone
    painter = Painter(plan, sources, width_px)
    if alone is not None:
        painter.lay(alone)
    else:
        for part in plan.parts:
            painter.draw(part)
    return painter.finished()


def _picture_alone(plan: Plan, sources: Mapping[str, Source], width_px: int | None) -> Pixels | None:
    """The only part of a plan where that is a picture that covers all of it, premultiplied; None for other plans.

    One without clear places is the whole plan: nothing need be drawn for it.
    """
    part = plan.parts[0] if len(plan.parts) == 1 and not plan.edge else None
    if not isinstance(part, PlacedArtwork) or not part.look.plain or part.tint or part.die:
        return None
    scale, size = drawn_size(plan, width_px)
    box, window = on_whole_px(part, scale, size)
    if box != Rect(0, 0, size.width, size.height):
        return None
    return artwork_pixels(sources[part.artwork], part, window, size)


def drawn_size(plan: Plan, width_px: int | None) -> tuple[float, Size]:
    """The scale of a plan at a width, and its size there in whole px."""
    scale = width_px / plan.size.width if width_px else 1.0
    return scale, Size(max(1, round(plan.size.width * scale)), max(1, round(plan.size.height * scale)))


class Painter:
    """Draws a plan part by part, so that one may look at what is behind the next."""

    def __init__(self, plan: Plan, sources: Mapping[str, Source], width_px: int | None = None) -> None:
        import skia

        self._plan, self._sources = plan, sources
        self.scale, self.size = drawn_size(plan, width_px)
        self._surface = _surface(self.size)
        self._canvas = self._surface.getCanvas()
        # With an edge around the whole piece what lies below comes last, behind that edge.
        if plan.under and not plan.edge:
            self._canvas.clear(skia_colour(plan.under))
        else:
            self._canvas.clear(skia.ColorTRANSPARENT)
        draw_ground(self._canvas, plan.fill, sources, self.size)

    def draw(self, part: Placed) -> None:
        """Draws the next part."""
        if part.look.edge:
            self._draw_with_edge(part, part.look.edge)
        else:
            self._laid_over(self._canvas, part.look, part, lambda canvas: self._draw_plain(canvas, part))

    def lay(self, pixels: Pixels) -> None:
        """Lays premultiplied pixels of the size of the whole picture over it."""
        import skia

        self._canvas.drawImage(_image(pixels), 0, 0, skia.SamplingOptions())

    def pixels(self, box: Rect) -> Pixels:
        """What is drawn so far in a box (px of the file): (h, w, 4), straight alpha; empty outside the picture."""
        place = box.scaled(self.scale)
        left, top = max(0, int(place.x)), max(0, int(place.y))
        right, bottom = min(self.size.width, int(place.right) + 1), min(self.size.height, int(place.bottom) + 1)
        size = Size(max(0, right - left), max(0, bottom - top))
        return _read(self._surface, size, left, top) if size.width and size.height else np.empty((0, 0, 4), np.uint8)

    def finished(self) -> Pixels:
        """The whole picture."""
        if self._plan.edge:
            self._edge_around_all(self._plan.edge)
        return _read(self._surface, self.size)

    def _draw_plain(self, canvas: Any, part: Placed) -> None:
        """The part without opacity, blending and edge, turned by its canvas."""
        if part.look.drawn < 1 and not isinstance(part, PlacedArtwork):
            canvas.save()
            canvas.scale(self.scale, self.scale)
            draw_outline_so_far(canvas, part, part.look.drawn)
            canvas.restore()
            return
        if isinstance(part, PlacedArtwork):
            draw_artwork(canvas, part, self._sources[part.artwork], self.scale, self.size)
            return
        canvas.save()
        canvas.scale(self.scale, self.scale)
        if isinstance(part, PlacedWords):
            draw_words(canvas, part)
        else:
            _draw_shape(canvas, part)
        canvas.restore()

    def _laid_over(self, canvas: Any, look: Look, part: Placed, draw: Any) -> None:
        """Draws with opacity, blending and turn."""
        import skia

        layered = look.opacity < 1 or look.blend != "normal"
        if layered:
            mode = getattr(skia.BlendMode, _BLENDS[look.blend])
            canvas.saveLayer(None, skia.Paint(Alphaf=look.opacity, BlendMode=mode))
        canvas.save()
        middle = part.box.scaled(self.scale).centre
        if look.shift != (0.0, 0.0):
            canvas.translate(look.shift[0] * self.scale, look.shift[1] * self.scale)
        if look.rotation:
            canvas.rotate(look.rotation, middle.x, middle.y)
        if look.scale != 1:
            canvas.translate(middle.x, middle.y)
            canvas.scale(look.scale, look.scale)
            canvas.translate(-middle.x, -middle.y)
        if look.shown < 1:
            canvas.clipRect(_uncovered(part.box.scaled(self.scale), look.shown))
        draw(canvas)
        canvas.restore()
        if layered:
            canvas.restore()

    def _draw_with_edge(self, part: Placed, edge: Line) -> None:
        """The part on a surface of its own, the edge laid behind it, and both over the picture."""
        import skia

        apart = _surface(self.size)
        turned = part.look._replace(opacity=1.0, blend="normal", edge=None)
        self._laid_over(apart.getCanvas(), turned, part, lambda canvas: self._draw_plain(canvas, part))
        image = _image(with_edge(_premultiplied(apart, self.size), edge.width_px * self.scale, parse_hex(edge.colour)))
        flat = part.look._replace(rotation=0.0, shift=(0.0, 0.0), scale=1.0)
        self._laid_over(self._canvas, flat, part, lambda canvas: canvas.drawImage(image, 0, 0, skia.SamplingOptions()))

    def _edge_around_all(self, edge: Line) -> None:
        import skia

        pixels = with_edge(_premultiplied(self._surface, self.size), edge.width_px * self.scale, parse_hex(edge.colour))
        self._canvas.clear(skia_colour(self._plan.under) if self._plan.under else skia.ColorTRANSPARENT)
        self._canvas.drawImage(_image(pixels), 0, 0, skia.SamplingOptions())


def _uncovered(box: Rect, share: float) -> Any:
    """The left part of a box, with room on all other sides for outlines, glows and shadows."""
    import skia

    room = max(box.width, box.height)
    return skia.Rect.MakeLTRB(box.x - room, box.y - room, box.x + box.width * share, box.bottom + room)


def _draw_shape(canvas: Any, part: PlacedShape) -> None:
    path = skia_path(part.path)
    if part.fill:
        canvas.drawPath(path, paint_of(part.fill, part.stands))
    if part.border:
        draw_border(canvas, path, part.border.width_px, part.border.colour)


def _surface(size: Size) -> Any:
    import skia

    return skia.Surface.MakeRaster(skia.ImageInfo.MakeN32Premul(size.width, size.height))


def _image(pixels: Pixels) -> Any:
    import skia

    return skia.Image.fromarray(pixels, skia.kRGBA_8888_ColorType, alphaType=skia.kPremul_AlphaType, copy=True)


def _read(surface: Any, size: Size, left: int = 0, top: int = 0) -> Pixels:
    """Straight alpha; an opaque picture needs no division, which takes five times as long as the copy."""
    import skia

    pixels = _premultiplied(surface, size, left, top)
    if pixels[..., 3].min() < 255:
        info = skia.ImageInfo.Make(size.width, size.height, skia.kRGBA_8888_ColorType, skia.kUnpremul_AlphaType)
        surface.readPixels(info, pixels, size.width * 4, left, top)
    return pixels


def _premultiplied(surface: Any, size: Size, left: int = 0, top: int = 0) -> Pixels:
    import skia

    pixels = np.empty((size.height, size.width, 4), dtype=np.uint8)
    info = skia.ImageInfo.Make(size.width, size.height, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    surface.readPixels(info, pixels, size.width * 4, left, top)
    return pixels
