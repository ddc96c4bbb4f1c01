"""Celery tasks: thin, each calls one function of an app. Nothing is kept in the process."""

from __future__ import annotations

from typing import Any

from celery import shared_task
from django.http import Http404

from fitzle.apps.artwork.intake import filled, take_in
from fitzle.apps.pieces.composing import bring_into
from fitzle.apps.pieces.fits import fits_of_piece, make_file, place
from fitzle.core.errors import FitzleError

INTAKE_SOFT_SECONDS, INTAKE_SECONDS = 30, 40


@shared_task(soft_time_limit=INTAKE_SOFT_SECONDS, time_limit=INTAKE_SECONDS)
def take_in_artwork(artwork_id: str) -> None:
    """Reads an artwork and fills the placements that wait for it."""
    artwork = take_in(artwork_id)
    if artwork is None or artwork.state != "ready":
        return
    try:
        _fill(artwork)
    finally:
        filled(artwork)


def _fill(artwork: Any) -> None:
    """Puts an artwork where it was dropped and has the files made."""
    targets = [entry for entry in artwork.fills if "/" in entry]
    placements = [entry for entry in artwork.fills if "/" not in entry]
    for target in targets:
        try:
            changed = bring_into(artwork.workspace, artwork.created_by, str(artwork.pk), target)
        except (FitzleError, Http404):
            continue  # the proof it was dropped on is gone by now; the artwork itself is there
        for fit in fits_of_piece(changed.piece):
            make_fit_file.delay(str(fit.pk))
    if placements:
        for fit in place(artwork.workspace, artwork.created_by, artwork.pk, placements):
            make_fit_file.delay(str(fit.pk))


@shared_task
def make_fit_file(fit_id: str) -> None:
    """Makes the file of a fit."""
    make_file(fit_id)
