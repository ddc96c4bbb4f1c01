"""Watermarks over many pictures, as people do it."""

from __future__ import annotations

from collections.abc import Iterable
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.artwork.library import artwork_of, ready_by_id
from fitzle.apps.deliveries.handing_over import folder_named
from fitzle.apps.files.keeping import keep_by_content
from fitzle.apps.files.room import within_room
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.queue import watermark_later
from fitzle.apps.watermarking.batches import UNDER_WAY, watermarking_of
from fitzle.apps.watermarking.marking import foresee
from fitzle.apps.watermarking.models import (
    CANCELLED,
    DONE,
    FAILED,
    OPEN,
    READING,
    READY,
    WAITING,
    MarkedPicture,
    Watermarking,
)
from fitzle.core.errors import ArtworkError, FitzleError
from fitzle.core.spec.stems import kept_name
from fitzle.core.watermark.placing import Stamp

MOST_PICTURES = 500


@action(Capability.CHANGE)
def begin_watermarking(access: Access, mark: UUID) -> Watermarking:
    """The one of this mark that its maker has open, else a new one; a mark is any artwork that can be drawn."""
    own = Watermarking.objects.filter(workspace=access.workspace, made_by=access.actor, state=OPEN)
    return own.filter(mark_id=_mark(access, mark)).first() or Watermarking.objects.create(
        workspace=access.workspace, made_by=access.actor, mark_id=mark, stamp=Stamp().model_dump()
    )


@action(Capability.CHANGE)
def change_watermarking(
    access: Access, key: UUID, *, mark: UUID | None = None, stamp: Stamp | None = None, keep_details: bool | None = None
) -> Watermarking:
    """Another mark, another place or opacity: what was made already is to be made anew."""
    found = _at_rest(access, key)
    if mark is not None:
        found.mark_id = _mark(access, mark)
    if stamp is not None:
        found.stamp = stamp.model_dump()
    if keep_details is not None:
        found.keep_details = keep_details
    found.state, found.ended_at = OPEN, None
    found.save()
    made = found.pictures.filter(state__in=(DONE, WAITING)) | found.pictures.filter(state=FAILED, width__gt=0)
    made.update(state=READY, sha256="", bytes=0, extension="", message="", attempts=0)
    found = watermarking_of(access.workspace, key)
    foresee(found)
    return found


@action(Capability.CHANGE)
def add_picture(access: Access, key: UUID, name: str, chunks: Iterable[bytes]) -> MarkedPicture:
    """Keeps a picture or clip that is to be marked, and has it looked at."""
    _at_rest(access, key)
    original, count = keep_by_content(Shelf.ORIGINALS, access.workspace.pk, within_room(access.workspace.pk, chunks))
    Watermarking.objects.select_for_update().filter(pk=key).first()  # now, as long as it takes to note one row
    found = _at_rest(access, key)
    if found.pictures.count() >= MOST_PICTURES:
        raise FitzleError(
            f"at most {MOST_PICTURES} pictures get a watermark at a time", advice="Begin another one for the rest."
        )
    last = found.pictures.aggregate(last=Max("position"))["last"]
    picture = MarkedPicture.objects.create(
        watermarking=found, position=(last or 0) + 1, name=kept_name(name), original=original, original_bytes=count
    )
    Watermarking.objects.filter(pk=found.pk).update(state=OPEN, ended_at=None)
    watermark_later(found.pk)
    return picture


@action(Capability.CHANGE)
def remove_picture(access: Access, key: UUID, picture: UUID) -> None:
    """Takes a picture out again."""
    _at_rest(access, key).pictures.filter(pk=picture).delete()


@action(Capability.DELIVER)
def start_watermarking(access: Access, key: UUID, folder: str = "") -> Watermarking:
    """Has all pictures marked that are not yet, those that failed or were cancelled once more."""
    found = _at_rest(access, key)
    if folder:
        folder_named(access.workspace, folder)
    if folder != found.folder:
        found.pictures.filter(state=DONE).update(state=WAITING)  # they are to be written there too
    found.pictures.filter(state__in=(READY, FAILED), width__gt=0).update(state=WAITING, message="", attempts=0)
    found.pictures.filter(state=FAILED).update(state=READING, message="", attempts=0)
    if not found.pictures.filter(state__in=(WAITING, READING)).exists():
        raise FitzleError("there is no picture to mark", advice="Drop some first.")
    Watermarking.objects.filter(pk=found.pk).update(state=WAITING, folder=folder, ended_at=None)
    watermark_later(found.pk)
    return watermarking_of(access.workspace, key)


@action(Capability.DELIVER)
def cancel_watermarking(access: Access, key: UUID) -> Watermarking:
    """Stops before the next picture; what is made stays."""
    found = watermarking_of(access.workspace, key)
    under_way = Watermarking.objects.select_for_update().filter(pk=found.pk, state__in=UNDER_WAY)
    if under_way.update(state=CANCELLED, ended_at=timezone.now()):
        found.pictures.filter(state=WAITING).update(state=READY)
    return watermarking_of(access.workspace, key)


@action(Capability.CHANGE)
def delete_watermarking(access: Access, key: UUID) -> None:
    """Takes it away with all its pictures; the files that were saved stay where they are."""
    _at_rest(access, key).delete()


def _at_rest(access: Access, key: UUID) -> Watermarking:
    found = watermarking_of(access.workspace, key)
    if found.state in UNDER_WAY:
        raise FitzleError("the pictures are being marked", advice="Wait until they are, or cancel it first.")
    return found


def _mark(access: Access, mark: UUID) -> UUID:
    artwork_of(access.workspace, mark)
    if str(mark) not in ready_by_id(access.workspace, [str(mark)]):
        raise ArtworkError("this artwork is not ready", advice="Wait until it is read, or choose another one.")
    return mark
