"""What the rules say of the rows of a run before any file of them is made, in workers."""

from __future__ import annotations

import time
from base64 import b64decode, b64encode
from typing import Any
from uuid import UUID

import numpy as np
from django.core.cache import cache

from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.jobs.later import Later
from fitzle.apps.jobs.queue import ROW_WORKERS
from fitzle.apps.pieces.models import Fit, RowJudgement, Run
from fitzle.apps.pieces.opening import OpenFit, decide_and_remember
from fitzle.apps.pieces.row_fits import opened_in_turn, places_of_run
from fitzle.apps.pieces.rows import rows_of
from fitzle.core.errors import FitzleError
from fitzle.core.findings import Finding
from fitzle.core.preflight.registry import worst_first
from fitzle.core.runs.likeness import Cells, are_alike, cells_in_list, twins_in
from fitzle.core.runs.sizes import sizes_of

STOPPED_SECONDS = 600.0  # so long it is known where a turn ended
TURN_SECONDS = 3.0  # then other work gets its turn: whoever changes the piece waits for its own file meanwhile


def look_at_rows(piece_id: str, share: int) -> None:
    """Judges the rows of one share that look otherwise than when they were judged last; Later after a turn."""
    run = Run.objects.filter(piece=UUID(piece_id)).select_related("piece__workspace").first()
    if run is None:
        return
    until = time.monotonic() + TURN_SECONDS
    places = places_of_run(run.piece)
    rows = [entry.id for entry in rows_of(run) if not entry.put_away]
    forget_judgements(run, rows, places)
    known = {(one.row, one.placement_id): one.key for one in run.judgements.defer("findings", "cells")}
    stopped_at = f"looked at rows/{piece_id}/{share}"
    own = _beginning_at(cache.get(stopped_at), rows[share::ROW_WORKERS])
    for opened in opened_in_turn(run.piece.workspace, run.piece, own, places):
        if known.get((opened.fit.row, opened.fit.placement_id)) == expected_key(opened):
            continue
        _judge(run, opened)
        if time.monotonic() > until:
            cache.set(stopped_at, opened.fit.row, STOPPED_SECONDS)
            raise Later("the next rows", 0)
    cache.delete(stopped_at)
    note_twins(run, rows, places)


def _beginning_at(row: str | None, rows: list[str]) -> list[str]:
    """All rows, in their order from one of them on: what was looked at in earlier turns comes last."""
    at = rows.index(row) if row in rows else 0
    return rows[at:] + rows[:at]


def expected_key(opened: OpenFit) -> str:
    """What is said of a row in a place before its file is made depends on this."""
    return opened.judgement_key[:32]


def forget_judgements(run: Run, rows: list[str], places: list[Fit]) -> None:
    """Takes away what was said of rows and places that are not there any more."""
    run.judgements.exclude(row__in=rows).delete()
    run.judgements.exclude(placement__in=[fit.placement_id for fit in places]).delete()


def note_twins(run: Run, rows: list[str], places: list[Fit]) -> None:
    """Writes down which rows nobody tells apart in a place; an empty list where all of them look alike there."""
    found: dict[str, list[list[str]]] = {}
    for placement in (fit.placement_id for fit in places):
        judged = run.judgements.filter(placement=placement).exclude(cells="")
        cells = {row: _unpacked(packed) for row, packed in judged.values_list("row", "cells")}
        known = {row: cells[row] for row in rows if row in cells}
        if are_alike(known):
            found[str(placement)] = []
        elif pairs := twins_in(known):
            found[str(placement)] = [list(pair) for pair in pairs]
    Run.objects.filter(pk=run.pk).update(twins=found)


def _judge(run: Run, opened: OpenFit) -> None:
    """Judges a row in a place; one whose pictures cannot be drawn says so, and the others are judged all the same."""
    try:
        defaults = _judged(opened)
    except StorageFullError:
        raise
    except FitzleError as error:
        findings = [Finding(rule="cannot be drawn", severity="refused", message=str(error))]
        defaults = {"findings": [finding.model_dump(mode="json") for finding in findings], "sizes": {}, "cells": ""}
    defaults["key"] = expected_key(opened)
    RowJudgement.objects.update_or_create(
        run=run, row=opened.fit.row, placement_id=opened.fit.placement_id, defaults=defaults
    )


def _judged(opened: OpenFit) -> dict[str, Any]:
    sources = opened.sources(preview=True)
    looked = decide_and_remember(opened.fit.piece.workspace, opened, sources)
    findings = worst_first(opened.muting(looked.findings))
    return {
        "findings": [finding.model_dump(mode="json") for finding in findings],
        "sizes": sizes_of(looked.plan),
        "cells": _packed(cells_in_list(looked.plan, opened.planned.sources(sources), opened.sheet)),
    }


def _packed(cells: Cells) -> str:
    height, width = cells.shape[:2]
    return f"{width}x{height}:{b64encode(cells.tobytes()).decode()}"


def _unpacked(packed: str) -> Cells:
    size, _, data = packed.partition(":")
    width, _, height = size.partition("x")
    return np.frombuffer(b64decode(data), dtype=np.uint8).reshape(int(height), int(width), 3)
