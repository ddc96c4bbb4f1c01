"""What somebody would write: open, turn upright, fit, quality down by five. `plain_script.py PHOTO OUT`."""

import io
import sys
from pathlib import Path

from PIL import Image, ImageOps

WIDTH, HEIGHT, LIMIT = 1280, 720, 300_000


def main() -> None:
    """Writes the first JPEG below the limit."""
    picture = ImageOps.fit(ImageOps.exif_transpose(Image.open(sys.argv[1])), (WIDTH, HEIGHT), Image.Resampling.LANCZOS)
    for quality in range(95, 0, -5):
        out = io.BytesIO()
        picture.save(out, "JPEG", quality=quality)
        if out.tell() <= LIMIT:
            Path(sys.argv[2]).write_bytes(out.getvalue())
            return


if __name__ == "__main__":
    main()
