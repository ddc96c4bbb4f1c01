"""The shapes of the API's answers; the core's frozen documents are used as they are."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field

from fitzle.apps.api.limits_view import LimitsOut
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.showing import LIGHT_GROUND, Showing
from fitzle.core.colour.dark_version import DARK_GROUND
from fitzle.core.findings import Finding
from fitzle.core.fit.arrangement import Stance
from fitzle.core.fit.state import FitState
from fitzle.core.piece.changes import Change
from fitzle.core.piece.document import Piece as PieceDocument
from fitzle.core.piece.parts import Part
from fitzle.core.piece.scoping import FieldValue
from fitzle.core.plan.first_looks import FirstLooks
from fitzle.core.plan.guides import Guide
from fitzle.core.preflight.rule import Demand
from fitzle.core.preflight.typefaces import Typeface
from fitzle.core.spec.sheet import SpecSheet

ArtworkState = Literal["queued", "reading", "ready", "failed"]
MOST_CHANGES = 400  # in one save: five for each part that a piece may have, less than a tenth of a second


class Message(Schema):
    """What to tell the person."""

    message: str


class WorkspaceOut(Schema):
    name: str
    slug: str


class LeavingOut(WorkspaceOut):
    """A workspace that was deleted, and the day until which it can be had back."""

    until: str


class Me(Schema):
    """Who is signed in, where they belong, the limits that the pages hold to, and whether they run this Fitzle."""

    name: str
    email: str
    confirmed: bool
    invites: bool
    workspaces: list[WorkspaceOut]
    leaving: list[LeavingOut]
    limits: LimitsOut
    runs: bool


class PersonName(Schema):
    """What a person is called."""

    name: Annotated[str, Field(max_length=120)]


class AlikeOut(Schema):
    """Another artwork that shows the same thing: the same file, larger, smaller, a vector …"""

    id: UUID
    name: str
    relation: str


class EarlierOut(Schema):
    """A file that an artwork was before it was replaced."""

    name: str
    bytes: int
    at: datetime


class VersionOut(Schema):
    """A version of a mark, and where it shows."""

    id: UUID
    name: str
    key: str
    showing: Showing


class OnGrounds(Schema):
    """Which version of a mark shows best on a light and on a dark ground, and these grounds."""

    light: VersionOut
    dark: VersionOut
    light_ground: str = LIGHT_GROUND
    dark_ground: str = DARK_GROUND


class ArtworkOut(Schema):
    """An artwork: what it is, where it is used, and what belongs to it."""

    id: UUID
    name: str
    bytes: int
    weight: str
    state: ArtworkState
    progress: int
    message: str
    facts: ArtworkFacts | None
    prepared_facts: ArtworkFacts | None = None
    key: str = ""
    used_in: list[str] = []
    alike: list[AlikeOut] = []
    versions: list[VersionOut] = []
    on_grounds: OnGrounds | None = None
    put_away: bool = False
    visible: bool = False
    plays: bool = False
    being_prepared: bool = False
    tags: list[str]
    parent_id: UUID | None
    earlier: list[EarlierOut]
    created_at: datetime
    targets: list[str]
    shown_on: str | None = None


NOWHERE, PUT_AWAY = "no place yet", "put away"  # where artwork is that no destination shows


class ArtworkWanted(Schema):
    """What somebody looks for: words in name, tags, kind, format and places; a tag; a kind; where it is seen; ids."""

    words: Annotated[str, Field(max_length=200)] = ""
    tag: str = ""
    kind: str = ""
    seen_in: str = ""
    put_away: bool | None = None
    ids: Annotated[str, Field(max_length=20_000)] = ""


class ArtworkFound(Schema):
    """How much artwork there is and is found; all tags; all that `seen_in` may be: destinations, or nowhere."""

    all: int
    found: int
    tags: list[str]
    seen_in: list[str]
    put_away: bool


class Description(Schema):
    """What people call an artwork; null leaves a field as it is."""

    name: str | None = None
    tags: list[str] | None = None
    put_away: bool | None = None


class FromWeb(Schema):
    """The address of a file on the web, and the placements that it fills."""

    address: str
    targets: list[str] = []


class Place(Schema):
    """Fit an artwork into these placements; ["suited"] for every empty one that it suits."""

    artwork: UUID
    placements: list[str]


class WallProof(BaseModel):
    """One placement on the wall. `drawn_*` are px on the screen at the shelf's scale; `twin_px` magnifies tiny ones.

    `mask` is what shows of it, as an SVG path in fractions of its width and height. `shared` names the other places
    that take the same file, `parted` says why they do not any more; `changed` what the
    sheet of a filled one says otherwise since somebody noted it. Of a place with slots `slots` of `capacity` are taken.
    What people see there is live since then, from that revision; what was only handed over is not live yet. Of a file
    that moves `seconds` are those of its loop, and `file_key` makes the address of its playing change with it. `stance`
    says of a piece that is arranged for other shapes how its parts came to stand here.
    """

    id: UUID
    name: str
    kind: str | None = None
    stance: Stance | None = None
    seconds: float | None = None
    file_key: str = ""
    size: str
    width: int
    height: int
    drawn_width: float
    drawn_height: float
    twin_px: int | None
    max_bytes: int | None
    formats: str
    ground: str
    mask: str | None
    state: FitState
    why: str
    bytes: int | None
    weight: str
    fit: UUID | None
    key: str | None
    shared: list[str] = []
    parted: str = ""
    changed: list[str] = []
    slots: int | None = None
    capacity: int | None = None
    live_since: datetime | None = None
    live_revision: int | None = None
    handed_over: datetime | None = None


class Shelf(BaseModel):
    """A destination; `wants_checking`: its figures were compared with its help page more than a year ago."""

    id: UUID
    name: str
    note: str = ""
    help_address: str = ""
    checked_on: date | None = None
    wants_checking: bool = False
    scale: int
    placements: list[WallProof]


class Wall(BaseModel):
    """All shelves; `notice` is what people should know of the server, empty where there is nothing.

    `busy`: artwork is being prepared, and what shows it will change.
    """

    workspace: str
    notice: str = ""
    busy: bool = False
    shelves: list[Shelf]
    deliverable: int
    changed: int


class PieceOut(Schema):
    id: UUID
    revision: int
    document: PieceDocument
    undo: str | None
    redo: str | None


class PlacingIn(Schema):
    """A part put at a rectangle in px of the file."""

    part: str
    x: float
    y: float
    width: float
    height: float


class PieceEdit(Schema):
    """Changes made on a revision; `step` names them for undo."""

    revision: int
    step: str
    changes: Annotated[list[Change], Field(max_length=MOST_CHANGES)]


class ComposedIn(Schema):
    """Whether places of other shapes are to follow the one where somebody says so."""

    on: bool


class Edit(Schema):
    """What is changed from one fit, on a revision; `step` names it for undo.

    `values` of fields and `placings` of parts count `everywhere`, or only in the fit's placement; `take_back` lists
    what is to follow the piece again there, as "part.field"; `changes` say themselves where they count. With
    `proof_width` the answer brings the proof. `key` names the save: sent again, it is made once.
    """

    revision: int
    step: str
    changes: Annotated[list[Change], Field(max_length=MOST_CHANGES)] = []
    values: Annotated[list[FieldValue], Field(max_length=MOST_CHANGES)] = []
    placings: Annotated[list[PlacingIn], Field(max_length=MOST_CHANGES)] = []
    take_back: Annotated[list[str], Field(max_length=MOST_CHANGES)] = []
    everywhere: bool = True
    proof_width: int | None = None
    key: UUID | None = None


class NewPart(Schema):
    """A part to add: by role, or artwork with its middle at (x, y) in fractions, or `instead` of a part's own."""

    revision: int
    role: str = ""
    artwork: UUID | None = None
    instead: str | None = None
    x: float | None = None
    y: float | None = None
    proof_width: int | None = None
    key: UUID | None = None


