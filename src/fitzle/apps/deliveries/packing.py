"""Files that were made, packed into a ZIP while it is sent."""

from __future__ import annotations

import zipfile
from collections.abc import Iterable, Iterator, Mapping
from typing import TYPE_CHECKING, NamedTuple

from fitzle.apps.files.shelves import Shelf
from fitzle.apps.files.zipping import ZIP_DATE, Sending, add_kept
from fitzle.apps.pieces.making import require_made

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

MISSING = "MISSING.txt"
LOST = "These files were lost or damaged on the server. Deliver them again, they are made anew:\n"


class Packed(NamedTuple):
    """A kept file and its path in the ZIP."""

    path: str
    sha256: str


def zip_pieces(
    workspace: Workspace, files: Iterable[Packed], texts: Mapping[str, str] | None = None
) -> Iterator[bytes]:
    """The ZIP, piece by piece; `texts` by path stand at its end. The same files give the same bytes.

    Raises DamagedFileError before anything is sent where one of them is not there. One that is found to be damaged
    later is left out and named in MISSING.txt: the others are worth having.
    """
    files = list(files)
    require_made(workspace, [file.sha256 for file in files])
    return _pieces(workspace, files, texts or {})


def _pieces(workspace: Workspace, files: list[Packed], texts: Mapping[str, str]) -> Iterator[bytes]:
    out, missing = Sending(), list[str]()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        for file in files:
            found = yield from add_kept(archive, out, workspace.pk, file.path, Shelf.MADE, file.sha256)
            if not found:
                missing.append(file.path)
        for path, text in texts.items():
            archive.writestr(zipfile.ZipInfo(path, ZIP_DATE), text)
        if missing:
            archive.writestr(zipfile.ZipInfo(MISSING, ZIP_DATE), LOST + "\n".join(missing) + "\n")
    yield out.taken()
