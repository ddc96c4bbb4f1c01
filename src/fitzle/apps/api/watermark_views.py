"""From watermarks over pictures to the shapes of the API."""

from __future__ import annotations

import hashlib
from collections import Counter
from datetime import datetime
from typing import TYPE_CHECKING, Any
from uuid import UUID

from ninja import Schema

from fitzle.apps.deliveries.handing_over import folders_of
from fitzle.apps.watermarking.actions import MOST_PICTURES
from fitzle.apps.watermarking.batches import file_names, pictures_of, stamp_of, versions_of
from fitzle.core.units import words_for_bytes
from fitzle.core.watermark.placing import LEAST_SEEN, Stamp

if TYPE_CHECKING:
    from fitzle.apps.artwork.models import Artwork
    from fitzle.apps.watermarking.models import MarkedPicture, Watermarking


class MarkVersion(Schema):
    """A version of the mark; `key` changes with how it looks."""

    id: UUID
    name: str
    key: str


class MarkedOut(Schema):
    """One picture: how its mark stands out (to 1), which version of the mark it gets, and what was made of it.

    `key` changes whenever its proof does. `contrast` is null until it was looked at.
    """

    id: UUID
    name: str
    state: str
    message: str
    width: int
    height: int
    clip: bool
    weight: str
    contrast: float | None
    hardly_seen: bool
    version: int
    made_as: str
    made_weight: str
    key: str


class WatermarkBrief(Schema):
    """A watermark in the list."""

    id: UUID
    made_at: datetime
    by: str
    state: str
    mark_name: str
    pictures: int
    made: int
    failed: int


class WatermarkOut(WatermarkBrief):
    """All of it. `weakest` and `strongest` are the pictures whose mark stands out least and most."""

    mark: UUID | None
    versions: list[MarkVersion]
    stamp: Stamp
    keep_details: bool
    folder: str
    folders: list[str]
    most: int
    reading: int
    to_mark: int
    hardly_seen: int
    least_seen: float
    weakest: UUID | None
    strongest: UUID | None
    made_weight: str
    entries: list[MarkedOut]


def brief_view(watermarking: Watermarking) -> WatermarkBrief:
    """A watermark in the list."""
    counts = Counter(watermarking.pictures.order_by().values_list("state", flat=True))
    return WatermarkBrief(**_brief(watermarking, counts))


def watermark_view(watermarking: Watermarking) -> WatermarkOut:
    """A watermark with all its pictures."""
    pictures, versions = pictures_of(watermarking), versions_of(watermarking)
    counts = Counter(picture.state for picture in pictures)
    told = [picture for picture in pictures if picture.contrast is not None and picture.state != "failed"]
    ranked = sorted(told, key=_contrast)
    names, state = file_names(pictures), _state(watermarking, versions)
    return WatermarkOut(
        **_brief(watermarking, counts),
        mark=watermarking.mark_id,
        versions=[MarkVersion(id=one.pk, name=one.name, key=one.content.sha256[:16]) for one in versions],
        stamp=stamp_of(watermarking),
        keep_details=watermarking.keep_details,
        folder=watermarking.folder,
        folders=folders_of(watermarking.workspace),
        most=MOST_PICTURES,
        reading=counts["reading"],
        to_mark=sum(picture.state != "done" and picture.width > 0 for picture in pictures),
        hardly_seen=sum(_contrast(picture) < LEAST_SEEN for picture in told),
        least_seen=LEAST_SEEN,
        weakest=ranked[0].pk if ranked else None,
        strongest=ranked[-1].pk if len(ranked) > 1 else None,
        made_weight=words_for_bytes(sum(picture.bytes for picture in pictures)),
        entries=[_picture(picture, names[picture.pk], state) for picture in pictures],
    )


def drawn_state(watermarking: Watermarking, picture: MarkedPicture) -> str:
    """A text that differs whenever a picture would look different with its mark."""
    return f"{picture.original}/{_state(watermarking, versions_of(watermarking))}"


def _state(watermarking: Watermarking, versions: list[Artwork]) -> str:
    marks = [one.content.sha256 for one in versions]
    return hashlib.sha256(repr((marks, sorted(watermarking.stamp.items()))).encode()).hexdigest()


def _brief(watermarking: Watermarking, counts: Counter[str]) -> dict[str, Any]:
    by = watermarking.made_by
    return {
        "id": watermarking.pk, "made_at": watermarking.made_at, "by": (by.name or by.email) if by else "",
        "state": watermarking.state, "mark_name": watermarking.mark.name if watermarking.mark else "",
        "pictures": sum(counts.values()), "made": counts["done"], "failed": counts["failed"],
    }  # fmt: skip


def _contrast(picture: MarkedPicture) -> float:
    return picture.contrast if picture.contrast is not None else 1.0


def _picture(picture: MarkedPicture, name: str, state: str) -> MarkedOut:
    return MarkedOut(
        id=picture.pk, name=picture.name, state=picture.state, message=picture.message, width=picture.width,
        height=picture.height, clip=picture.clip, weight=words_for_bytes(picture.original_bytes),
        contrast=picture.contrast, hardly_seen=picture.contrast is not None and picture.contrast < LEAST_SEEN,
        version=picture.version, made_as=name if picture.sha256 else "",
        made_weight=words_for_bytes(picture.bytes) if picture.sha256 else "",
        key=f"{picture.original[:8]}-{state[:12]}",
    )  # fmt: skip
