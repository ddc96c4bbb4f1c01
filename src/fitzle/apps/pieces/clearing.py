"""What pieces and their histories need, and renditions that nobody looks at any more."""

from __future__ import annotations

import json
import re
from datetime import datetime

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.pieces.fits import all_fits
from fitzle.apps.pieces.models import Piece, PieceRevision, PieceState, Rendition, RunRow, RunStep
from fitzle.apps.pieces.opening import open_fits

_ID = re.compile(r"[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}")


def artwork_in_histories(workspace_id: int) -> set[str]:
    """Every id that any piece of the workspace names, now or at any step that can be gone back to."""
    named = set[str]()
    for documents in (
        Piece.objects.filter(workspace_id=workspace_id),
        PieceState.objects.filter(piece__workspace_id=workspace_id),
        PieceRevision.objects.filter(piece__workspace_id=workspace_id),
        RunRow.objects.filter(run__piece__workspace_id=workspace_id),
    ):
        for document in documents.values_list("document", flat=True).iterator():
            named.update(_ID.findall(json.dumps(document)))
    steps = RunStep.objects.filter(run__piece__workspace_id=workspace_id)
    for inverse in steps.values_list("inverse", flat=True).iterator():
        named.update(_ID.findall(json.dumps(inverse)))
    return named


def forget_old_renditions(workspace_id: int, before: datetime) -> int:
    """Takes away renditions from before then that no fit stands for any more; gives how many.

    Undo may come back to one: its file is made again then.
    """
    workspace = workspace_numbered(workspace_id)
    now = {opened.file_key for opened in open_fits(workspace, all_fits(workspace))}
    old = Rendition.objects.filter(workspace_id=workspace_id, made_at__lt=before).exclude(file_key__in=now)
    return old.delete()[1].get("pieces.Rendition", 0)


def made_contents(workspace_id: int) -> set[str]:
    """The hashes of all files that renditions consist of."""
    found = Rendition.objects.filter(workspace_id=workspace_id).values_list("files", "beside")
    return {file["sha256"] for files, beside in found for file in (*files, *beside)}