class StartingPointOut(Schema):
    number: int
    name: str


class Begin(Schema):
    """The number of a starting point."""

    starting_point: int


class ClashOut(Schema):
    """A change that clashes, and the value that somebody else gave."""

    change: Change
    newest: Any


class Reason(BaseModel):
    """Why what a rule finds is right as it is."""

    reason: Annotated[str, Field(min_length=3, max_length=300, pattern=r"\S")]


class StalePiece(Schema):
    message: str
    newest: PieceOut
    clashes: list[ClashOut]


class BoxOut(Schema):
    x: float
    y: float
    width: float
    height: float


class NaturalOut(Schema):
    width: float
    height: float


class ArtworkPlaced(Schema):
    """How a picture or mark is fitted: the window in px of its artwork. `plays`: it moves by itself in this place."""

    artwork: UUID
    key: str
    window: BoxOut
    natural: NaturalOut
    mode: Literal["fill", "whole"]
    padding_px: float
    padding_percent: float
    clearance_px: float
    vector: bool
    one_colour: bool
    colours: list[str]
    on_grid: bool
    plays: bool


TypefaceOut = Typeface


class WordsPlaced(Schema):
    """How words are set: em and height of capitals in px of the file, the colour that they have and its contrast."""

    lines: list[str]
    size_px: float
    cap_height_px: float
    colour: str
    contrast: float | None
    family: str


