"""Deliveries: handed over, listed, downloaded."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import workspace_to_change, workspace_to_see
from fitzle.apps.api.pictures import download
from fitzle.apps.api.shapes import Deliver, DeliveredFileOut, DeliveryOut, Message
from fitzle.apps.deliveries.delivering import (
    deliver,
    deliverable,
    deliveries_of,
    delivery_of,
    file_of,
    last_delivered_keys,
    zip_of,
)
from fitzle.apps.pieces.fits import fit_of, fits_on_wall
from fitzle.apps.pieces.opening import open_fits

router = Router(tags=["deliveries"])
MEDIA_TYPES = {
    "png": "image/png",
    "jpeg": "image/jpeg",
    "webp": "image/webp",
    "bmp": "image/bmp",
    "ico": "image/x-icon",
}


@router.get("/deliveries", response=list[DeliveryOut])
def list_deliveries(request: HttpRequest, workspace: Path[str]) -> Any:
    """All deliveries, the newest first."""
    space = workspace_to_see(request.user, workspace)
    current = {opened.fit.placement_id: opened.key for opened in open_fits(space, fits_on_wall(space))}
    return [_view(delivery, current) for delivery in deliveries_of(space)]


@router.post("/deliveries", response={201: DeliveryOut, 422: Message})
def make_delivery(request: HttpRequest, workspace: Path[str], given: Deliver) -> Any:
    """Hands over the files of these fits, or of all that would be accepted."""
    space = workspace_to_change(request.user, workspace)
    if given.fits is not None:
        chosen = open_fits(space, [fit_of(space, fit) for fit in given.fits])
    else:
        delivered = last_delivered_keys(space)
        chosen = [
            opened
            for opened in open_fits(space, fits_on_wall(space))
            if deliverable(opened) and not (given.changed and delivered.get(opened.fit.placement_id) == opened.key)
        ]
    delivery = deliver(space, request.user, chosen)
    return Status(201, _view(delivery, {}))


@router.get("/deliveries/{uuid:delivery}/zip")
def delivery_zip(request: HttpRequest, workspace: Path[str], delivery: UUID) -> HttpResponse:
    """All files of a delivery, in folders, with a manifest."""
    space = workspace_to_see(request.user, workspace)
    found = delivery_of(space, delivery)
    name = f"{space.slug}-{found.made_at:%Y-%m-%d-%H%M}.zip"
    return download(zip_of(space, found), name, "application/zip")


@router.get("/deliveries/files/{uuid:file}")
def delivered_file(request: HttpRequest, workspace: Path[str], file: UUID) -> HttpResponse:
    """One delivered file under its own name."""
    found, data = file_of(workspace_to_see(request.user, workspace), file)
    return download(data, found.name, MEDIA_TYPES.get(found.format, "application/octet-stream"))


def _view(delivery: Any, current: dict[UUID, str]) -> DeliveryOut:
    files = [
        DeliveredFileOut(
            id=file.pk, destination_name=file.destination_name, placement_name=file.placement_name, folder=file.folder,
            name=file.name, format=file.format, width=file.width, height=file.height, bytes=file.bytes,
            version=file.version, out_of_date=current.get(file.placement_id, file.fit_key) != file.fit_key,
        )
        for file in delivery.files.all()
    ]  # fmt: skip
    by = delivery.made_by
    return DeliveryOut(id=delivery.pk, made_at=delivery.made_at, by=(by.name or by.email) if by else "", files=files)
