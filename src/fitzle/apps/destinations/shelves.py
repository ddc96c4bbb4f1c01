"""Destinations and placements for the other apps."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.db.models import F, Prefetch, QuerySet
from django.http import Http404
from pydantic import ValidationError

from fitzle.apps.destinations.models import Destination, EarlierSheet, Placement
from fitzle.core.errors import FitzleError, ValueOutOfRange
from fitzle.core.handover.handing import USUAL, Handing
from fitzle.core.spec.differences import differences
from fitzle.core.spec.sheet import SpecSheet, placement_slug
from fitzle.core.spec.stems import free_name

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace


KEPT_SHEETS = 50  # of each placement


def shelves_of(workspace: Workspace) -> list[Destination]:
    """All destinations with their placements, in order; without what is put away."""
    standing = Prefetch("placements", Placement.objects.filter(put_away=False))
    return list(Destination.objects.filter(workspace=workspace).prefetch_related(standing))


def placements_of(workspace: Workspace, ids: Iterable[UUID | str] | None = None) -> list[Placement]:
    """Placements of the workspace, all or those with these ids; Http404 if one of them is not there."""
    found = placements_anywhere(workspace).filter(put_away=False)
    if ids is None:
        return list(found.order_by("destination__position", "position"))
    wanted = {str(entry) for entry in ids}
    chosen = list(found.filter(pk__in=wanted).order_by("destination__position", "position"))
    if len(chosen) != len(wanted):
        raise Http404("There is no such placement.")
    return chosen


def placements_anywhere(workspace: Workspace) -> QuerySet[Placement]:
    """All placements, also those that are put away."""
    return Placement.objects.filter(destination__workspace=workspace).select_related("destination")


def placement_of(workspace: Workspace, placement: UUID) -> Placement:
    """One placement, put away or not; Http404 where it is not there."""
    found = placements_anywhere(workspace).filter(pk=placement).first()
    if found is None:
        raise Http404("There is no such placement.")
    return found


def lock_placements(ids: Iterable[UUID]) -> None:
    """Holds placements until the end of the transaction, in one order."""
    list(Placement.objects.select_for_update().filter(pk__in=set(ids)).order_by("pk").values_list("pk"))


def handing_of(placement: Placement) -> Handing:
    """How the files of a place are handed over; the usual way where what is kept cannot be read."""
    try:
        return Handing.model_validate(placement.handing)
    except ValidationError:
        return USUAL


def save_handing(placement: Placement, handing: Handing) -> None:
    """Remembers how the files of a place are handed over."""
    placement.handing = handing.model_dump(mode="json", exclude_defaults=True)
    placement.save(update_fields=["handing"])


def slugs_of(workspace: Workspace) -> set[str]:
    """The slugs of all placements."""
    return set(Placement.objects.filter(destination__workspace=workspace).values_list("slug", flat=True))


def add_destination(workspace: Workspace, name: str, sheets: Iterable[SpecSheet]) -> Destination:
    """A new shelf at the end, with a placement for each spec sheet; each gets a slug that the workspace has not yet."""
    position = Destination.objects.filter(workspace=workspace).count()
    destination = Destination.objects.create(workspace=workspace, name=name, position=position)
    for sheet in sheets:
        add_placement(destination, sheet)
    return destination


class ShelfChange(NamedTuple):
    """What changes of a destination; None leaves a thing as it is. `position` is its place among the others, from 0."""

    name: str | None = None
    note: str | None = None
    help_address: str | None = None
    checked_on: date | None = None
    position: int | None = None


def shelf_of(workspace: Workspace, destination: UUID) -> Destination:
    """One destination; Http404 where it is not there."""
    found = Destination.objects.filter(workspace=workspace, pk=destination).first()
    if found is None:
        raise Http404("There is no such destination.")
    return found


def save_shelf(shelf: Destination, change: ShelfChange) -> Destination:
    """Changes a destination; raises ValueOutOfRange for a name that another one has, in whatever case."""
    others = Destination.objects.filter(workspace_id=shelf.workspace_id).exclude(pk=shelf.pk)
    if change.name is not None and others.filter(name__iexact=change.name.strip()).exists():
        raise ValueOutOfRange(
            f"there is a destination called {change.name.strip()} already", advice="Move places there."
        )
    for field in ("name", "note", "help_address"):
        value = getattr(change, field)
        if value is not None:
            setattr(shelf, field, value.strip())
    if change.checked_on is not None:
        shelf.checked_on = change.checked_on
    shelf.save()
    if change.position is not None:
        _put_at(shelf, list(others.order_by("position", "name")), change.position)
    return shelf


def _put_at(shelf: Destination, others: list[Destination], position: int) -> None:
    others.insert(max(0, position), shelf)
    for number, one in enumerate(others):
        Destination.objects.filter(pk=one.pk).update(position=number)


def shelf_named(workspace: Workspace, name: str) -> Destination:
    """The destination with this name, in whatever case; made at the end where the workspace has none."""
    found = Destination.objects.filter(workspace=workspace, name__iexact=name.strip()).first()
    return found or add_destination(workspace, name.strip(), [])


class StaleSheet(Exception):
    """Somebody else has changed the sheet since it was looked at."""

    def __init__(self, newest: Placement) -> None:
        super().__init__("somebody else has changed this sheet")
        self.newest = newest


def save_placement(
    placement: Placement,
    sheet: SpecSheet,
    user: User | None,
    *,
    put_away: bool,
    base: int | None = None,
    shelf: Destination | None = None,
) -> Placement:
    """Another sheet, whether it is put away, and its destination where `shelf` is one; the slug stays.

    The sheet before is kept.

    Raises StaleSheet where the sheet is not the one of revision `base` any more.
    """
    locked = Placement.objects.select_for_update().select_related("destination").get(pk=placement.pk)
    if shelf and shelf.pk != locked.destination_id:
        locked.destination, locked.position = shelf, shelf.placements.count()
    data = sheet.model_copy(update={"destination": locked.destination.name}).model_dump(mode="json", exclude={"slug"})
    if data != locked.sheet:
        if base not in (None, locked.revision):
            raise StaleSheet(locked)
        locked.earlier.create(revision=locked.revision, sheet=locked.sheet, replaced_by=user)
        locked.earlier.filter(revision__lte=locked.revision - KEPT_SHEETS).delete()
        if locked.unnoted_from is None:
            locked.unnoted_from = locked.revision
        locked.sheet, locked.revision = data, locked.revision + 1
    locked.put_away = put_away
    locked.save(update_fields=["sheet", "put_away", "revision", "destination", "position", "unnoted_from"])
    return locked


def changes_unnoted(workspace: Workspace) -> dict[UUID, list[str]]:
    """For each placement whose sheet changed since somebody noted it, in words what is otherwise now."""
    changed = placements_anywhere(workspace).filter(unnoted_from__isnull=False, put_away=False)
    before = EarlierSheet.objects.filter(placement__in=changed, revision=F("placement__unnoted_from"))
    found = {}
    for one in before.select_related("placement"):
        try:
            said = differences(SpecSheet.model_validate(one.sheet), one.placement.spec)
        except (FitzleError, ValueError, TypeError, KeyError, AttributeError):
            continue  # the wall says that it is damaged
        if said:
            found[one.placement_id] = said
    return found


def note_changes(workspace: Workspace, ids: Iterable[UUID]) -> None:
    """What changed in the sheets of these placements is known now."""
    Placement.objects.filter(destination__workspace=workspace, pk__in=list(ids)).update(unnoted_from=None)


def earlier_sheets(placement: Placement) -> list[EarlierSheet]:
    """The sheets that it had before, the newest first."""
    return list(placement.earlier.select_related("replaced_by"))


def add_placement(destination: Destination, sheet: SpecSheet) -> Placement:
    """A new placement at the end of a shelf, with a slug that the workspace has not yet."""
    slug = sheet.slug or placement_slug(sheet.destination or destination.name, sheet.name)
    return Placement.objects.create(
        destination=destination,
        slug=free_name(slug, slugs_of(destination.workspace)),
        sheet=sheet.model_dump(mode="json", exclude={"slug"}),
        position=destination.placements.count(),
    )
