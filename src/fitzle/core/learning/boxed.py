"""A place out of a screenshot alone: the box that somebody drew, its edges made exact, and the grounds beside it."""

from __future__ import annotations

import numpy as np

from fitzle.core.colour.srgb import Rgb, to_hex
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.learning.placement import Pixels, Planes, Region
from fitzle.core.learning.result import Learnt, LearntCut, PixelBox

REACH = 8  # px to each side of a drawn edge at which the true one is looked for
CLEAR = 12.0  # mean step of 255 along an edge from which it is one
BESIDE = (3, 7)  # px outside of an edge where the ground is read
LEAST_SIDE = 8


def learnt_from_box(shot: Pixels, drawn: PixelBox, density: float) -> Learnt:
    """What a drawn box says: ratio, seen size and grounds. Raises ValueOutOfRange for one outside of the screenshot."""
    height, width = shot.shape[:2]
    whole = Region(0, 0, width, height)
    box = Region(drawn.x, drawn.y, drawn.x + drawn.width, drawn.y + drawn.height).within(whole)
    if box.width < LEAST_SIDE or box.height < LEAST_SIDE:
        raise ValueOutOfRange(f"this box is smaller than {LEAST_SIDE} px", advice="Draw it around the whole picture.")
    exact = _snapped(shot.astype(np.float32), box)
    return Learnt(
        box=PixelBox(x=exact.left, y=exact.top, width=exact.width, height=exact.height),
        window=None,
        veil=None,
        cut=LearntCut(shape="none"),
        covered=(),
        seen_width=round(exact.width / density, 2),
        grounds=_grounds(shot, exact),
        sure=1.0,
        ask=("cut",),
    )


def _snapped(shot: Planes, box: Region) -> Region:
    """Each edge where the colours change most near the drawn one; as drawn where they hardly change."""
    top, bottom, left, right = round(box.top), round(box.bottom), round(box.left), round(box.right)
    rows, columns = shot[top:bottom], shot[:, left:right].transpose(1, 0, 2)
    return Region(_edge(rows, left), _edge(columns, top), _edge(rows, right), _edge(columns, bottom))


def _edge(lines: Planes, near: int) -> float:
    low, high = max(1, near - REACH), min(lines.shape[1] - 1, near + REACH)
    if high <= low:
        return float(near)
    steps = np.abs(np.diff(lines[:, low - 1 : high + 1], axis=1)).max(2).mean(0)
    best = int(steps.argmax())
    return float(low + best) if steps[best] > CLEAR else float(near)


def _grounds(shot: Pixels, box: Region) -> tuple[str, ...]:
    height, width = shot.shape[:2]
    left, top, right, bottom = (int(edge) for edge in box)
    near, far = BESIDE
    sides = (
        shot[top:bottom, max(0, left - far) : max(0, left - near)],
        shot[top:bottom, min(width, right + near) : min(width, right + far)],
        shot[max(0, top - far) : max(0, top - near), left:right],
        shot[min(height, bottom + near) : min(height, bottom + far), left:right],
    )
    found: list[str] = []
    for side in sides:
        if side.size:
            red, green, blue = (int(value) for value in np.median(side.reshape(-1, 3), 0))
            found.append(to_hex(Rgb(red, green, blue)))
    return tuple(dict.fromkeys(found))
