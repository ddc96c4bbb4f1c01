"""What a bitmap is good for: the detail it really carries, how large it stays crisp, what JPEG has done to it."""

from __future__ import annotations

import io

import cv2
import numpy as np

from fitzle.core.artwork.detail import LONGEST_LOOKED_AT_PX, detail_share
from fitzle.core.artwork.faces.detecting import faces_in
from fitzle.core.artwork.facts import ENLARGED_FROM, ArtworkFacts, Face
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

FACES_AT_PX = 1024  # a face of 40 px is found at this size
POOR_JPEG_QUALITY = 60  # below, blocks and fringes are seen at 100 %
# ITU T.81, table K.1: the luminance table that the usual writers scale by their quality.
_STANDARD_SUM = 3688


def with_detail(facts: ArtworkFacts, data: bytes, source: Source) -> ArtworkFacts:
    """The facts with the figures that only the pixels at full size can give, and what follows from them in words."""
    share = detail_share(brightness(_looked_at(source)))
    longest = max(facts.width, facts.height)
    detail = round(longest * share)
    quality = jpeg_quality(data) if facts.format == "jpeg" else None
    warnings = list(facts.warnings)
    if share < ENLARGED_FROM:
        warnings.append(
            f"It was enlarged, or is soft: it is {longest:.0f} px long but carries the detail of about {detail} px."
        )
    if quality is not None and quality < POOR_JPEG_QUALITY:
        warnings.append(f"It was saved as a JPEG of about quality {quality}: blocks and fringes will show.")
    return facts.model_copy(
        update={
            "detail_px": detail,
            "crisp_px": detail,
            "crisp_dense_px": detail / 2,
            "jpeg_quality": quality,
            "warnings": tuple(warnings),
        }
    )


def faces_of(source: Source) -> tuple[Face, ...]:
    """The faces in a picture, the largest first, in px of the artwork."""
    scale = min(1.0, FACES_AT_PX / max(source.width, source.height))
    size = Size(max(1, round(source.width * scale)), max(1, round(source.height * scale)))
    pixels = source.pixels(Rect(0, 0, source.width, source.height), size)
    return tuple(_face(face.box.scaled(1 / scale), face.score) for face in faces_in(pixels))


def _face(box: Rect, score: float) -> Face:
    x, y, width, height = (round(figure, 1) for figure in box)
    return Face(x=x, y=y, width=width, height=height, score=round(score, 3))


def _looked_at(source: Source) -> Pixels:
    """The middle of the picture at its full size."""
    width, height = (min(LONGEST_LOOKED_AT_PX, round(side)) for side in (source.width, source.height))
    left, top = round((source.width - width) / 2), round((source.height - height) / 2)
    return source.pixels(Rect(left, top, width, height), Size(width, height))


def brightness(pixels: Pixels) -> np.ndarray[tuple[int, ...], np.dtype[np.float32]]:
    """Rec. 601 luma of pixels (h, w, 4), premultiplied: on black or on white, where more of them shows."""
    on_black = cv2.cvtColor(np.ascontiguousarray(pixels[..., :3]), cv2.COLOR_RGB2GRAY)
    on_white = cv2.add(on_black, 255 - pixels[..., 3])
    shown = max(on_black, on_white, key=lambda plane: float(np.std(plane[::4])))
    return np.asarray(shown, dtype=np.float32)


def jpeg_quality(data: bytes) -> int | None:
    """The quality, 1 to 100, at which usual writers make a table as coarse as this one; None where it has none."""
    from PIL import Image

    try:
        with Image.open(io.BytesIO(data), formats=["JPEG"]) as picture:
            tables = picture.quantization
    except (OSError, ValueError, SyntaxError):
        return None
    if not tables:
        return None
    coarseness = 100 * sum(tables[min(tables)]) / _STANDARD_SUM
    quality = 5000 / coarseness if coarseness > 100 else (200 - coarseness) / 2
    return int(max(1, min(100, round(quality))))
