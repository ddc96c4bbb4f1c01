"""How Fitzle is doing, for machines: what it stands on, what is left of the disk, how long work waits."""

from __future__ import annotations

import logging
import os
import uuid
from typing import Any

from celery import current_app
from django.conf import settings
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from django.db import Error as DatabaseError
from django.db import connection
from django.http import HttpRequest, HttpResponse, JsonResponse
from kombu.exceptions import OperationalError

from fitzle.apps.drawing import client as drawing
from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.jobs.sweeping import oldest_wait_seconds

log = logging.getLogger(__name__)
LEAST_FREE_BYTES = 200_000_000  # one large upload and what is made of it
LONGEST_WAIT_SECONDS = 120.0
PARTS = (  # its key, what it is called, and what happens without it
    ("database", "Database", "Nobody can work."),
    ("storage", "Storage of files", "Nothing can be brought in or made."),
    ("queue", "Queue", "Files are made late; nothing is lost."),
    ("drawing", "Drawing service", "Proofs and previews are missing; all else goes on."),
)


def live(_request: HttpRequest) -> HttpResponse:
    """Whether the process answers at all."""
    return JsonResponse({"live": True})


def ready(_request: HttpRequest) -> HttpResponse:
    """Whether people can work: 503 where they cannot. What only makes it slower is told and is no reason to stop."""
    told = looked_at()
    told["trouble"] = trouble(told)
    works = told["database"] and told["storage"]
    return JsonResponse({"ready": works, **told}, status=200 if works else 503)


def looked_at() -> dict[str, Any]:
    """Everything, looked at now."""
    found = {
        "database": database_answers(),
        "storage": storage_takes_files(),
        "queue": queue_answers(),
        "drawing": drawing_answers(),
    }
    free, waits = free_bytes(), _wait_seconds()
    found["database"] &= waits is not None
    return {**found, "disk_free_bytes": free, "oldest_wait_seconds": waits}


def trouble(told: dict[str, Any]) -> list[str]:
    """In words, what whoever runs Fitzle should look at."""
    free, waits = told["disk_free_bytes"], told["oldest_wait_seconds"]
    lines = {
        "The database does not answer.": not told["database"],
        "Files cannot be kept: the disk is full, or the storage does not answer.": not told["storage"],
        "The queue does not answer: files are made late.": not told["queue"],
        "The drawing service does not answer: proofs and previews are missing.": not told["drawing"],
        "The disk is nearly full.": free is not None and free < LEAST_FREE_BYTES,
        "Work waits for long: are the workers there?": waits is not None and waits > LONGEST_WAIT_SECONDS,
    }
    return [line for line, holds in lines.items() if holds]


def _wait_seconds() -> float | None:
    """How long work waits; None where the database does not say."""
    try:
        return oldest_wait_seconds()
    except DatabaseError as error:
        log.warning("nobody knows how long work waits: %s", error)
        return None


def notice_for_people() -> str:
    """What people who work should know; empty where there is nothing to know."""
    free = free_bytes()
    if free is not None and free < LEAST_FREE_BYTES:
        return "The disk of this server is nearly full. What is saved is safe; new files may have to wait for room."
    if (_wait_seconds() or 0) > LONGEST_WAIT_SECONDS:
        return "Files are made late just now. What is saved is safe, and what waits is made by itself."
    return ""


def database_answers() -> bool:
    """Whether the database answers."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except DatabaseError as error:
        log.warning("the database does not answer: %s", error)
        return False
    return True


def storage_takes_files() -> bool:
    """Whether a small file can be written, and is there afterwards."""
    name = f"health/{uuid.uuid4().hex}"
    try:
        kept = default_storage.save(name, ContentFile(b"."))
        whole = default_storage.size(kept) == 1
        default_storage.delete(kept)
    except (OSError, StorageFullError) as error:
        log.warning("files cannot be kept: %s", error)
        return False
    return bool(whole)


def queue_answers() -> bool:
    """Whether the queue answers."""
    try:
        with current_app.connection_for_write(connect_timeout=1) as broker:
            broker.ensure_connection(max_retries=1, interval_start=0, timeout=1)
    except (OperationalError, OSError) as error:
        log.warning("the queue does not answer: %s", error)
        return False
    return True


def drawing_answers() -> bool:
    """Whether the drawing service takes connections, or everything is drawn in place."""
    return not settings.DRAWING or drawing.is_there()


def free_bytes() -> int | None:
    """Room that is left where files are kept; None where they are kept elsewhere."""
    if settings.BUCKET:
        return None
    try:
        folder = os.statvfs(settings.VAR)
    except OSError:
        return None
    return folder.f_bavail * folder.f_frsize
