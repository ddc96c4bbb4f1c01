"""Golden pictures: a few fits kept as files. Write them anew with: python -m tests.core.test_golden

Compared by size, then mode, then pixels. The tolerance of 2/255 on average and 24/255 at most covers rounding of
another processor's vector instructions along antialiased edges; a shift by a tenth of a pixel exceeds it.
"""

from pathlib import Path

import numpy as np
import pytest
from demo.marks import MARKS
from PIL import Image

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.piece.changes import SetField, apply_changes
from fitzle.core.piece.editing import new_piece
from fitzle.core.render.painting import paint
from tests.core.composed import PIECES, artworks, decided
from tests.core.effects import EFFECTS, SMALL
from tests.fits import planned_fit
from tests.make import photo, saved, sheet, solid

FOLDER = Path(__file__).parents[1] / "golden"
FAILED = Path(__file__).parents[2] / "var" / "failed"
MEAN_TOLERANCE, MOST_TOLERANCE = 2.0, 24

CASES = {
    "badge-16": ("wheel-badge.svg", {"size": {"width": 16, "height": 16}}, {}),
    "badge-circle-64": ("wheel-badge.svg", {"size": {"width": 64, "height": 64}, "cut": {"shape": "circle"}}, {}),
    "logo-tinted-on-ground": ("ottermoor-dark.svg", {}, {"tint": "#ffffff", "fill": solid("#17443c")}),
    "sticker-by-weight": ("ding.svg", {"size": {"width": 120, "height": 90}}, {"centring": "weight"}),
    "photo-filled": ("photo", {"size": {"width": 200, "height": 60}}, {"focal_point": {"x": 0.2, "y": 0.9}}),
    "photo-whole-on-ground": (
        "photo",
        {"size": {"width": 90, "height": 90}},
        {"mode": "whole", "fill": solid("#ffcc00")},
    ),
    "photo-enlarged": ("photo", {"size": {"width": 220, "height": 220}}, {"focal_point": {"x": 0.5, "y": 0.5}}),
}


def drawn(case: str) -> np.ndarray:
    """The case's picture as it is drawn now."""
    if case in PIECES:
        return paint(decided(PIECES[case]).plan, artworks()[1])
    if case in EFFECTS:
        return paint(decided(EFFECTS[case], **SMALL).plan, artworks()[1])
    name, place, fields = CASES[case]
    data = saved(photo(180, 120), "PNG") if name == "photo" else MARKS[name].encode()
    artwork = read_artwork(data, name)
    kind = artwork.facts.kind
    changes = [
        SetField(part="ground" if key == "fill" else kind, field=key, value=value) for key, value in fields.items()
    ]
    piece = apply_changes(new_piece("golden", "a", kind), changes)
    return paint(planned_fit(piece, sheet(**place), {"a": artwork}).plan, {"a": artwork.source})


@pytest.mark.parametrize("case", [*CASES, *PIECES, *EFFECTS])
def test_the_picture_is_the_golden_one(case: str) -> None:
    found = drawn(case)
    with Image.open(FOLDER / f"{case}.png") as picture:
        assert picture.size == (found.shape[1], found.shape[0])
        assert picture.mode == "RGBA"
        golden = np.asarray(picture).astype(int)
    visible = np.maximum(found[..., 3], golden[..., 3])[..., None] / 255
    difference = np.abs(found.astype(int) - golden) * visible
    if difference.mean() > MEAN_TOLERANCE or difference.max() > MOST_TOLERANCE:
        FAILED.mkdir(parents=True, exist_ok=True)
        Image.fromarray(found).save(FAILED / f"golden-{case}.png")
    assert difference.mean() <= MEAN_TOLERANCE
    assert difference.max() <= MOST_TOLERANCE


if __name__ == "__main__":
    for case in [*CASES, *PIECES, *EFFECTS]:
        Image.fromarray(drawn(case)).save(FOLDER / f"{case}.png")
