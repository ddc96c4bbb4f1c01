"""The record: what was handed over last, what is live, how many slots are taken, and what was there before."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.db.models import Max, QuerySet
from django.http import Http404

from fitzle.apps.deliveries.models import DONE, DeliveredFile, Delivery

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace


class Row(NamedTuple):
    """What the record needs to know of a file; looked up as plain values: there may be many thousands."""

    id: UUID
    placement: UUID
    delivery: UUID
    made_at: datetime
    name: str
    sha256: str
    version: int
    variant: str
    inside: bool
    piece: UUID | None
    subject: str
    piece_revision: int
    live_at: datetime | None
    down_at: datetime | None

    @property
    def slot(self) -> str:
        """What takes a slot: a piece, however often its file was replaced."""
        return str(self.piece or self.subject)


COLUMNS = (
    "id", "placement_id", "delivery_id", "delivery__made_at", "name", "sha256", "version", "variant", "inside",
    "piece", "subject", "piece_revision", "live_at", "down_at",
)  # fmt: skip


class Kept(NamedTuple):
    """What the record says of a place: the file that was handed over last with the hashes of all files of it.

    `live` is what people see there, None where nobody confirmed any; `slots` are the pieces that take one.
    """

    last: Row
    contents: frozenset[str]
    live: Row | None
    slots: frozenset[str]


def last_delivered(workspace: Workspace) -> dict[UUID, frozenset[str]]:
    """For each placement the hashes of the files that were handed over last."""
    return {placement: kept.contents for placement, kept in record_of(workspace).items()}


def record_of(workspace: Workspace) -> dict[UUID, Kept]:
    """What the record says of each placement that anything was handed over to."""
    found = _done(workspace).filter(placement__isnull=False, variant="", row="")
    by_place: dict[UUID, list[Row]] = {}
    for values in found.order_by("delivery__made_at", "delivery", "inside").values_list(*COLUMNS):
        row = Row(*values)
        by_place.setdefault(row.placement, []).append(row)
    return {placement: _kept(rows) for placement, rows in by_place.items()}


def last_of_rows(workspace: Workspace, piece: UUID) -> dict[tuple[str, UUID], frozenset[str]]:
    """For each row of a piece's run and placement the hashes of the files that were handed over last."""
    found = _done(workspace).filter(placement__isnull=False, variant="", piece=piece).exclude(row="")
    newest: dict[tuple[str, UUID], tuple[UUID, set[str]]] = {}
    columns = found.order_by("delivery__made_at", "delivery").values_list("row", "placement", "delivery", "sha256")
    for row, placement, delivery, sha256 in columns:
        if placement is None:
            continue
        held = newest.get((row, placement))
        if held is None or held[0] != delivery:
            held = newest[row, placement] = (delivery, set())
        held[1].add(sha256)
    return {key: frozenset(contents) for key, (_, contents) in newest.items()}


def last_versions(placements: Iterable[UUID]) -> dict[UUID, int]:
    """For each placement the version of the newest file that was handed over, or is about to be."""
    counted = DeliveredFile.objects.filter(placement__in=list(placements)).values_list("placement")
    return dict(counted.annotate(last=Max("version")).order_by())


def history_of(workspace: Workspace, placement: UUID) -> list[DeliveredFile]:
    """What was handed over to a place, the newest first; without variants and the other files of a set."""
    found = _done(workspace).filter(placement=placement, inside=False, variant="", row="")
    return list(found.select_related("delivery__made_by").order_by("-delivery__made_at"))


def delivered_file(workspace: Workspace, file_id: UUID | str) -> DeliveredFile:
    """One file that was handed over; Http404 for any other."""
    found = _done(workspace).filter(pk=file_id).select_related("delivery").first()
    if found is None:
        raise Http404("There is no such file.")
    return found


def files_with(workspace: Workspace, ids: list[UUID]) -> dict[UUID, DeliveredFile]:
    """Files that were handed over, by their ids."""
    return _done(workspace).in_bulk(ids)


def was_handed_over(file: DeliveredFile) -> bool:
    """Whether a file of a delivery is where it was to go."""
    return file.state == DONE


def deliveries_of(workspace: Workspace, most: int | None = None) -> list[Delivery]:
    """Deliveries with their files, the newest first."""
    found = Delivery.objects.filter(workspace=workspace).select_related("made_by").prefetch_related("files")
    return list(found[:most] if most else found)


def delivery_of(workspace: Workspace, delivery_id: UUID | str) -> Delivery:
    """One delivery of the workspace; Http404 for any other."""
    found = Delivery.objects.filter(workspace=workspace, pk=delivery_id).first()
    if found is None:
        raise Http404("There is no such delivery.")
    return found


def delivered_contents(workspace_id: int) -> set[str]:
    """The hashes of all files that were ever handed over, or are about to be."""
    found = DeliveredFile.objects.filter(delivery__workspace_id=workspace_id).exclude(sha256="")
    return set(found.values_list("sha256", flat=True))


def _done(workspace: Workspace) -> QuerySet[DeliveredFile]:
    return DeliveredFile.objects.filter(delivery__workspace=workspace, state=DONE)


def _kept(rows: list[Row]) -> Kept:
    """Of all files of one place but variants, the oldest first."""
    newest = rows[-1].delivery
    same = [row for row in rows if row.delivery == newest]
    own = [row for row in rows if not row.inside]
    live = [row for row in own if row.live_at and not row.down_at]
    by_slot = {row.slot: row for row in own}  # the newest of each piece
    return Kept(
        last=next((row for row in same if not row.inside), same[-1]),
        contents=frozenset(row.sha256 for row in same),
        live=max(live, key=lambda row: (row.live_at, row.made_at), default=None),
        slots=frozenset(slot for slot, row in by_slot.items() if row.down_at is None),
    )
