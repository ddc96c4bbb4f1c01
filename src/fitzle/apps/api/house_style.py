"""The house style: what the workspace's pieces are made with, and palettes to make it of."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Schema
from pydantic import AfterValidator, Field

from fitzle.apps.accounts.access import access_to, house_style, workspace_to_see
from fitzle.apps.api.artwork_views import on_grounds, version_view
from fitzle.apps.api.schemas import Message, VersionOut
from fitzle.apps.artwork.library import ready_marks
from fitzle.apps.artwork.versions import groups_of
from fitzle.apps.pieces.actions import save_house_style
from fitzle.apps.pieces.house import proposed_house_style, take_house_style
from fitzle.core.artwork.showing import LIGHT_GROUND, Showing
from fitzle.core.colour.contrast import Reading, contrast_matrix, reading
from fitzle.core.colour.dark_version import DARK_GROUND
from fitzle.core.colour.harmonies import harmonies
from fitzle.core.colour.srgb import HexColour
from fitzle.core.spec.naming import file_name
from fitzle.core.spec.tokens import TOKENS, USUAL_RULE, checked_rule
from fitzle.core.type.library import offered_families
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork

router = Router(tags=["house style"])
MOST_COLOURS = 16
Rule = Annotated[str, Field(max_length=200), AfterValidator(checked_rule)]


class HouseColour(Schema):
    """A colour with the name that people give it."""

    name: Annotated[str, Field(max_length=60)] = ""
    hex: HexColour


class HouseMark(Schema):
    """A mark with its versions, and which of them shows best on a light and on a dark ground, with its contrast."""

    id: str
    name: str
    versions: int
    light: VersionOut
    dark: VersionOut


class HouseStyleIn(Schema):
    """Colours in order, typefaces (empty: the usual one) and the naming rule (empty: that of each place)."""

    colours: Annotated[list[HouseColour], Field(max_length=MOST_COLOURS)]
    heading: Annotated[str, Field(max_length=80)] = ""
    text: Annotated[str, Field(max_length=80)] = ""
    naming: Rule = ""


class HouseStyleOut(HouseStyleIn):
    """The house style with what follows from it: contrasts of pairs, an example of a name, marks on their grounds."""

    contrasts: list[list[float]]
    readings: list[list[Reading]]
    readable: int
    example: str
    tokens: list[str]
    families: list[str]
    marks: list[HouseMark]
    light: str = LIGHT_GROUND
    dark: str = DARK_GROUND


class HouseProposalOut(Schema):
    """What an artwork proposes: colours and how their pairs read, where it shows, and a naming rule with an example."""

    colours: list[HouseColour]
    contrasts: list[list[float]]
    readings: list[list[Reading]]
    readable: int
    showing: Showing
    wants_dark_version: bool
    naming: str
    example: str
    light: str = LIGHT_GROUND
    dark: str = DARK_GROUND


class HarmonyOut(Schema):
    """A harmony of one colour."""

    name: str
    colours: list[str]


@router.get("/house-style", response=HouseStyleOut)
def read_house_style(request: HttpRequest, workspace: Path[str]) -> HouseStyleOut:
    """The house style."""
    return _view(workspace_to_see(request.user, workspace))


@router.put("/house-style", response={200: HouseStyleOut, 422: Message})
def change_house_style(request: HttpRequest, workspace: Path[str], given: HouseStyleIn) -> HouseStyleOut:
    """Saves the house style; what is coloured by it is made once more."""
    access = access_to(request.user, workspace)
    save_house_style(access, [colour.dict() for colour in given.colours], given.heading, given.text, given.naming)
    return _view(access.workspace)


@router.get("/artwork/{uuid:artwork}/house-style", response={200: HouseProposalOut, 422: Message})
def read_proposal(request: HttpRequest, workspace: Path[str], artwork: UUID) -> HouseProposalOut:
    """What an artwork proposes for the house style."""
    proposal = proposed_house_style(workspace_to_see(request.user, workspace), artwork)
    hexes = [one.hex for one in proposal.colours]
    contrasts = contrast_matrix(hexes)
    readings = [[reading(ratio) for ratio in line] for line in contrasts]
    return HouseProposalOut(
        colours=[HouseColour(name=one.name, hex=one.hex) for one in proposal.colours],
        contrasts=contrasts,
        readings=readings,
        readable=_readable(readings),
        showing=proposal.showing,
        wants_dark_version=proposal.wants_dark_version,
        naming=proposal.naming,
        example=_example(proposal.naming),
    )


@router.post("/artwork/{uuid:artwork}/house-style", response={200: HouseStyleOut, 422: Message})
def take_proposal(request: HttpRequest, workspace: Path[str], artwork: UUID) -> HouseStyleOut:
    """Takes over what an artwork proposes."""
    access = access_to(request.user, workspace)
    take_house_style(access, artwork)
    return _view(access.workspace)


@router.get("/harmonies", response=list[HarmonyOut])
def read_harmonies(request: HttpRequest, workspace: Path[str], colour: HexColour) -> list[HarmonyOut]:
    """Colours that go with one."""
    workspace_to_see(request.user, workspace)
    return [HarmonyOut(name=name, colours=found) for name, found in harmonies(colour).items()]


def _view(space: Workspace) -> HouseStyleOut:
    style = house_style(space)
    contrasts = contrast_matrix(style.colours)
    readings = [[reading(ratio) for ratio in line] for line in contrasts]
    return HouseStyleOut(
        readings=readings,
        readable=_readable(readings),
        colours=[HouseColour(**entry) for entry in style.named],
        heading=style.heading,
        text=style.text,
        naming=style.naming,
        contrasts=contrasts,
        example=_example(style.naming or USUAL_RULE),
        tokens=[f"{{{token}}}" for token in TOKENS],
        families=[family.name for family in offered_families()],
        marks=[_mark(group) for group in groups_of(ready_marks(space))],
    )


def _readable(readings: list[list[Reading]]) -> int:
    return sum(one == "reads" for row, line in enumerate(readings) for one in line[row + 1 :])


def _example(rule: str) -> str:
    return file_name(
        rule, "png", subject="Spring lesson", placement="Header", size=Size(1280, 720), date="2026-03-01", version="2"
    )


def _mark(group: list[Artwork]) -> HouseMark:
    shown = on_grounds([version_view(artwork) for artwork in group])
    return HouseMark(id=str(group[0].pk), name=group[0].name, versions=len(group), light=shown.light, dark=shown.dark)
