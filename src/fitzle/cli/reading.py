"""Artwork and spec sheets read within the allowance of one run."""

from __future__ import annotations

import os
from functools import cache
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of
from fitzle.core.bounds import Allowance

DRAWING_SECONDS, DRAWING_BYTES = 8.0, 500_000_000  # for all drawing of one run, beside what is loaded
may_be_lost = False  # whether this is the child of one that says so where a drawing ends it


def spec_of(spec: str) -> Any:
    """A sheet from a file, or from words where there is no such file."""
    if spec.endswith(".json") or os.path.exists(spec):
        from fitzle.core.spec.reading import read_spec_sheet

        path = Path(spec)
        return read_spec_sheet(bytes_of(path), path.name)
    from fitzle.core.spec.words.reading import sheet_in_words

    return sheet_in_words(spec)


def read(data: bytes, name: str, **more: Any) -> Any:
    """An artwork; one that has to be drawn takes time and memory out of the allowance of this run."""
    from fitzle.core.artwork.reading import read_artwork

    allowance = allowance_for(data)
    if allowance is None:
        return read_artwork(data, name, **more)
    with allowance:
        found = read_artwork(data, name, **more)
    if hasattr(found.source, "allowance"):
        found.source.allowance = allowance
    return found


def allowance_for(data: bytes) -> Allowance | None:
    """For drawings, where a run that they end is said in words; bitmaps have limits of their own."""
    from fitzle.core.artwork.sniff import sniff_format

    drawn = may_be_lost and sniff_format(data) in (None, "svg", "gzip", "pdf")
    return _shared_allowance() if drawn else None


@cache
def _shared_allowance() -> Allowance:
    return Allowance(DRAWING_SECONDS, DRAWING_BYTES)
