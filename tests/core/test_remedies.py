"""A file that is visibly damaged at its limit: where, and what was tried that would help."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from PIL import Image

from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.encode.choosing import BAD_SCORE
from fitzle.core.findings import Finding
from fitzle.core.fit.making import Made
from fitzle.core.fit.record import choice_of, record_of
from fitzle.core.fit.remedies import LEAST_GAIN
from fitzle.core.piece.changes import apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.registry import repair_changes
from tests.core.composed import mark, picture, piece
from tests.fits import made_fit
from tests.make import photo, saved, sheet

SIZE = {"width": 480, "height": 300}


def grainy(strength: int = 60) -> Image.Image:
    """A photo with heavy grain, which no encoder likes."""
    rng = np.random.default_rng(8)
    pixels = np.asarray(photo(480, 300).convert("RGB")) + rng.normal(0, strength, (300, 480, 3))
    return Image.fromarray(np.clip(pixels, 0, 255).astype(np.uint8))


def artwork(image: Image.Image) -> Artwork:
    return read_artwork(saved(image, "PNG"), "p.png")


def quality(made: Made) -> Finding:
    return next(one for one in made.judgement.findings if one.rule == "quality")


def made_of(document: Any, known: dict[str, Artwork], **place: Any) -> Made:
    return made_fit(document, sheet(**{"size": SIZE, "formats": ["jpeg"], **place}), known)


def test_what_is_visibly_damaged_says_where_and_what_would_help() -> None:
    made = made_of(piece(picture(artwork="p")), {"p": artwork(grainy(25))}, max_bytes=14_000)
    best = made.choice.best
    assert best is not None and best.score < BAD_SCORE
    scores = [one.score for one in made.choice.remedies]
    assert scores and scores == sorted(scores, reverse=True) and scores[-1] >= best.score + LEAST_GAIN
    told = quality(made)
    assert told.severity == "risky" and "visibly damaged" in told.message and told.where == made.choice.worst
    assert f"with its grain smoothed it would look {scores[0]:.0f}" in told.message and told.repair is None


def test_a_file_that_looks_well_enough_is_left_in_peace() -> None:
    made = made_of(piece(picture(artwork="p")), {"p": artwork(photo(480, 300))}, max_bytes=60_000)
    assert made.choice.best is not None and made.choice.best.score >= BAD_SCORE
    assert made.choice.remedies == () and made.choice.worst is None


def test_a_smaller_size_is_tried_where_the_sheet_leaves_it_open() -> None:
    size = {"min_width": 100, "max_width": 480, "aspect": "8:5"}
    made = made_of(piece(picture(artwork="p")), {"p": artwork(grainy(40))}, size=size, max_bytes=6_000)
    assert any("240 × 150 px" in one.words for one in made.choice.remedies)


def test_a_ground_instead_of_clear_places_is_one_click_that_holds_what_it_says() -> None:
    cut = grainy().convert("RGBA")
    y, x = np.mgrid[:300, :480]
    alpha = np.clip(255 * (1.6 - np.hypot((x - 240) / 150, (y - 150) / 95)), 0, 255).astype(np.uint8)
    cut.putalpha(Image.fromarray(alpha))
    known = {"p": artwork(cut)}
    place = {"formats": ["png", "jpeg"], "grounds": ["#f6e7b8"], "max_bytes": 14_000}
    document = Piece.model_validate(piece(mark("p")))
    made = made_of(document, known, **place)
    told = quality(made)
    assert told.repair is not None and told.repair.name == "ground-behind"
    changes = repair_changes("ground-behind", document, "here", made.decided.evidence, None)
    mended = made_of(apply_changes(document, changes), known, **place)
    assert mended.choice.best is not None
    promised = next(one.score for one in made.choice.remedies if one.name == "ground-behind")
    assert mended.choice.best.score == pytest.approx(promised, abs=6) and mended.choice.best.format == "jpeg"


def test_what_was_tried_is_kept_with_the_file() -> None:
    made = made_of(piece(picture(artwork="p")), {"p": artwork(grainy(25))}, max_bytes=14_000)
    back = choice_of(record_of(made.choice, made.decided.plan.size))
    assert back.remedies == made.choice.remedies and back.worst == made.choice.worst
