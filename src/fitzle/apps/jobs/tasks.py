"""Celery tasks: thin, each calls one function of an app. Nothing is kept in the process."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from billiard.exceptions import WorkerLostError
from celery.signals import task_failure
from django.conf import settings
from django.core.exceptions import PermissionDenied
from django.db import close_old_connections, connection, transaction
from django.http import Http404

from fitzle.apps.accounts.access import Capability, access_again, all_workspaces
from fitzle.apps.accounts.workspaces import workspaces_to_erase
from fitzle.apps.artwork.actions import ROW_TARGET
from fitzle.apps.artwork.clips import best_moment, end_unproposed, note_stills, propose_stills, usable
from fitzle.apps.artwork.intake import end_unread, filled, keep_apart, settle_newer, take_in
from fitzle.apps.artwork.library import artwork_named
from fitzle.apps.artwork.preparing import end_unmade, made_again, make_costly_steps, make_prepared, settle_prepared
from fitzle.apps.deliveries.handing_over import end_unhanded, hand_over
from fitzle.apps.destinations.learning import end_unlearnt, learn_now
from fitzle.apps.jobs import leases
from fitzle.apps.jobs.bounds import bounded_task
from fitzle.apps.jobs.clearing import clear_workspace, kept_since
from fitzle.apps.jobs.queue import (
    make_later,
    prepare_later,
    propose_later,
    read_later,
    want_again,
    write_prepared_later,
)
from fitzle.apps.mails.sending import send_waiting
from fitzle.apps.pieces.actions import bring_into, place_artwork
from fitzle.apps.pieces.making import end_unmade_file, make_file, make_missing
from fitzle.apps.pieces.row_actions import put_into_row
from fitzle.apps.pieces.row_files import end_unmade_rows, work_on_rows
from fitzle.apps.pieces.row_looking import look_at_rows as look_at
from fitzle.apps.pieces.uses import fits_showing
from fitzle.apps.portable.erasing import erase
from fitzle.apps.watermarking.marking import end_unmarked, work_on
from fitzle.core.errors import FitzleError

if TYPE_CHECKING:
    from fitzle.apps.artwork.models import Artwork

INTAKE: dict[str, Any] = {"soft_time_limit": 25, "time_limit": 30, "memory_bytes": settings.WORKER_INTAKE_BYTES}
SETTLED_SECONDS = 1.5  # without a further change before the file at full size is made


@bounded_task(**INTAKE)
def take_in_artwork(artwork_id: str) -> None:
    """Reads an artwork and fills the placements that wait for it."""
    artwork = take_in(artwork_id)
    if artwork is None or artwork.state != "ready":
        return
    with transaction.atomic():  # what follows from it is done once, or not yet
        if artwork.origin.get("replaces"):
            _replace(artwork)
        elif usable(artwork):
            propose_later(artwork_id)
        else:
            if artwork.known_facts["kind"] != "clip":  # an animation of drawings is kept, and stands nowhere yet
                _fill(artwork)
            filled(artwork)
            _go_on_with_what_shows(artwork)


def _go_on_with_what_shows(artwork: Artwork) -> None:
    """Has made what waits for an artwork already: it came in with a whole workspace."""
    revision = made_again(artwork)
    if revision:
        prepare_later(artwork.pk, revision)
    else:
        make_later(fit.pk for fit in fits_showing(artwork.workspace, str(artwork.pk)))


def _replace(newer: Artwork) -> None:
    """Lets a newer file stand for its artwork, and has its steps and all that show it made once more."""
    try:
        access_again(newer.created_by_id, newer.workspace_id).require(Capability.CHANGE)
    except (Http404, PermissionDenied):
        keep_apart(newer)
        return
    target = settle_newer(newer)
    if target is None:
        return
    revision = made_again(target)
    if revision:
        prepare_later(target.pk, revision)
    else:
        make_later(fit.pk for fit in fits_showing(target.workspace, str(target.pk)))


@bounded_task(memory_bytes=settings.WORKER_INTAKE_BYTES)
def propose_clip_stills(artwork_id: str) -> None:
    """Looks for good stills of a clip; where places wait for it, the best one fills them."""
    clip = artwork_named(artwork_id)
    if clip is None or not usable(clip):
        return
    propose_stills(clip)
    with transaction.atomic():
        if clip.targets:
            [still] = note_stills(clip, clip.created_by, [best_moment(clip)], clip.targets)
            read_later(still.pk)
        filled(clip)


def _fill(artwork: Artwork) -> None:
    """Puts an artwork where it was dropped, by what who dropped it may do now; the files are queued with it."""
    try:
        access = access_again(artwork.created_by_id, artwork.workspace_id)
    except Http404:
        return  # who dropped it does not belong to the workspace any more; the artwork itself is there
    placements = [entry for entry in artwork.targets if "/" not in entry]
    for target in (entry for entry in artwork.targets if "/" in entry):
        try:
            if target.startswith(ROW_TARGET):
                put_into_row(access, artwork.pk, artwork.name, target)
            else:
                bring_into(access, str(artwork.pk), target)
        except (FitzleError, Http404, PermissionDenied):
            continue  # the proof it was dropped on is gone by now, or may not be changed any more
    if placements:
        try:
            place_artwork(access, artwork.pk, placements)
        except PermissionDenied:
            return


@bounded_task(**INTAKE)
def make_costly(artwork_id: str, revision: int) -> None:
    """Makes what the preview of a preparation waits for, and has the file at full size made after it."""
    artwork = artwork_named(artwork_id)
    if artwork and make_costly_steps(artwork, revision):
        write_prepared_later(artwork_id, revision, SETTLED_SECONDS)


@bounded_task(**INTAKE)
def make_prepared_file(artwork_id: str, revision: int) -> None:
    """Makes an artwork's prepared file, unless its steps have changed since, and the files of all that show it."""
    artwork = artwork_named(artwork_id)
    prepared = make_prepared(artwork, revision) if artwork else None
    if artwork is None or prepared is None:
        return
    with transaction.atomic():
        if settle_prepared(artwork, revision, prepared):
            make_later(fit.pk for fit in fits_showing(artwork.workspace, artwork_id))


