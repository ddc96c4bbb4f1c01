"""The wall: all placements of a workspace, drawn to scale, each with one state."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, NamedTuple
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Query, Router

from fitzle.apps.accounts.access import workspace_to_see
from fitzle.apps.api.schemas import Shelf, Wall, WallProof
from fitzle.apps.api.views import mask_path, state_of
from fitzle.apps.artwork.preparing import being_prepared
from fitzle.apps.deliveries.record import Kept, record_of
from fitzle.apps.destinations.shelves import changes_unnoted, shelves_of
from fitzle.apps.jobs.health import notice_for_people
from fitzle.apps.pieces.fits import fits_on_wall
from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.apps.pieces.sharing import Shared, shared_files
from fitzle.core.errors import FitzleError
from fitzle.core.fit.arrangement import stance_of_all
from fitzle.core.fit.state import ShownState
from fitzle.core.geometry.scale import TALLEST_PX, shelf_scale, twin_px
from fitzle.core.preflight.demand_words import format_words, size_words
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size, words_for_weight

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Destination, Placement
    from fitzle.apps.pieces.models import Fit

router = Router(tags=["wall"])
USUAL_ROOM_PX = 592  # half of a 1280 px screen less the margins
LEAST_ROOM_PX, MOST_ROOM_PX = 200, 4000
MOST_TALL_PX = 400
Room = Annotated[int, Query(ge=LEAST_ROOM_PX, le=MOST_ROOM_PX)]
Tall = Annotated[int, Query(ge=TALLEST_PX, le=MOST_TALL_PX)]
BROKEN = "what is known of this place is damaged; other artwork can take it"
STAND_IN = SpecSheet.model_validate(
    {"fitzle_spec": 1, "name": "Damaged place", "size": {"width": 512, "height": 512}, "formats": ["png"]}
)
TYPICAL = Size(512, 512)  # stands in an empty placement of any size


@router.get("/wall", response=Wall)
def wall(
    request: HttpRequest,
    workspace: Path[str],
    room: Room = USUAL_ROOM_PX,
    alone: Room = USUAL_ROOM_PX,
    tall: Tall = TALLEST_PX,
) -> Wall:
    """All shelves, each at a scale at which it fits into a room of the screen, in px across and up.

    `alone` is the room of a shelf with a single place.
    """
    space = workspace_to_see(request.user, workspace)
    broken: list[Fit] = []
    fits = {opened.fit.placement_id: opened for opened in open_fits(space, fits_on_wall(space), broken)}
    known = _Known(
        fits=fits,
        bad={fit.placement_id for fit in broken},
        record=record_of(space),
        shared=shared_files(space),
        unnoted=changes_unnoted(space),
    )
    standing = [opened.standing(known.handed_over(place)) for place, opened in fits.items()]
    ready = [one for one in standing if one.deliverable]
    return Wall(
        workspace=space.name,
        notice=notice_for_people(),
        busy=bool(being_prepared(space)),
        shelves=[_shelf(destination, known, (room, alone, tall)) for destination in shelves_of(space)],
        deliverable=len(ready),
        changed=sum(one.changed for one in ready),
    )


class _Known(NamedTuple):
    """What is known of placements, by their ids; those that are `bad` cannot be read."""

    fits: dict[UUID, OpenFit]
    bad: set[UUID]
    record: dict[UUID, Kept]
    shared: dict[UUID, Shared]
    unnoted: dict[UUID, list[str]]

    def handed_over(self, placement: UUID) -> frozenset[str] | None:
        """The hashes of what was handed over to a place last."""
        return self.record[placement].contents if placement in self.record else None


def _shelf(destination: Destination, known: _Known, room: tuple[int, int, int]) -> Shelf:
    placements = list(destination.placements.all())
    fits = known.fits
    specs = {entry.pk: fits[entry.pk].sheet if entry.pk in fits else _spec(entry, known.bad) for entry in placements}
    sizes = {entry.pk: _size(specs[entry.pk], fits.get(entry.pk)) for entry in placements}
    several, alone, tall = room
    scale = shelf_scale(sizes.values(), several if len(placements) > 1 else alone, tall)
    proofs = [_proof(entry, specs[entry.pk], sizes[entry.pk], scale, known) for entry in placements]
    for proof in proofs:
        if proof.id in known.bad:
            proof.state, proof.why = "failed", BROKEN
        if proof.id in known.shared:
            _add_shared(proof, known.shared[proof.id])
        _add_record(proof, sheet=specs[proof.id], kept=known.record.get(proof.id))
        if proof.fit:
            proof.changed = known.unnoted.get(proof.id, [])
    return Shelf(
        id=destination.pk,
        name=destination.name,
        note=destination.note,
        help_address=destination.help_address,
        checked_on=destination.checked_on,
        wants_checking=destination.wants_checking,
        scale=scale,
        placements=proofs,
    )


def _add_record(proof: WallProof, sheet: SpecSheet, kept: Kept | None) -> None:
    """What is live there, and how many slots are taken."""
    if sheet.capacity:
        proof.slots, proof.capacity = len(kept.slots) if kept else 0, sheet.capacity
    if kept is None:
        return
    proof.handed_over = kept.last.made_at
    if kept.live:
        proof.live_since, proof.live_revision = kept.live.live_at, kept.live.piece_revision


def _add_shared(proof: WallProof, shared: Shared) -> None:
    if shared.obstacle:
        proof.parted = shared.obstacle.message
    else:
        proof.shared = [str(one.sheet.get("name", "")) for one in shared.placements if one.pk != proof.id]


def _spec(placement: Placement, bad: set[UUID]) -> SpecSheet:
    """The sheet of a place; for one that cannot be read a stand-in, and the place is one of the `bad` ones."""
    try:
        return placement.spec
    except (FitzleError, ValueError, TypeError, KeyError, AttributeError):
        bad.add(placement.pk)
        return STAND_IN


def _proof(placement: Placement, sheet: SpecSheet, size: Size, scale: int, known: _Known) -> WallProof:
    opened, delivered = known.fits.get(placement.pk), known.handed_over(placement.pk)
    shown = state_of(opened, delivered) if opened else ShownState("empty")
    record = opened.record if opened else None
    weight = record.files[0].bytes if record and record.files else None
    width, height = round(size.width / scale, 2), round(size.height / scale, 2)
    moving = record.outcome.moving if record else None
    return WallProof(
        seconds=moving.seconds if moving else None,
        file_key=opened.file_key[:16] if opened and moving else "",
        id=placement.pk,
        name=sheet.name,
        kind=sheet.kind,
        size=f"{size.width} × {size.height} px" if opened else size_words(sheet),
        width=size.width,
        height=size.height,
        drawn_width=width,
        drawn_height=height,
        twin_px=twin_px(size.width, size.height, scale),
        max_bytes=sheet.max_bytes,
        formats=format_words(sheet),
        ground=sheet.grounds[0] if sheet.grounds else "#ffffff",
        mask=mask_path(sheet, size),
        state=shown.state,
        why=shown.why,
        bytes=weight,
        weight=words_for_weight(weight, sheet.max_bytes),
        fit=opened.fit.pk if opened else None,
        key=opened.proof_key if opened else None,
        stance=stance_of_all(opened.stances) if opened and opened.document.composed else None,
    )


def _size(sheet: SpecSheet, opened: OpenFit | None) -> Size:
    return opened.size if opened else delivered_size(sheet, TYPICAL, vector=True)
