"""Limits and choices of the documents for the pages, which know none of their own."""

from __future__ import annotations

from functools import cache
from typing import get_args

from django.conf import settings
from ninja import Schema
from pydantic import BaseModel

from fitzle.core.artwork.steps.document import Adjust, CutOut, Preparation, Straighten, Stroke, Trace, Trim
from fitzle.core.formats import Format, label_of
from fitzle.core.piece.effects import Blend, Border, Edge, Glow, Outline, Plate, Shadow
from fitzle.core.piece.fills import Gradient, Overlay, Pattern, PictureFill
from fitzle.core.piece.parts import ArtworkPart, WordsPart
from fitzle.core.ranges import Range, most_in, ranges_of

_DOCUMENTS: dict[str, type[BaseModel]] = {
    "artwork": ArtworkPart, "words": WordsPart, "outline": Outline, "glow": Glow, "shadow": Shadow, "plate": Plate,
    "border": Border, "edge": Edge, "picture": PictureFill, "pattern": Pattern, "overlay": Overlay,
    "straighten": Straighten, "trim": Trim, "adjust": Adjust, "cut out": CutOut, "trace": Trace,
}  # fmt: skip


class LimitsOut(Schema):
    """`ranges` are by document and field, `formats` what a sheet may ask for and what people call it.

    The rest is how many there may be of something.
    """

    ranges: dict[str, dict[str, Range]]
    blends: list[str]
    formats: dict[str, str]
    gradient_stops: int
    steps: int
    stroke_points: int
    files_of_a_folder: int


@cache
def limits_view() -> LimitsOut:
    """All of them; they change with the version only."""
    return LimitsOut(
        ranges={name: ranges_of(document) for name, document in _DOCUMENTS.items()},
        blends=list(get_args(Blend)),
        formats={name: label_of(name) for name in get_args(Format)},
        gradient_stops=most_in(Gradient, "stops"),
        steps=most_in(Preparation, "steps"),
        stroke_points=most_in(Stroke, "points"),
        files_of_a_folder=settings.UPLOAD_LIMIT_FOLDER,
    )
