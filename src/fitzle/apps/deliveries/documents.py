"""delivery.json of a delivery."""

from __future__ import annotations

from fitzle.apps.deliveries.models import DONE, DeliveredFile, Delivery
from fitzle.core.handover.document import Accepted, DeliveryDocument, HandedOver


def document_of(delivery: Delivery) -> DeliveryDocument:
    """What was handed over, as it is written into the ZIP."""
    files = tuple(_handed_over(file) for file in delivery.files.filter(state=DONE))
    return DeliveryDocument(fitzle_delivery=1, delivered_at=delivery.made_at, files=files)


def _handed_over(file: DeliveredFile) -> HandedOver:
    return HandedOver(
        file=file.path, destination=file.destination_name, place=file.placement_name, variant=file.variant,
        sheet_version=file.sheet_revision, piece=file.subject, piece_revision=file.piece_revision, width=file.width,
        height=file.height, bytes=file.bytes, format=file.format, score=file.score, sha256=file.sha256,
        version=file.version, accepted=tuple(Accepted.model_validate(one) for one in file.muted), fields=file.fields,
    )  # fmt: skip
