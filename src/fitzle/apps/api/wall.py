"""The wall: all placements of a workspace, drawn to scale, each with one state."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router

from fitzle.apps.accounts.access import workspace_to_see
from fitzle.apps.api.shapes import Shelf, Wall, WallProof
from fitzle.apps.api.views import state_of
from fitzle.apps.deliveries.delivering import deliverable, last_delivered_keys
from fitzle.apps.destinations.shelves import shelves_of
from fitzle.apps.pieces.fits import fits_on_wall
from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.core.geometry.scale import shelf_scale, twin_px
from fitzle.core.preflight.demands import format_words, size_words
from fitzle.core.spec.sheet import CircleCut, RoundedCut, SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size

router = Router(tags=["wall"])
SHELF_ROOM_PX = 592  # half of a 1280 px screen less the margins
TYPICAL = Size(512, 512)  # stands in an empty placement of any size


@router.get("/wall", response=Wall)
def wall(request: HttpRequest, workspace: Path[str]) -> Any:
    """All shelves."""
    space = workspace_to_see(request.user, workspace)
    fits = {opened.fit.placement_id: opened for opened in open_fits(space, fits_on_wall(space))}
    delivered = last_delivered_keys(space)
    ready = [opened for opened in fits.values() if deliverable(opened)]
    return Wall(
        workspace=space.name,
        shelves=[_shelf(destination, fits, delivered) for destination in shelves_of(space)],
        deliverable=len(ready),
        changed=sum(delivered.get(opened.fit.placement_id) != opened.key for opened in ready),
    )


def _shelf(destination: Any, fits: dict[UUID, OpenFit], delivered: dict[UUID, str]) -> Shelf:
    placements = list(destination.placements.all())
    sizes = {entry.pk: _size(entry.spec, fits.get(entry.pk)) for entry in placements}
    scale = shelf_scale(sizes.values(), SHELF_ROOM_PX)
    proofs = [_proof(entry, sizes[entry.pk], scale, fits.get(entry.pk), delivered) for entry in placements]
    return Shelf(id=destination.pk, name=destination.name, scale=scale, placements=proofs)


def _proof(placement: Any, size: Size, scale: int, opened: OpenFit | None, delivered: dict[UUID, str]) -> WallProof:
    sheet = placement.spec
    state, why = state_of(opened, delivered.get(placement.pk)) if opened else ("empty", "")
    result = opened.fit.result if opened and opened.fit.result_key == opened.key else None
    return WallProof(
        id=placement.pk,
        name=sheet.name,
        size=f"{size.width} × {size.height} px" if opened else size_words(sheet),
        width=size.width,
        height=size.height,
        drawn_width=round(size.width / scale, 2),
        drawn_height=round(size.height / scale, 2),
        twin_px=twin_px(size.width, size.height, scale),
        max_bytes=sheet.max_bytes,
        formats=format_words(sheet),
        ground=sheet.grounds[0] if sheet.grounds else "#ffffff",
        cut=sheet.cut.shape if sheet.cut else None,
        radius=_radius(sheet),
        state=state,
        why=why,
        bytes=result["file"]["bytes"] if result and result["file"] else None,
        fit=opened.fit.pk if opened else None,
        key=opened.key if opened else None,
    )


def _size(sheet: SpecSheet, opened: OpenFit | None) -> Size:
    return opened.planned.plan.size if opened else delivered_size(sheet, TYPICAL, vector=True)


def _radius(sheet: SpecSheet) -> float:
    """The corner radius of the cut in fractions of the short side."""
    if isinstance(sheet.cut, CircleCut):
        return 0.5
    return sheet.cut.radius if isinstance(sheet.cut, RoundedCut) else 0.0
