"""What the drawing service draws of a watermark: pictures are opened there, never in the pages' own process."""

from __future__ import annotations

from uuid import UUID

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.watermarking.proofs import marked_preview


@drawable
def draw_marked(workspace: int, watermark: UUID, picture: UUID, width: int) -> Picture:
    """A picture with its mark, its longer side at most so many px."""
    return Picture(*marked_preview(workspace_numbered(workspace), watermark, picture, width))
