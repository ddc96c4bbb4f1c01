"""Badges for cut-outs: a ring, a light disc inside it, a wedge and bars on the disc; their coverage is known."""

from __future__ import annotations

from functools import cache

import numpy as np
from PIL import Image

from fitzle.core.artwork.sources import Pixels
from tests.make import averaged, opened, saved

SIZE = (1280, 960)
FINE = 3
# Ring, disc, wedge and bars; the discs are light, one of them all but the colour of the near-white backdrop.
INKS = [
    ("#17443c", "#f6e7b8", "#b4541a", "#22303a"), ("#7a1f3d", "#fdfaf0", "#2b6cb0", "#e0a020"),
    ("#1b2a6b", "#e8f0ff", "#d94f2a", "#0d1b2a"), ("#333333", "#f2f2f2", "#c0392b", "#111111"),
    ("#0b6e4f", "#fffaf0", "#f4d06f", "#6b2d5c"),
]  # fmt: skip
BACKDROPS = {"white": (255, 255, 255), "near-white": (244, 241, 236), "red": (176, 42, 32), "blue": (40, 74, 150)}


@cache
def badge(number: int) -> tuple[np.ndarray, np.ndarray]:
    """Premultiplied colours (h, w, 3) and coverage (h, w), averaged from 3 x 3 samples."""
    width, height = SIZE
    rng = np.random.default_rng(number)
    y, x = (np.mgrid[0 : height * FINE, 0 : width * FINE].astype(np.float32) + 0.5) / FINE
    cx, cy = width / 2 + rng.uniform(-40, 40), height / 2 + rng.uniform(-40, 40)
    outer = height * rng.uniform(0.32, 0.42)
    inner = outer * rng.uniform(0.72, 0.86)
    turn = rng.uniform(-3, 2)
    away, angle = np.hypot(x - cx, y - cy), np.arctan2(y - cy, x - cx)
    ring, disc, wedge, bars = (np.array(_rgb(ink), np.float32) for ink in INKS[number])
    picture = np.zeros((*away.shape, 3), np.float32)
    picture[away < outer], picture[away < inner] = ring, disc
    picture[(away < inner * 0.9) & (angle > turn) & (angle < turn + 0.8)] = wedge
    for bar in range(4):
        across = np.abs(x - (cx + inner * (0.3 * bar - 0.55))) < inner * 0.06
        picture[across & (y > cy - inner * 0.1) & (y < cy + inner * 0.45) & (away < inner)] = bars
    return averaged(picture, FINE), averaged((away < outer)[..., None], FINE)[..., 0]


def badge_on(number: int, backdrop: str, quality: int) -> Pixels:
    """The badge on its backdrop as a JPEG leaves it: (h, w, 4), opaque. The blue one darkens towards the corners."""
    own, alpha = badge(number)
    ground = np.broadcast_to(np.array(BACKDROPS[backdrop], np.float32), own.shape).copy()
    if backdrop == "blue":
        y, x = np.mgrid[0 : SIZE[1], 0 : SIZE[0]]
        ground *= (1 - 0.5 * ((x / SIZE[0] - 0.5) ** 2 + (y / SIZE[1] - 0.5) ** 2))[..., None]
    mixed = own + ground * (1 - alpha[..., None])
    picture = Image.fromarray(np.rint(np.clip(mixed, 0, 255)).astype(np.uint8))
    return np.asarray(opened(saved(picture, "JPEG", quality=quality)).convert("RGBA"))


def _rgb(ink: str) -> tuple[int, int, int]:
    return int(ink[1:3], 16), int(ink[3:5], 16), int(ink[5:7], 16)
