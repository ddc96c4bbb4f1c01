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
JUDGED = 50
PLACES = (SPEC, "JPEG 640x640 under 150 KB", "JPEG 1704x433 under 250 KB")


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


def judged_ms() -> float:
    """Milliseconds for a row of a run in a place to be planned, looked at, judged and made comparable with the others;
    of 50 rows in three places, the same on one thread.
    """
    from fitzle.cli.reading import spec_of
    from fitzle.core.artwork.opening import open_source
    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.artwork.remembering import CachedSource, PixelCache
    from fitzle.core.fit.deciding import decide, plan_fit
    from fitzle.core.fit.request import FitArtwork, FitRequest
    from fitzle.core.piece.document import Row
    from fitzle.core.piece.editing import piece_from
    from fitzle.core.runs.likeness import cells_in_list

    with tempfile.TemporaryDirectory() as folder:
        desk = Path(folder)
        _write(desk)
        piece = piece_from(json.loads((desk / "school.json").read_text()))
        data = (desk / "guest.jpg").read_bytes()
    known = {"guest.jpg": FitArtwork(read_artwork(data, "guest.jpg").facts, "guest")}
    sources = {"guest.jpg": CachedSource("guest", open_source(data), PixelCache())}
    sheets = [spec_of(words) for words in PLACES]
    began = time.perf_counter()
    for number in range(JUDGED):
        row = Row(id=f"{number}", values={"title": f"Lesson {number}: true a wheel"})
        for sheet in sheets:
            looked = decide(plan_fit(FitRequest(piece, sheet, "", known, row=row)), sources)
            assert looked.findings is not None
            cells_in_list(looked.plan, looked.planned.sources(sources), sheet)
    return 1000 * (time.perf_counter() - began) / (JUDGED * len(sheets))


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
