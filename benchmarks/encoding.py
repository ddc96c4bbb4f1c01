"""Files under limits: against Pillow at the same looks and at the same limit, and how long a search takes."""

from __future__ import annotations

import io
from collections.abc import Iterator
from functools import cache, partial
from typing import Any, NamedTuple

import numpy as np
from PIL import Image

EQUAL_SCORE = 80.0
SHARES = (0.35, 0.6, 1.2)  # of what Pillow's usual JPEG of quality 75 has: thirty pairs of pictures and limits
RANDOM_PAIRS = 2000


class Made(NamedTuple):
    """A made picture (h, w, 4)."""

    name: str
    pixels: Any


@cache
def pictures() -> tuple[Made, ...]:
    """Ten: photos drawn for the sample at two sizes, marks on grounds, words and photo together, a gradient."""
    from demo.marks import MARKS
    from demo.photos import PHOTOS

    from benchmarks.photo import sample_photo
    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.geometry.rect import Rect
    from fitzle.core.units import Size

    found = []
    photos = [Image.open(io.BytesIO(sample_photo(name))).convert("RGB") for name in list(PHOTOS)[:3]]
    for number, picture in enumerate(photos):
        for size in ((1280, 720), (640, 360)):
            found.append(Made(f"photo {number} at {size[0]}", _opaque(_cut(picture, size))))
    source = read_artwork(MARKS["ottermoor-dark.svg"].encode(), "logo.svg").source
    logo = Image.fromarray(source.pixels(Rect(0, 0, source.width, source.height), Size(800, 200)))
    paper = Image.new("RGBA", (1280, 720), "#f6f2e8")
    paper.alpha_composite(logo, (240, 260))
    mixed = _cut(photos[0], (1280, 720)).convert("RGBA")
    mixed.alpha_composite(logo, (60, 480))
    rows, columns = np.mgrid[:720, :1280]
    bands = [rows / 720 * 200, columns / 1280 * 255, np.full(rows.shape, 140)]
    gradient = Image.fromarray(np.dstack(bands).astype(np.uint8)).convert("RGBA")
    gradient.alpha_composite(logo, (240, 260))
    small = _cut(photos[1], (300, 200)).convert("RGBA")
    found += [Made("logo on paper", np.asarray(paper)), Made("logo on a photo", np.asarray(mixed))]
    found += [Made("logo on a gradient", np.asarray(gradient)), Made("a small photo", np.asarray(small))]
    return tuple(found)


def _cut(picture: Image.Image, size: tuple[int, int]) -> Image.Image:
    from PIL import ImageOps

    return ImageOps.fit(picture, size, Image.Resampling.LANCZOS)


def _opaque(picture: Image.Image) -> Any:
    return np.asarray(picture.convert("RGBA"))


def _pillow(picture: Image.Image, fmt: str, quality: int) -> bytes:
    out = io.BytesIO()
    more: dict[str, Any] = {"optimize": True} if fmt == "JPEG" else {"method": 4}
    picture.save(out, fmt, quality=quality, **more)
    return out.getvalue()


def _pillow_under(picture: Image.Image, fmt: str, limit: int) -> bytes | None:
    """Quality stepped down by five until the file is under the limit, as a script does it."""
    for quality in range(95, 0, -5):
        data = _pillow(picture, fmt, quality)
        if len(data) <= limit:
            return data
    return None


def bytes_at_equal_looks(fmt: str) -> tuple[float, float]:
    """Bytes of all pictures together at a score of about 80, ours and Pillow's: each at the lowest quality there."""
    from fitzle.core.encode.raster import Raster
    from fitzle.core.encode.registry import ENCODERS

    ours, theirs = 0, 0
    for made in pictures():
        raster = Raster(made.pixels)
        picture = Image.fromarray(raster.rgb)
        lines = ENCODERS[fmt].lines  # type: ignore[index]
        ours += min(_lowest(raster, partial(line.encode, raster), line.low, line.high) for line in lines)
        theirs += _lowest(raster, partial(_pillow, picture, fmt.upper()), 5, 95)
    return float(ours), float(theirs)


def _lowest(raster: Any, encode: Any, low: int, high: int) -> int:
    """The bytes of the lowest position whose file reaches the score; of the highest where none does."""
    data = encode(high)
    best = len(data)
    while low <= high:
        middle = (low + high) // 2
        data = encode(middle)
        if raster.score(data) >= EQUAL_SCORE:
            best, high = len(data), middle - 1
        else:
            low = middle + 1
    return best


