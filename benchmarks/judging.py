"""Judging: a piece in thirty places by every rule, its scenes drawn, and a proof sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

SIZES = (
    (1280, 720), (1704, 433), (2000, 500), (880, 220), (512, 512),
    (180, 180), (640, 640), (1080, 1920), (1200, 630), (600, 200),
)  # fmt: skip
PLACES, SCENES = 30, 8


def places_ms(median_ms: Any) -> float:
    """Planned, looked at and judged by all rules that need no file, in thirty places of ten sizes."""
    from benchmarks.composing import artworks, piece
    from benchmarks.fits import decided, sheet_of
    from fitzle.core.fit.making import look_at
    from fitzle.core.piece.document import Piece
    from fitzle.core.preflight.registry import judged

    document = Piece.model_validate(piece())
    facts, sources, _ = artworks()
    seen = [{"name": "list", "width": 168, "density": 2}, {"name": "page", "width": 640}]
    sheets = [sheet_of(*SIZES[number % len(SIZES)], formats=["png"], seen=seen) for number in range(PLACES)]

    def judge() -> None:
        for sheet in sheets:
            fit = decided(document, sheet, facts, sources)
            judged(replace(fit.evidence, eye=look_at(fit, sources)), "plan", "pixels", "seen")

    return float(median_ms(judge))


def _scenes() -> tuple[list[Any], Any]:
    from benchmarks.composing import HEIGHT, WIDTH, artworks, looked
    from fitzle.core.render.painting import paint
    from fitzle.core.scenes.working_out import scenes_for
    from fitzle.core.spec.catalogue import catalogue
    from fitzle.core.units import Size

    fit, sources = looked(WIDTH, HEIGHT), artworks()[1]
    picture = paint(fit.plan, fit.planned.sources(sources))
    kinds = ("video-thumbnail", "course-card", "link-preview")
    sheets = [place.sheet for place in catalogue() if place.kind in kinds]
    scenes = [scene for sheet in sheets for scene in scenes_for(sheet, Size(1280, 720))]
    return scenes, picture


def scenes_ms(median_ms: Any) -> float:
    """Twelve scenes worked out and drawn by the server at their own density."""
    from fitzle.core.scenes.drawing import scene_pixels

    def draw() -> None:
        scenes, picture = _scenes()
        for scene in scenes[:12]:
            scene_pixels(scene, picture)

    return float(median_ms(draw))


def sheet_ms(median_ms: Any) -> float:
    """A proof sheet of eight scenes as PDF."""
    from fitzle.core.scenes.proof_sheet import SheetOf, pdf_of

    scenes, picture = _scenes()
    about = SheetOf("True a wheel", "Lesson thumbnail", "Ottermoor Cycle Works", "29 November 2026", [], [])
    return float(median_ms(lambda: pdf_of(about, scenes[:SCENES], picture)))
