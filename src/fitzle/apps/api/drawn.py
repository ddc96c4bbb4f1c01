"""What the drawing service is asked for: everything that opens or draws what people brought in, for the pages.

Each call finds its rows by their ids again; whether somebody may see them was decided by whoever asks.
"""

from __future__ import annotations

import hashlib
from base64 import b64encode
from typing import NamedTuple
from uuid import UUID

import numpy as np
from django.http import Http404

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.api.pictures import held_picture, hold_picture
from fitzle.apps.api.preparation_schemas import PreparationOut
from fitzle.apps.api.preparation_views import picture_key, preparation_view
from fitzle.apps.api.schemas import FitOut
from fitzle.apps.api.views import fit_view
from fitzle.apps.artwork.clips import best_near, frame_picture, moment, usable_clip
from fitzle.apps.artwork.library import artwork_of, early_source, shown_source
from fitzle.apps.artwork.preparing import before_steps, document_of, preparable, preparation_of, shown_stages
from fitzle.apps.deliveries.record import last_delivered
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.pieces.fits import fit_of, fits_of_piece, one_each
from fitzle.apps.pieces.opening import OpenFit, decided, open_fit, open_fits
from fitzle.apps.pieces.takes import name_of_take
from fitzle.core.artwork.steps.document import AnyStep, Preparation
from fitzle.core.artwork.steps.material import as_bitmap, natural_size
from fitzle.core.artwork.steps.proposing import Proposal, proposed
from fitzle.core.artwork.straight import straight
from fitzle.core.fit.proofs import off_the_grid, parts_alone, preview_bytes, proof_bytes, without_parts
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.screen import screen_width
from fitzle.core.preflight.legibility import contrasts_behind
from fitzle.core.render.svg import svg_of
from fitzle.core.units import Size


class Shown(NamedTuple):
    """What a proof shows: all parts, some alone, or all but some; small marks fitted to the grid or as drawn."""

    only: str = ""
    without: str = ""
    as_drawn: bool = False


@drawable
def draw_fit(workspace: int, fit: UUID, person: int, proof_width: int | None) -> FitOut:
    """A fit as it is now for a person; with a width its proof comes too, so that a change costs one request."""
    space = workspace_numbered(workspace)
    own = fit_of(space, fit)
    fits = fits_of_piece(own.piece, own.row)
    beside = open_fits(space, one_each(fits, own))
    opened = next((entry for entry in beside if entry.fit.pk == fit), None)
    if opened is None:
        raise Http404("The artwork of this fit is not there any more.")
    view = fit_view(space, opened, beside, last_delivered(space), person)
    if sum(one.placement_id == own.placement_id for one in fits) > 1:
        view.take = name_of_take(own.take)
    if proof_width:
        proof = _proof(opened, proof_width, Shown())
        view.proof = f"data:{proof.media_type};base64,{b64encode(proof.data).decode()}"
    return view


@drawable
def draw_proof(workspace: int, fit: UUID, width: int, shown: Shown) -> Picture:
    """A fit at a width of the screen."""
    space = workspace_numbered(workspace)
    return _proof(open_fit(space, fit_of(space, fit)), width, shown)


def proof_place(workspace: int, proof_key: str, width: int, shown: Shown) -> str:
    """Where the cache holds a proof."""
    which = hashlib.sha256(repr((proof_key, width, *shown)).encode()).hexdigest()
    return f"proof/{workspace}/{which}"


def _proof(opened: OpenFit, width: int, shown: Shown) -> Picture:
    """Drawn once for each state and width."""
    space = opened.fit.piece.workspace
    place = proof_place(space.pk, opened.proof_key, width, shown)
    held = held_picture(place)
    if held is None:
        plan = decided(space, opened).plan
        if shown.only:
            plan = parts_alone(plan, shown.only.split(","))
        elif shown.without:
            plan = without_parts(plan, shown.without.split(","))
        if shown.as_drawn:
            plan = off_the_grid(plan)
        width = screen_width(*plan.size, width)
        held = Picture(*proof_bytes(plan, opened.planned.sources(opened.sources(preview=True)), width))
        hold_picture(place, held)
    return held


@drawable
def read_contrasts(workspace: int, fit: UUID, part: str, colours: list[str]) -> dict[str, float]:
    """The contrast of each colour with what is really behind a part."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    sources = opened.planned.sources(opened.sources(preview=True))
    return contrasts_behind(decided(space, opened).plan, part, colours, opened.sheet, sources)


@drawable
def draw_svg(workspace: int, fit: UUID) -> Picture:
    """A fit as SVG with words as outlines."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    data = svg_of(decided(space, opened).plan, opened.planned.sources(opened.sources(preview=False)))
    return Picture(data, "image/svg+xml")


@drawable
def draw_artwork(workspace: int, artwork: UUID, width: int) -> Picture:
    """An artwork as it is prepared, at a width of the screen."""
    found = artwork_of(workspace_numbered(workspace), artwork)
    source = shown_source(found) if found.facts else early_source(found)
    width = screen_width(source.width, source.height, width)
    size = Size(width, max(1, round(width * source.height / source.width)))
    return Picture(*preview_bytes(straight(source.pixels(Rect(0, 0, source.width, source.height), size))))


@drawable
def view_preparation(workspace: int, artwork: UUID, person: int) -> PreparationOut:
    """The steps, and what each makes of the picture, for a person."""
    return preparation_view(preparable(workspace_numbered(workspace), artwork), person)


@drawable
def propose_step(workspace: int, artwork: UUID, kind: Proposal, step: str, ratio: float | None) -> AnyStep:
    """A step that a calculation proposes for the picture as it is after all steps but the one named."""
    found = preparable(workspace_numbered(workspace), artwork)
    document = document_of(preparation_of(found))
    shown = shown_stages(found, Preparation(steps=tuple(one for one in document.steps if one.id != step)))
    return proposed(kind, shown[-1].material if shown else before_steps(found), step, ratio)


@drawable
def draw_prepared(workspace: int, artwork: UUID, upto: int, width: int) -> Picture:
    """The picture after the first `upto` steps that are on, never enlarged beyond what the preview has."""
    import cv2

    found = preparable(workspace_numbered(workspace), artwork)
    shown = shown_stages(found, document_of(preparation_of(found)))
    if not 0 <= upto <= len(shown):
        raise Http404("There is no such step.")
    material = shown[upto - 1].material if upto else before_steps(found)
    across, down = natural_size(material)
    width = screen_width(across, down, width)
    bitmap = as_bitmap(material, round(width * max(1.0, down / across)))
    pixels = bitmap.pixels
    if bitmap.size.width > width:
        size = Size(width, max(1, round(width * bitmap.size.height / bitmap.size.width)))
        pixels = np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
    return Picture(*preview_bytes(pixels), picture_key(found, shown[:upto]))


@drawable
def draw_frame(workspace: int, clip: UUID, seconds: float, width: int) -> Picture:
    """The frame of a clip at a moment."""
    return Picture(*preview_bytes(frame_picture(usable_clip(workspace_numbered(workspace), clip), seconds, width)))


@drawable
def find_loop(workspace: int, clip: UUID, begin: float, end: float) -> tuple[float, float]:
    """The ends of the part near this one, and as long, that closes best."""
    return best_near(usable_clip(workspace_numbered(workspace), clip), begin, end)


@drawable
def find_frame(workspace: int, clip: UUID, seconds: float, step: int) -> float:
    """When the frame at a moment is shown, or the one after it (1) or before it (-1)."""
    return moment(usable_clip(workspace_numbered(workspace), clip), seconds, step)
