"""A delivery worked through, file by file: made where it is not made yet, checked, and handed over its way."""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Any

from django.conf import settings
from django.utils import timezone

from fitzle.apps.deliveries.documents import document_of
from fitzle.apps.deliveries.models import CANCELLED, DONE, FAILED, RUNNING, WAITING, DeliveredFile, Delivery
from fitzle.apps.deliveries.planning import content_of, variant_fit
from fitzle.apps.files.errors import DamagedFileError, StorageFullError
from fitzle.apps.jobs.later import Later
from fitzle.apps.pieces.making import made_bytes, make_open
from fitzle.apps.pieces.opening import open_fit
from fitzle.apps.uploading.port import Upload
from fitzle.apps.uploading.sending import send
from fitzle.core.errors import FitzleError
from fitzle.core.findings import verdict_of
from fitzle.core.formats import media_type_of
from fitzle.core.handover.document import NAME, DeliveryDocument, HandedOver, delivery_text, read_delivery
from fitzle.core.handover.fields import trouble_with
from fitzle.core.handover.folder import keep_current, path_below

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

AT_ONCE_SECONDS = 40.0  # then other people's files get their turn
TOO_MUCH = "handing it over takes too long or too much memory on this server"
GONE = "what stands there is gone meanwhile"


class Same(Exception):
    """A variant came out as the file itself did: it is handed over once."""


def hand_over(delivery_id: str) -> None:
    """Works through the files of a delivery that wait; raises Later where there are more than fit into one turn."""
    delivery = Delivery.objects.filter(pk=delivery_id).select_related("workspace").first()
    if delivery is None or delivery.state in (DONE, CANCELLED):
        return
    Delivery.objects.filter(pk=delivery.pk, state=WAITING).update(state=RUNNING)
    until = time.monotonic() + AT_ONCE_SECONDS
    while (file := _next(delivery)) is not None:
        _settle(delivery, file)
        if time.monotonic() > until:
            raise Later("the next files of this delivery", 0)
    _end(delivery)


def end_unhanded(delivery_id: str) -> bool:
    """Notes that the file a worker was at cannot be handed over; whether there are others, which go on."""
    delivery = Delivery.objects.filter(pk=delivery_id, state=RUNNING).first()
    file = _next(delivery) if delivery else None
    if file is None:
        return False
    DeliveredFile.objects.filter(pk=file.pk).update(state=FAILED, message=TOO_MUCH)
    return True


def cancel(delivery: Delivery) -> None:
    """Stops a delivery before its next file; what is handed over already stays so."""
    stopped = Delivery.objects.filter(pk=delivery.pk, state__in=(WAITING, RUNNING))
    if stopped.update(state=CANCELLED, ended_at=timezone.now()):
        DeliveredFile.objects.filter(delivery=delivery, state=WAITING).update(state=CANCELLED)


def folder_named(workspace: Workspace, name: str) -> Path:
    """A folder of the server that this workspace may write into; raises FitzleError where it may not."""
    found = settings.DELIVER_INTO.get(workspace.slug, {}).get(name)
    if found is None:
        raise FitzleError(f"there is no folder called {name!r} to deliver into", advice="Save the files as a ZIP.")
    if not Path(found).is_dir():
        raise FitzleError(
            f"the folder {name!r} is not there now", advice="Tell whoever runs this Fitzle, or save a ZIP."
        )
    return Path(found)


def folders_of(workspace: Workspace) -> list[str]:
    """The folders of the server that this workspace may write into."""
    return list(settings.DELIVER_INTO.get(workspace.slug, {}))


def _next(delivery: Delivery) -> DeliveredFile | None:
    if not Delivery.objects.filter(pk=delivery.pk, state=RUNNING).exists():
        return None  # somebody cancelled it
    waiting = DeliveredFile.objects.filter(delivery=delivery, state=WAITING)
    return waiting.select_related(
        "fit__placement__destination", "fit__piece__workspace", "placement__destination", "delivery__workspace"
    ).first()


def _settle(delivery: Delivery, file: DeliveredFile) -> None:
    """Hands one file over, or notes why it was not; the others go on either way."""
    try:
        data = _made(delivery, file)
        HAND_OVER[delivery.way](delivery, file, data)
    except Same:
        file.delete()
        return
    except StorageFullError:
        raise  # the whole delivery waits for room
    except (FitzleError, OSError) as error:
        words = error.message if isinstance(error, FitzleError) else str(error)
        DeliveredFile.objects.filter(pk=file.pk).update(state=FAILED, message=words)
        return
    file.save()


def _made(delivery: Delivery, file: DeliveredFile) -> bytes:
    """The bytes of a file; makes those of a variant that is not made yet. Raises FitzleError where there are none."""
    if not file.sha256:
        _make(delivery, file)
    try:
        return made_bytes(delivery.workspace, file.sha256)
    except DamagedFileError as error:
        if error.remedy:
            error.remedy()
        _make_again(delivery, file)
        return made_bytes(delivery.workspace, file.sha256)


