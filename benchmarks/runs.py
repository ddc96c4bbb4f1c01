"""Files of a run: a piece for every row of a table, by the command line's own way, against plain Pillow."""

from __future__ import annotations

import json
import tempfile
import time
from argparse import Namespace
from pathlib import Path
from typing import Any

ROWS = 40
SPEC = "JPEG 1280x720 under 200 KB"


def files_a_second() -> tuple[float, float]:
    """Files a second of 40 rows in one place of 1280x720: ours, searched and judged, and Pillow's, drawn and saved."""
    from fitzle.cli.rows import run

    with tempfile.TemporaryDirectory() as folder:
        desk = Path(folder)
        _write(desk)
        asked = Namespace(
            piece=desk / "school.json", table=desk / "rows.csv", spec=[SPEC], out=desk / "out", pictures=None,
            name="{subject}-{row}", seconds=None,
        )  # fmt: skip
        began = time.perf_counter()
        told, _ = run(asked)
        ours = ROWS / (time.perf_counter() - began)
        assert sum(bool(one["file"]) for one in told["files"]) == ROWS, told
        began = time.perf_counter()
        for number in range(ROWS):
            _by_pillow(desk, number)
        return ours, ROWS / (time.perf_counter() - began)


def _write(desk: Path) -> None:
    from PIL import Image

    from benchmarks.photo import large_photo

    with Image.open(large_photo()) as photo:
        photo.resize((1600, 1200)).convert("RGB").save(desk / "guest.jpg", quality=90)
    left: dict[str, Any] = {"anchor": "left", "width": 0.8, "height": 0.5, "dx": 0.07}
    piece = {
        "fitzle_piece": 2,
        "subject": "Wheel school",
        "parts": [
            {"id": "ground", "role": "ground", "fill": {"kind": "solid", "colour": "#17443c"}},
            {"id": "guest", "role": "picture", "artwork": "guest.jpg", "stands": {**left, "anchor": "right", "dx": 0}},
            {"id": "headline", "role": "headline", "text": "True a wheel", "stands": left, "colour": "#f4d06f"},
        ],
        "fields": {"title": {"part": "headline", "field": "text"}},
    }  # fmt: skip
    (desk / "school.json").write_text(json.dumps(piece))
    (desk / "rows.csv").write_text("title\n" + "".join(f"Lesson {number}: true a wheel\n" for number in range(ROWS)))


def _by_pillow(desk: Path, number: int) -> None:
    from PIL import Image, ImageDraw

    picture = Image.new("RGB", (1280, 720), "#17443c")
    with Image.open(desk / "guest.jpg") as guest:
        picture.paste(guest.resize((960, 720)).crop((0, 0, 576, 720)), (704, 0))
    ImageDraw.Draw(picture).text((50, 300), f"Lesson {number}: true a wheel", "#f4d06f", font_size=60)
    picture.save(desk / f"plain-{number}.jpg", quality=85)
