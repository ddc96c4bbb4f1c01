"""Icon sets: one action from a mark to a place that holds all icons of a site."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.artwork.library import artwork_of, require_ready
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.pieces.actions import place_artwork
from fitzle.apps.pieces.fits import standing_in
from fitzle.apps.pieces.places import add_place
from fitzle.core.icons.kind import ICON_SET
from fitzle.core.spec.catalogue import catalogue

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.destinations.models import Placement
    from fitzle.apps.pieces.models import Fit

SHELF = "Website"
NAME = "Icon set"


@action(Capability.CHANGE)
def make_icons(access: Access, artwork_id: UUID) -> Fit:
    """The icon set of a mark: the one that it has, else in an empty place for one, else in a new one.

    Raises DocumentError where the artwork is not ready.
    """
    workspace = access.workspace
    artwork = artwork_of(workspace, artwork_id)
    require_ready(workspace, [str(artwork.pk)])
    places = _places(workspace)
    standing = {place.pk: standing_in(place) for place in places}
    for fit in standing.values():
        if fit and fit.piece.only_artwork == str(artwork.pk):
            return fit
    empty = next((place for place in places if standing[place.pk] is None), None)
    place = empty or _new_place(access, {one.spec.name for one in places})
    fits = place_artwork(access, artwork.pk, [str(place.pk)])
    return next(fit for fit in fits if fit.placement_id == place.pk)


def _places(workspace: Workspace) -> list[Placement]:
    return [one for one in placements_of(workspace) if not one.put_away and one.sheet.get("kind") == ICON_SET]


def _new_place(access: Access, taken: set[str]) -> Placement:
    sheet = next(one.sheet for one in catalogue() if one.kind == ICON_SET)
    names = (NAME, *(f"{NAME} {number}" for number in range(2, len(taken) + 3)))
    return add_place(access, SHELF, sheet.model_copy(update={"name": next(one for one in names if one not in taken)}))
