"""A workspace as a ZIP that is written while it is sent: no second copy of it is made on the disk."""

from __future__ import annotations

import zipfile
from collections.abc import Iterator
from typing import TYPE_CHECKING

from fitzle.apps.accounts.access import house_style
from fitzle.apps.artwork.portable import originals_of, portable_artwork
from fitzle.apps.deliveries.portable import names_of, portable_deliveries
from fitzle.apps.destinations.portable import portable_destinations
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.files.zipping import Sending, add_kept
from fitzle.apps.pieces.portable import portable_pieces, portable_shared
from fitzle.apps.portable.document import NAME, PortableHouse, PortableWorkspace
from fitzle.core.spec.stems import free_name

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

MISSING = "MISSING.txt"


def workspace_document(workspace: Workspace) -> PortableWorkspace:
    """Everything of a workspace but the bytes of its files."""
    style = house_style(workspace)
    house = PortableHouse.model_validate(
        {"colours": style.named, "heading": style.heading, "text": style.text, "naming": style.naming}
    )
    return PortableWorkspace(
        fitzle_workspace=1,
        name=workspace.name,
        house=house,
        destinations=portable_destinations(workspace),
        artwork=portable_artwork(workspace),
        pieces=portable_pieces(workspace),
        shared_files=portable_shared(workspace),
        deliveries=portable_deliveries(workspace),
    )


def export_of(workspace: Workspace) -> Iterator[bytes]:
    """The ZIP, piece by piece: workspace.json, a sheet for each place, originals, and what was handed over.

    A file that is lost or damaged is left out and named in MISSING.txt: the others are worth having.
    """
    document = workspace_document(workspace)
    out = Sending()
    missing: list[str] = []
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        archive.writestr(NAME, document.model_dump_json(indent=1))
        for shelf in document.destinations:
            for place in shelf.placements:
                archive.writestr(f"sheets/{place.slug}.json", place.sheet.model_dump_json(indent=2))
        yield out.taken()
        for path, shelf_of, key in _files(document):
            found = yield from add_kept(archive, out, workspace.pk, path, shelf_of, key)
            if not found:
                missing.append(path)
        if missing:
            archive.writestr(MISSING, "These files were lost or damaged on the server:\n" + "\n".join(missing) + "\n")
    yield out.taken()


def _files(document: PortableWorkspace) -> Iterator[tuple[str, Shelf, str]]:
    for sha256 in sorted(originals_of(document.artwork)):
        yield f"originals/{sha256}", Shelf.ORIGINALS, sha256
    taken: set[str] = set()
    for path, file in names_of(document.deliveries):
        free = free_name(path, taken)
        taken.add(free)
        yield free, Shelf.MADE, file.sha256
