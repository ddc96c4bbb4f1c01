"""Connections of destinations with storages of one's own, and what a destination shows after an upload."""

from __future__ import annotations

import io
from typing import Annotated
from uuid import UUID

from django.http import Http404, HttpRequest
from django.http.response import HttpResponseBase
from ninja import Path, Router, Schema, Status
from PIL import Image, UnidentifiedImageError
from pydantic import Field

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.pictures import keyed_picture
from fitzle.apps.api.schemas import Message
from fitzle.apps.deliveries.record import delivered_file
from fitzle.apps.drawing.calls import Picture
from fitzle.apps.uploading.connections import AdapterName, Opening, connect, connection_of, disconnect
from fitzle.apps.uploading.sending import shown_now

router = Router(tags=["connections"])
SHOWN = {"PNG": "image/png", "JPEG": "image/jpeg", "WEBP": "image/webp", "GIF": "image/gif"}


class ConnectionOut(Schema):
    """A connection; its secret is never given out."""

    adapter: str
    address: str
    folder: str
    account: str


class ConnectionIn(Schema):
    """What a connection is opened with: the address of the storage, bucket/prefix, the key and its secret."""

    adapter: AdapterName = "s3"
    address: Annotated[str, Field(min_length=8, max_length=500)]
    folder: Annotated[str, Field(min_length=1, max_length=300)]
    account: Annotated[str, Field(max_length=200)] = ""
    secret: Annotated[str, Field(max_length=500)] = ""


@router.get("/destinations/{uuid:destination}/connection", response={200: ConnectionOut, 204: None})
def read_connection(request: HttpRequest, workspace: Path[str], destination: UUID) -> ConnectionOut | Status[None]:
    """How files get to a destination; nothing where it has no connection."""
    found = connection_of(access_to(request.user, workspace), destination)
    if found is None:
        return Status(204, None)
    return ConnectionOut(adapter=found.adapter, address=found.address, folder=found.folder, account=found.account)


@router.put("/destinations/{uuid:destination}/connection", response={204: None, 422: Message})
def save_connection(request: HttpRequest, workspace: Path[str], destination: UUID, given: ConnectionIn) -> Status[None]:
    """Connects a destination with a storage."""
    opening = Opening(given.adapter, given.address, given.folder, given.account, given.secret)
    connect(access_to(request.user, workspace), destination, opening)
    return Status(204, None)


@router.delete("/destinations/{uuid:destination}/connection", response={204: None})
def end_connection(request: HttpRequest, workspace: Path[str], destination: UUID) -> Status[None]:
    """Takes a connection away."""
    disconnect(access_to(request.user, workspace), destination)
    return Status(204, None)


@router.get("/deliveries/files/{uuid:file}/shown", response={422: Message})
def read_shown(request: HttpRequest, workspace: Path[str], file: UUID) -> HttpResponseBase:
    """What the destination shows of an uploaded file now."""
    found = delivered_file(workspace_to_see(request.user, workspace), file)
    data = shown_now(found.placement, found.answer) if found.placement else None
    try:
        kind = Image.open(io.BytesIO(data)).format if data else None
    except (UnidentifiedImageError, OSError, ValueError):
        kind = None
    if data is None or kind not in SHOWN:
        raise Http404("The destination shows no picture of it.")
    return keyed_picture(Picture(data, SHOWN[kind]), "")
