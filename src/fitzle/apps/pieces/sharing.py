"""Places that one file serves: which they are, what their sheets have in common, and when that is no longer so."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.db.models import Count

from fitzle.apps.pieces.models import SharedFile, Sharing
from fitzle.core.errors import FitzleError
from fitzle.core.spec.serving import Obstacle, common_sheet
from fitzle.core.spec.sheet import SpecSheet

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.destinations.models import Placement

DAMAGED = Obstacle("name", "The sheet of one of them is damaged.")


class Shared(NamedTuple):
    """Placements in the order of the shelves that take one file, and the sheet it is made for.

    `slug` is what the pieces keep their adjustments under. `common` is an obstacle where no file serves all of them any
    more: each is then made a file of its own, which looks as it did.
    """

    id: UUID
    slug: str
    placements: tuple[Placement, ...]
    common: SpecSheet | Obstacle

    @property
    def obstacle(self) -> Obstacle | None:
        """Why no file serves all of them, None where one does."""
        return self.common if isinstance(self.common, Obstacle) else None


def shared_files(workspace: Workspace, sheets: Mapping[UUID, SpecSheet] | None = None) -> dict[UUID, Shared]:
    """For each placement that takes a file together with others, those; without what is put away.

    `sheets` stand for those of placements, by id, where somebody thinks of other ones.
    """
    found = Sharing.objects.filter(shared__workspace=workspace, placement__put_away=False)
    found = found.select_related("shared", "placement__destination")
    members: dict[SharedFile, list[Placement]] = {}
    for one in found.order_by("placement__destination__position", "placement__position"):
        members.setdefault(one.shared, []).append(one.placement)
    return {
        entry.pk: shared
        for row, placements in members.items()
        if len(placements) > 1
        for shared in [Shared(row.pk, row.slug, tuple(placements), _common(placements, sheets or {}))]
        for entry in placements
    }


def slug_among(shared: Mapping[UUID, Shared], placement: Placement) -> str:
    """What pieces keep their adjustments for a placement under."""
    return shared[placement.pk].slug if placement.pk in shared else placement.slug


def common_among(shared: Mapping[UUID, Shared], placement: Placement) -> SpecSheet | None:
    """The sheet that the file of a placement is made for, None where that is its own."""
    found = shared.get(placement.pk)
    return found.common if found and isinstance(found.common, SpecSheet) else None


def slugs_for(placements: Iterable[Placement]) -> dict[UUID, str]:
    """What pieces keep their adjustments for placements under, by their ids; without reading a sheet."""
    slugs = {one.pk: one.slug for one in placements}
    sharing = Sharing.objects.filter(placement__put_away=False)
    several = sharing.values("shared").annotate(count=Count("pk")).filter(count__gt=1).values("shared")
    found = sharing.filter(placement__in=slugs, shared__in=several).values_list("placement", "shared__slug")
    return slugs | dict(found)


def slug_of(placement: Placement) -> str:
    """As `slugs_for`, of one placement."""
    return slugs_for([placement])[placement.pk]


def shared_slugs(workspace: Workspace) -> set[str]:
    """The slugs that adjustments for several placements are kept under; one may outlive its placement."""
    return set(SharedFile.objects.filter(workspace=workspace).values_list("slug", flat=True))


def served_with(workspace: Workspace, placement: Placement) -> list[Placement]:
    """All placements that take the file of this one, itself among them."""
    found = shared_files(workspace).get(placement.pk)
    return [placement] if found is None or found.obstacle else list(found.placements)


def _common(placements: list[Placement], sheets: Mapping[UUID, SpecSheet]) -> SpecSheet | Obstacle:
    try:
        return common_sheet([sheets.get(one.pk) or one.spec for one in placements])
    except (FitzleError, ValueError, TypeError, KeyError, AttributeError):
        return DAMAGED