class PartOut(Schema):
    """A part where it stands: the room it has (`stands`) and the box that it takes up, in px of the file."""

    part: str
    role: str
    name: str
    box: BoxOut
    stands: BoxOut
    rotation: float
    stance: Stance = "as composed"
    artwork: ArtworkPlaced | None = None
    words: WordsPlaced | None = None


class FileOut(Schema):
    """A made file; `weight` is its bytes and `label` its format as people write them."""

    bytes: int
    weight: str
    format: str
    label: str
    width: int
    height: int
    settings: str
    score: float


class FitBrief(Schema):
    """A fit on the rail."""

    id: UUID
    placement: UUID
    placement_name: str
    destination: str
    size: str
    drawn_width: float
    drawn_height: float
    mask: str | None
    state: FitState
    why: str
    key: str
    page: str


class RowOfFit(Schema):
    """The row of a run that a fit is for: its number, what tells it from others, in how many fields it differs."""

    id: str
    number: int
    title: str
    by_hand: int


class FitOut(Schema):
    """One fit with everything the bench shows. `measuring` says that the file for this state is still being made,
    `making` what is being done for it just now (one that moves takes a while).

    `key` is that of its proof, `failure` says in words why the file could not be made, `mask` is what shows of it as an
    SVG path in fractions of its width and height. `parts` are those that show, back to front; `here` are all parts as
    they are in this placement by id, `names` what they are called; `proof` is a data address. `take` is the letter of
    the take where several stand in this placement, else empty. `arranged`: its parts follow the shape that the piece
    was composed in by calculation; `stance` says whether that placed them here, somebody did, or both shapes are one.
    `by_hand` are the fields (`part.field`) with which somebody put parts elsewhere here. At a fit of a `row` what is
    changed differs in that row alone (`rows` counts all of the run); `adjusted`, and undo and redo of `piece`, are then
    those of the row.
    """

    id: UUID
    key: str
    piece: PieceOut
    placement: UUID
    sheet: SpecSheet
    width: int
    height: int
    ground: str | None
    ground_given: bool
    adjusted: list[str]
    parts: list[PartOut]
    state: FitState
    failure: str
    mask: str | None
    measuring: bool
    making: str
    deliverable: bool
    demands: list[Demand]
    findings: list[Finding]
    file: FileOut | None
    house: list[str]
    artwork_colours: list[str]
    names: dict[str, str]
    here: dict[str, Part]
    guides: list[Guide]
    shapes: list[str]
    first_looks: FirstLooks
    rail: list[FitBrief]
    take: str = ""
    proof: str | None = None
    stance: Stance = "as composed"
    arranged: bool = False
    by_hand: list[str] = []
    row: RowOfFit | None = None
    rows: int = 0
