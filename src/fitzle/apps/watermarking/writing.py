"""Marked pictures written into a folder of the server."""

from __future__ import annotations

from typing import TYPE_CHECKING

from fitzle.apps.deliveries.handing_over import folder_named
from fitzle.core.handover.folder import keep_current

if TYPE_CHECKING:
    from fitzle.apps.watermarking.models import Watermarking


def folder_file(watermarking: Watermarking, name: str, data: bytes) -> None:
    """Writes a file into its folder unless it has these bytes already; raises FitzleError where it cannot."""
    keep_current(folder_named(watermarking.workspace, watermarking.folder), name, data)
