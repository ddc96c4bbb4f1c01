"""How the parts of a piece move in a place: proposed by calculation."""

from __future__ import annotations

from uuid import UUID

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.drawing.calls import drawable
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import decided, open_fit
from fitzle.core.errors import DocumentError
from fitzle.core.motion.choreography import proposed
from fitzle.core.motion.document import motion_changes
from fitzle.core.piece.changes import AnyChange


@drawable
def work_out_motion(workspace: int, fit: UUID, liveliness: float | None) -> list[AnyChange]:
    """What lets the parts of a fit move, or stand still where that is None; for all places of the piece."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    if liveliness is None:
        return list(motion_changes(opened.document.parts, None))
    if not opened.resolved.moving_formats:
        raise DocumentError(
            "this place takes no moving picture", advice="Say in its spec sheet that it does, or choose another place."
        )
    motion = proposed(decided(space, opened).plan, liveliness, opened.sheet.motion.max_seconds)
    return list(motion_changes(opened.document.parts, motion))
