"""A picture as it will be once it is marked."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from fitzle.apps.artwork.clips import jpeg_of
from fitzle.apps.artwork.library import GONE
from fitzle.apps.files.keeping import read
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.watermarking.batches import drawn_mark, picture_of, stamp_of, watermarking_of
from fitzle.core.encode.png import plain_png
from fitzle.core.errors import ArtworkError
from fitzle.core.watermark.looking import looked_at, shown_marked

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace


def marked_preview(workspace: Workspace, key: UUID, picture: UUID, longest: int) -> tuple[bytes, str]:
    """The file of a proof and its media type: a PNG where the picture is see-through, else a JPEG."""
    found, watermarking = picture_of(workspace, key, picture), watermarking_of(workspace, key)
    data = read(Shelf.ORIGINALS, workspace.pk, found.original)
    if data is None:
        raise ArtworkError(GONE, subject=found.name)
    shown, _ = shown_marked(
        looked_at(data, found.name, longest), drawn_mark(watermarking).pixels, stamp_of(watermarking)
    )
    if shown[..., 3].min() < 255:
        return plain_png(shown), "image/png"
    return jpeg_of(shown), "image/jpeg"
