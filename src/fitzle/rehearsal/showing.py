"""What a place makes of a picture that it took: a window of it, smaller, cut to a circle, packed again."""

from __future__ import annotations

import io
import math

from PIL import Image, ImageDraw

from fitzle.rehearsal.places import Place

CIRCLE_FINER = 4  # the mask is drawn larger and scaled down, for a smooth edge
_TYPES = {
    "ico": "image/x-icon", "svg": "image/svg+xml", "png": "image/png", "webmanifest": "application/manifest+json",
    "html": "text/plain",
}  # fmt: skip


def shown_picture(place: Place, name: str, data: bytes, window: str) -> tuple[bytes, str]:
    """The bytes that the place shows, and their media type."""
    if place.icons:
        return data, _TYPES[name.rpartition(".")[2]]
    with Image.open(io.BytesIO(data)) as opened:
        fmt, picture = opened.format or "PNG", opened.convert("RGBA")
    picture = _windowed(picture, window) if place.window else picture
    if place.shown and place.shown < picture.width:
        height = max(1, round(picture.height * place.shown / picture.width))
        picture = picture.resize((place.shown, height), Image.Resampling.LANCZOS)
    if place.circle:
        picture = _in_a_circle(picture)
    if place.quality and place.alpha == "no":
        return _saved(picture.convert("RGB"), "JPEG", quality=place.quality), "image/jpeg"
    changed = place.circle or place.window or (place.shown and picture.width == place.shown)
    if fmt in ("PNG", "WEBP") and not changed:
        return data, f"image/{fmt.lower()}"
    return _saved(picture, "PNG"), "image/png"


def _windowed(picture: Image.Image, window: str) -> Image.Image:
    """The part that the uploader chose (x, y, width, height in fractions), made square; all of it where none was."""
    try:
        x, y, width, height = (float(part) for part in window.split(","))
    except ValueError:
        return picture
    inside = all(math.isfinite(part) for part in (x, y, width, height)) and 0 <= x < 1 and 0 <= y < 1
    if not inside or not (0 < width <= 1 - x and 0 < height <= 1 - y):
        return picture
    left, top = round(x * picture.width), round(y * picture.height)
    return picture.crop(
        (left, top, left + max(1, round(width * picture.width)), top + max(1, round(height * picture.height)))
    )


def _in_a_circle(picture: Image.Image) -> Image.Image:
    side = min(picture.size)
    left, top = (picture.width - side) // 2, (picture.height - side) // 2
    picture = picture.crop((left, top, left + side, top + side))
    mask = Image.new("L", (side * CIRCLE_FINER,) * 2)
    ImageDraw.Draw(mask).ellipse((0, 0, side * CIRCLE_FINER - 1, side * CIRCLE_FINER - 1), fill=255)
    clear = Image.new("RGBA", picture.size)
    return Image.composite(picture, clear, mask.resize(picture.size, Image.Resampling.LANCZOS))


def _saved(picture: Image.Image, fmt: str, **options: int) -> bytes:
    out = io.BytesIO()
    picture.save(out, fmt, **options)
    return out.getvalue()
