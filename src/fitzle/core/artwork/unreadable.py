"""Decoders' complaints in plain words."""

from __future__ import annotations

from fitzle.core.errors import ArtworkError


def unreadable(error: Exception) -> ArtworkError:
    """A decoder's complaint as an ArtworkError."""
    first = str(error).strip().splitlines()[-1] if str(error).strip() else "the decoder gave up"
    return ArtworkError(f"the picture data is damaged ({first})", advice="Save or export the file again.")
