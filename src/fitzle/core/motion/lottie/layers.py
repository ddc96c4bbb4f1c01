"""The layers of an animation: each part as it stands, and where it is in each frame."""

from __future__ import annotations

import base64
from collections.abc import Mapping
from typing import Any, NamedTuple

from fitzle.core.artwork.sources import Source, VectorSource
from fitzle.core.encode.png import lossless_png
from fitzle.core.encode.raster import Raster
from fitzle.core.geometry.rect import Rect
from fitzle.core.motion.lottie.keys import jumping, keyed
from fitzle.core.motion.lottie.shapes import Shape, Unsaid, shapes_of, still
from fitzle.core.plan.placed import Look, Placed, PlacedArtwork, Plan
from fitzle.core.render.painting import paint
from fitzle.core.render.svg import svg_of

PX, PERCENT, DEGREES = 0.04, 0.04, 0.02  # what nobody sees of a shift, of a size or opacity, of a turn
DENSITY = 2  # px of a bitmap inside for each px of the picture
BLENDS = {"normal": 0, "multiply": 1, "screen": 2, "overlay": 3, "soft light": 9}


class Seen(NamedTuple):
    """A part as it stands without motion, and its look in each frame from `first` on (None: not there)."""

    part: Placed
    first: int
    looks: list[Look | None]


class Drawn(NamedTuple):
    """What a layer shows: shapes, or a bitmap that lies in a box."""

    shapes: list[Shape] | None
    bitmap: bytes = b""
    size: tuple[int, int] = (0, 0)
    box: Rect = Rect(0, 0, 0, 0)


def drawn(plan: Plan, sources: Mapping[str, Source], *, outlines: bool = True) -> Drawn:
    """A plan of one part, or its ground alone, as shapes where these can say it, else as a bitmap."""
    if outlines:
        try:
            return Drawn(_shapes(plan, sources))
        except Unsaid:
            pass
    return _bitmap(plan, sources)


def _shapes(plan: Plan, sources: Mapping[str, Source]) -> list[Shape]:
    part = plan.parts[0] if plan.parts else None
    if isinstance(part, PlacedArtwork):
        if not isinstance(sources[part.artwork], VectorSource) or part.grid:
            raise Unsaid
        if part.tint and part.die is None:
            return shapes_of(svg_of(plan._replace(parts=(part._replace(tint=None),)), sources), part.tint)
    return shapes_of(svg_of(plan, sources))


def _bitmap(plan: Plan, sources: Mapping[str, Source]) -> Drawn:
    """What is seen of it, cut to where anything is."""
    import numpy as np

    pixels = paint(plan, sources, plan.size.width * DENSITY)
    there = np.argwhere(pixels[..., 3] > 0)
    if len(there) == 0:
        return Drawn([])
    (top, left), (bottom, right) = there.min(axis=0), there.max(axis=0) + 1
    cut = np.ascontiguousarray(pixels[top:bottom, left:right])
    box = Rect(*(float(one) / DENSITY for one in (left, top, right - left, bottom - top)))
    return Drawn(None, lossless_png(Raster(cut)), (int(right - left), int(bottom - top)), box)


def asset_of(drawing: Drawn, name: str) -> dict[str, Any]:
    """The bitmap of a layer, inside of the file."""
    inside = "data:image/png;base64," + base64.b64encode(drawing.bitmap).decode()
    return {"id": name, "w": drawing.size[0], "h": drawing.size[1], "u": "", "p": inside, "e": 1}


def layer(seen: Seen, drawing: Drawn, name: str, number: int, end: int, asset: str) -> dict[str, Any]:
    """A layer from the first to the last frame in which its part is there."""
    middle = seen.part.box.centre
    first = seen.first
    looks = _without_gaps(seen.looks)
    x, y = middle
    factor = 1.0
    anchor = [x, y]
    if drawing.shapes is None:
        factor = 1 / DENSITY
        anchor = [(x - drawing.box.x) * DENSITY, (y - drawing.box.y) * DENSITY]
    made: dict[str, Any] = {
        "ddd": 0, "ind": number, "nm": name, "sr": 1, "st": 0, "ip": first, "op": min(end, first + len(looks)),
        "bm": BLENDS[seen.part.look.blend],
        "ks": {
            "a": still([round(one, 3) for one in anchor]),
            "p": keyed([(x + one.shift[0], y + one.shift[1]) for one in looks], first, PX),
            "s": keyed([(100 * factor * one.scale,) * 2 for one in looks], first, PERCENT),
            "r": keyed([(turn,) for turn in _unwound([one.rotation for one in looks])], first, DEGREES),
            "o": still(100),
        },
    }  # fmt: skip
    opacity = [0.0 if one is None else 100 * one.opacity for one in seen.looks]
    if drawing.shapes is None:
        made |= {"ty": 2, "refId": asset}
    else:
        made |= {"ty": 4, "shapes": drawing.shapes}
    if drawing.shapes and len(drawing.shapes) == 1:
        # Some players take a step of 1/255 off everything below each layer that is half clear.
        made["shapes"] = [_with_opacity(drawing.shapes[0], opacity, seen)]
    else:
        made["ks"]["o"] = _keyed_opacity(opacity, seen)
    if any(one.shown < 1 for one in looks):
        made |= {"hasMask": True, "masksProperties": [_uncovering(seen.part.box, looks, first, drawing)]}
    return made


def _keyed_opacity(opacity: list[float], seen: Seen) -> dict[str, Any]:
    if any(one is None for one in seen.looks):
        return jumping([round(one, 2) for one in opacity], seen.first)
    return keyed([(one,) for one in opacity], seen.first, PERCENT)


def _with_opacity(shape: Shape, opacity: list[float], seen: Seen) -> Shape:
    """One filled outline whose filling is as opaque as its layer."""
    *outlines, filling, turn = shape["it"]
    own = filling["o"]["k"] / 100
    return {**shape, "it": [*outlines, {**filling, "o": _keyed_opacity([own * one for one in opacity], seen)}, turn]}


def _without_gaps(looks: list[Look | None]) -> list[Look]:
    """While a part is not there it stays as it was last."""
    found: list[Look] = []
    for one in looks:
        found.append(one or found[-1])
    return found


def _unwound(turns: list[float]) -> list[float]:
    """Degrees that go on instead of beginning at 0 again, so that nothing turns back in between."""
    found = [turns[0]]
    for turn in turns[1:]:
        found.append(found[-1] + (turn - found[-1] + 180) % 360 - 180)
    return found


def _uncovering(box: Rect, looks: list[Look], first: int, drawing: Drawn) -> dict[str, Any]:
    """The left part of the box, with room on all other sides, in the layer's own px."""
    room = max(box.width, box.height)
    density, x, y = (1, 0.0, 0.0) if drawing.shapes is not None else (DENSITY, drawing.box.x, drawing.box.y)

    def outline(share: float) -> dict[str, Any]:
        left, top = box.x - room, box.y - room
        right, bottom = box.x + box.width * share + (room if share >= 1 else 0.0), box.bottom + room
        corners = [(left, top), (right, top), (right, bottom), (left, bottom)]
        points = [[round((px - x) * density, 3), round((py - y) * density, 3)] for px, py in corners]
        return {"c": True, "v": points, "i": [[0, 0]] * 4, "o": [[0, 0]] * 4}

    path = jumping([outline(one.shown) for one in looks], first)
    return {"inv": False, "mode": "a", "pt": path, "o": still(100), "x": still(0)}
