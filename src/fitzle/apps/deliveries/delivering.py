"""Handing files over: named by the rule, in a folder for each destination, packed with a manifest, and recorded."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Iterable
from typing import TYPE_CHECKING, Any, NamedTuple
from uuid import UUID

from django.db import transaction
from django.db.models import Max
from django.http import Http404
from django.utils import timezone

from fitzle.apps.accounts.access import naming_rule
from fitzle.apps.deliveries.models import DeliveredFile, Delivery
from fitzle.apps.destinations.shelves import note_changes
from fitzle.apps.pieces.making import made_bytes
from fitzle.apps.pieces.opening import OpenFit
from fitzle.core.errors import FitzleError
from fitzle.core.fit.record import FileRecord
from fitzle.core.spec.naming import file_name, rule_for, unused_name
from fitzle.core.spec.stems import safe_stem

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

ZIP_DATE = (1980, 1, 1, 0, 0, 0)  # the same files give the same archive


class ReadyFile(NamedTuple):
    """A file as it would be handed over."""

    opened: OpenFit
    file: FileRecord
    folder: str
    name: str
    version: int


def ready_files(workspace: Workspace, fits: Iterable[OpenFit]) -> list[ReadyFile]:
    """The files of these fits under the names that they would get; fits without an accepted file are left out."""
    found, used = list[ReadyFile](), dict[str, list[str]]()
    fits = [opened for opened in fits if opened.standing(None).deliverable]
    versions = _last_versions(opened.fit.placement_id for opened in fits)
    for opened in fits:
        assert opened.record  # a fit that can be delivered has one
        file, version = opened.record.files[0], versions.get(opened.fit.placement_id, 0) + 1
        folder = safe_stem(opened.fit.placement.destination.name)
        name = _name(workspace, opened, file, version)
        name = unused_name(name, used.setdefault(folder, []))
        used[folder].append(name)
        found.append(ReadyFile(opened, file, folder, name, version))
    return found


def changed_since(fits: Iterable[OpenFit], delivered: dict[UUID, str]) -> list[OpenFit]:
    """Those of which another file, or none, was delivered last."""
    return [opened for opened in fits if delivered.get(opened.fit.placement_id) != opened.file_key]


@transaction.atomic
def deliver(workspace: Workspace, user: User | None, fits: Iterable[OpenFit]) -> Delivery:
    """Records a delivery of these fits; raises FitzleError when one of them has no file that would be accepted."""
    fits = list(fits)
    if not fits:
        raise FitzleError("there is nothing to deliver", advice="Fill a placement first.")
    for opened in fits:
        if not opened.standing(None).deliverable:
            raise FitzleError(f"“{opened.sheet.name}” has no file that would be accepted", advice="Mend it first.")
    delivery = Delivery.objects.create(workspace=workspace, made_by=user)
    for ready in ready_files(workspace, fits):
        _record(delivery, ready)
    note_changes(workspace, [opened.fit.placement_id for opened in fits])
    return delivery


def _name(workspace: Workspace, opened: OpenFit, file: FileRecord, version: int) -> str:
    return file_name(
        rule_for(opened.sheet.naming, naming_rule(workspace)),
        file.format,
        subject=opened.document.subject,
        placement=opened.sheet.name,
        size=file.size,
        date=timezone.now().date().isoformat(),
        version=str(version),
    )


def _last_versions(placements: Iterable[UUID]) -> dict[UUID, int]:
    counted = DeliveredFile.objects.filter(placement__in=list(placements)).values_list("placement_id")
    return dict(counted.annotate(last=Max("version")).order_by())


def _record(delivery: Delivery, ready: ReadyFile) -> None:
    opened, file, placement = ready.opened, ready.file, ready.opened.fit.placement
    DeliveredFile.objects.create(
        delivery=delivery, placement=placement, fit=opened.fit, rendition=opened.rendition,
        destination_name=placement.destination.name, placement_name=opened.sheet.name, file_key=opened.file_key,
        folder=ready.folder, name=ready.name, format=file.format, width=file.width, height=file.height,
        bytes=file.bytes, sha256=file.sha256, version=ready.version, muted=_muted(opened),
    )  # fmt: skip


def _muted(opened: OpenFit) -> list[dict[str, str]]:
    """What was found, and why it is right as it is, for the record."""
    return [
        {
            "rule": one.rule,
            "message": one.message,
            "reason": one.muted,
            "by": str(opened.fit.muted[one.rule].get("by", "")),
        }
        for one in opened.findings or ()
        if one.muted
    ]


def deliveries_of(workspace: Workspace) -> list[Delivery]:
    """All deliveries with their files, the newest first."""
    return list(Delivery.objects.filter(workspace=workspace).select_related("made_by").prefetch_related("files"))


def delivery_of(workspace: Workspace, delivery_id: UUID | str) -> Delivery:
    """One delivery of the workspace; Http404 for any other."""
    found = Delivery.objects.filter(workspace=workspace, pk=delivery_id).first()
    if found is None:
        raise Http404("There is no such delivery.")
    return found


def file_of(workspace: Workspace, file_id: UUID | str) -> tuple[DeliveredFile, bytes]:
    """One delivered file with its bytes; Http404 for any other."""
    found = DeliveredFile.objects.filter(delivery__workspace=workspace, pk=file_id).first()
    if found is None:
        raise Http404("There is no such file.")
    return found, _bytes_of(workspace, found)


def zip_of(workspace: Workspace, delivery: Delivery) -> bytes:
    """The delivery as a ZIP: a folder for each destination, and manifest.json."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        for file in delivery.files.all():
            archive.writestr(zipfile.ZipInfo(f"{file.folder}/{file.name}", ZIP_DATE), _bytes_of(workspace, file))
        text = json.dumps(manifest_of(delivery), indent=2, ensure_ascii=False)
        archive.writestr(zipfile.ZipInfo("manifest.json", ZIP_DATE), text)
    return out.getvalue()


def manifest_of(delivery: Delivery) -> dict[str, Any]:
    """What went where, as written into the ZIP."""
    return {
        "fitzle_delivery": 1,
        "delivered_at": delivery.made_at.isoformat(),
        "files": [
            {
                "file": f"{file.folder}/{file.name}", "destination": file.destination_name,
                "placement": file.placement_name, "width": file.width, "height": file.height, "format": file.format,
                "bytes": file.bytes, "sha256": file.sha256, "version": file.version,
                **({"muted": file.muted} if file.muted else {}),
            }
            for file in delivery.files.all()
        ],
    }  # fmt: skip


def last_delivered_keys(workspace: Workspace) -> dict[UUID, str]:
    """For each placement the file key that was delivered last."""
    files = DeliveredFile.objects.filter(delivery__workspace=workspace, placement__isnull=False)
    ordered = files.order_by("delivery__made_at").values_list("placement_id", "file_key")
    return dict(ordered)


def _bytes_of(workspace: Workspace, file: DeliveredFile) -> bytes:
    return made_bytes(workspace, file.sha256)


def delivered_contents(workspace_id: int) -> set[str]:
    """The hashes of all files that were ever handed over."""
    found = DeliveredFile.objects.filter(delivery__workspace_id=workspace_id)
    return set(found.values_list("sha256", flat=True))
