"""Takes workspaces that were deleted away for good."""

from __future__ import annotations

from fitzle.apps.accounts.workspaces import erase_rows
from fitzle.apps.files.keeping import forget_all


def erase(workspace_id: int) -> None:
    """Takes the files and then the rows of a workspace that is being deleted; begun again, it goes on."""
    forget_all(workspace_id)
    erase_rows(workspace_id)
