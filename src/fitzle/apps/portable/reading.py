"""A workspace out of a ZIP: looked through first, then brought in whole or not at all."""

from __future__ import annotations

import zipfile
from collections.abc import Iterator
from typing import IO, TYPE_CHECKING

from django.conf import settings
from django.db import transaction
from django.utils import timezone
from pydantic import ValidationError

from fitzle.apps.accounts.access import save_house_style
from fitzle.apps.accounts.workspaces import found_own
from fitzle.apps.artwork.portable import add_portable_artwork, originals_of
from fitzle.apps.deliveries.portable import add_portable_deliveries, names_of
from fitzle.apps.destinations.portable import add_portable_destinations
from fitzle.apps.files.keeping import CHUNK_BYTES, keep_by_content
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.queue import read_later
from fitzle.apps.pieces.portable import add_portable_pieces, add_portable_shared
from fitzle.apps.portable.document import NAME, VERSION, PortableWorkspace
from fitzle.apps.portable.erasing import erase
from fitzle.core.errors import DocumentError
from fitzle.core.spec.stems import free_name

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

MOST_ENTRIES, MOST_DOCUMENT_BYTES = 200_000, 200_000_000
NO_EXPORT = "this is no workspace that Fitzle saved"
ADVICE = "Choose the ZIP that “Save everything” made."


def bring_in_workspace(person: User, file: IO[bytes]) -> Workspace:
    """A new workspace of this person's own out of an export; its artwork is read by the workers.

    Raises DocumentError, in words, for anything that is no whole export; then nothing is left of it. Until all of it
    is there it counts as deleted, so that one that was cut off in the middle goes by itself.
    """
    with _opened(file) as archive:
        document = _document(archive)
        _check_weight(archive)
        workspace = _hidden(person, document.name)
        try:
            weights = _keep_originals(archive, workspace.pk, document)
            _keep_record(archive, workspace.pk, document)
            with transaction.atomic():
                _add(workspace, person, document, weights)
                workspace.leaving_at = None
                workspace.save(update_fields=["leaving_at"])
        except Exception:
            erase(workspace.pk)
            raise
    return workspace


@transaction.atomic
def _hidden(person: User, name: str) -> Workspace:
    workspace = found_own(person, name)
    workspace.leaving_at = timezone.now()
    workspace.save(update_fields=["leaving_at"])
    return workspace


def _opened(file: IO[bytes]) -> zipfile.ZipFile:
    try:
        archive = zipfile.ZipFile(file)
    except (zipfile.BadZipFile, ValueError, OSError) as error:
        raise DocumentError(NO_EXPORT, advice=ADVICE) from error
    if len(archive.infolist()) > MOST_ENTRIES:
        raise DocumentError(f"there are more than {MOST_ENTRIES:,} files in this ZIP", advice=ADVICE)
    return archive


def _document(archive: zipfile.ZipFile) -> PortableWorkspace:
    """workspace.json; no other name in the ZIP is ever used as a path."""
    try:
        entry = archive.getinfo(NAME)
        if entry.file_size > MOST_DOCUMENT_BYTES:
            raise DocumentError(f"{NAME} is too large", advice=ADVICE)
        with archive.open(entry) as stream:
            data = stream.read(MOST_DOCUMENT_BYTES + 1)
        return PortableWorkspace.model_validate_json(data)
    except ValidationError as error:
        raise DocumentError(_words(error), advice=ADVICE) from error
    except (KeyError, zipfile.BadZipFile, RuntimeError, NotImplementedError, RecursionError, EOFError) as error:
        raise DocumentError(NO_EXPORT, advice=ADVICE) from error


def _words(error: ValidationError) -> str:
    first = error.errors()[0]
    place = ".".join(str(step) for step in first["loc"])
    if place == "fitzle_workspace" and first["type"] != "missing":
        return f"this workspace was saved by a newer version of Fitzle; this one reads version {VERSION}"
    return f"{NAME} cannot be read at {place or 'its beginning'}: {first['msg']}"


def _check_weight(archive: zipfile.ZipFile) -> None:
    whole = sum(entry.file_size for entry in archive.infolist())
    if whole > settings.WORKSPACE_BYTES:
        most = settings.WORKSPACE_BYTES / 1e9
        raise DocumentError("this workspace is too large", advice=f"At most {most:.0f} GB are kept of one.")


def _keep_originals(archive: zipfile.ZipFile, workspace_id: int, document: PortableWorkspace) -> dict[str, int]:
    """Keeps the files of artwork, each compared with its hash; their weights by their hashes."""
    return {
        sha256: _keep(archive, Shelf.ORIGINALS, workspace_id, f"originals/{sha256}", sha256)
        for sha256 in sorted(originals_of(document.artwork))
    }


def _keep_record(archive: zipfile.ZipFile, workspace_id: int, document: PortableWorkspace) -> None:
    taken: set[str] = set()
    for path, file in names_of(document.deliveries):
        free = free_name(path, taken)
        taken.add(free)
        _keep(archive, Shelf.MADE, workspace_id, free, file.sha256)


def _keep(archive: zipfile.ZipFile, shelf: Shelf, workspace_id: int, name: str, sha256: str) -> int:
    try:
        entry = archive.getinfo(name)
        with archive.open(entry) as stream:
            found, count = keep_by_content(shelf, workspace_id, _chunks(stream, entry.file_size))
    except (KeyError, zipfile.BadZipFile, RuntimeError, NotImplementedError, EOFError) as error:
        raise DocumentError(f"{name} is missing in this ZIP, or damaged", advice="Save the workspace again.") from error
    if found != sha256:
        raise DocumentError(f"{name} is not what it was", advice="Save the workspace again.")
    return count


def _chunks(stream: IO[bytes], most: int) -> Iterator[bytes]:
    """All bytes, and not more than the ZIP says of itself."""
    left = most
    while chunk := stream.read(min(CHUNK_BYTES, left + 1)):
        left -= len(chunk)
        if left < 0:
            raise EOFError
        yield chunk


def _add(workspace: Workspace, person: User, document: PortableWorkspace, weights: dict[str, int]) -> None:
    house = document.house
    save_house_style(
        workspace, [colour.model_dump() for colour in house.colours], house.heading, house.text, house.naming
    )
    placements = add_portable_destinations(workspace, person, document.destinations)
    add_portable_shared(workspace, document.shared_files, placements)
    artwork = add_portable_artwork(workspace, person, document.artwork, weights)
    add_portable_pieces(workspace, person, document.pieces, artwork, placements)
    add_portable_deliveries(workspace, person, document.deliveries, placements)
    for name in artwork.values():
        read_later(name)
