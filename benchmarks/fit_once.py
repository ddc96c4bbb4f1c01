"""One fit of the large photo in a process of its own: prints seconds, peak memory and the file. Ours or Pillow's."""

from __future__ import annotations

import io
import json
import sys
import time
from pathlib import Path

WIDTH, HEIGHT, LIMIT = 1280, 720, 300_000


def ours(data: bytes) -> bytes:
    """The command line's way, from bytes to file, judged and scored."""
    from benchmarks.fits import decided, sheet_of
    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.fit.making import make_fit
    from fitzle.core.piece.editing import new_piece

    sheet = sheet_of(WIDTH, HEIGHT, formats=["jpeg"], max_bytes=LIMIT, transparency="forbidden")
    photo = read_artwork(data, "photo.jpg")
    sources = {"a": photo.source}
    made = make_fit(decided(new_piece("photo", "a", "picture"), sheet, {"a": photo.facts}, sources), sources)
    assert made.encoded is not None
    return made.encoded.data


def pillow(data: bytes) -> bytes:
    """The usual way: open, turn upright, Lanczos, quality stepped down from 95 until it fits."""
    from PIL import Image, ImageOps

    picture = ImageOps.exif_transpose(Image.open(io.BytesIO(data)))
    picture = ImageOps.fit(picture, (WIDTH, HEIGHT), Image.Resampling.LANCZOS)
    for quality in range(95, 0, -1):
        out = io.BytesIO()
        picture.save(out, "JPEG", quality=quality, optimize=True)
        if out.tell() <= LIMIT:
            return out.getvalue()
    raise SystemExit("does not fit")


def peak_kb() -> int:
    """The most memory this program had at once; unlike getrusage it does not count the parent's."""
    status = Path("/proc/self/status").read_text()
    return int(next(line for line in status.splitlines() if line.startswith("VmHWM")).split()[1])


def main() -> None:
    """`fit_once.py ours|pillow PHOTO OUT`."""
    way, photo, out = sys.argv[1:]
    import cv2  # noqa: F401
    import pyjpegli  # noqa: F401
    import pyvips  # noqa: F401
    import skia  # noqa: F401
    from PIL import Image  # noqa: F401

    import fitzle.core.fit.making  # noqa: F401, both ways start with the same modules loaded

    data = Path(photo).read_bytes()
    before = peak_kb()
    started = time.perf_counter()
    made = ours(data) if way == "ours" else pillow(data)
    seconds = time.perf_counter() - started
    Path(out).write_bytes(made)
    peak = peak_kb()
    print(json.dumps({"seconds": seconds, "peak_kb": peak, "grown_kb": peak - before}))


if __name__ == "__main__":
    main()
