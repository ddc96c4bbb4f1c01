"""Handing over, as people do it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal, NamedTuple
from uuid import UUID

from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.deliveries import handing_over
from fitzle.apps.deliveries.models import CANCELLED, DONE, FAILED, WAITING, DeliveredFile, Delivery
from fitzle.apps.deliveries.planning import ReadyFile, ReadyFit, ready_fits
from fitzle.apps.deliveries.record import delivered_file, delivery_of, last_delivered
from fitzle.apps.destinations.shelves import lock_placements, note_changes, placement_of, save_handing
from fitzle.apps.jobs.queue import hand_over_later
from fitzle.apps.pieces.fits import fit_of, fits_on_wall
from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.core.errors import FitzleError
from fitzle.core.handover.fields import said_fields
from fitzle.core.handover.handing import Handing

Way = Literal["zip", "folder", "upload"]


class How(NamedTuple):
    """How files are handed over: the way, the server's folder for the way `folder`, and all side by side or not."""

    way: Way = "zip"
    folder: str = ""
    flat: bool = False


USUAL = How()


@action(Capability.DELIVER)
def deliver_these(access: Access, fit_ids: list[UUID], how: How = USUAL) -> Delivery:
    """Hands over the files of these fits; raises FitzleError when one of them has none that would be accepted."""
    fits = open_fits(access.workspace, [fit_of(access.workspace, fit) for fit in dict.fromkeys(fit_ids)])
    for opened in fits:
        if not opened.standing(None).deliverable:
            raise FitzleError(f"“{opened.sheet.name}” has no file that would be accepted", advice="Mend it first.")
    return deliver_opened(access, fits, how)


@action(Capability.DELIVER)
def deliver_all(access: Access, *, changed: bool, how: How = USUAL) -> Delivery:
    """Hands over all files that would be accepted, or only those that changed since they were delivered."""
    return deliver_opened(access, on_offer(access, changed=changed), how)


@action(Capability.DELIVER)
def cancel_delivery(access: Access, delivery: UUID) -> Delivery:
    """Stops a delivery before its next file."""
    handing_over.cancel(delivery_of(access.workspace, delivery))
    return delivery_of(access.workspace, delivery)


@action(Capability.DELIVER)
def go_on_with(access: Access, delivery: UUID) -> Delivery:
    """Takes up what failed or was cancelled of a delivery."""
    found = delivery_of(access.workspace, delivery)
    left = found.files.filter(state__in=(FAILED, CANCELLED))
    if left.update(state=WAITING, message=""):
        Delivery.objects.filter(pk=found.pk).update(state=WAITING, ended_at=None)
        hand_over_later(found.pk)
    return delivery_of(access.workspace, delivery)


@action(Capability.DELIVER)
def say_live(access: Access, file: UUID, live: bool) -> DeliveredFile:
    """Notes that a file is seen where it was handed over to, or was taken down there."""
    found = delivered_file(access.workspace, file)
    now = timezone.now()
    values = {"live_at": now, "down_at": None} if live else {"down_at": now}
    same = DeliveredFile.objects.filter(delivery=found.delivery_id, placement=found.placement_id)
    same.update(**values)
    return delivered_file(access.workspace, file)


@action(Capability.DELIVER)
def take_back(access: Access, file: UUID, how: How = USUAL) -> Delivery:
    """Hands an earlier file over once more, byte for byte, with all that went with it."""
    found = delivered_file(access.workspace, file)
    if found.placement is None:
        raise FitzleError("the place of this file is not there any more", advice="Save the file itself.")
    last = last_delivered(access.workspace)
    same = list(DeliveredFile.objects.filter(delivery=found.delivery_id, placement=found.placement_id, state=DONE))
    if last.get(found.placement.pk) == frozenset(one.sha256 for one in same if not one.variant):
        raise FitzleError("this is the file that was handed over last")
    delivery = _begun(access, how)
    newest = DeliveredFile.objects.filter(placement=found.placement_id).order_by("-version").first()
    for one in same:
        one.pk, one.delivery, one.version = None, delivery, (newest or one).version + 1
        one.state, one.message, one.written, one.answer = WAITING, "", "", {}
        one.live_at = one.down_at = None
        one.save(force_insert=True)
    hand_over_later(delivery.pk)
    return delivery


@action(Capability.DELIVER)
def remember_handing(access: Access, placement: UUID, handing: Handing) -> None:
    """Remembers with a place what replacements are called, and which variants go with its file."""
    save_handing(placement_of(access.workspace, placement), handing)


def on_offer(access: Access, *, changed: bool) -> list[OpenFit]:
    """What `deliver_all` would hand over."""
    fits = open_fits(access.workspace, fits_on_wall(access.workspace))
    last = last_delivered(access.workspace)
    standing = [(opened, opened.standing(last.get(opened.fit.placement_id))) for opened in fits]
    return [opened for opened, one in standing if one.deliverable and (one.changed or not changed)]


def deliver_opened(access: Access, fits: Iterable[OpenFit], how: How) -> Delivery:
    """Writes a delivery down and has it worked through; two of one place at once get versions one after the other."""
    fits = list(fits)
    if not fits:
        raise FitzleError("there is nothing to deliver", advice="Fill a placement first.")
    if how.way == "folder":
        handing_over.folder_named(access.workspace, how.folder)
    lock_placements(opened.fit.placement_id for opened in fits)
    ready = ready_fits(access.workspace, fits, flat=how.flat)
    full = next((one.trouble for one in ready if "slots" in one.trouble), "")
    if full:
        raise FitzleError(full)
    delivery = _begun(access, how)
    rows = [_row(delivery, one, file) for one in ready for file in one.files]
    DeliveredFile.objects.bulk_create(rows)
    note_changes(access.workspace, [opened.fit.placement_id for opened in fits])
    hand_over_later(delivery.pk)
    return delivery


def _begun(access: Access, how: How) -> Delivery:
    return Delivery.objects.create(
        workspace=access.workspace, made_by=access.actor, state=WAITING, way=how.way, folder=how.folder, flat=how.flat
    )


def _row(delivery: Delivery, ready: ReadyFit, file: ReadyFile) -> DeliveredFile:
    opened, content, placement = ready.opened, file.content, ready.opened.fit.placement
    own = ready.own.content
    known = content or own
    assert known  # a fit that can be delivered has a file
    return DeliveredFile(
        delivery=delivery, placement=placement, fit=opened.fit, rendition=opened.rendition if content else None,
        destination_name=placement.destination.name, placement_name=opened.sheet.name, file_key=opened.file_key,
        folder=file.folder, name=file.name, format=known.format, width=known.width, height=known.height,
        bytes=content.bytes if content else 0, sha256=content.sha256 if content else "", version=ready.version,
        muted=_muted(opened), variant=file.variant, inside=file.inside, score=known.score,
        subject=opened.document.subject, piece=opened.fit.piece_id, row=opened.fit.row,
        piece_revision=opened.fit.piece.revision, sheet_revision=placement.revision, fields=said_fields(ready.fields),
        state=WAITING,
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
