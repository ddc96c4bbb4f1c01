"""Colours side by side: edges that vibrate, and pairs that become one to people who see colours otherwise."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, NamedTuple

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.srgb import Rgb, to_hex
from fitzle.core.eye.planes import Plane, lab_of, length, light_on, luminance, reduced

LONG_PX = 192
CALM_APART = 0.16  # OKLab lightness: what vibrates is under 0.12, and a repair keeps clear of that
TOLD_APART = 0.14  # OKLab: what merges is under 0.06 to some eyes
Vision = Literal["protan", "deutan", "tritan"]
# Machado, Oliveira and Fernandes 2009, severity 1.0, on linear light.
SEEN_AS: dict[Vision, tuple[tuple[float, float, float], ...]] = {
    "protan": ((0.152286, 1.052583, -0.204868), (0.114503, 0.786281, 0.099216), (-0.003882, -0.048116, 1.051998)),
    "deutan": ((0.367322, 0.860646, -0.227968), (0.280085, 0.672501, 0.047413), (-0.011820, 0.042940, 0.968881)),
    "tritan": ((1.255528, -0.076749, -0.178779), (-0.078411, 0.930809, 0.147602), (0.004733, 0.691367, 0.303900)),
}
_APART, _FLAT = 3, 0.03  # px between the sides of a pair; how much each may change in the px further out


class Border(NamedTuple):
    """How long a border is, in picture sides, and the colours (hex) at its sides where it is strongest."""

    length: float
    colours: tuple[str, str] | None = None


NO_BORDER = Border(0.0)


class Neighbours(NamedTuple):
    """The borders that vibrate, and for each kind of vision those where two colours become one."""

    vibrating: Border
    merging: dict[Vision, Border]


def neighbours(pixels: Pixels, ground: Rgb) -> Neighbours:
    """What lies side by side in a picture (h, w, 4) on a ground."""
    light = reduced(light_on(pixels, ground), LONG_PX)
    lab = lab_of(light)
    tone = luminance(light)
    might = _border(lab, tone, _might_merge).length > 0  # most pictures have no such pair, whoever looks
    return Neighbours(
        vibrating=_border(lab, tone, _vibrates),
        merging={vision: _merging(light, lab, tone, vision) if might else NO_BORDER for vision in SEEN_AS},
    )


def pair_is_calm(one: Rgb, other: Rgb) -> bool:
    """Whether the border of two colours would not vibrate: their lightness is far enough apart."""
    lab = lab_of(_pair_of_light(one, other))[0]
    return bool(abs(float(lab[0, 0] - lab[1, 0])) >= CALM_APART)


def pair_is_told(one: Rgb, other: Rgb) -> bool:
    """Whether everybody tells two colours apart side by side."""
    light = _pair_of_light(one, other)
    seen = [light, *(simulated(light, vision) for vision in SEEN_AS)]
    return all(float(length(lab[:, 0] - lab[:, 1])[0]) >= TOLD_APART for lab in map(lab_of, seen))


def _pair_of_light(one: Rgb, other: Rgb) -> Plane:
    return light_on(np.array([[[*one, 255], [*other, 255]]], dtype=np.uint8), other)


def simulated(light: Plane, vision: Vision) -> Plane:
    """Linear light as it is seen with one kind of cones missing."""
    return np.asarray(np.clip(cv2.transform(light, np.array(SEEN_AS[vision])), 0, 1), dtype=np.float32)


def _merging(light: Plane, lab: Plane, tone: Plane, vision: Vision) -> Border:
    seen = lab_of(simulated(light, vision))

    def merges(pair: _Pair) -> np.ndarray:
        there = length(seen[pair.one] - seen[pair.other])
        return np.asarray(_might_merge(pair) & (there < 0.06) & (there < pair.apart / 2))

    return _border(lab, tone, merges)


class _Pair(NamedTuple):
    """Px on both sides of a possible border, as index pairs into the picture, with what is known of each pair."""

    one: tuple[slice, slice]
    other: tuple[slice, slice]
    apart: np.ndarray
    lab_one: np.ndarray
    lab_other: np.ndarray
    contrast: np.ndarray


def _might_merge(pair: _Pair) -> np.ndarray:
    return np.asarray((pair.apart > 0.085) & (pair.contrast < 1.6))


def _vibrates(pair: _Pair) -> np.ndarray:
    chroma = np.minimum(np.hypot(*_ab(pair.lab_one)), np.hypot(*_ab(pair.lab_other)))
    hue = np.hypot(pair.lab_one[..., 1] - pair.lab_other[..., 1], pair.lab_one[..., 2] - pair.lab_other[..., 2])
    light = np.abs(pair.lab_one[..., 0] - pair.lab_other[..., 0])
    return np.asarray((chroma > 0.13) & (hue > 0.17) & (light < 0.12) & (pair.contrast < 1.5))


def _ab(lab: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    return lab[..., 1], lab[..., 2]


def _border(lab: Plane, tone: Plane, holds: Callable[[_Pair], np.ndarray]) -> Border:
    count, best, colours = 0, 0.0, None
    for axis in (0, 1):
        pair = _pairs(lab, tone, axis)
        if pair is None:
            continue
        found = holds(pair) & _flat(lab, axis)
        count += int(found.sum())
        if found.any():
            at = np.unravel_index(int(np.argmax(np.where(found, pair.apart, 0))), found.shape)
            if float(pair.apart[at]) > best:
                best = float(pair.apart[at])
                colours = (_hex(pair.lab_one[at]), _hex(pair.lab_other[at]))
    return Border(count / (2 * LONG_PX), colours)


def _pairs(lab: Plane, tone: Plane, axis: int) -> _Pair | None:
    count = lab.shape[axis]
    if count <= _APART + 2:
        return None
    near, far = slice(1, count - _APART - 1), slice(_APART + 1, count - 1)
    one = (near, slice(None)) if axis == 0 else (slice(None), near)
    other = (far, slice(None)) if axis == 0 else (slice(None), far)
    first, second = lab[one], lab[other]
    low, high = np.minimum(tone[one], tone[other]), np.maximum(tone[one], tone[other])
    return _Pair(one, other, length(first - second), first, second, (high + 0.05) / (low + 0.05))


def _flat(lab: Plane, axis: int) -> np.ndarray:
    """Where both sides of a pair hardly change in the next px outward."""
    step = length(np.diff(lab, axis=axis)) < _FLAT
    count = lab.shape[axis]
    before, after = slice(0, count - _APART - 2), slice(_APART + 1, count - 1)
    if axis == 0:
        return np.asarray(step[before] & step[after])
    return np.asarray(step[:, before] & step[:, after])


def _hex(lab: np.ndarray) -> str:
    from fitzle.core.colour.oklab import from_oklab

    levels = np.clip(np.rint(from_oklab(lab.astype(np.float64)[None])[0]), 0, 255).astype(int)
    return to_hex(Rgb(*(int(one) for one in levels)))