@bounded_task(soft_time_limit=60, time_limit=70, memory_bytes=settings.WORKER_FILE_BYTES)
def learn_place(learning_id: str) -> None:
    """Learns a place from a screenshot."""
    learn_now(learning_id)


@bounded_task(soft_time_limit=110, time_limit=120)
def make_fit_file(fit_id: str) -> None:
    """Makes the file of a fit."""
    make_file(fit_id)


@bounded_task(soft_time_limit=110, time_limit=120)
def look_at_rows(piece_id: str, share: int) -> None:
    """Looks at the rows of a run, as many as fit into one turn."""
    look_at(piece_id, share)


@bounded_task(soft_time_limit=180, time_limit=190)
def make_rows(piece_id: str, share: int) -> None:
    """Makes files of the rows of a run, as many as fit into one turn."""
    work_on_rows(piece_id, share)


@bounded_task()
def hand_over_files(delivery_id: str) -> None:
    """Hands the files of a delivery over, as many as fit into one turn."""
    hand_over(delivery_id)


@bounded_task(soft_time_limit=1500, time_limit=1600)
def mark_pictures(key: str) -> None:
    """Looks at the pictures of a watermarking and marks them, as many as fit into one turn."""
    work_on(key)


@bounded_task(soft_time_limit=1800, time_limit=1900)
def clear_away_unneeded(workspace_id: int) -> None:
    """Takes away what nobody in a workspace needs any more."""
    clear_workspace(workspace_id, kept_since())


@bounded_task(soft_time_limit=600, time_limit=660)
def catch_up(workspace_id: int) -> None:
    """Has made what this version of Fitzle makes otherwise than the one before it."""
    workspace = next((one for one in all_workspaces() if one.pk == workspace_id), None)
    if workspace:
        make_missing(workspace)


@bounded_task(soft_time_limit=1800, time_limit=1900)
def erase_workspace(workspace_id: int) -> None:
    """Takes a deleted workspace away, unless it was brought back meanwhile."""
    if workspace_id in workspaces_to_erase():
        erase(workspace_id)


@bounded_task(**INTAKE)
def send_mail(number: int) -> None:
    """Sends a mail that waits; a worker that dies over it leaves it waiting."""
    send_waiting(number)


_ENDED: dict[str, Callable[..., object]] = {  # those that give True are gone on with
    take_in_artwork.name: end_unread,
    propose_clip_stills.name: end_unproposed,
    make_costly.name: end_unmade,
    make_prepared_file.name: end_unmade,
    make_fit_file.name: end_unmade_file,
    learn_place.name: end_unlearnt,
    hand_over_files.name: end_unhanded,
    mark_pictures.name: end_unmarked,
    make_rows.name: end_unmade_rows,
}


@task_failure.connect
def end_what_it_left(sender: Any = None, args: Any = (), exception: Any = None, **_: Any) -> None:
    """Ends, in words, what a task left because it was out of time or memory; runs in the parent where the process died.

    A process that died is not held against the file at once: another one tries it again.
    """
    ended = _ENDED.get(getattr(sender, "name", ""))
    if ended is None:
        return
    if not connection.in_atomic_block:
        close_old_connections()  # the parent may not have used its own for hours
    if isinstance(exception, WorkerLostError) and leases.try_again(sender.kind, tuple(args)):
        return
    more = ended(*args)
    leases.end(sender.kind, args)
    if more:
        want_again(sender.kind, args)
