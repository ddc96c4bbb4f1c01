"""Pictures as planes of numbers: laid on a ground, reduced, in linear light and in OKLab."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.contrast import LUMINANCE_WEIGHTS
from fitzle.core.colour.oklab import oklab_of_light
from fitzle.core.colour.srgb import LINEAR_OF_BYTES, Rgb

Plane = NDArray[np.float32]


def light_on(pixels: Pixels, ground: Rgb) -> Plane:
    """Linear light (h, w, 3), 0 to 1, of straight-alpha pixels (h, w, 4) over a ground; mixed as browsers mix."""
    clear = 255 - pixels[..., 3]
    colours = cv2.multiply(
        np.ascontiguousarray(pixels[..., :3]), cv2.merge([pixels[..., 3]] * 3), scale=1 / 255, dtype=cv2.CV_32F
    )
    behind = np.outer(np.arange(256) / 255, ground).astype(np.float32).take(clear, axis=0)
    levels = cv2.convertScaleAbs(cv2.add(colours, behind))
    return np.asarray(cv2.LUT(levels, LINEAR_OF_BYTES.astype(np.float32)), dtype=np.float32)


def lab_of(light: Plane) -> Plane:
    """OKLab (h, w, 3) of linear light."""
    return oklab_of_light(light)


def reduced(plane: Plane, long_px: float) -> Plane:
    """By averaging areas, to a long side in px of at least 1; never enlarged."""
    height, width = plane.shape[:2]
    scale = min(1.0, long_px / max(height, width))
    size = (max(1, round(width * scale)), max(1, round(height * scale)))
    return np.asarray(cv2.resize(plane, size, interpolation=cv2.INTER_AREA), dtype=np.float32)


def reduced_pixels(pixels: Pixels, long_px: float) -> Pixels:
    """Straight-alpha pixels (h, w, 4) reduced by averaging areas, colours by their alpha; never enlarged."""
    scale = long_px / max(pixels.shape[:2])
    if scale >= 1:
        return pixels
    size = (max(1, round(pixels.shape[1] * scale)), max(1, round(pixels.shape[0] * scale)))
    weighed = cv2.multiply(pixels, cv2.merge([pixels[..., 3]] * 3 + [np.full_like(pixels[..., 3], 255)]), scale=1 / 255)
    small = cv2.resize(weighed, size, interpolation=cv2.INTER_AREA)
    alpha = cv2.merge([small[..., 3]] * 3)
    colours = cv2.divide(np.ascontiguousarray(small[..., :3]), alpha, scale=255)
    return np.asarray(np.dstack([colours, small[..., 3]]), dtype=np.uint8)


def enlarged(plane: Plane, like: Plane) -> Plane:
    """To the size of another plane, bilinear: cubic weights would add rings."""
    height, width = like.shape[:2]
    return np.asarray(cv2.resize(plane, (width, height), interpolation=cv2.INTER_LINEAR), dtype=np.float32)


def luminance(light: Plane) -> Plane:
    """Relative luminance of linear light."""
    return np.asarray(cv2.transform(light, LUMINANCE_WEIGHTS[None]), dtype=np.float32)


def length(vectors: Plane) -> Plane:
    """The length of each px's vector (h, w, 3)."""
    one, two, three = (vectors[..., band] for band in range(3))
    return np.asarray(np.sqrt(one * one + two * two + three * three), dtype=np.float32)
