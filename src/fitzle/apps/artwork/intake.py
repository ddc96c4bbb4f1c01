"""Bringing artwork in: the request keeps the bytes, a worker reads them."""

from __future__ import annotations

import logging
from collections.abc import Iterable
from typing import TYPE_CHECKING, Any
from uuid import UUID

from celery.exceptions import SoftTimeLimitExceeded
from django.conf import settings
from django.db import InterfaceError as DatabaseLost
from django.db import OperationalError as DatabaseAway
from django.db import transaction
from django.utils import timezone

from fitzle.apps.artwork.clips import loop_bytes, read_clip, still_bytes
from fitzle.apps.artwork.from_web import fetched
from fitzle.apps.artwork.models import SHOWN_FROM, Artwork, State, plain_tags
from fitzle.apps.artwork.web_address import file_name_of, web_address
from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.files.keeping import first_bytes, keep, keep_by_content, read
from fitzle.apps.files.room import within_room
from fitzle.apps.files.shelves import Shelf
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.likeness import likeness, small_picture
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.lottie import read_lottie
from fitzle.core.artwork.lottie_player import drawn_copy
from fitzle.core.artwork.opening import check_count
from fitzle.core.artwork.pages import page_alone
from fitzle.core.artwork.reading import read_and_judge
from fitzle.core.artwork.sniff import SNIFFED_BYTES, sniff_format
from fitzle.core.artwork.sources import Source
from fitzle.core.artwork.working import make_working_copy
from fitzle.core.errors import FitzleError
from fitzle.core.formats import CLIPS

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

log = logging.getLogger(__name__)
USED_UP = "Reading this file used up its time or memory. Export it simpler or smaller, and bring it in again."
KEPT_EARLIER = 20  # files of one artwork


def limits() -> Limits:
    """The core's limits with this installation's settings."""
    return Limits(max_bytes=settings.UPLOAD_LIMIT_BYTES, max_pixels=settings.UPLOAD_LIMIT_PIXELS)


def bring_in(
    workspace: Workspace,
    user: User | None,
    name: str,
    chunks: Iterable[bytes],
    targets: list[str],
    origin: dict[str, Any] | None = None,
    tags: Iterable[str] = (),
) -> Artwork:
    """Keeps the bytes of one file and notes it as queued; the caller sends it to a worker after commit."""
    sha256, count = _kept(workspace.pk, chunks)
    return Artwork.objects.create(
        workspace=workspace, name=name[:255] or "unnamed", sha256=sha256, bytes=count, targets=targets,
        origin=origin or {}, tags=plain_tags(tags), created_by=user,
    )  # fmt: skip


def _kept(workspace_id: int, chunks: Iterable[bytes]) -> tuple[str, int]:
    """Keeps an original if the workspace has room for it: its hash and weight. Raises NoRoomError."""
    return keep_by_content(Shelf.ORIGINALS, workspace_id, within_room(workspace_id, chunks))


def bring_from_web(workspace: Workspace, user: User | None, text: str, targets: list[str]) -> Artwork:
    """Notes the file at an address on the web as queued; a worker fetches it. Raises ArtworkError for no address."""
    address = web_address(text)
    return Artwork.objects.create(
        workspace=workspace, name=file_name_of(address), bytes=0, targets=targets, origin={"web": address.text},
        created_by=user,
    )  # fmt: skip


def take_in(artwork_id: UUID | str) -> Artwork | None:
    """Reads an artwork in the worker; ends as ready or failed with a message, never in between. None if it is gone.

    What is read already is not read again. Where the disk is full it waits, and says so.
    """
    artwork = Artwork.objects.select_related("parent", "workspace").filter(pk=artwork_id).first()
    if artwork is None or artwork.state in (State.READY, State.FAILED):
        return artwork
    try:
        _read(artwork)
    except StorageFullError as error:
        _note(artwork, state=State.QUEUED, progress=0, message=error.message)
        raise
    except (DatabaseAway, DatabaseLost):
        raise
    except FitzleError as error:
        _note(artwork, state=State.FAILED, message=error.message)
    except SoftTimeLimitExceeded:
        _note(artwork, state=State.FAILED, message=f"{artwork.name}: this takes too long to read. Export it simpler.")
    except MemoryError:
        message = f"{artwork.name}: this takes too much memory to read. Export it smaller."
        _note(artwork, state=State.FAILED, message=message)
    except Exception:
        log.exception("reading artwork %s failed", artwork.pk)
        _note(artwork, state=State.FAILED, message=f"{artwork.name}: reading it failed on our side. Try it once more.")
    return artwork


