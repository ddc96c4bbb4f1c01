"""The record on its way out of a workspace and into another one, with the files that were handed over."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import datetime
from typing import TYPE_CHECKING, Annotated

from pydantic import BaseModel, Field

from fitzle.apps.deliveries.models import DONE, DeliveredFile, Delivery

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace
    from fitzle.apps.destinations.models import Placement

Side = Annotated[int, Field(ge=0, le=100_000)]
Words = Annotated[str, Field(max_length=120)]


class PortableFile(BaseModel):
    """A file that was handed over; `placement` is the slug of its place, where there still is one."""

    placement: Annotated[str, Field(max_length=80)] | None = None
    destination_name: Words
    placement_name: Words
    file_key: Annotated[str, Field(pattern=r"^[0-9a-f]{32}$")]
    folder: Annotated[str, Field(max_length=160, pattern=r"^(?:[^/\\.][^/\\]*(?:/[^/\\.][^/\\]*)*)?$")]
    name: Annotated[str, Field(min_length=1, max_length=255, pattern=r"^[^/\\]*$")]
    format: Annotated[str, Field(max_length=20)]
    width: Side
    height: Side
    bytes: Annotated[int, Field(ge=0)]
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    version: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    variant: Annotated[str, Field(max_length=20)] = ""
    inside: bool = False
    score: float | None = None
    subject: Words = ""
    piece_revision: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    sheet_revision: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    fields: Annotated[dict[Words, Annotated[str, Field(max_length=5000)]], Field(max_length=50)] = {}
    live_at: datetime | None = None
    down_at: datetime | None = None
    muted: Annotated[list[dict[str, Annotated[str, Field(max_length=1000)]]], Field(max_length=50)] = []


class PortableDelivery(BaseModel):
    """Files handed over together."""

    made_at: datetime
    files: Annotated[list[PortableFile], Field(max_length=5000)] = []


def portable_deliveries(workspace: Workspace) -> list[PortableDelivery]:
    """The record, the oldest delivery first."""
    found = Delivery.objects.filter(workspace=workspace).prefetch_related("files__placement").order_by("made_at")
    return [
        PortableDelivery(made_at=one.made_at, files=[_portable(file) for file in one.files.all() if file.state == DONE])
        for one in found
    ]


def _portable(file: DeliveredFile) -> PortableFile:
    values = {name: getattr(file, name) for name in PortableFile.model_fields if name != "placement"}
    return PortableFile(placement=file.placement.slug if file.placement else None, **values)


def names_of(deliveries: list[PortableDelivery]) -> Iterator[tuple[str, PortableFile]]:
    """Each file with its path in an export: the moment of its delivery, its folder, its name."""
    for one in deliveries:
        for file in one.files:
            path = f"{file.folder}/{file.name}" if file.folder else file.name
            yield f"record/{one.made_at:%Y-%m-%d-%H%M%S}/{path}", file


def add_portable_deliveries(
    workspace: Workspace, user: User, deliveries: list[PortableDelivery], placements: Mapping[str, Placement]
) -> None:
    """Adds the record."""
    for one in deliveries:
        row = Delivery.objects.create(workspace=workspace, made_by=user)
        Delivery.objects.filter(pk=row.pk).update(made_at=one.made_at)
        DeliveredFile.objects.bulk_create(
            DeliveredFile(
                delivery=row,
                placement=placements.get(file.placement or ""),
                **file.model_dump(exclude={"placement"}),
            )
            for file in one.files
        )