def never_worse() -> tuple[int, int, float]:
    """Of thirty pictures and limits, JPEG: how many are worse than Pillow's best, of how many, and the mean lead."""
    from fitzle.core.encode.raster import Raster

    worse, leads = 0, []
    for made, limit in _pairs():
        raster = Raster(made.pixels)
        theirs = _pillow_under(Image.fromarray(raster.rgb), "JPEG", limit)
        ours = _searched(made, "jpeg", limit)
        if theirs is None or ours is None:
            worse += ours is None and theirs is not None
            continue
        lead = raster.score(ours) - raster.score(theirs)
        worse += lead < -0.05
        leads.append(lead)
    return worse, len(list(_pairs())), float(np.mean(leads))


def _pairs() -> Iterator[tuple[Made, int]]:
    for made in pictures():
        usual = len(_pillow(Image.fromarray(made.pixels).convert("RGB"), "JPEG", 75))
        for share in SHARES:
            yield made, round(usual * share)


def _searched(made: Made, fmt: str, limit: int) -> bytes | None:
    choice = _choice(made.pixels, (fmt,), limit)
    return choice.best.data if choice.best else None


def _choice(pixels: Any, formats: tuple[str, ...], limit: int) -> Any:
    from fitzle.core.encode.choosing import best_file
    from fitzle.core.encode.rendered import rendered_pixels
    from fitzle.core.spec.sheet import SpecSheet
    from fitzle.core.units import Size

    height, width = pixels.shape[:2]
    sheet = SpecSheet.model_validate(
        {"fitzle_spec": 1, "name": "Bench", "size": {"width": width, "height": height}, "formats": list(formats),
         "max_bytes": limit}
    )  # fmt: skip
    return best_file(rendered_pixels(pixels), sheet, Size(width, height))


def search_ms(median_ms: Any, formats: tuple[str, ...], share: float) -> tuple[float, float, int]:
    """A search at 1280 x 720 under a share of Pillow's quality 75, Pillow's stepping, and the most whole encodes."""
    made = pictures()[0]
    picture = Image.fromarray(made.pixels).convert("RGB")
    limit = round(len(_pillow(picture, "JPEG", 75)) * share)
    most = max(
        sum(one.format == fmt for one in _choice(made.pixels, formats, limit).candidates) for fmt in formats
    )  # the first search also loads what all need
    ours = float(median_ms(lambda: _choice(made.pixels, formats, limit)))
    fmt = "JPEG" if formats[0] == "jpeg" else "WEBP"
    return ours, float(median_ms(lambda: _pillow_under(picture, fmt, limit))), most


def large_png_s() -> tuple[float, float]:
    """A PNG of 4096 px square under 1.5 MB, in seconds, and its budget."""
    import time

    from fitzle.core.encode.budget import USUAL_SECONDS

    photo = Image.fromarray(pictures()[0].pixels).convert("RGB").resize((4096, 4096), Image.Resampling.BICUBIC)
    pixels = _opaque(photo)
    began = time.perf_counter()
    _choice(pixels, ("png",), 1_500_000)
    return time.perf_counter() - began, USUAL_SECONDS


def over_the_limit() -> int:
    """How many of 2,000 random small pictures, formats and limits come out over their limit."""
    rng = np.random.default_rng(14)
    formats = ("png", "jpeg", "webp", "avif", "gif")
    over = 0
    for _ in range(RANDOM_PAIRS):
        width, height = (int(side) for side in rng.integers(8, 90, 2))
        coarse = rng.integers(0, 256, (int(rng.integers(1, 9)), int(rng.integers(1, 9)), 3), dtype=np.uint8)
        picture = Image.fromarray(coarse).resize((width, height), Image.Resampling.BICUBIC)
        noise = rng.normal(0, float(rng.choice([0, 3, 20])), (height, width, 3))
        colours = np.clip(np.asarray(picture) + noise, 0, 255).astype(np.uint8)
        limit = int(rng.integers(60, 9000))
        chosen = tuple(rng.permutation(formats)[: int(rng.integers(1, 4))].tolist())
        pixels = np.dstack([colours, np.full((height, width), 255, np.uint8)])
        choice = _choice(pixels, chosen, limit)
        over += bool(choice.best and len(choice.best.data) > limit)
    return over
