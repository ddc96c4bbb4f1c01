"""Places on their way out of a workspace and into another one, with their sheets and those before them."""

from __future__ import annotations

from datetime import date, datetime
from typing import TYPE_CHECKING, Annotated

from pydantic import BaseModel, Field

from fitzle.apps.destinations.models import Destination, EarlierSheet, Placement
from fitzle.apps.destinations.shelves import handing_of
from fitzle.core.handover.handing import USUAL, Handing
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.stems import free_name

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

Name = Annotated[str, Field(min_length=1, max_length=120)]


class PortableSheet(BaseModel):
    """A sheet that a place had before."""

    revision: Annotated[int, Field(ge=0, le=1_000_000)]
    sheet: SpecSheet
    replaced_at: datetime


class PortablePlacement(BaseModel):
    """A place; its slug names it in pieces."""

    slug: Annotated[str, Field(pattern=r"^[^\s/\\]{1,80}$")]
    sheet: SpecSheet
    put_away: bool = False
    revision: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    handing: Handing = USUAL
    earlier: Annotated[list[PortableSheet], Field(max_length=1000)] = []


class PortableDestination(BaseModel):
    """A destination with its places in order."""

    name: Name
    note: Annotated[str, Field(max_length=2000)] = ""
    help_address: Annotated[str, Field(max_length=500, pattern=r"^(https?://\S+)?$")] = ""
    checked_on: date | None = None
    placements: Annotated[list[PortablePlacement], Field(max_length=1000)] = []


def portable_destinations(workspace: Workspace) -> list[PortableDestination]:
    """All destinations in order, with what is put away too."""
    found = Destination.objects.filter(workspace=workspace).prefetch_related("placements__earlier")
    return [
        PortableDestination(
            name=shelf.name,
            note=shelf.note,
            help_address=shelf.help_address,
            checked_on=shelf.checked_on,
            placements=[_portable(entry) for entry in shelf.placements.all()],
        )
        for shelf in found
    ]


def _portable(entry: Placement) -> PortablePlacement:
    earlier = [
        PortableSheet(revision=one.revision, sheet=SpecSheet.model_validate(one.sheet), replaced_at=one.replaced_at)
        for one in entry.earlier.all()
    ]
    return PortablePlacement(
        slug=entry.slug,
        sheet=entry.spec,
        put_away=entry.put_away,
        revision=entry.revision,
        handing=handing_of(entry),
        earlier=earlier,
    )


def add_portable_destinations(
    workspace: Workspace, user: User, destinations: list[PortableDestination]
) -> dict[str, Placement]:
    """Adds destinations to a workspace that has none; the new places by their slugs."""
    placements: dict[str, Placement] = {}
    for position, shelf in enumerate(destinations):
        row = Destination.objects.create(
            workspace=workspace,
            position=position,
            **shelf.model_dump(include={"name", "note", "help_address", "checked_on"}),
        )
        for number, entry in enumerate(shelf.placements):
            slug = free_name(entry.slug, placements)
            placements[slug] = Placement.objects.create(
                destination=row,
                slug=slug,
                sheet=entry.sheet.model_dump(mode="json", exclude={"slug"}),
                position=number,
                put_away=entry.put_away,
                revision=entry.revision,
                handing=entry.handing.model_dump(mode="json", exclude_defaults=True),
            )
            for one in entry.earlier:
                kept = EarlierSheet.objects.create(
                    placement=placements[slug],
                    revision=one.revision,
                    sheet=one.sheet.model_dump(mode="json", exclude={"slug"}),
                    replaced_by=user,
                )
                EarlierSheet.objects.filter(pk=kept.pk).update(replaced_at=one.replaced_at)
    return placements
