"""A house style out of one artwork: proposed first, and taken over in one step."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

from django.db import transaction

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.artwork.actions import make_dark_version
from fitzle.apps.artwork.library import artwork_of
from fitzle.apps.pieces.actions import save_house_style
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.showing import Showing, showing
from fitzle.core.colour.house import NamedColour, proposed_colours
from fitzle.core.errors import ArtworkError
from fitzle.core.spec.stems import safe_stem

if TYPE_CHECKING:
    from uuid import UUID

    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork


class HouseProposal(NamedTuple):
    """Colours in order, where the artwork shows as it is, whether it wants a version for dark grounds, and a rule."""

    colours: list[NamedColour]
    showing: Showing
    wants_dark_version: bool
    naming: str


def proposed_house_style(workspace: Workspace, artwork_id: UUID) -> HouseProposal:
    """What an artwork proposes; raises ArtworkError for one that is not read yet or has no picture."""
    artwork = artwork_of(workspace, artwork_id)
    facts = _facts(artwork)
    shows = showing(facts)
    wants = facts.kind == "mark" and facts.transparency != "none" and not shows.shows_on_dark
    naming = f"{safe_stem(workspace.name, longest=60)}_{{placement}}_{{width}}x{{height}}"
    return HouseProposal(proposed_colours(facts.colours, facts.backdrop_colour), shows, wants, naming)


@action(Capability.CHANGE)
def take_house_style(access: Access, artwork_id: UUID) -> None:
    """Takes over what an artwork proposes, and makes its version for dark grounds where it wants one."""
    proposal = proposed_house_style(access.workspace, artwork_id)
    save_house_style(access, [one._asdict() for one in proposal.colours], "", "", proposal.naming)
    if proposal.wants_dark_version:
        try:
            with transaction.atomic():
                make_dark_version(access, artwork_id)
        except ArtworkError:
            return  # none of its colours can be made lighter: the colours and the rule count all the same


def _facts(artwork: Artwork) -> ArtworkFacts:
    if artwork.state != "ready" or artwork.known_facts["kind"] == "clip":
        raise ArtworkError("this has no colours to take yet", subject=artwork.name)
    return ArtworkFacts.model_validate(artwork.content.facts)
