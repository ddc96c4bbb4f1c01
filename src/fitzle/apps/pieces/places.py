"""Where things go: new places, other sheets, places that are put away and brought back."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.http import Http404

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.destinations.shelves import (
    ShelfChange,
    add_placement,
    earlier_sheets,
    note_changes,
    placement_of,
    save_placement,
    save_shelf,
    shelf_named,
    shelf_of,
    slugs_of,
)
from fitzle.apps.jobs.queue import make_later
from fitzle.apps.pieces.serving import give_own_files, served_fits
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.spec.sheet import SpecSheet

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Destination, Placement

MOST_PLACES = 1000  # in a workspace
UNNAMED = "My places"


class Change(NamedTuple):
    """What changes of a place; None leaves a thing as it is.

    `revision` is that of the sheet that was looked at; None takes whatever is there. `noted` says that what changed in
    the sheet is known now, and takes its mark off the wall.
    """

    sheet: SpecSheet | None = None
    name: str | None = None
    put_away: bool | None = None
    revision: int | None = None
    destination: str | None = None
    noted: bool = False


@action(Capability.CHANGE)
def change_destination(access: Access, destination: UUID, change: ShelfChange) -> Destination:
    """Another name, note, help page or place among the others; nothing is made anew."""
    return save_shelf(shelf_of(access.workspace, destination), change)


@action(Capability.CHANGE)
def delete_destination(access: Access, destination: UUID) -> None:
    """Takes a destination away with all its places, their sheets and what stood in them.

    Pieces and artwork stay, and so does the record of what was delivered there.
    """
    shelf = shelf_of(access.workspace, destination)
    give_own_files(access, shelf.placements.select_related("destination"))
    shelf.delete()


@action(Capability.CHANGE)
def add_place(access: Access, destination: str, sheet: SpecSheet) -> Placement:
    """A new place at the destination of this name, which is made where the workspace has none.

    Whoever does not say yet where that is finds it on the shelf UNNAMED, and names or moves it later.
    """
    if len(slugs_of(access.workspace)) >= MOST_PLACES:
        raise ValueOutOfRange(
            f"a workspace has at most {MOST_PLACES} places", advice="Change one that is not needed any more."
        )
    shelf = shelf_named(access.workspace, destination.strip() or UNNAMED)
    return add_placement(shelf, sheet.model_copy(update={"destination": shelf.name, "slug": None}))


@action(Capability.CHANGE)
def change_place(access: Access, placement: UUID, change: Change) -> Placement:
    """Another sheet or name, or put away and back; what stands there is judged and made anew where that matters."""
    found = placement_of(access.workspace, placement)
    before = served_fits(found)
    sheet = change.sheet or found.spec
    sheet = sheet.model_copy(update={"name": (change.name or "").strip() or sheet.name})
    away = found.put_away if change.put_away is None else change.put_away
    wanted = (change.destination or "").strip()
    shelf = shelf_named(access.workspace, wanted) if wanted else None
    saved = save_placement(found, sheet, access.actor, put_away=away, base=change.revision, shelf=shelf)
    if change.noted:
        note_changes(access.workspace, [placement])
    make_later(dict.fromkeys(fit.pk for fit in (*before, *served_fits(saved))))
    return saved


@action(Capability.CHANGE)
def bring_sheet_back(access: Access, placement: UUID, revision: int) -> Placement:
    """The sheet of an earlier revision once more, as the newest one; Http404 where it is not kept."""
    found = placement_of(access.workspace, placement)
    earlier = next((one for one in earlier_sheets(found) if one.revision == revision), None)
    if earlier is None:
        raise Http404("This sheet is not kept any more.")
    return change_place(access, placement, Change(sheet=SpecSheet.model_validate(earlier.sheet)))
