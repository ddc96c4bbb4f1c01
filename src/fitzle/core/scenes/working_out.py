"""Scenes for a sheet, and one worked out for a picture: where everything stands, what is cut and what covered."""

from __future__ import annotations

from collections.abc import Iterator

import cv2
import numpy as np

from fitzle.core.colour.contrast import HALF_LIGHT, WHITE, relative_luminance
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.errors import DocumentError
from fitzle.core.geometry.rect import Rect
from fitzle.core.scenes.items import (
    BoxItem,
    DrawnScene,
    Item,
    NeighbourItem,
    PictureItem,
    ShotItem,
    WordsItem,
)
from fitzle.core.scenes.masks import framed
from fitzle.core.scenes.scene import (
    TONES,
    BoxLayer,
    Layer,
    NeighbourLayer,
    PictureLayer,
    RepeatLayer,
    Scene,
    Variant,
    WordsLayer,
    all_scenes,
)
from fitzle.core.spec.sheet import SpecSheet, Viewing
from fitzle.core.units import Size

TALLEST_OVER = 1.0  # times the height that a scene has room for, where the height follows from the picture
MOST_PAGES, MOST_GROUNDS = 4, 3
MARGIN_PX = 32
PLAIN_WIDEST_PX, WIDEST_PX = 640, 1440  # of a plain page: without a size seen, and at all
SHOT = "shot"
ZONE = "#3a3f43"
ZONE_OPACITY = 0.6


def scenes_for(sheet: SpecSheet, size: Size) -> list[DrawnScene]:
    """All scenes of a sheet, worked out for a picture of this size: those of its kind, then each page it is seen on."""
    of_kind = [
        worked_out(scene, variant, sheet, size)
        for scene in all_scenes()
        if sheet.kind in scene.kinds
        for variant in scene.variants
    ]
    return [*of_kind, *_pages(sheet, size)]


def shot_scene(sheet: SpecSheet, size: Size, shot: Size, box: Rect, density: float) -> DrawnScene:
    """The scene of a screenshot (its size in px of the page) in which the picture stands at a box."""
    layer = PictureLayer(x=box.x, y=box.y, width=box.width, height=box.height, zones=False, window=0)
    return DrawnScene(
        id=SHOT,
        name="Where it was shown",
        width=shot.width,
        height=shot.height,
        ground=WHITE,
        density=density,
        items=(ShotItem(), *_picture(layer, sheet, size, 0, 0)),
    )


def scene_named(name: str, sheet: SpecSheet, size: Size) -> DrawnScene:
    """One scene by its id; raises DocumentError where the sheet has none of this id."""
    found = next((scene for scene in scenes_for(sheet, size) if scene.id == name), None)
    if found is None:
        raise DocumentError(f"there is no scene called {name!r} for this place")
    return found


def worked_out(scene: Scene, variant: Variant, sheet: SpecSheet, size: Size) -> DrawnScene:
    """A scene in a variant."""
    tone = TONES[variant.tone]
    items = tuple(item for layer in scene.layers for item in _items(layer, tone, sheet, size, 0, 0))
    return DrawnScene(
        id=f"{scene.id}:{variant.id}" if variant.id else scene.id,
        name=f"{scene.name}, {variant.name}" if variant.name else scene.name,
        width=scene.width,
        height=scene.height,
        ground=tone.get(scene.ground, scene.ground),
        density=variant.density,
        items=items,
    )


def _items(layer: Layer, tone: dict[str, str], sheet: SpecSheet, size: Size, dx: float, dy: float) -> Iterator[Item]:
    if isinstance(layer, RepeatLayer):
        for number in range(layer.count):
            for inner in layer.layers:
                yield from _items(inner, tone, sheet, size, dx + number * layer.dx, dy + number * layer.dy)
    elif isinstance(layer, BoxLayer):
        fill = tone.get(layer.fill, layer.fill)
        yield BoxItem(**{**layer.model_dump(), "x": layer.x + dx, "y": layer.y + dy, "fill": fill})
    elif isinstance(layer, WordsLayer):
        fill = tone.get(layer.fill, layer.fill)
        yield WordsItem(**{**layer.model_dump(), "x": layer.x + dx, "y": layer.y + dy, "fill": fill})
    elif isinstance(layer, NeighbourLayer):
        frame = framed(layer.mask, Rect(layer.x + dx, layer.y + dy, layer.width, layer.height), sheet)
        yield NeighbourItem(clip=frame, seed=layer.seed)
    else:
        yield from _picture(layer, sheet, size, dx, dy)


def _picture(layer: PictureLayer, sheet: SpecSheet, size: Size, dx: float, dy: float) -> Iterator[Item]:
    shown = _shown_part(layer, sheet, size)
    place = Rect(layer.x + dx, layer.y + dy, layer.width, layer.height)
    clip, scale = _placed(layer, place, shown)
    whole = Rect(0, 0, size.width * scale, size.height * scale)
    left = clip.x + (clip.width - shown.width * scale) * _share(layer) - shown.x * scale
    top = clip.y + (clip.height - shown.height * scale) / 2 - shown.y * scale
    yield PictureItem(
        x=round(left, 3),
        y=round(top, 3),
        width=round(whole.width, 3),
        height=round(whole.height, 3),
        clip=framed(layer.mask, clip, sheet),
        opacity=layer.opacity,
        veil=sheet.veil.colour if sheet.veil else "",
        veil_opacity=sheet.veil.opacity if sheet.veil else 0,
        perspective=_perspective(clip, layer.corners),
    )
    if layer.zones:
        yield from _zones(sheet, Rect(left, top, whole.width, whole.height), clip)


