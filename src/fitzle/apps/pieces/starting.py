"""What may be begun with in a placement, made of what the workspace has."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from fitzle.apps.accounts.access import house_colours, house_style, workspace_numbered
from fitzle.apps.artwork.library import facts_by_id, facts_of, newest_change, newest_of_kind, ready_by_id, source_of
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Source
from fitzle.core.errors import DocumentError
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.proofs import proof_of
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.piece.document import Piece, artworks_in
from fitzle.core.plan.screen import screen_width
from fitzle.core.starting.house import House
from fitzle.core.starting.points import OFFERED, StartingPoint, starting_point, structures_for, unbroken

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.destinations.models import Placement

FEWEST_OFFERED = 3  # where rules are broken whatever one begins with, somebody has to begin all the same
MOST_MARKS, MOST_PICTURES = 1, 2  # of which a starting point is made


class Offered(NamedTuple):
    """A starting point by its number and name."""

    number: int
    name: str


def house_of(workspace: Workspace) -> House:
    """What the workspace makes its pieces of."""
    style = house_style(workspace)
    usual = House(name=workspace.name)
    return House(
        name=workspace.name,
        colours=tuple(style.colours),
        heading=style.heading or usual.heading,
        text=style.text or usual.text,
        marks=tuple(newest_of_kind(workspace, "mark")[:MOST_MARKS]),
        pictures=tuple(newest_of_kind(workspace, "picture")[:MOST_PICTURES]),
    )


def state_of_points(workspace: Workspace, placement: Placement) -> str:
    """What differs as soon as its starting points may."""
    return f"{placement.revision}/{newest_change(workspace)}/{house_of(workspace)}"


def point_for(workspace: Workspace, placement: Placement, number: int) -> StartingPoint:
    """One of them. Raises DocumentError where there is none of this number."""
    house, facts = _made_of(workspace)
    found = starting_point(placement.spec, house, facts, number)
    if found is None:
        raise DocumentError("there is no such starting point")
    return found


@drawable
def offered_points(workspace: int, placement: UUID) -> list[Offered]:
    """Those that break no rule in their place, the most like it first."""
    space = workspace_numbered(workspace)
    [place] = placements_of(space, [placement])
    house, facts = _made_of(space)
    good: list[Offered] = []
    others: list[Offered] = []
    for number in range(len(structures_for(place.spec))):
        point = starting_point(place.spec, house, facts, number)
        assert point
        (good if unbroken(*_asked(space, place, point.piece)) else others).append(Offered(number, point.name))
        if len(good) == OFFERED:
            break
    return [*good, *others[: max(0, FEWEST_OFFERED - len(good))]]


@drawable
def draw_starting_point(workspace: int, placement: UUID, number: int, width: int) -> Picture:
    """A starting point for a placement."""
    space = workspace_numbered(workspace)
    [place] = placements_of(space, [placement])
    request, sources = _asked(space, place, point_for(space, place, number).piece)
    looked = decide(plan_fit(request), sources)
    return Picture(*proof_of(looked, sources, screen_width(*looked.plan.size, width)))


def _made_of(workspace: Workspace) -> tuple[House, dict[str, ArtworkFacts]]:
    house = house_of(workspace)
    return house, facts_by_id(workspace, [*house.marks, *house.pictures])


def _asked(space: Workspace, place: Placement, piece: Piece) -> tuple[FitRequest, dict[str, Source]]:
    ready = ready_by_id(space, artworks_in(piece))
    known = {name: FitArtwork(facts_of(artwork), artwork.content.sha256) for name, artwork in ready.items()}
    sources = {name: source_of(artwork, preview=True) for name, artwork in ready.items()}
    return FitRequest(piece, place.spec, place.slug, known, house=house_colours(space)), sources