def _make_again(delivery: Delivery, file: DeliveredFile) -> None:
    """Makes a lost file once more, where its fit still comes to it; the same request gives the same bytes."""
    file.rendition = None
    opened = open_fit(delivery.workspace, file.fit) if file.fit else None
    other = variant_fit(opened, file.variant) if opened and file.variant else opened
    if other is not None and other.file_key == file.file_key:
        make_open(other)


def _make(delivery: Delivery, file: DeliveredFile) -> None:
    opened = open_fit(delivery.workspace, file.fit) if file.fit else None
    other = variant_fit(opened, file.variant) if opened else None
    if opened is None or other is None:
        raise FitzleError(GONE)
    make_open(other)
    other = variant_fit(opened, file.variant)  # with what was made
    content = content_of(other.record) if other else None
    if other is None or content is None:
        raise FitzleError(f"there is no file {file.variant} under the limit of “{opened.sheet.name}”")
    if content == content_of(opened.record):
        raise Same
    file.rendition, file.file_key = other.rendition, other.file_key
    file.sha256, file.bytes, file.score = content.sha256, content.bytes, content.score
    file.format, file.width, file.height = content.format, content.width, content.height


def _keep(_delivery: Delivery, file: DeliveredFile, _data: bytes) -> None:
    """It is there to be saved."""
    file.state, file.message = DONE, ""


def _upload(_delivery: Delivery, file: DeliveredFile, data: bytes) -> None:
    """Uploads a file; one that is refused is not handed over, and says why in the destination's words."""
    if file.placement is None:
        raise FitzleError(GONE)
    file.answer = send(file.placement, _upload_of(file, data), _verdict(file))
    if not file.answer["taken"]:
        file.state, file.message = FAILED, f"refused there: {' '.join(file.answer['said'])}"
        return
    file.state, file.message, file.live_at = DONE, "", timezone.now()


def _upload_of(file: DeliveredFile, data: bytes) -> Upload:
    return Upload(
        key=str(file.pk), name=file.name, folder=file.folder, media_type=media_type_of(file.format), data=data,
        fields=file.fields, piece=str(file.piece or file.subject), window=_window(file),
    )  # fmt: skip


def _window(file: DeliveredFile) -> tuple[float, float, float, float] | None:
    """The part that the uploader chooses: the window of a sheet that has one."""
    windows: list[Any] = list(file.placement.sheet.get("windows") or []) if file.placement else []
    if len(windows) != 1:
        return None
    x, y, width, height = (float(windows[0][key]) for key in ("x", "y", "width", "height"))
    return x, y, width, height


def _verdict(file: DeliveredFile) -> str:
    """What the rules say of the fit, as it stands now."""
    opened = open_fit(file.delivery.workspace, file.fit) if file.fit else None
    if opened is None:
        return "fits"
    lacking = any(trouble_with(field, file.fields.get(field.name, "")) for field in opened.sheet.fields)
    return "its form is not filled in" if lacking else verdict_of(opened.findings or [])


def _write(delivery: Delivery, file: DeliveredFile, data: bytes) -> None:
    file.state, file.message = DONE, ""
    file.written = keep_current(folder_named(delivery.workspace, delivery.folder), file.path, data)
    file.live_at = file.live_at or timezone.now()  # it stands where it is served from


def _end(delivery: Delivery) -> None:
    if not Delivery.objects.filter(pk=delivery.pk, state=RUNNING).exists():
        return
    if delivery.way == "folder":
        _write_document(delivery)
    Delivery.objects.filter(pk=delivery.pk, state=RUNNING).update(state=DONE, ended_at=timezone.now())


def _write_document(delivery: Delivery) -> None:
    """Brings delivery.json of a folder up to date; without a date, so that nothing changes where no file did."""
    try:
        folder = folder_named(delivery.workspace, delivery.folder)
        known = {one.file: one for one in _documented(folder) if path_below(folder, one.file).is_file()}
        known.update({one.file: one for one in document_of(delivery).files})
        document = DeliveryDocument(fitzle_delivery=1, files=tuple(known[name] for name in sorted(known)))
        keep_current(folder, NAME, delivery_text(document).encode())
    except FitzleError as error:
        DeliveredFile.objects.filter(delivery=delivery, state=DONE).update(message=error.message)


def _documented(folder: Path) -> tuple[HandedOver, ...]:
    """What the delivery.json of a folder says; nothing where there is none that can be read."""
    try:
        return read_delivery(path_below(folder, NAME).read_bytes()).files
    except (OSError, FitzleError):
        return ()


HAND_OVER: dict[str, Callable[[Delivery, DeliveredFile, bytes], None]] = {
    "zip": _keep, "folder": _write, "upload": _upload,
}  # fmt: skip