def _shown_part(layer: PictureLayer, sheet: SpecSheet, size: Size) -> Rect:
    """What the destination takes of the picture: all of it, or one of its windows. Px of the picture."""
    if layer.window is None or not sheet.windows:
        return Rect(0, 0, size.width, size.height)
    window = sheet.windows[min(layer.window, len(sheet.windows) - 1)]
    return Rect(window.x * size.width, window.y * size.height, window.width * size.width, window.height * size.height)


def _placed(layer: PictureLayer, place: Rect, shown: Rect) -> tuple[Rect, float]:
    """Where the picture shows, and px of the screen for each of its px."""
    across, down = place.width / shown.width, place.height / shown.height
    if layer.fit == "whole":
        scale = min(across, down)
        width, height = shown.width * scale, shown.height * scale
        x = place.x + (place.width - width) * _share(layer)
        return Rect(x, place.y + (place.height - height) / 2, width, height), scale
    if layer.fit == "width":
        height = min(shown.height * across, place.height * TALLEST_OVER)
        return Rect(place.x, place.y, place.width, height), max(across, height / shown.height)
    return place, max(across, down)


def _share(layer: PictureLayer) -> float:
    return {"left": 0.0, "centre": 0.5, "right": 1.0}[layer.align] if layer.fit == "whole" else 0.5


def _perspective(clip: Rect, corners: tuple[tuple[float, float], ...]) -> tuple[float, ...]:
    """The homography from the clip's box to four corners (Hartley and Zisserman, section 2.3)."""
    if len(corners) != 4:
        return ()
    flat = [(clip.x, clip.y), (clip.right, clip.y), (clip.right, clip.bottom), (clip.x, clip.bottom)]
    matrix = cv2.getPerspectiveTransform(np.float32(flat), np.float32(corners))  # type: ignore[arg-type]
    return tuple(round(float(value), 9) for value in matrix.ravel())


def _zones(sheet: SpecSheet, picture: Rect, clip: Rect) -> Iterator[Item]:
    """What the destination draws over the picture, cut to what shows of it."""
    for zone in sheet.covered:
        left = max(picture.x + zone.x * picture.width, clip.x)
        top = max(picture.y + zone.y * picture.height, clip.y)
        right = min(picture.x + (zone.x + zone.width) * picture.width, clip.right)
        bottom = min(picture.y + (zone.y + zone.height) * picture.height, clip.bottom)
        if right <= left or bottom <= top:
            continue
        yield BoxItem(x=left, y=top, width=right - left, height=bottom - top, fill=ZONE, radius=2, opacity=ZONE_OPACITY)
        text = min(12.0, (bottom - top) * 0.6)
        if text >= 7 and len(zone.label) * text * 0.55 <= right - left:
            middle = (left + right) / 2, (top + bottom) / 2 + text * 0.35
            yield WordsItem(
                x=middle[0], y=middle[1], text=zone.label, size=text, weight=600, fill=WHITE, align="centre"
            )


def _pages(sheet: SpecSheet, size: Size) -> Iterator[DrawnScene]:
    """The picture at each size at which it is seen, on each of its pages."""
    plain = Viewing(name="at its own size", width=min(size.width, PLAIN_WIDEST_PX))
    for number, viewing in enumerate((sheet.seen or (plain,))[:MOST_PAGES]):
        for place, ground in enumerate((sheet.grounds or (WHITE,))[:MOST_GROUNDS]):
            yield _page(f"page-{number}-{place}", viewing, ground, sheet, size)


def _page(name: str, viewing: Viewing, ground: str, sheet: SpecSheet, size: Size) -> DrawnScene:
    width = min(viewing.width, WIDEST_PX)
    height = max(1.0, width * size.height / size.width)
    light = relative_luminance(parse_hex(ground)) > HALF_LIGHT
    layer = PictureLayer(x=MARGIN_PX, y=MARGIN_PX, width=width, height=height)
    bar = TONES["light" if light else "dark"]["line"]
    across = max(width, 120)
    bars = [
        BoxItem(x=MARGIN_PX, y=MARGIN_PX + height + 20 + 20 * row, width=across * share, height=8, fill=bar, radius=4)
        for row, share in enumerate((0.9, 0.7))
    ]
    return DrawnScene(
        id=name,
        name=f"{viewing.name[:1].upper()}{viewing.name[1:]}, {viewing.width} px, on {ground}",
        width=across + 2 * MARGIN_PX,
        height=height + 48 + 2 * MARGIN_PX,
        ground=ground,
        density=viewing.density,
        items=(*_picture(layer, sheet, size, 0, 0), *bars),
    )
