"""A watermarking worked through: pictures looked at as they come in, then marked, two at a time."""

from __future__ import annotations

import io
import time
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from typing import TYPE_CHECKING, TypeVar

import numpy as np
from django.db import transaction
from django.db.models import F, QuerySet
from django.utils import timezone
from PIL import Image

from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.files.keeping import keep_by_content, read
from fitzle.apps.files.room import within_room
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.later import Later
from fitzle.apps.watermarking.batches import DrawnMark, drawn_mark, file_names, pictures_of, stamp_of
from fitzle.apps.watermarking.models import (
    DONE,
    FAILED,
    READING,
    READY,
    RUNNING,
    WAITING,
    MarkedPicture,
    Watermarking,
)
from fitzle.apps.watermarking.writing import folder_file
from fitzle.core.encode.png import plain_png
from fitzle.core.errors import ArtworkError, FitzleError
from fitzle.core.units import Size
from fitzle.core.watermark.looking import Look, foreseen, looked_at, small_marks
from fitzle.core.watermark.placing import Stamp
from fitzle.core.watermark.stamping import Stamped, stamped

if TYPE_CHECKING:
    from fitzle.core.artwork.sources import Pixels

Result = TypeVar("Result")
AT_ONCE = 2
ALONE_FROM_PX = 30_000_000  # two of these would take more memory than a worker has
TURN_SECONDS = 30.0  # then other people's files get their turn
TOO_MUCH = "marking it takes too long or too much memory on this server"
LOST = "its file was lost on the server"


def work_on(key: str) -> None:
    """Looks at the pictures that came in, and marks those that wait; raises Later where there are more than one turn
    has time for.
    """
    watermarking = Watermarking.objects.filter(pk=key).select_related("workspace", "mark").first()
    if watermarking is None:
        return
    until = time.monotonic() + TURN_SECONDS
    _look(watermarking, until)
    _set_running(watermarking)
    if _still_wanted(watermarking):
        _mark(watermarking, until)


@transaction.atomic
def _set_running(watermarking: Watermarking) -> None:
    """From now on everything that was looked at waits to be marked, what came in last too."""
    locked = Watermarking.objects.select_for_update().filter(pk=watermarking.pk, state=WAITING).first()
    if locked:
        locked.pictures.filter(state=READY).update(state=WAITING)
        locked.state = RUNNING
        locked.save(update_fields=["state"])


def end_unmarked(key: str) -> bool:
    """Notes a picture over which workers were lost twice; whether there are others, which go on."""
    waiting = MarkedPicture.objects.filter(watermarking__pk=key, state__in=(READING, WAITING))
    guilty = waiting.filter(attempts__gt=1).first()
    if guilty:
        MarkedPicture.objects.filter(pk=guilty.pk).update(state=FAILED, message=f"{guilty.name}: {TOO_MUCH}.")
    return waiting.exists()


def foresee(watermarking: Watermarking) -> None:
    """Says of each picture that is ready which version of the mark it gets and how that will stand out."""
    ready = list(watermarking.pictures.filter(state=READY))
    marks = _small(watermarking)
    if ready and marks:
        _foresee(ready, marks, stamp_of(watermarking))
        MarkedPicture.objects.bulk_update(ready, ["version", "contrast"], batch_size=200)


def _look(watermarking: Watermarking, until: float) -> None:
    coming = watermarking.pictures.filter(state=READING)
    marks: tuple[Pixels, ...] | None = None
    while batch := _next(coming):
        marks = _small(watermarking) if marks is None else marks
        for picture, look in zip(batch, _both(batch, looked_at), strict=True):
            if isinstance(look, str):
                picture.state, picture.message = FAILED, look
            else:
                picture.width, picture.height = look.size
                picture.look, picture.clip, picture.state = plain_png(look.pixels), look.clip, READY
                _foresee([picture], marks, stamp_of(watermarking))
            picture.attempts = 0
            picture.save()
        if time.monotonic() > until:
            raise Later("the next pictures of this watermark", 0)


def _mark(watermarking: Watermarking, until: float) -> None:
    waiting = watermarking.pictures.filter(state=WAITING)
    mark: DrawnMark | None = None
    while _still_wanted(watermarking) and (batch := _next(waiting)):
        try:
            mark = mark or drawn_mark(watermarking)
        except ArtworkError as error:
            waiting.update(state=FAILED, message=error.message)
            break
        made = _both(batch, partial(_stamped, mark.pixels, stamp_of(watermarking), watermarking.keep_details))
        for picture, one in zip(batch, made, strict=True):
            _settle(watermarking, picture, one)
        if time.monotonic() > until:
            raise Later("the next pictures of this watermark", 0)
    left = Watermarking.objects.filter(pk=watermarking.pk, state=RUNNING)
    left.update(state=DONE, ended_at=timezone.now())


