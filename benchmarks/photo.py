"""A 24-megapixel photo of our own drawing, kept in var/bench between runs."""

from __future__ import annotations

import io
import subprocess
import sys
from pathlib import Path

import numpy as np
from demo.photos import dusk, photo
from PIL import Image

FOLDER = Path(__file__).resolve().parents[1] / "var" / "bench"


def large_photo() -> Path:
    """6000 x 4000 px JPEG with grain, turned by EXIF as phones write it."""
    path = FOLDER / "24-megapixels.jpg"
    if not path.exists():
        FOLDER.mkdir(parents=True, exist_ok=True)
        picture = Image.open(io.BytesIO(photo(dusk, 1))).resize((6000, 4000), Image.LANCZOS)
        grain = np.random.default_rng(2).normal(0, 5, (4000, 6000, 1))
        pixels = np.clip(np.asarray(picture) + grain, 0, 255).astype(np.uint8)
        exif = Image.Exif()
        exif[0x0112] = 1
        Image.fromarray(pixels).save(path, "JPEG", quality=92, exif=exif)
    return path


def sample_photo(name: str) -> bytes:
    """One of the sample's photos, drawn once by a process of its own so that drawing it counts for nothing here."""
    path = FOLDER / name
    if not path.exists():
        FOLDER.mkdir(parents=True, exist_ok=True)
        code = f"from demo.photos import *; open({str(path)!r}, 'wb').write(photo(PHOTOS[{name!r}], 1))"
        subprocess.run([sys.executable, "-c", code], check=True)
    return path.read_bytes()
