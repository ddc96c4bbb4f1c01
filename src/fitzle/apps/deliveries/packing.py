"""Files that were made, packed into a ZIP while it is sent."""

from __future__ import annotations

import zipfile
from collections.abc import Iterable, Iterator, Mapping
from typing import TYPE_CHECKING, NamedTuple

from fitzle.apps.files.shelves import Shelf
from fitzle.apps.files.zipping import ZIP_DATE, Sending, add_kept

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

    A file that is lost is left out and named in MISSING.txt: the others are worth having.
    """
    out, missing = Sending(), list[str]()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        for file in files:
            found = yield from add_kept(archive, out, workspace.pk, file.path, Shelf.MADE, file.sha256)
            if not found:
                missing.append(file.path)
        for path, text in (texts or {}).items():
            archive.writestr(zipfile.ZipInfo(path, ZIP_DATE), text)
        if missing:
            archive.writestr(zipfile.ZipInfo(MISSING, ZIP_DATE), LOST + "\n".join(missing) + "\n")
    yield out.taken()