def _stamped(marks: Sequence[Pixels], stamp: Stamp, keep_details: bool, data: bytes, name: str) -> Stamped:
    return stamped(data, name, marks, stamp, keep_details=keep_details)


def _settle(watermarking: Watermarking, picture: MarkedPicture, made: Stamped | str) -> None:
    """Keeps the file of a picture, or notes why there is none; unless somebody changed the mark meanwhile."""
    values: dict[str, object] = {"attempts": 0}
    try:
        if isinstance(made, str):
            values |= {"state": FAILED, "message": made}
        else:
            values |= _kept(watermarking, picture, made)
    except StorageFullError:
        MarkedPicture.objects.filter(pk=picture.pk).update(attempts=0)
        raise  # all of it waits for room
    except (FitzleError, OSError) as error:
        words = error.message if isinstance(error, FitzleError) else f"{picture.name}: {error}."
        values |= {"state": FAILED, "message": words}
    MarkedPicture.objects.filter(pk=picture.pk, state=WAITING).update(**values)


def _kept(watermarking: Watermarking, picture: MarkedPicture, made: Stamped) -> dict[str, object]:
    workspace = watermarking.workspace_id
    sha256, count = keep_by_content(Shelf.MADE, workspace, within_room(workspace, [made.data]))
    picture.extension = made.extension
    if watermarking.folder:
        folder_file(watermarking, _name_in_all(watermarking, picture), made.data)
    return {
        "state": DONE, "message": "", "sha256": sha256, "bytes": count, "extension": made.extension,
        "version": made.version, "contrast": made.contrast,
    }  # fmt: skip


def _name_in_all(watermarking: Watermarking, picture: MarkedPicture) -> str:
    pictures = [picture if one.pk == picture.pk else one for one in pictures_of(watermarking)]
    return file_names(pictures)[picture.pk]


def _still_wanted(watermarking: Watermarking) -> bool:
    return Watermarking.objects.filter(pk=watermarking.pk, state=RUNNING).exists()


def _next(waiting: QuerySet[MarkedPicture]) -> list[MarkedPicture]:
    """The next picture, or two where neither is large, a clip, or one over which a worker was lost."""
    found = list(waiting.defer("look")[:AT_ONCE])
    batch = found if len(found) == AT_ONCE and not any(map(_costly, found)) else found[:1]
    MarkedPicture.objects.filter(pk__in=[one.pk for one in batch]).update(attempts=F("attempts") + 1)
    return batch


def _costly(picture: MarkedPicture) -> bool:
    return picture.clip or picture.attempts > 0 or picture.width * picture.height >= ALONE_FROM_PX


def _both(batch: Sequence[MarkedPicture], make: Callable[[bytes, str], Result]) -> list[Result | str]:
    """What comes of each picture, or words of why nothing does; the threads touch no database."""
    workspace = batch[0].watermarking.workspace_id
    given = [(read(Shelf.ORIGINALS, workspace, one.original), one.name) for one in batch]
    with ThreadPoolExecutor(AT_ONCE) as pool:
        return list(pool.map(lambda one: _or_words(one[0], one[1], make), given))


def _or_words(data: bytes | None, name: str, make: Callable[[bytes, str], Result]) -> Result | str:
    if data is None:
        return f"{name}: {LOST}."
    try:
        return make(data, name)
    except FitzleError as error:
        return error.message
    except MemoryError:
        return f"{name}: {TOO_MUCH}."


def _small(watermarking: Watermarking) -> tuple[Pixels, ...]:
    """The versions of its mark, small; none where it is gone, which is said once the pictures are to be marked."""
    try:
        return small_marks(drawn_mark(watermarking).pixels)
    except ArtworkError:
        return ()


def _foresee(pictures: Sequence[MarkedPicture], marks: tuple[Pixels, ...], stamp: Stamp) -> None:
    for picture in pictures if marks else ():
        with Image.open(io.BytesIO(bytes(picture.look))) as opened:
            pixels = np.asarray(opened.convert("RGBA"))
        told = foreseen(Look(Size(picture.width, picture.height), picture.clip, pixels), marks, stamp)
        picture.version, picture.contrast = told.version, told.contrast
