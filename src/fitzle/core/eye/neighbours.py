"""Colours side by side: edges that vibrate, and pairs that become one to people who see colours otherwise."""

from __future__ import annotations

from typing import Literal, NamedTuple

import cv2
import numpy as np

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
_LEAST_APART, _MOST_CONTRAST = 0.085, 1.6  # OKLab, and WCAG's ratio
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


def neighbours(light: Plane) -> Neighbours:
    """What lies side by side in a picture in linear light (h, w, 3)."""
    pairs = _candidates(reduced(light, LONG_PX))
    return Neighbours(
        vibrating=_border(pairs, _vibrates(pairs)),
        merging={vision: _border(pairs, _merges(pairs, vision)) for vision in SEEN_AS},
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


class _Pairs(NamedTuple):
    """Px on both sides of possible borders: linear light and OKLab (n, 3), how far apart (n) and their contrast (n)."""

    light_one: Plane
    light_other: Plane
    lab_one: Plane
    lab_other: Plane
    apart: Plane
    contrast: Plane


def _candidates(light: Plane) -> _Pairs:
    """All pairs whose sides are flat, differ, and are of about one lightness: what every rule here asks of a border."""
    lab, tone = lab_of(light), luminance(light)
    along = [_along(light, lab, tone), _along(*(np.swapaxes(plane, 0, 1) for plane in (light, lab, tone)))]
    return _Pairs(*(np.concatenate(both) for both in zip(*along, strict=True)))


def _along(light: Plane, lab: Plane, tone: Plane) -> _Pairs:
    """Those one below the other."""
    near, far = slice(1, max(1, len(lab) - _APART - 1)), slice(_APART + 1, max(_APART + 1, len(lab) - 1))
    low, high = np.minimum(tone[near], tone[far]), np.maximum(tone[near], tone[far])
    contrast, apart = (high + 0.05) / (low + 0.05), length(lab[near] - lab[far])
    flat = length(np.diff(lab, axis=0)) < _FLAT
    outward = flat[: max(0, len(lab) - _APART - 2)] & flat[_APART + 1 :]
    found = outward & (contrast < _MOST_CONTRAST) & (apart > _LEAST_APART)
    lights, labs = (light[near][found], light[far][found]), (lab[near][found], lab[far][found])
    return _Pairs(*lights, *labs, apart[found], np.asarray(contrast[found], dtype=np.float32))


def _vibrates(pairs: _Pairs) -> np.ndarray:
    chroma = np.minimum(np.hypot(*_ab(pairs.lab_one)), np.hypot(*_ab(pairs.lab_other)))
    hue = np.hypot(*_ab(pairs.lab_one - pairs.lab_other))
    light = np.abs(pairs.lab_one[:, 0] - pairs.lab_other[:, 0])
    return np.asarray((chroma > 0.13) & (hue > 0.17) & (light < 0.12) & (pairs.contrast < 1.5))


def _merges(pairs: _Pairs, vision: Vision) -> np.ndarray:
    if not len(pairs.apart):
        return np.zeros(0, dtype=bool)
    one, other = (lab_of(simulated(light[:, None], vision))[:, 0] for light in (pairs.light_one, pairs.light_other))
    there = length(one - other)
    return np.asarray((there < 0.06) & (there < pairs.apart / 2))


def _ab(lab: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    return lab[:, 1], lab[:, 2]


def _border(pairs: _Pairs, found: np.ndarray) -> Border:
    """How long the border of these pairs is, and the colours of the two that are farthest apart."""
    if not found.any():
        return NO_BORDER
    at = int(np.argmax(np.where(found, pairs.apart, 0)))
    return Border(int(found.sum()) / (2 * LONG_PX), (_hex(pairs.lab_one[at]), _hex(pairs.lab_other[at])))


def _hex(lab: np.ndarray) -> str:
    from fitzle.core.colour.oklab import from_oklab

    levels = np.clip(np.rint(from_oklab(lab.astype(np.float64)[None])[0]), 0, 255).astype(int)
    return to_hex(Rgb(*(int(one) for one in levels)))
