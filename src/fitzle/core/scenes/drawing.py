"""Draws a scene that was worked out on a skia canvas: for PNG and for PDF alike."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.libvips import libvips
from fitzle.core.render.skia_paths import skia_colour, skia_path
from fitzle.core.scenes.items import BoxItem, DrawnScene, Frame, Item, NeighbourItem, PictureItem, ShotItem, WordsItem
from fitzle.core.scenes.lines import draw_line
from fitzle.core.scenes.masks import outline_of, round_box
from fitzle.core.scenes.neighbours import neighbour_svg

NEIGHBOUR_PX = 640


def scene_pixels(scene: DrawnScene, picture: Pixels, scale: float | None = None, shot: Pixels | None = None) -> Pixels:
    """The scene as (h, w, 4), opaque, at its density or at another number of px for each px of the screen.

    `picture` is what the destination shows, (h, w, 4) with straight alpha, at any size, `shot` the screenshot of a
    scene that has one.
    """
    import skia

    by = scale or scene.density
    info = skia.ImageInfo.Make(
        max(1, round(scene.width * by)), max(1, round(scene.height * by)), skia.kRGBA_8888_ColorType,
        skia.kPremul_AlphaType,
    )  # fmt: skip
    surface = skia.Surface.MakeRaster(info)
    canvas = surface.getCanvas()
    canvas.scale(by, by)
    draw_scene(canvas, scene, picture, by, shot)
    return np.array(surface.makeImageSnapshot().toarray(colorType=skia.kRGBA_8888_ColorType))


def draw_scene(canvas: Any, scene: DrawnScene, picture: Pixels, scale: float, shot: Pixels | None = None) -> None:
    """Everything from (0, 0) on; `scale` is px of the device for each px of the screen, for pictures alone."""
    import skia

    canvas.save()
    canvas.clipRect(skia.Rect.MakeWH(scene.width, scene.height))
    canvas.drawRect(skia.Rect.MakeWH(scene.width, scene.height), skia.Paint(Color=skia_colour(scene.ground)))
    for item in scene.items:
        if isinstance(item, ShotItem):
            if shot is not None:
                _cover(canvas, Frame(x=0, y=0, width=scene.width, height=scene.height), shot)
            continue
        _draw(canvas, item, picture, scale)
    canvas.restore()


def _draw(canvas: Any, item: Item, picture: Pixels, scale: float) -> None:
    if isinstance(item, BoxItem):
        _box(canvas, item)
    elif isinstance(item, WordsItem):
        draw_line(canvas, item.text, item.x, item.y, item.size, item.weight, item.fill, item.align)
    elif isinstance(item, NeighbourItem):
        _clipped(canvas, item.clip)
        _cover(canvas, item.clip, _neighbour(item.seed))
        canvas.restore()
    elif isinstance(item, PictureItem):
        _picture(canvas, item, picture, scale)


def _box(canvas: Any, item: BoxItem) -> None:
    import skia

    paint = skia.Paint(Color=skia_colour(item.fill, item.opacity), AntiAlias=True)
    canvas.save()
    canvas.translate(item.x, item.y)
    canvas.drawPath(skia_path(round_box(item.width, item.height, item.radius)), paint)
    canvas.restore()


def _picture(canvas: Any, item: PictureItem, picture: Pixels, scale: float) -> None:
    import skia

    canvas.save()
    if item.perspective:
        canvas.concat(skia.Matrix.MakeAll(*item.perspective))
    _clipped(canvas, item.clip)
    image = skia.Image.fromarray(_reduced(picture, item.width * scale), colorType=skia.kRGBA_8888_ColorType)
    paint = skia.Paint(Alphaf=item.opacity, AntiAlias=True)
    canvas.drawImageRect(
        image, skia.Rect.MakeXYWH(item.x, item.y, item.width, item.height),
        skia.SamplingOptions(skia.FilterMode.kLinear), paint,
    )  # fmt: skip
    if item.veil:
        canvas.drawRect(
            skia.Rect.MakeXYWH(item.x, item.y, item.width, item.height),
            skia.Paint(Color=skia_colour(item.veil, item.veil_opacity)),
        )
    canvas.restore()
    canvas.restore()


def _reduced(picture: Pixels, width: float) -> Pixels:
    """As browsers reduce: by averaging areas, colours by their alpha; never enlarged here."""
    from fitzle.core.eye.planes import reduced_pixels

    height = width * picture.shape[0] / picture.shape[1]
    return np.ascontiguousarray(reduced_pixels(picture, max(width, height, 1)))


def _clipped(canvas: Any, clip: Frame) -> None:
    """Saves the canvas with what shows of a frame; restore it afterwards."""
    import skia

    canvas.save()
    outline = outline_of(clip)
    if outline:
        canvas.clipPath(skia_path(outline.moved(clip.x, clip.y)), doAntiAlias=True)
    else:
        canvas.clipRect(skia.Rect.MakeXYWH(clip.x, clip.y, clip.width, clip.height), doAntiAlias=True)


def _cover(canvas: Any, clip: Frame, pixels: Pixels) -> None:
    import skia

    height, width = pixels.shape[:2]
    scale = max(clip.width / width, clip.height / height)
    box = skia.Rect.MakeXYWH(
        clip.x + (clip.width - width * scale) / 2, clip.y + (clip.height - height * scale) / 2,
        width * scale, height * scale,
    )  # fmt: skip
    image = skia.Image.fromarray(np.ascontiguousarray(pixels), colorType=skia.kRGBA_8888_ColorType)
    canvas.drawImageRect(image, box, skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kLinear))


@lru_cache(maxsize=32)
def _neighbour(seed: int) -> Pixels:
    image = libvips().Image.svgload_buffer(neighbour_svg(seed).encode(), scale=NEIGHBOUR_PX / 160)
    return np.asarray(image.numpy(), dtype=np.uint8)
