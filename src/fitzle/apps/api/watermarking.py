"""Watermarks over many pictures: begun, looked at, made, saved."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import File, Path, Router, Schema, Status
from ninja.files import UploadedFile
from pydantic import Field

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.drawn_watermarks import draw_marked
from fitzle.apps.api.pictures import download, immutable_picture, streamed, width_allowed
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.watermark_views import WatermarkBrief, WatermarkOut, brief_view, drawn_state, watermark_view
from fitzle.apps.deliveries.packing import Packed, zip_pieces
from fitzle.apps.pieces.making import made_bytes
from fitzle.apps.watermarking import actions
from fitzle.apps.watermarking.batches import (
    file_names,
    picture_of,
    pictures_of,
    watermarking_of,
    watermarkings_of,
)
from fitzle.core.formats import format_of_extension, media_type_of
from fitzle.core.watermark.placing import Stamp

router = Router(tags=["watermarks"])
MOST_LISTED = 50


class WatermarkBegin(Schema):
    """The artwork that becomes a watermark."""

    mark: UUID


class WatermarkChange(Schema):
    """What is to be different; what is left out stays."""

    mark: UUID | None = None
    stamp: Stamp | None = None
    keep_details: bool | None = None


class WatermarkStart(Schema):
    """Where the pictures go: into a folder of the server, or, without one, into a ZIP."""

    folder: Annotated[str, Field(max_length=120)] = ""


@router.get("/watermarks", response=list[WatermarkBrief])
def list_watermarks(request: HttpRequest, workspace: Path[str]) -> list[WatermarkBrief]:
    """The newest ones, the newest first."""
    space = workspace_to_see(request.user, workspace)
    return [brief_view(one) for one in watermarkings_of(space, MOST_LISTED)]


@router.post("/watermarks", response={201: WatermarkOut, 422: Message})
def begin_watermark(request: HttpRequest, workspace: Path[str], given: WatermarkBegin) -> Status[WatermarkOut]:
    """A watermark of an artwork: the one that its maker has not ended yet, or a new one."""
    return Status(201, watermark_view(actions.begin_watermarking(access_to(request.user, workspace), given.mark)))


@router.get("/watermarks/{uuid:watermark}", response=WatermarkOut)
def read_watermark(request: HttpRequest, workspace: Path[str], watermark: UUID) -> WatermarkOut:
    """One of them, with how far each picture is."""
    return watermark_view(watermarking_of(workspace_to_see(request.user, workspace), watermark))


@router.patch("/watermarks/{uuid:watermark}", response={200: WatermarkOut, 422: Message})
def change_watermark(
    request: HttpRequest, workspace: Path[str], watermark: UUID, given: WatermarkChange
) -> WatermarkOut:
    """Another mark, corner, size, distance or opacity."""
    return watermark_view(
        actions.change_watermarking(
            access_to(request.user, workspace),
            watermark,
            mark=given.mark,
            stamp=given.stamp,
            keep_details=given.keep_details,
        )
    )


@router.delete("/watermarks/{uuid:watermark}", response={204: None, 422: Message})
def delete_watermark(request: HttpRequest, workspace: Path[str], watermark: UUID) -> Status[None]:
    """Takes it away with its pictures."""
    actions.delete_watermarking(access_to(request.user, workspace), watermark)
    return Status(204, None)


@router.post("/watermarks/{uuid:watermark}/pictures", response={202: WatermarkOut, 422: Message})
def add_pictures(
    request: HttpRequest, workspace: Path[str], watermark: UUID, files: File[list[UploadedFile]]
) -> Status[WatermarkOut]:
    """Keeps pictures and clips that are to be marked, and has them looked at."""
    access = access_to(request.user, workspace)
    for file in files:
        actions.add_picture(access, watermark, file.name or "unnamed", file.chunks())
    return Status(202, watermark_view(watermarking_of(access.workspace, watermark)))


@router.delete("/watermarks/{uuid:watermark}/pictures/{uuid:picture}", response={204: None, 422: Message})
def remove_marked(request: HttpRequest, workspace: Path[str], watermark: UUID, picture: UUID) -> Status[None]:
    """Takes a picture out again."""
    access = access_to(request.user, workspace)
    picture_of(access.workspace, watermark, picture)
    actions.remove_picture(access, watermark, picture)
    return Status(204, None)


@router.post("/watermarks/{uuid:watermark}/start", response={200: WatermarkOut, 422: Message})
def start_watermark(request: HttpRequest, workspace: Path[str], watermark: UUID, given: WatermarkStart) -> WatermarkOut:
    """Has all pictures marked that are not yet; takes up what failed or was cancelled."""
    return watermark_view(actions.start_watermarking(access_to(request.user, workspace), watermark, given.folder))


@router.post("/watermarks/{uuid:watermark}/cancel", response=WatermarkOut)
def cancel_watermark(request: HttpRequest, workspace: Path[str], watermark: UUID) -> WatermarkOut:
    """Stops before the next picture."""
    return watermark_view(actions.cancel_watermarking(access_to(request.user, workspace), watermark))


@router.get("/watermarks/{uuid:watermark}/pictures/{uuid:picture}/proof")
def marked_proof(
    request: HttpRequest, workspace: Path[str], watermark: UUID, picture: UUID, width: int = 900, key: str = ""
) -> HttpResponse:
    """A picture with its mark, at most so wide and high."""
    space = workspace_to_see(request.user, workspace)
    found = picture_of(space, watermark, picture)
    state = drawn_state(watermarking_of(space, watermark), found)
    return immutable_picture(*draw_marked.ask(state, space.pk, watermark, picture, width_allowed(width)))


@router.get("/watermarks/{uuid:watermark}/pictures/{uuid:picture}/file")
def marked_file(request: HttpRequest, workspace: Path[str], watermark: UUID, picture: UUID) -> HttpResponseBase:
    """A marked picture under its own name."""
    space = workspace_to_see(request.user, workspace)
    found = picture_of(space, watermark, picture)
    if not found.sha256:
        raise Http404("This picture is not marked yet.")
    name = file_names(pictures_of(watermarking_of(space, watermark)))[found.pk]
    media_type = media_type_of(format_of_extension(found.extension) or found.extension)
    return download(made_bytes(space, found.sha256), name, media_type)


@router.get("/watermarks/{uuid:watermark}/zip")
def marked_zip(request: HttpRequest, workspace: Path[str], watermark: UUID) -> HttpResponseBase:
    """All pictures that are marked."""
    space = workspace_to_see(request.user, workspace)
    found = watermarking_of(space, watermark)
    pictures = pictures_of(found)
    names = file_names(pictures)
    packed = [Packed(names[one.pk], one.sha256) for one in pictures if one.sha256]
    if not packed:
        raise Http404("No picture is marked yet.")
    return streamed(zip_pieces(space, packed), f"{space.slug}-marked.zip", "application/zip")
