"""What the drawing service is asked about candidates: their files made again, scored, and laid beside the original."""

from __future__ import annotations

import io
from typing import Any
from uuid import UUID

import numpy as np
from ninja import Schema
from numpy.typing import NDArray
from PIL import Image

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.api.drawn_scenes import LIVE_FORMATS
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import OpenFit, decided, open_fit
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import best_file
from fitzle.core.encode.local_error import local_error, painted, worst_area
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.registry import encoded_as
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.settings import MovingSettings, Settings
from fitzle.core.encode.wish import Wish
from fitzle.core.errors import DocumentError
from fitzle.core.fit.making import rendered_fit
from fitzle.core.fit.moving import first_frame, first_frame_as
from fitzle.core.fit.record import CandidateRecord
from fitzle.core.formats import Format, label_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import words_for_bytes

TRYING_SECONDS = 6.0
SHOWN = {**LIVE_FORMATS, "avif": "image/avif", "bmp": "image/bmp", "svg": "image/svg+xml"}
_GREY = 230  # what is clear is compared on


class CandidateOut(Schema):
    """One file that was tried: `settings` are what the encoder was told, `words` and `weight` are for people.

    `chosen` is the file that is delivered, `under` says whether it is under the limit, `seconds` is what encoding took.
    """

    format: Format
    label: str
    settings: dict[str, Any]
    words: str
    bytes: int
    weight: str
    score: float | None
    seconds: float | None
    chosen: bool
    under: bool


class ErrorsOut(Schema):
    """A candidate's score, and in fractions of the picture where most was lost."""

    score: float
    x: float
    y: float
    width: float
    height: float


def candidates_of(opened: OpenFit) -> list[CandidateOut]:
    """The table: the chosen file first, then by looks and weight."""
    found = [CandidateRecord.model_validate(entry) for entry in opened.candidates]
    file = opened.record.files[0] if opened.record and opened.record.files else None
    limit = opened.resolved.sheet.max_bytes
    rows = [
        _row(one, limit, chosen=bool(file and (one.format, one.settings) == (file.format, file.settings)))
        for one in dict.fromkeys(found)
    ]
    return sorted(rows, key=lambda one: (not one.chosen, not one.under, -(one.score or 0), -one.bytes))


@drawable
def draw_original(workspace: int, fit: UUID) -> Picture:
    """The fit as it is drawn, as a lossless WebP."""
    pixels = _rendered(workspace, fit)[1].raster.pixels
    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "WEBP", lossless=True, quality=20, method=1)
    return Picture(out.getvalue(), "image/webp")


@drawable
def draw_candidate(workspace: int, fit: UUID, fmt: Format, settings: Settings) -> Picture:
    """A candidate's file."""
    data = _file_of(workspace, fit, fmt, settings)
    if isinstance(settings, MovingSettings):
        return Picture(data, "image/png")
    if fmt in SHOWN:
        return Picture(data, SHOWN[fmt])
    out = io.BytesIO()
    with Image.open(io.BytesIO(data)) as picture:
        picture.convert("RGBA").save(out, "PNG", compress_level=1)
    return Picture(out.getvalue(), "image/png")


@drawable
def draw_errors(workspace: int, fit: UUID, fmt: Format, settings: Settings) -> Picture:
    """Where a candidate lost most, as a veil."""
    rendered = _rendered(workspace, fit)[1]
    veil = painted(_errors(rendered.raster, _file_of(workspace, fit, fmt, settings)))
    out = io.BytesIO()
    Image.fromarray(veil).save(out, "PNG", compress_level=1)
    return Picture(out.getvalue(), "image/png")


@drawable
def look_at_candidate(workspace: int, fit: UUID, fmt: Format, settings: Settings) -> ErrorsOut:
    """A candidate's score and its worst part."""
    rendered = _rendered(workspace, fit)[1]
    data = _file_of(workspace, fit, fmt, settings)
    worst = Rect(0, 0, 1, 1) if fmt == "svg" else worst_area(_errors(rendered.raster, data))
    score = 100.0 if fmt == "svg" else rendered.raster.score(data)
    return ErrorsOut(score=score, x=worst.x, y=worst.y, width=worst.width, height=worst.height)


@drawable
def try_wish(workspace: int, fit: UUID, wish: Wish) -> CandidateOut:
    """What a wish comes to. Raises DocumentError where no file of it is under the limit."""
    opened, rendered = _rendered(workspace, fit)
    sheet = opened.resolved.sheet
    if opened.resolved.moves:
        raise DocumentError(
            "what a moving file comes to takes a search through its frames",
            advice="Fix its format alone; the file is made with it.",
        )
    choice = best_file(rendered, sheet, opened.size, Budget(TRYING_SECONDS), wish)
    if choice.best:
        found = choice.best.candidate
        return _row(CandidateRecord(**found._asdict()), sheet.max_bytes, chosen=False)
    if choice.problem == "no format":
        raise DocumentError("this place takes no such file", advice="Choose another format.")
    least = min(choice.candidates, key=lambda one: one.bytes)
    raise DocumentError(
        f"as {label_of(least.format)}, {least.settings.words}, it has {words_for_bytes(least.bytes)}, and"
        f" {words_for_bytes(sheet.max_bytes or 0)} is the limit",
        advice="Fix less, or something lighter.",
    )


def _rendered(workspace: int, fit: UUID) -> tuple[OpenFit, Rendered]:
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    looked, sources = decided(space, opened), opened.sources(preview=False)
    return opened, first_frame(looked, sources) if opened.resolved.moves else rendered_fit(looked, sources)


def _file_of(workspace: int, fit: UUID, fmt: Format, settings: Settings) -> bytes:
    """A candidate made again; of a moving one its first frame, as a PNG."""
    if not isinstance(settings, MovingSettings):
        return encoded_as(_rendered(workspace, fit)[1], fmt, settings)
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    return first_frame_as(decided(space, opened), opened.sources(preview=False), fmt, settings)


def _row(one: CandidateRecord, limit: int | None, *, chosen: bool) -> CandidateOut:
    return CandidateOut(
        format=one.format,
        label=label_of(one.format),
        settings=one.settings.model_dump(mode="json", exclude_none=True),
        words=one.settings.words,
        bytes=one.bytes,
        weight=words_for_bytes(one.bytes),
        score=one.score,
        seconds=one.seconds,
        chosen=chosen,
        under=limit is None or one.bytes <= limit,
    )


def _errors(raster: Raster, data: bytes) -> NDArray[np.float32]:
    with Image.open(io.BytesIO(data)) as opened:
        found = np.asarray(opened.convert("RGBA"))
    return local_error(_on_grey(raster.pixels), _on_grey(found))


def _on_grey(pixels: NDArray[np.uint8]) -> NDArray[np.uint8]:
    alpha = pixels[..., 3:].astype(np.float32) / 255
    return np.ascontiguousarray(np.rint(pixels[..., :3] * alpha + _GREY * (1 - alpha)).astype(np.uint8))
