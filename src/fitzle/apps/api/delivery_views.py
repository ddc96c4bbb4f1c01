"""From deliveries and the record to the shapes of the API."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Any, cast
from uuid import UUID

from fitzle.apps.api.delivery_schemas import (
    DeliveredFileOut,
    DeliveryOut,
    FieldOut,
    HistoryEntry,
    NamedFile,
    ReadyFitOut,
    RecordPlace,
    VariantOut,
)
from fitzle.apps.api.views import Delivered, state_of
from fitzle.apps.deliveries.planning import ReadyFile, ReadyFit
from fitzle.apps.deliveries.record import Kept, was_handed_over
from fitzle.apps.destinations.shelves import handing_of
from fitzle.core.colour.contrast import WHITE
from fitzle.core.handover.handing import offered_variants, words_of
from fitzle.core.units import words_for_bytes

if TYPE_CHECKING:
    from fitzle.apps.deliveries.models import DeliveredFile, Delivery
    from fitzle.apps.destinations.models import Placement
    from fitzle.core.formats import Format

SHOWN = frozenset("png jpeg webp gif avif svg ico bmp".split())  # what browsers show
Current = Mapping[UUID, frozenset[str]]  # what stands in each place now, once it is made


def delivery_view(delivery: Delivery, current: Current) -> DeliveryOut:
    """A delivery."""
    by = delivery.made_by
    target = {"zip": "", "folder": delivery.folder}.get(delivery.way, "")
    return DeliveryOut(
        id=delivery.pk, made_at=delivery.made_at, by=(by.name or by.email) if by else "", state=delivery.state,
        way=delivery.way, target=target, ended_at=delivery.ended_at,
        files=[file_view(file, current) for file in delivery.files.all()],
    )  # fmt: skip


def file_view(file: DeliveredFile, current: Current) -> DeliveredFileOut:
    """A file of a delivery."""
    return DeliveredFileOut(**_file(file, current))


def entry_view(file: DeliveredFile, current: Current) -> HistoryEntry:
    """A file in the history of its place."""
    by = file.delivery.made_by
    return HistoryEntry(
        **_file(file, current), made_at=file.delivery.made_at, by=(by.name or by.email) if by else "",
        piece_revision=file.piece_revision,
    )  # fmt: skip


def ready_view(ready: ReadyFit, delivered: Delivered | None) -> ReadyFitOut:
    """What a delivery would hand over for one fit."""
    opened = ready.opened
    fit, placement = opened.fit, opened.fit.placement
    return ReadyFitOut(
        fit=fit.pk, placement=placement.pk, destination_name=placement.destination.name,
        placement_name=opened.sheet.name, subject=opened.document.subject, state=state_of(opened, delivered).state,
        changed=opened.standing(delivered).changed, picture=opened.proof_key[:16], ground=_ground(opened.sheet.grounds),
        files=[_named(file, ready) for file in ready.files],
        fields=[
            FieldOut(
                name=one.field.name, label=one.field.label, kind=one.kind, required=one.field.required,
                max_length=one.field.max_length, value=one.value, trouble=one.trouble,
            )
            for one in ready.fields
        ],
        alternative_text=fit.piece.alternative_text, handing=handing_of(placement),
        variants=_variants(ready), trouble=ready.trouble,
    )  # fmt: skip


def record_view(placement: Placement, kept: Kept, files: Mapping[UUID, DeliveredFile], current: Current) -> RecordPlace:
    """What is live in a place."""
    return RecordPlace(
        placement=placement.pk,
        name=str(placement.sheet.get("name", "")),
        slots=len(kept.slots),
        capacity=placement.sheet.get("capacity"),
        earlier=kept.last.version - 1,
        ground=_ground(placement.sheet.get("grounds") or ()),
        out_of_date=placement.pk in current and current[placement.pk] != kept.contents,
        file=file_view(files[kept.last.id], current),
        live=file_view(files[kept.live.id], current) if kept.live else None,
    )


def _variants(ready: ReadyFit) -> list[VariantOut]:
    own = ready.own.content
    of_a_set = any(file.inside for file in ready.files)
    offered = offered_variants(cast("Format", own.format), of_a_set=of_a_set) if own else []
    record = ready.opened.record
    moving = record is not None and record.outcome.moving is not None
    return [VariantOut(name=one, words=words_of(one, moving=moving)) for one in offered]


def _ground(grounds: Sequence[str]) -> str:
    """The page that pictures of a place are seen on."""
    return grounds[0] if grounds else WHITE


def _named(file: ReadyFile, ready: ReadyFit) -> NamedFile:
    content = file.content
    known = content or ready.own.content
    assert known  # a fit that can be delivered has a file
    return NamedFile(
        folder=file.folder, name=file.name, variant=file.variant, format=known.format, width=known.width,
        height=known.height, bytes=content.bytes if content else 0,
        weight=words_for_bytes(content.bytes) if content else "made when it is delivered",
    )  # fmt: skip


def _file(file: DeliveredFile, current: Current) -> dict[str, Any]:
    # What stands in the place now is the piece itself; a row's own file is compared with it nowhere.
    there = current.get(file.placement_id) if file.placement_id and not file.row else None
    stale = was_handed_over(file) and there is not None and not file.variant and file.sha256 not in there
    return {
        "id": file.pk, "placement": file.placement_id, "destination_name": file.destination_name,
        "placement_name": file.placement_name, "subject": file.subject, "folder": file.folder, "name": file.name,
        "variant": file.variant, "format": file.format, "width": file.width, "height": file.height,
        "bytes": file.bytes, "weight": words_for_bytes(file.bytes) if file.sha256 else "", "version": file.version,
        "state": file.state, "message": file.message, "written": file.written, "inside": file.inside,
        "out_of_date": stale, "live_at": file.live_at, "down_at": file.down_at,
        "picture": bool(file.sha256) and file.format in SHOWN, "muted": file.muted, "answer": file.answer,
    }  # fmt: skip
