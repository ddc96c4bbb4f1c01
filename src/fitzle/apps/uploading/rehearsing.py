"""The adapter for the rehearsal that ships with Fitzle: uploads by HTTP multipart with a token."""

from __future__ import annotations

import json
from typing import Any, NamedTuple

from django.conf import settings
from django.core.cache import cache
from urllib3.exceptions import HTTPError
from urllib3.response import BaseHTTPResponse

from fitzle.apps.uploading import http
from fitzle.apps.uploading.errors import UploadError
from fitzle.apps.uploading.port import Answer, Upload

KNOWN_SECONDS = 20
ASIDE_SECONDS = 4.0  # for what somebody waits for at a screen
KNOWN = "rehearsal/places"


class RehearsalPlace(NamedTuple):
    """A place of the rehearsal: what it is called there, which kind of place it is, and the page where it is seen."""

    slug: str
    kind: str
    destination: str
    page: str
    icons: bool = False


def rehearsal_places() -> dict[str, RehearsalPlace]:
    """The places by their kinds; none where no rehearsal runs."""
    if not settings.REHEARSAL:
        return {}
    known = cache.get(KNOWN)
    if known is None:
        known = _asked_for()
        cache.set(KNOWN, known, KNOWN_SECONDS)
    return {entry["kind"]: _place(entry) for entry in known}


class Rehearsal:
    """Uploads to one place of the rehearsal."""

    def __init__(self, place: RehearsalPlace) -> None:
        self.place = place

    def upload(self, upload: Upload) -> Answer:
        """Hands a file over."""
        fields: dict[str, Any] = {**upload.fields, "replaces": upload.piece}
        if upload.window:
            fields["window"] = ",".join(f"{part:.6f}" for part in upload.window)
        fields["file"] = (upload.name, upload.data, upload.media_type)
        headers = {"Authorization": f"Bearer {settings.REHEARSAL_TOKEN}", "Idempotency-Key": upload.key}
        answer = http.asked("POST", f"{settings.REHEARSAL}/upload/{self.place.slug}", headers, fields=fields)
        told = _told(answer)
        if answer.status in (200, 201) and told.get("taken") is True:
            base = settings.REHEARSAL
            return Answer(
                True, (), f"{base}{told.get('page', '')}", f"{base}{told.get('picture', '')}", told.get("again") is True
            )
        said = tuple(str(words) for words in told.get("refused", ()))[:20]
        if not said:
            raise UploadError(f"its answer {answer.status} says nothing", subject=self.place.destination)
        return Answer(False, said, f"{settings.REHEARSAL}{self.place.page}")

    def shown(self, answer: Answer) -> bytes | None:
        """What the page shows now."""
        if not answer.picture.startswith(f"{settings.REHEARSAL}/"):
            return None
        try:
            found = http.once("GET", answer.picture, {}, read_seconds=ASIDE_SECONDS)
        except HTTPError as error:
            raise UploadError("what it shows could not be looked at", subject=self.place.destination) from error
        kind = found.headers.get("Content-Type", "")
        return bytes(found.data) if found.status == 200 and kind.startswith("image/") else None


def _asked_for() -> list[dict[str, Any]]:
    """The places as the rehearsal tells them; none where it is down, which costs one try."""
    try:
        answer = http.once("GET", f"{settings.REHEARSAL}/places", {}, read_seconds=ASIDE_SECONDS)
        return list(_told(answer).get("places", []))
    except (UploadError, HTTPError):
        return []


def _place(entry: dict[str, Any]) -> RehearsalPlace:
    return RehearsalPlace(entry["slug"], entry["kind"], entry["destination"], entry["page"], bool(entry.get("icons")))


def _told(answer: BaseHTTPResponse) -> dict[str, Any]:
    try:
        told = json.loads(answer.data)
    except ValueError:
        return {}
    return told if isinstance(told, dict) else {}
