"""Destinations and placements for the other apps."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import TYPE_CHECKING
from uuid import UUID

from django.http import Http404

from fitzle.apps.destinations.models import Destination, Placement
from fitzle.core.spec.sheet import SpecSheet, placement_slug

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace


def shelves_of(workspace: Workspace) -> list[Destination]:
    """All destinations with their placements, in order."""
    return list(Destination.objects.filter(workspace=workspace).prefetch_related("placements"))


def placements_of(workspace: Workspace, ids: Iterable[UUID | str] | None = None) -> list[Placement]:
    """Placements of the workspace, all or those with these ids; Http404 if one of them is not there."""
    found = Placement.objects.filter(destination__workspace=workspace).select_related("destination")
    if ids is None:
        return list(found.order_by("destination__position", "position"))
    wanted = {str(entry) for entry in ids}
    chosen = list(found.filter(pk__in=wanted).order_by("destination__position", "position"))
    if len(chosen) != len(wanted):
        raise Http404("There is no such placement.")
    return chosen


def slugs_of(workspace: Workspace) -> set[str]:
    """The slugs of all placements."""
    return set(Placement.objects.filter(destination__workspace=workspace).values_list("slug", flat=True))


def add_destination(workspace: Workspace, name: str, sheets: Iterable[SpecSheet]) -> Destination:
    """A new shelf at the end, with a placement for each spec sheet; each gets a slug that the workspace has not yet."""
    position = Destination.objects.filter(workspace=workspace).count()
    destination = Destination.objects.create(workspace=workspace, name=name, position=position)
    taken = slugs_of(workspace)
    for place, sheet in enumerate(sheets):
        slug = free_slug(sheet.slug or placement_slug(sheet.destination or name, sheet.name), taken)
        taken.add(slug)
        data = sheet.model_dump(mode="json", exclude={"slug"})
        Placement.objects.create(destination=destination, slug=slug, sheet=data, position=place)
    return destination


def free_slug(wanted: str, taken: Collection[str]) -> str:
    """The slug, or with -2, -3 … where it is in use."""
    number, candidate = 1, wanted
    while candidate in taken:
        number += 1
        candidate = f"{wanted}-{number}"
    return candidate
