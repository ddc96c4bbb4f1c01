"""Files for tests, made by Pillow or by hand: other writers than the readers under test."""

from __future__ import annotations

import io
from functools import lru_cache
from typing import Any

import cv2
import numpy as np
from PIL import Image, ImageDraw

from fitzle.core.spec.sheet import SpecSheet


def saved(picture: Image.Image, fmt: str, **options: Any) -> bytes:
    """A Pillow picture as the bytes of a file."""
    out = io.BytesIO()
    picture.save(out, fmt, **options)
    return out.getvalue()


def photo(width: int = 640, height: int = 400, seed: int = 7) -> Image.Image:
    """A soft, grainy picture without flat areas."""
    return _photo(width, height, seed).copy()


@lru_cache(maxsize=16)
def _photo(width: int, height: int, seed: int) -> Image.Image:
    rng = np.random.default_rng(seed)
    coarse = Image.fromarray(rng.integers(0, 255, (9, 14, 3), dtype=np.uint8)).resize((width, height), Image.BICUBIC)
    grain = rng.normal(0, 4, (height, width, 1))
    return Image.fromarray(np.clip(np.asarray(coarse) + grain, 0, 255).astype(np.uint8))


def disc(size: int = 200, colour: str = "#1d3b4f", margin: int = 20, ground: str | None = None) -> Image.Image:
    """A disc with `margin` px around it, clear or on a flat ground."""
    mode, back = ("RGB", ground) if ground else ("RGBA", (0, 0, 0, 0))
    picture = Image.new(mode, (size, size), back)
    ImageDraw.Draw(picture).ellipse((margin, margin, size - margin - 1, size - margin - 1), fill=colour)
    return picture


def svg(
    body: str = '<circle cx="50" cy="25" r="20" fill="#1d3b4f"/>', view: str = "0 0 100 50", more: str = ""
) -> bytes:
    """An SVG with this content."""
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{view}" {more}>{body}</svg>'.encode()


def sheet(**keys: Any) -> SpecSheet:
    """A spec sheet for 320 x 180 PNG, with some keys replaced."""
    base: dict[str, Any] = {
        "fitzle_spec": 1, "name": "Test place", "size": {"width": 320, "height": 180}, "formats": ["png"],
        "max_bytes": 200_000,
    }  # fmt: skip
    return SpecSheet.model_validate({**base, **keys})


def solid(colour: str) -> dict[str, str]:
    """A ground of one colour."""
    return {"kind": "solid", "colour": colour}


def averaged(samples: np.ndarray, fine: int) -> np.ndarray:
    """Samples (h * fine, w * fine, n) as the mean of each px (h, w, n); a fifth of the time of NumPy's mean."""
    height, width, bands = samples.shape
    found = cv2.resize(samples.astype(np.float32), (width // fine, height // fine), interpolation=cv2.INTER_AREA)
    return np.asarray(found).reshape(height // fine, width // fine, bands)


def opened(data: bytes) -> Image.Image:
    """A file's picture by Pillow, fully loaded."""
    picture = Image.open(io.BytesIO(data))
    picture.load()
    return picture
