"""Fits: placing artwork, and keeping the file that was made."""

from __future__ import annotations

import hashlib
from typing import Any
from uuid import UUID

from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from django.db import transaction
from django.http import Http404
from django.utils import timezone

from fitzle.apps.accounts.access import house_colours
from fitzle.apps.artwork.library import artwork_of, facts_of
from fitzle.apps.artwork.versions import versions_with
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.pieces.models import Fit, Piece
from fitzle.apps.pieces.opening import is_made, open_fit
from fitzle.apps.pieces.saving import create_piece, document_of
from fitzle.core.findings import Finding
from fitzle.core.piece.document import artworks_in
from fitzle.core.piece.editing import first_artwork_part, new_piece
from fitzle.core.pipeline import Made, look_at_fit, make_fit
from fitzle.core.plan.suiting import suits
from fitzle.core.spec.naming import safe_stem

NOT_MADE = "Making this file takes too long or too much memory. Ask for a smaller size here, or for a larger limit."
SUITED = "suited"  # instead of placements: every empty one that the artwork suits


def fit_of(workspace: Any, fit_id: UUID | str) -> Fit:
    """One fit of the workspace; Http404 for any other."""
    found = _fits(workspace).filter(pk=fit_id).first()
    if found is None:
        raise Http404("There is no such fit.")
    return found


def fits_on_wall(workspace: Any) -> list[Fit]:
    """For each filled placement the fit placed last, in the order of the shelves.

    One look at the database: between two of them somebody may fill a placement or empty it.
    """
    ordered = _fits(workspace).order_by(*Fit._meta.ordering, "placed_at")
    return list({fit.placement_id: fit for fit in ordered}.values())


def fits_of_piece(piece: Piece) -> list[Fit]:
    """All fits of a piece, in the order of the shelves."""
    return list(_fits(piece.workspace).filter(piece=piece))


def all_fits(workspace: Any) -> list[Fit]:
    """All fits of the workspace."""
    return list(_fits(workspace))


def fits_showing(workspace: Any, artwork_id: str) -> list[Fit]:
    """All fits that an artwork, or another version of it, is seen in."""
    group = versions_with(workspace, artwork_id)
    fits = _fits(workspace)
    return [fit for fit in fits if group & artworks_in(document_of(fit.piece), str(fit.placement_id))]


def uses_of_artwork(workspace: Any) -> dict[str, list[str]]:
    """For each artwork the places that it is seen in, as "destination, placement"."""
    uses: dict[str, list[str]] = {}
    for fit in _fits(workspace):
        name = f"{fit.placement.destination.name}, {fit.placement.spec.name}"
        for artwork in artworks_in(document_of(fit.piece), str(fit.placement_id)):
            uses.setdefault(artwork, []).append(name)
    return uses


@transaction.atomic
def place(workspace: Any, user: Any, artwork_id: UUID | str, fills: list[str]) -> list[Fit]:
    """Fits an artwork into placements (ids, or ["suited"]); one piece for the artwork, a fit for each placement."""
    artwork = artwork_of(workspace, artwork_id)
    facts = facts_of(artwork)
    placements = placements_of(workspace, None if fills == [SUITED] else fills)
    if fills == [SUITED]:
        taken = {fit.placement_id for fit in fits_on_wall(workspace)}
        placements = [entry for entry in placements if entry.pk not in taken and suits(facts, entry.spec)]
    piece = _piece_made_of(workspace, str(artwork.pk))
    if piece is None:
        subject = safe_stem(artwork.name.rpartition(".")[0] or artwork.name)
        piece = create_piece(workspace, user, new_piece(subject, str(artwork.pk), facts.kind))
    now = timezone.now()
    return [
        Fit.objects.update_or_create(piece=piece, placement=entry, defaults={"placed_at": now})[0]
        for entry in placements
    ]


def take_away(fit: Fit) -> None:
    """Empties a placement; the piece stays, and what stood there before comes back."""
    fit.delete()


def make_file(fit_id: UUID | str) -> None:
    """Makes and keeps the file of a fit in a worker, unless it is there already."""
    fit = Fit.objects.select_related("piece__workspace", "placement__destination").filter(pk=fit_id).first()
    if fit is None:
        return
    workspace = fit.piece.workspace
    opened = open_fit(workspace, fit)
    if is_made(opened):
        return
    sources = opened.sources(preview=False)
    looked = look_at_fit(opened.planned, opened.sheet, opened.facts, sources, house_colours(workspace))
    made = make_fit(looked, opened.sheet, sources)
    result = {
        "verdict": made.verdict,
        "demands": [demand.model_dump(mode="json") for demand in made.demands],
        "findings": [finding.model_dump(mode="json") for finding in made.findings],
        "file": _kept(workspace, made),
    }
    Fit.objects.filter(pk=fit.pk).update(result=result, result_key=opened.key)


def end_unmade_file(fit_id: UUID | str) -> None:
    """Notes on a fit that its file cannot be made, in words; its state would be `working` for ever."""
    fit = Fit.objects.select_related("piece__workspace", "placement__destination").filter(pk=fit_id).first()
    if fit is None:
        return
    opened = open_fit(fit.piece.workspace, fit)
    finding = Finding(rule="making", severity="refused", message=NOT_MADE)
    result = {"verdict": "refused", "demands": [], "findings": [finding.model_dump(mode="json")], "file": None}
    Fit.objects.filter(pk=fit.pk).update(result=result, result_key=opened.key)


def _kept(workspace: Any, made: Made) -> dict[str, Any] | None:
    """Keeps the file that was made; what is known of it, or None where there is none."""
    if made.encoded is None:
        return None
    digest = hashlib.sha256(made.encoded.data).hexdigest()
    path = file_path(workspace.pk, digest)
    if not default_storage.exists(path):
        default_storage.save(path, ContentFile(made.encoded.data))
    size = made.plan.size
    return {
        "sha256": digest, "bytes": len(made.encoded.data), "format": made.encoded.format, "width": size.width,
        "height": size.height, "settings": made.encoded.settings, "score": made.encoded.score,
    }  # fmt: skip


def file_path(workspace_id: int, sha256: str) -> str:
    """Where a made file is kept in the storage."""
    return f"made/{workspace_id}/{sha256[:2]}/{sha256}"


def _fits(workspace: Any) -> Any:
    return Fit.objects.filter(piece__workspace=workspace).select_related("piece__workspace", "placement__destination")


def _piece_made_of(workspace: Any, artwork_id: str) -> Piece | None:
    """The newest piece made of this one artwork alone, so that one artwork in many places stays one piece."""
    for piece in Piece.objects.filter(workspace=workspace).order_by("-created_at"):
        document = document_of(piece)
        only = first_artwork_part(document)
        if only and only.artwork == artwork_id and len(document.parts) == 2:
            return piece
    return None
