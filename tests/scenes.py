"""Scenes for tests: a subject with a known outline on a mottled table, neither flat nor a person."""

from functools import cache
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw

SUBJECTS = ("cup", "ball", "star", "flower")
Drawn = tuple[NDArray[np.uint8], NDArray[np.bool_]]


def mottled(rng: Any, size: tuple[int, int], colour: Any, strength: float, grain_px: float) -> NDArray[np.float64]:
    """A surface (h, w, 3) around a colour, 0 to 255."""
    noise = cv2.GaussianBlur(rng.normal(0, 1, size[::-1]).astype(np.float32), (0, 0), grain_px)
    noise /= noise.std()
    return np.clip(np.asarray(colour) + strength * noise[..., None] * np.array([1, 0.8, 0.6]), 0, 255)


@cache
def scene(subject: str, number: int) -> Drawn:
    """The picture (h, w, 3) and where its subject is (h, w)."""
    rng = np.random.default_rng(number)
    width, height = (800, 600) if number % 2 else (600, 800)
    table = mottled(rng, (width, height), rng.integers(60, 200, 3), rng.uniform(8, 22), rng.uniform(1, 6))
    table *= np.linspace(0.8, 1.2, height)[:, None, None]
    x, y = rng.uniform(0.42, 0.58) * width, rng.uniform(0.42, 0.58) * height
    mask = outline(subject, (width, height), x, y, rng.uniform(0.16, 0.24) * min(width, height))
    colour = (table.mean(axis=(0, 1)) + 128 + rng.integers(-50, 50, 3)) % 256
    own = mottled(rng, (width, height), colour, rng.uniform(5, 18), 3)
    mixed = np.where(mask[..., None], own, table)
    return cv2.GaussianBlur(np.clip(mixed, 0, 255).astype(np.uint8), (0, 0), 0.7), mask


def outline(subject: str, size: tuple[int, int], x: float, y: float, r: float) -> NDArray[np.bool_]:
    """Where a subject with its middle at x, y covers a picture."""
    picture = Image.new("L", size)
    pen = ImageDraw.Draw(picture)
    if subject == "ball":
        pen.ellipse((x - r, y - r, x + r, y + r), fill=255)
    elif subject == "cup":
        pen.rectangle((x - r, y - r, x + r, y + 1.2 * r), fill=255)
        pen.ellipse((x + 0.7 * r, y - 0.5 * r, x + 1.6 * r, y + 0.5 * r), outline=255, width=round(0.2 * r))
    elif subject == "star":
        reach = [(r if corner % 2 else 0.5 * r, corner * np.pi / 5) for corner in range(10)]
        pen.polygon([(x + far * np.cos(angle), y + far * np.sin(angle)) for far, angle in reach], fill=255)
    else:
        for petal in range(7):
            across, down = 0.7 * r * np.cos(petal * 0.9), 0.7 * r * np.sin(petal * 0.9)
            pen.ellipse((x + across - 0.4 * r, y + down - 0.4 * r, x + across + 0.4 * r, y + down + 0.4 * r), fill=255)
        pen.ellipse((x - 0.5 * r, y - 0.5 * r, x + 0.5 * r, y + 0.5 * r), fill=255)
    return np.asarray(picture) > 128


SHAPES = ("gables", "windows", "rounds", "wires", "boxes", "tiles")


@cache
def hard_edged(shapes: str, size: tuple[int, int], number: int = 0, grain: float = 0.0) -> NDArray[np.uint8]:
    """A scene (h, w, 3) of hard edges and mottled surfaces, drawn at four times its size as a lens would see it."""
    rng = np.random.default_rng([number, SHAPES.index(shapes)])
    width, height = size[0] * 4, size[1] * 4
    fade = np.linspace(1, 0.5, height)[:, None, None] * rng.integers(90, 220, 3)
    picture = Image.fromarray(fade.astype(np.uint8)).resize((width, height), Image.Resampling.NEAREST)
    pen = ImageDraw.Draw(picture)
    for _ in range(40):
        x, y = rng.uniform(-0.1, 1) * width, rng.uniform(0, 1) * height
        across, down = rng.uniform(0.03, 0.16) * width, rng.uniform(0.04, 0.25) * height
        colour = tuple(int(value) for value in rng.integers(10, 245, 3))
        if shapes == "gables":
            pen.polygon([(x, y), (x + across, y + 0.2 * down), (x + across, y + down), (x, y + down)], fill=colour)
        elif shapes == "windows":
            pen.rectangle((x, y, x + 0.6 * across, y + down), fill=colour)
        elif shapes == "rounds":
            pen.ellipse((x, y, x + across, y + across), fill=colour)
        elif shapes == "wires":
            pen.line((x, y, x + 3 * across, y - 2 * down), fill=colour, width=int(rng.uniform(5, 24)))
        elif shapes == "boxes":
            pen.rounded_rectangle((x, y, x + 1.4 * across, y + down), width // 40, fill=colour)
        else:
            pen.regular_polygon((x, y, across / 2), int(rng.integers(3, 9)), rotation=rng.uniform(0, 360), fill=colour)
    seen = np.asarray(picture.reduce(4))
    surface = mottled(rng, size, (128, 128, 128), rng.uniform(2, 5), 1.2)[..., :1] - 128
    noise = grain * rng.normal(0, 1, size[::-1])[..., None]
    return np.clip(seen + surface + noise, 0, 255).astype(np.uint8)