def _read(artwork: Artwork) -> None:
    _note(artwork, state=State.READING, progress=10)
    if artwork.parent and not artwork.sha256:
        _take_out(artwork, artwork.parent)
    elif "web" in artwork.origin and not artwork.sha256:
        sha256, count = _kept(artwork.workspace_id, fetched(artwork.origin["web"], settings.UPLOAD_LIMIT_BYTES))
        _note(artwork, sha256=sha256, bytes=count, progress=30)
    fmt = sniff_format(first_bytes(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256, SNIFFED_BYTES))
    if fmt == "lottie":
        data = first_bytes(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256, limits().max_lottie_bytes + 1)
        facts, working_format = read_lottie(data, artwork.name, limits()), "png"
        keep(Shelf.WORKING, artwork.workspace_id, artwork.sha256, drawn_copy(data))
    elif fmt in CLIPS:
        try:
            facts, working_format = read_clip(artwork, fmt, limits())
        except FitzleError as error:
            raise error.about(artwork.name) from error
    else:
        facts, working_format = _read_picture(artwork)
    dumped = facts.model_dump(mode="json")
    _note(artwork, state=State.READY, progress=100, facts=dumped, working_format=working_format, message="")
    artwork.save(update_fields=["likeness"])


def _read_picture(artwork: Artwork) -> tuple[ArtworkFacts, str]:
    """The facts of anything that is no clip, and the format of its working copy (empty: it needs none)."""
    check_count(artwork.bytes, limits())
    data = read(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256) or b""

    def show(source: Source) -> None:
        """Keeps what can be shown before anything is measured: people see their picture in half a second."""
        copy = make_working_copy(source)
        if copy:
            keep(Shelf.WORKING, artwork.workspace_id, artwork.sha256, copy[0])
        _note(artwork, progress=SHOWN_FROM, working_format=copy[1] if copy else "")

    found = read_and_judge(data, artwork.name, limits(), show)
    artwork.likeness = likeness(small_picture(found.source))
    return found.facts, artwork.working_format


def _take_out(artwork: Artwork, parent: Artwork) -> None:
    """The file of a still, a loop or a page, taken out of what it comes from."""
    if "still" in artwork.origin:
        data = still_bytes(parent, artwork.origin["still"])
    elif "loop" in artwork.origin:
        data = loop_bytes(parent, artwork.origin["loop"])
    else:
        whole = read(Shelf.ORIGINALS, parent.workspace_id, parent.sha256) or b""
        data = page_alone(whole, artwork.origin["page"] - 1, limits())
    sha256, count = _kept(artwork.workspace_id, [data])
    _note(artwork, sha256=sha256, bytes=count, progress=30)


def bring_in_newer(target: Artwork, user: User | None, name: str, chunks: Iterable[bytes]) -> Artwork:
    """Keeps the bytes of a newer file of an artwork; once it is read, `settle_newer` lets it stand for it."""
    return bring_in(target.workspace, user, name, chunks, [], {"replaces": str(target.pk)})


def bring_back(target: Artwork, user: User | None, number: int) -> Artwork | None:
    """An earlier file of an artwork, by its place in the list, to be read and to stand for it again."""
    if not 0 <= number < len(target.earlier):
        return None
    earlier = target.earlier[number]
    return Artwork.objects.create(
        workspace=target.workspace, name=earlier["name"], sha256=earlier["sha256"], bytes=earlier["bytes"],
        origin={"replaces": str(target.pk)}, created_by=user,
    )  # fmt: skip


@transaction.atomic
def settle_newer(newer: Artwork) -> Artwork | None:
    """Lets a newer file that was read stand for the artwork it replaces; None where that is gone.

    Name, tags and preparation stay; the file before is kept among the earlier ones. Where there is nothing to replace
    any more, the newer file becomes artwork of its own.
    """
    wanted = newer.origin.get("replaces")
    target = Artwork.objects.select_for_update().filter(workspace=newer.workspace, pk=wanted).first()
    if target is None:
        _note(newer, origin={})
        return None
    before = {"sha256": target.sha256, "name": target.name, "bytes": target.bytes, "at": timezone.now().isoformat()}
    others = [entry for entry in target.earlier if entry["sha256"] not in (newer.sha256, target.sha256)]
    target.earlier = [*others, before][-KEPT_EARLIER:]
    for field in ("sha256", "bytes", "facts", "working_format", "likeness"):
        setattr(target, field, getattr(newer, field))
    target.prepared = None  # until its steps are made once more; fits show the newer file as it came for that moment
    target.save()
    newer.delete()
    return target


def keep_apart(newer: Artwork) -> None:
    """Lets a newer file be artwork of its own: who brought it may not change the one that it was to replace."""
    _note(newer, origin={})


def filled(artwork: Artwork) -> None:
    """Notes that the artwork stands where it was dropped; until then the pages wait for it."""
    _note(artwork, targets=[])


def end_unread(artwork_id: UUID | str) -> None:
    """Ends artwork whose worker was ended while it read it, or while it was put where it was dropped."""
    read = Artwork.objects.filter(pk=artwork_id, state=State.READY)
    read.update(targets=[])
    read.filter(origin__has_key="replaces").update(origin={})
    unread = Artwork.objects.filter(pk=artwork_id, state__in=(State.QUEUED, State.READING))
    unread.update(state=State.FAILED, message=USED_UP, changed_at=timezone.now())


def _note(artwork: Artwork, **fields: Any) -> None:
    for field, value in fields.items():
        setattr(artwork, field, value)
    artwork.save(update_fields=[*fields, "changed_at"])
