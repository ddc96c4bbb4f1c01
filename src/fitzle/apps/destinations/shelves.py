"""Destinations and placements for the other apps."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any
from uuid import UUID

from django.http import Http404

from fitzle.apps.destinations.models import Destination, Placement
from fitzle.core.spec.sheet import SpecSheet


def shelves_of(workspace: Any) -> list[Destination]:
    """All destinations with their placements, in order."""
    return list(Destination.objects.filter(workspace=workspace).prefetch_related("placements"))


def placements_of(workspace: Any, ids: Iterable[UUID | str] | None = None) -> list[Placement]:
    """Placements of the workspace, all or those with these ids; Http404 if one of them is not there."""
    found = Placement.objects.filter(destination__workspace=workspace).select_related("destination")
    if ids is None:
        return list(found.order_by("destination__position", "position"))
    wanted = {str(entry) for entry in ids}
    chosen = list(found.filter(pk__in=wanted).order_by("destination__position", "position"))
    if len(chosen) != len(wanted):
        raise Http404("There is no such placement.")
    return chosen


def add_destination(workspace: Any, name: str, sheets: Iterable[SpecSheet]) -> Destination:
    """A new shelf at the end, with a placement for each spec sheet."""
    position = Destination.objects.filter(workspace=workspace).count()
    destination = Destination.objects.create(workspace=workspace, name=name, position=position)
    for place, sheet in enumerate(sheets):
        Placement.objects.create(destination=destination, sheet=sheet.model_dump(mode="json"), position=place)
    return destination
