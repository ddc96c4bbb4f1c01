"""Places that one file serves."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.place_schemas import GroupOut, GroupPlace, ShareIn
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.sheet_views import short_of
from fitzle.apps.pieces import serving
from fitzle.apps.pieces.fits import fits_on_wall
from fitzle.apps.pieces.saving import subject_of

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Placement
    from fitzle.apps.pieces.serving import Group

router = Router(tags=["places"])


@router.get("/shared-files", response=list[GroupOut])
def list_groups(request: HttpRequest, workspace: Path[str]) -> list[GroupOut]:
    """Places that one file serves, then those that one could serve."""
    space = workspace_to_see(request.user, workspace)
    standing = {fit.placement_id: subject_of(fit.piece) for fit in fits_on_wall(space)}
    return [_group(one, standing) for one in serving.groups_in(space)]


@router.post("/shared-files", response={204: None, 422: Message})
def share_file(request: HttpRequest, workspace: Path[str], given: ShareIn) -> Status[None]:
    """Lets the file of one place serve several."""
    serving.share_file(access_to(request.user, workspace), given.places, given.leader)
    return Status(204, None)


@router.delete("/shared-files/{uuid:placement}", response={204: None})
def give_its_own_file(request: HttpRequest, workspace: Path[str], placement: UUID) -> Status[None]:
    """Gives one of several places a file of its own."""
    serving.give_its_own_file(access_to(request.user, workspace), placement)
    return Status(204, None)


def _group(group: Group, standing: dict[UUID, str]) -> GroupOut:
    return GroupOut(
        places=[_place(one, standing.get(one.pk, "")) for one in group.placements],
        short=short_of(group.common) if group.common else "",
        joined=group.joined,
        broken=group.obstacle.message if group.obstacle else "",
    )


def _place(placement: Placement, subject: str) -> GroupPlace:
    name = str(placement.sheet.get("name", ""))
    return GroupPlace(id=placement.pk, name=name, destination=placement.destination.name, subject=subject)
