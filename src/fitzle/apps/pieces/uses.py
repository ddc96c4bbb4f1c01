"""Where artwork and house colours are used: a table that is updated with each piece and each fit."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import TYPE_CHECKING, NamedTuple

from django.db.models import QuerySet

from fitzle.apps.artwork.versions import versions_with
from fitzle.apps.pieces.models import Fit, FitUse, Piece
from fitzle.apps.pieces.sharing import slugs_for
from fitzle.core.piece.document import Piece as Document
from fitzle.core.piece.document import artworks_in, parts_in, with_take
from fitzle.core.piece.parts import ArtworkPart, WordsPart
from fitzle.core.preflight.legibility import AUTO

if TYPE_CHECKING:
    from uuid import UUID

    from fitzle.apps.accounts.models import Workspace

ARTWORK, HOUSE = "artwork", "house"


def only_artwork_of(document: Document) -> str:
    """The artwork of a piece that shows nothing else beside its ground; empty for any other piece."""
    parts = [part for part in document.parts if part.role != "ground"]
    return parts[0].artwork if len(parts) == 1 and isinstance(parts[0], ArtworkPart) else ""


def note_uses(fits: Iterable[Fit], document: Document) -> None:
    """Writes down what fits of one piece show now."""
    fits = list(fits)
    slugs = slugs_for(fit.placement for fit in fits)
    wanted = {
        (fit.pk, kind, value) for fit in fits for kind, value in _used(document, slugs[fit.placement_id], fit.take)
    }
    there = {(use.fit_id, use.kind, use.value): use.pk for use in FitUse.objects.filter(fit__in=fits)}
    gone = [key for entry, key in there.items() if entry not in wanted]
    if gone:
        FitUse.objects.filter(pk__in=gone).delete()
    new = [FitUse(fit_id=fit, kind=kind, value=value) for fit, kind, value in wanted - there.keys()]
    FitUse.objects.bulk_create(new, ignore_conflicts=True)


def note_uses_of_piece(piece: Piece, before: Document, document: Document) -> None:
    """Writes down what all fits of a piece show now; most changes use nothing else than before and cost no look."""
    if _uses_anywhere(before) != _uses_anywhere(document):
        note_uses(piece.fits.select_related("placement"), document)


def artworks_anywhere(document: Document) -> set[str]:
    """All artwork that a document names, in any placement and take."""
    return {value for _, _, kind, value in _uses_anywhere(document) if kind == ARTWORK}


def _uses_anywhere(document: Document) -> set[tuple[str, str, str, str]]:
    """What each layer of a document makes its fits use."""
    places = ["", *document.adjustments]
    return {
        (place, take, *use)
        for take in ("", *document.takes)
        for place in places
        for use in _used(document, place, take)
    }


def fits_showing(workspace: Workspace, artwork_id: UUID | str) -> list[Fit]:
    """All fits that an artwork, or another version of it, is seen in."""
    group = versions_with(workspace, artwork_id)
    return list(_fits(workspace).filter(uses__kind=ARTWORK, uses__value__in=group).distinct())


def fits_in_house_colours(workspace: Workspace) -> list[Fit]:
    """All fits whose automatic colours are chosen from the house's."""
    return list(_fits(workspace).filter(uses__kind=HOUSE).distinct())


class Seen(NamedTuple):
    """An artwork and a place that it is seen in."""

    artwork: str
    destination: str
    placement: str

    @property
    def words(self) -> str:
        """As people read it."""
        return f"{self.destination}, {self.placement}"


def seen_in(workspace: Workspace, ids: Collection[str] | None = None) -> list[Seen]:
    """Where artwork, all or some, is seen, in the order of the shelves."""
    found = FitUse.objects.filter(kind=ARTWORK, fit__piece__workspace=workspace)
    if ids is not None:
        found = found.filter(value__in=ids)
    found = found.order_by("fit__placement__destination__position", "fit__placement__position")
    names = found.values_list(
        "value", "fit__placement__destination__name", "fit__placement__sheet__name", "fit__placement__slug"
    )
    return list(dict.fromkeys(Seen(value, where, name or slug) for value, where, name, slug in names))


def uses_of_artwork(workspace: Workspace, ids: Collection[str] | None = None) -> dict[str, list[str]]:
    """For each artwork, all or some, the places that it is seen in, as "destination, placement"."""
    uses: dict[str, list[str]] = {}
    for seen in seen_in(workspace, ids):
        uses.setdefault(seen.artwork, []).append(seen.words)
    return uses


def _used(document: Document, place: str, take: str) -> set[tuple[str, str]]:
    document = with_take(document, take)
    found = {(ARTWORK, artwork) for artwork in artworks_in(document, place, take)}
    if any(isinstance(part, WordsPart) and part.colour == AUTO for part in parts_in(document, place, take)):
        found.add((HOUSE, ""))
    return found


def _fits(workspace: Workspace) -> QuerySet[Fit]:
    return Fit.objects.filter(piece__workspace=workspace).select_related("piece__workspace", "placement__destination")
