"""Deliveries: handed over, listed, downloaded."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.delivery_schemas import Deliver, DeliveredFileOut, DeliveryOut, ReadyFileOut, ReadyOut
from fitzle.apps.api.pictures import download
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.views import state_of
from fitzle.apps.deliveries.actions import deliver_all, deliver_these, on_offer
from fitzle.apps.deliveries.delivering import (
    ReadyFile,
    deliveries_of,
    delivery_of,
    file_of,
    last_delivered_keys,
    ready_files,
    zip_of,
)
from fitzle.apps.pieces.fits import fits_on_wall
from fitzle.apps.pieces.opening import open_fits
from fitzle.core.formats import format_named
from fitzle.core.units import words_for_bytes

if TYPE_CHECKING:
    from fitzle.apps.deliveries.models import Delivery

router = Router(tags=["deliveries"])


@router.get("/deliveries", response=list[DeliveryOut])
def list_deliveries(request: HttpRequest, workspace: Path[str]) -> list[DeliveryOut]:
    """All deliveries, the newest first."""
    space = workspace_to_see(request.user, workspace)
    current = {opened.fit.placement_id: opened.file_key for opened in open_fits(space, fits_on_wall(space))}
    return [_view(delivery, current) for delivery in deliveries_of(space)]


@router.get("/deliveries/ready", response=ReadyOut)
def list_ready(request: HttpRequest, workspace: Path[str], changed: bool = False) -> ReadyOut:
    """What a delivery would hand over: all that would be accepted, or with `changed` only what changed since."""
    access = access_to(request.user, workspace)
    space, offered = access.workspace, on_offer(access, changed=changed)
    delivered = last_delivered_keys(space)
    files = [_ready(ready, delivered) for ready in ready_files(space, offered)]
    filled = open_fits(space, fits_on_wall(space))
    left_out = [opened.sheet.name for opened in filled if not opened.standing(None).deliverable]
    return ReadyOut(files=files, weight=words_for_bytes(sum(file.bytes for file in files)), left_out=left_out)


@router.post("/deliveries", response={201: DeliveryOut, 422: Message})
def make_delivery(request: HttpRequest, workspace: Path[str], given: Deliver) -> Status[DeliveryOut]:
    """Hands over the files of these fits, or of all that would be accepted."""
    access = access_to(request.user, workspace)
    if given.fits is not None:
        return Status(201, _view(deliver_these(access, given.fits), {}))
    return Status(201, _view(deliver_all(access, changed=given.changed), {}))


@router.get("/deliveries/{uuid:delivery}/zip")
def delivery_zip(request: HttpRequest, workspace: Path[str], delivery: UUID) -> HttpResponseBase:
    """All files of a delivery, in folders, with a manifest."""
    space = workspace_to_see(request.user, workspace)
    found = delivery_of(space, delivery)
    name = f"{space.slug}-{found.made_at:%Y-%m-%d-%H%M}.zip"
    return download(zip_of(space, found), name, "application/zip")


@router.get("/deliveries/files/{uuid:file}")
def delivered_file(request: HttpRequest, workspace: Path[str], file: UUID) -> HttpResponseBase:
    """One delivered file under its own name."""
    found, data = file_of(workspace_to_see(request.user, workspace), file)
    return download(data, found.name, format_named(found.format).media_type)


def _ready(ready: ReadyFile, delivered: dict[UUID, str]) -> ReadyFileOut:
    opened, file = ready.opened, ready.file
    return ReadyFileOut(
        fit=opened.fit.pk, destination_name=opened.fit.placement.destination.name, placement_name=opened.sheet.name,
        folder=ready.folder, name=ready.name, format=file.format, width=file.width, height=file.height,
        bytes=file.bytes, weight=words_for_bytes(file.bytes),
        state=state_of(opened, delivered.get(opened.fit.placement_id)).state,
    )  # fmt: skip


def _view(delivery: Delivery, current: dict[UUID, str]) -> DeliveryOut:
    files = [
        DeliveredFileOut(
            id=file.pk, destination_name=file.destination_name, placement_name=file.placement_name, folder=file.folder,
            name=file.name, format=file.format, width=file.width, height=file.height, bytes=file.bytes,
            weight=words_for_bytes(file.bytes), version=file.version,
            muted=file.muted,
            out_of_date=file.placement_id in current and current[file.placement_id] != file.file_key,
        )
        for file in delivery.files.all()
    ]  # fmt: skip
    by = delivery.made_by
    return DeliveryOut(id=delivery.pk, made_at=delivery.made_at, by=(by.name or by.email) if by else "", files=files)
