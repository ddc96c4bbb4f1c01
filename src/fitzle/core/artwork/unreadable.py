"""Decoders' complaints in plain words."""

from __future__ import annotations

import re

from fitzle.core.errors import ArtworkError, LimitError

# What decoders say, and what it means to a person; the first that matches counts.
_OUT_OF_MEMORY = re.compile(
    r"error creating thread|out of memory|memory allocation|unable to allocate|cannot allocate", re.I
)
_TOO_LARGE = re.compile(r"exceeds|security limit|maximum supported|bomb|too large|too big", re.I)
_ENDS_EARLY = re.compile(r"truncated|unexpected end|premature|read error|not enough data|end of file", re.I)
_NOISE = re.compile(
    r"<[^>]*>|0x[0-9a-f]+|\b[Vv]ips\w*:?|\w+2vips:|\(\d[\d.]*\)|unable to call|^\s*\w+load_buffer:", re.I
)
MOST_WORDS = 90


def unreadable(error: Exception) -> ArtworkError:
    """A decoder's complaint as an ArtworkError, or a LimitError where the picture was too much for it."""
    said = str(error).strip()
    if isinstance(error, MemoryError) or _OUT_OF_MEMORY.search(said):
        return LimitError("the picture takes too much memory to read", advice="Export it smaller.")
    if _TOO_LARGE.search(said):
        return LimitError("the picture says that it is too large to be read", advice="Export it smaller.")
    if _ENDS_EARLY.search(said):
        return ArtworkError("the picture data ends too early", advice="Copy or export the file again.")
    reason = _NOISE.sub("", said.splitlines()[-1] if said else "").strip(" :;,.")
    detail = f" ({reason[:MOST_WORDS]})" if " " in reason else ""
    return ArtworkError(f"the picture data is damaged{detail}", advice="Save or export the file again.")
