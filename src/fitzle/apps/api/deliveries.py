"""Deliveries: what can be handed over, handed over, followed, downloaded, and the record of what is live."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.http import Http404, HttpRequest
from django.http.response import HttpResponseBase
from ninja import Path, Query, Router, Status

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.delivery_schemas import (
    Deliver,
    DeliveredFileOut,
    DeliveryOut,
    EmojiOut,
    Fields,
    HistoryEntry,
    NotReady,
    ReadyOut,
    RecordShelf,
    SayLive,
)
from fitzle.apps.api.delivery_views import SHOWN, Current, delivery_view, entry_view, file_view, ready_view, record_view
from fitzle.apps.api.pictures import download, immutable_picture, sandboxed, streamed
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.views import state_of
from fitzle.apps.deliveries import actions
from fitzle.apps.deliveries.actions import How, on_offer
from fitzle.apps.deliveries.documents import document_of
from fitzle.apps.deliveries.handing_over import folders_of
from fitzle.apps.deliveries.packing import Packed, zip_pieces
from fitzle.apps.deliveries.planning import ready_fits
from fitzle.apps.deliveries.record import (
    delivered_file,
    deliveries_of,
    delivery_of,
    files_with,
    history_of,
    last_delivered,
    record_of,
)
from fitzle.apps.destinations.shelves import placement_of, placements_of, shelves_of
from fitzle.apps.pieces.actions import fill_fields
from fitzle.apps.pieces.fits import fits_on_wall
from fitzle.apps.pieces.making import made_bytes
from fitzle.apps.pieces.opening import open_fits
from fitzle.apps.uploading.connections import targets_of
from fitzle.core.encode.png import plain_png
from fitzle.core.formats import PLAYED, media_type_of
from fitzle.core.handover.document import NAME, delivery_text
from fitzle.core.handover.emoji_names import find_emoji
from fitzle.core.handover.handing import Handing
from fitzle.core.motion.played import frames_at, plays
from fitzle.core.units import words_for_bytes

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

router = Router(tags=["deliveries"])
MOST_LISTED = 50


@router.get("/deliveries", response=list[DeliveryOut])
def list_deliveries(request: HttpRequest, workspace: Path[str]) -> list[DeliveryOut]:
    """The newest deliveries, the newest first."""
    space = workspace_to_see(request.user, workspace)
    current = _current(space)
    return [delivery_view(delivery, current) for delivery in deliveries_of(space, MOST_LISTED)]


@router.get("/deliveries/ready", response=ReadyOut)
def list_ready(request: HttpRequest, workspace: Path[str], changed: bool = False, flat: bool = False) -> ReadyOut:
    """What a delivery would hand over: all that would be accepted, or with `changed` only what changed since."""
    access = access_to(request.user, workspace)
    space, delivered = access.workspace, last_delivered(access.workspace)
    fits = [
        ready_view(ready, delivered.get(ready.opened.fit.placement_id))
        for ready in ready_fits(space, on_offer(access, changed=changed), flat=flat)
    ]
    targets = targets_of(placements_of(space, [fit.placement for fit in fits]))
    for fit in fits:
        fit.upload = targets.get(fit.placement, "")
    filled = [opened for opened in open_fits(space, fits_on_wall(space)) if not opened.standing(None).deliverable]
    return ReadyOut(
        fits=fits,
        weight=words_for_bytes(sum(file.bytes for fit in fits for file in fit.files)),
        changed=sum(fit.changed for fit in fits),
        left_out=[NotReady(name=opened.sheet.name, why=state_of(opened, None).why) for opened in filled],
        folders=folders_of(space),
        uploads=sorted(set(targets.values())),
    )


@router.post("/deliveries", response={201: DeliveryOut, 422: Message})
def make_delivery(request: HttpRequest, workspace: Path[str], given: Deliver) -> Status[DeliveryOut]:
    """Hands over the files of these fits, or of all that would be accepted; a worker works through them."""
    access = access_to(request.user, workspace)
    how = How(given.way, given.folder, given.flat)
    if given.fits is not None:
        made = actions.deliver_these(access, given.fits, how)
    else:
        made = actions.deliver_all(access, changed=given.changed, how=how)
    return Status(201, delivery_view(made, {}))


@router.get("/deliveries/record", response=list[RecordShelf])
def read_record(request: HttpRequest, workspace: Path[str]) -> list[RecordShelf]:
    """What is live where, since when, and what is out of date, shelf by shelf."""
    space = workspace_to_see(request.user, workspace)
    known, current = record_of(space), _current(space)
    files = files_with(space, [row.id for kept in known.values() for row in (kept.last, kept.live) if row])
    shelves = [
        RecordShelf(
            name=shelf.name,
            places=[
                record_view(one, known[one.pk], files, current) for one in shelf.placements.all() if one.pk in known
            ],
        )
        for shelf in shelves_of(space)
    ]
    return [shelf for shelf in shelves if shelf.places]


@router.get("/deliveries/record/{uuid:placement}", response=list[HistoryEntry])
def read_history(request: HttpRequest, workspace: Path[str], placement: UUID) -> list[HistoryEntry]:
    """What was handed over to a place, the newest first."""
    space = workspace_to_see(request.user, workspace)
    placement_of(space, placement)
    current = _current(space)
    return [entry_view(file, current) for file in history_of(space, placement)]


@router.get("/deliveries/{uuid:delivery}", response=DeliveryOut)
def read_delivery(request: HttpRequest, workspace: Path[str], delivery: UUID) -> DeliveryOut:
    """One delivery with how far each file is."""
    space = workspace_to_see(request.user, workspace)
    return delivery_view(delivery_of(space, delivery), _current(space))


@router.post("/deliveries/{uuid:delivery}/cancel", response=DeliveryOut)
def cancel_delivery(request: HttpRequest, workspace: Path[str], delivery: UUID) -> DeliveryOut:
    """Stops a delivery before its next file."""
    return delivery_view(actions.cancel_delivery(access_to(request.user, workspace), delivery), {})


@router.post("/deliveries/{uuid:delivery}/again", response={200: DeliveryOut, 422: Message})
def go_on_with_delivery(request: HttpRequest, workspace: Path[str], delivery: UUID) -> DeliveryOut:
    """Takes up what failed or was cancelled."""
    return delivery_view(actions.go_on_with(access_to(request.user, workspace), delivery), {})


@router.get("/deliveries/{uuid:delivery}/zip")
def delivery_zip(request: HttpRequest, workspace: Path[str], delivery: UUID) -> HttpResponseBase:
    """All files of a delivery that were handed over, in their folders, with delivery.json."""
    space = workspace_to_see(request.user, workspace)
    found = delivery_of(space, delivery)
    document = document_of(found)
    packed = [Packed(file.file, file.sha256) for file in document.files]
    name = f"{space.slug}-{found.made_at:%Y-%m-%d-%H%M}.zip"
    return streamed(zip_pieces(space, packed, {NAME: delivery_text(document)}), name, "application/zip")


@router.get("/deliveries/files/{uuid:file}")
def read_file(request: HttpRequest, workspace: Path[str], file: UUID) -> HttpResponseBase:
    """One delivered file under its own name."""
    space = workspace_to_see(request.user, workspace)
    found = delivered_file(space, file)
    return download(made_bytes(space, found.sha256), found.name, media_type_of(found.format))


@router.get("/deliveries/files/{uuid:file}/picture")
def file_picture(request: HttpRequest, workspace: Path[str], file: UUID, playing: bool = False) -> HttpResponseBase:
    """A delivered file, to be looked at; of one that moves the first frame, unless it is to play."""
    space = workspace_to_see(request.user, workspace)
    found = delivered_file(space, file)
    if found.format not in SHOWN:
        raise Http404("Browsers show no picture of this file.")
    data = made_bytes(space, found.sha256)
    if not playing and found.format in PLAYED and plays(data):
        return immutable_picture(plain_png(next(frames_at(data, [0.0]))), media_type_of("png"))
    return sandboxed(immutable_picture(data, media_type_of(found.format)))


@router.put("/deliveries/files/{uuid:file}/live", response=DeliveredFileOut)
def say_live(request: HttpRequest, workspace: Path[str], file: UUID, given: SayLive) -> DeliveredFileOut:
    """Notes that a file is seen where it was handed over to, or was taken down there."""
    access = access_to(request.user, workspace)
    return file_view(actions.say_live(access, file, given.live), _current(access.workspace))


@router.post("/deliveries/files/{uuid:file}/back", response={201: DeliveryOut, 422: Message})
def take_back(request: HttpRequest, workspace: Path[str], file: UUID) -> Status[DeliveryOut]:
    """Hands an earlier file over once more, byte for byte."""
    return Status(201, delivery_view(actions.take_back(access_to(request.user, workspace), file), {}))


@router.put("/fits/{uuid:fit}/fields", response={204: None, 422: Message})
def fill_in(request: HttpRequest, workspace: Path[str], fit: UUID, given: Fields) -> Status[None]:
    """Keeps what the upload form is told."""
    fill_fields(access_to(request.user, workspace), fit, given.values, given.alternative_text)
    return Status(204, None)


@router.put("/places/{uuid:placement}/handing", response={204: None, 422: Message})
def remember_handing(request: HttpRequest, workspace: Path[str], placement: UUID, given: Handing) -> Status[None]:
    """Remembers with a place what replacements are called, and which variants go with its file."""
    actions.remember_handing(access_to(request.user, workspace), placement, given)
    return Status(204, None)


@router.get("/emoji", response=list[EmojiOut])
def list_emoji(request: HttpRequest, workspace: Path[str], words: Query[str] = "") -> list[EmojiOut]:
    """Standard emoji whose names hold these words."""
    workspace_to_see(request.user, workspace)
    return [EmojiOut(text=one.text, name=one.name) for one in find_emoji(words[:80])]


def _current(space: Workspace) -> Current:
    """The hashes of what stands in each place now; without those whose files are still being made."""
    opened = open_fits(space, fits_on_wall(space))
    return {one.fit.placement_id: one.record.contents for one in opened if one.record and one.record.files}
