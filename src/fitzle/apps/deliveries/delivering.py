"""Handing files over: named by the rule, in a folder for each destination, packed with a manifest, and recorded."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Iterable
from typing import Any
from uuid import UUID

from django.core.files.storage import default_storage
from django.db import transaction
from django.db.models import Max
from django.http import Http404
from django.utils import timezone

from fitzle.apps.accounts.access import naming_rule
from fitzle.apps.deliveries.models import DeliveredFile, Delivery
from fitzle.apps.pieces.fits import file_path
from fitzle.apps.pieces.opening import OpenFit, is_made
from fitzle.core.errors import FitzleError
from fitzle.core.spec.naming import file_name, rule_for, safe_stem, unused_name
from fitzle.core.units import Size

ZIP_DATE = (1980, 1, 1, 0, 0, 0)  # the same files give the same archive


def deliverable(opened: OpenFit) -> bool:
    """Whether the fit's file is made for its present state and would be accepted."""
    result = opened.fit.result
    return bool(is_made(opened) and result["file"] and result["verdict"] != "refused")


@transaction.atomic
def deliver(workspace: Any, user: Any, fits: Iterable[OpenFit]) -> Delivery:
    """Records a delivery of these fits; raises FitzleError when one of them has no file that would be accepted."""
    fits = list(fits)
    if not fits:
        raise FitzleError("there is nothing to deliver", advice="Fill a placement first.")
    for opened in fits:
        if not deliverable(opened):
            raise FitzleError(f"“{opened.sheet.name}” has no file that would be accepted", advice="Mend it first.")
    delivery = Delivery.objects.create(workspace=workspace, made_by=user)
    used: dict[str, list[str]] = {}
    for opened in fits:
        _record(delivery, opened, used)
    return delivery


def _record(delivery: Delivery, opened: OpenFit, used: dict[str, list[str]]) -> None:
    file = opened.fit.result["file"]
    placement = opened.fit.placement
    version = (DeliveredFile.objects.filter(placement=placement).aggregate(last=Max("version"))["last"] or 0) + 1
    folder = safe_stem(placement.destination.name)
    name = file_name(
        rule_for(opened.sheet.naming, naming_rule(delivery.workspace)),
        file["format"],
        subject=opened.document.subject,
        placement=opened.sheet.name,
        size=Size(file["width"], file["height"]),
        date=timezone.now().date().isoformat(),
        version=str(version),
    )
    name = unused_name(name, used.setdefault(folder, []))
    used[folder].append(name)
    DeliveredFile.objects.create(
        delivery=delivery, placement=placement, destination_name=placement.destination.name,
        placement_name=opened.sheet.name, fit_key=opened.key, folder=folder, name=name, format=file["format"],
        width=file["width"], height=file["height"], bytes=file["bytes"], sha256=file["sha256"], version=version,
    )  # fmt: skip


def deliveries_of(workspace: Any) -> list[Delivery]:
    """All deliveries with their files, the newest first."""
    return list(Delivery.objects.filter(workspace=workspace).select_related("made_by").prefetch_related("files"))


def delivery_of(workspace: Any, delivery_id: UUID | str) -> Delivery:
    """One delivery of the workspace; Http404 for any other."""
    found = Delivery.objects.filter(workspace=workspace, pk=delivery_id).first()
    if found is None:
        raise Http404("There is no such delivery.")
    return found


def file_of(workspace: Any, file_id: UUID | str) -> tuple[DeliveredFile, bytes]:
    """One delivered file with its bytes; Http404 for any other."""
    found = DeliveredFile.objects.filter(delivery__workspace=workspace, pk=file_id).first()
    if found is None:
        raise Http404("There is no such file.")
    return found, _bytes_of(workspace, found)


def zip_of(workspace: Any, delivery: Delivery) -> bytes:
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
            }
            for file in delivery.files.all()
        ],
    }  # fmt: skip


def last_delivered_keys(workspace: Any) -> dict[UUID, str]:
    """For each placement the hash of the state that was delivered last."""
    files = DeliveredFile.objects.filter(delivery__workspace=workspace, placement__isnull=False)
    ordered = files.order_by("delivery__made_at").values_list("placement_id", "fit_key")
    return dict(ordered)


def _bytes_of(workspace: Any, file: DeliveredFile) -> bytes:
    with default_storage.open(file_path(workspace.pk, file.sha256)) as stored:
        return bytes(stored.read())
