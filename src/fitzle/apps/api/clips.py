"""Clips: their filmstrip, any frame of them, the stills that are proposed and taken; pages of documents."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING, Annotated
from uuid import UUID

from django.http import FileResponse, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Path, Router, Schema, Status
from pydantic import Field

from fitzle.apps.accounts.access import access_to, house_colours, workspace_to_see
from fitzle.apps.api.artwork_views import artwork_view
from fitzle.apps.api.drawn import draw_frame, find_frame, find_loop
from fitzle.apps.api.pictures import immutable_picture, width_allowed
from fitzle.apps.api.schemas import ArtworkOut, Message
from fitzle.apps.artwork.actions import recolour as recolour_it
from fitzle.apps.artwork.actions import take_loop as take_loop_of
from fitzle.apps.artwork.actions import take_pages as take_pages_of
from fitzle.apps.artwork.actions import take_stills as take_stills_of
from fitzle.apps.artwork.clips import (
    MOST_STILLS,
    animation_bytes,
    proposals_of,
    strip_picture,
    strip_seconds,
    usable_clip,
)
from fitzle.apps.artwork.library import artwork_of
from fitzle.apps.files.keeping import open_checked
from fitzle.apps.files.shelves import Shelf
from fitzle.core.artwork.lottie_colours import colours_in, in_house_colours
from fitzle.core.formats import format_named
from fitzle.core.motion.footage import FASTEST, SLOWEST, Closing, Cut
from fitzle.core.motion.looped import LONGEST_LOOP_S, check_loop

if TYPE_CHECKING:
    from fitzle.apps.artwork.models import Artwork

router = Router(tags=["clips"])
PIECE_BYTES = 4_000_000  # of a clip at a time: a browser asks for the next piece by itself
MOST_RECOLOURED = 64
Hex = Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")]
Seconds = Annotated[float, Field(ge=0, le=1_000_000)]


class ProposedStill(Schema):
    """A still worth having; `eyes` is null where no face tells whether they are open."""

    seconds: float
    score: float
    eyes: bool | None


class TakenStill(Schema):
    """A still that is artwork already."""

    id: UUID
    seconds: float


class TakenLoop(Schema):
    """A part of the clip that is a moving picture already, in seconds of the clip."""

    id: UUID
    begin: float
    end: float


class LoopIn(Schema):
    """A part of a clip, in its own seconds (no end: to its end), how fast it plays and how its end meets its begin."""

    begin: Seconds = 0
    end: Seconds | None = None
    speed: Annotated[float, Field(ge=SLOWEST, le=FASTEST)] = 1
    closing: Closing = "cut"


class ColourOut(Schema):
    """A colour of an animation and the house colour that looks most like it; null where none does."""

    hex: str
    house: str | None


class ColoursIn(Schema):
    """Which colour becomes which, as hex."""

    colours: Annotated[dict[Hex, Hex], Field(min_length=1, max_length=MOST_RECOLOURED)]


class LoopEnds(Schema):
    """Where a loop begins and ends, in seconds of the clip."""

    begin: float
    end: float


class StillsOut(Schema):
    """A clip to take stills from, and loops of at most `longest_loop` seconds. `proposals` is null while a worker looks
    for them.
    """

    name: str
    seconds: float
    fps: float
    width: float
    height: float
    strip: list[float]
    proposals: list[ProposedStill] | None
    taken: list[TakenStill]
    loops: list[TakenLoop]
    longest_loop: float


class Moment(Schema):
    """When a frame is shown, in seconds."""

    seconds: float


class StillsIn(Schema):
    """The moments of the frames to take."""

    moments: Annotated[list[Seconds], Field(min_length=1, max_length=MOST_STILLS)]


class PagesIn(Schema):
    """The numbers of the pages to take, from 1."""

    pages: Annotated[list[Annotated[int, Field(ge=1, le=10_000)]], Field(min_length=1, max_length=50)]


@router.get("/artwork/{uuid:artwork}/stills", response=StillsOut)
def read_stills(request: HttpRequest, workspace: Path[str], artwork: UUID) -> StillsOut:
    """The clip, its filmstrip and its stills."""
    clip = usable_clip(workspace_to_see(request.user, workspace), artwork)
    facts = clip.known_facts
    return StillsOut(
        name=clip.name,
        seconds=facts["seconds"],
        fps=facts["fps"],
        width=facts["width"],
        height=facts["height"],
        strip=strip_seconds(clip),
        proposals=_proposals(clip),
        taken=[
            TakenStill(id=child.pk, seconds=child.origin["still"])
            for child in clip.children.all()
            if "still" in child.origin
        ],
        loops=[
            TakenLoop(id=child.pk, begin=child.origin["loop"]["begin"], end=child.origin["loop"]["end"])
            for child in clip.children.all()
            if "loop" in child.origin
        ],
        longest_loop=LONGEST_LOOP_S,
    )


def _proposals(clip: Artwork) -> list[ProposedStill] | None:
    found = proposals_of(clip)
    return None if found is None else [ProposedStill(**one._asdict()) for one in found]


@router.post("/artwork/{uuid:artwork}/stills", response={202: list[ArtworkOut], 422: Message})
def take_stills(request: HttpRequest, workspace: Path[str], artwork: UUID, given: StillsIn) -> Status[list[ArtworkOut]]:
    """Makes artwork of frames, at full resolution."""
    return Status(
        202, [artwork_view(one) for one in take_stills_of(access_to(request.user, workspace), artwork, given.moments)]
    )


@router.post("/artwork/{uuid:artwork}/loops", response={202: ArtworkOut, 422: Message})
def take_loop(request: HttpRequest, workspace: Path[str], artwork: UUID, given: LoopIn) -> Status[ArtworkOut]:
    """Makes a moving picture of a part of a clip, or of a Lottie animation: artwork for places that take motion."""
    cut = Cut(begin=given.begin, end=given.end, speed=given.speed, closing=given.closing)
    return Status(202, artwork_view(take_loop_of(access_to(request.user, workspace), artwork, cut)))


@router.get("/artwork/{uuid:artwork}/loops/best", response={200: LoopEnds, 422: Message})
def find_best_loop(request: HttpRequest, workspace: Path[str], artwork: UUID, begin: Seconds, end: Seconds) -> LoopEnds:
    """The part of a clip near this one, and as long, whose end goes over into its beginning best."""
    space = workspace_to_see(request.user, workspace)
    clip = usable_clip(space, artwork)
    check_loop(Cut(begin=begin, end=end), clip.known_facts["seconds"])
    found = find_loop.ask(clip.sha256, space.pk, artwork, begin, end)
    return LoopEnds(begin=found[0], end=found[1])


@router.get("/artwork/{uuid:artwork}/colours", response=list[ColourOut])
def read_colours(request: HttpRequest, workspace: Path[str], artwork: UUID) -> list[ColourOut]:
    """The colours of a Lottie animation, those used most first, each with the house colour most like it."""
    space = workspace_to_see(request.user, workspace)
    found = colours_in(animation_bytes(artwork_of(space, artwork)))
    proposed = in_house_colours(found, house_colours(space))
    return [ColourOut(hex=code, house=proposed.get(code)) for code in found[:MOST_RECOLOURED]]


@router.post("/artwork/{uuid:artwork}/colours", response={202: ArtworkOut, 422: Message})
def recolour(request: HttpRequest, workspace: Path[str], artwork: UUID, given: ColoursIn) -> Status[ArtworkOut]:
    """Replaces colours of a Lottie animation; the file before stays among its earlier ones."""
    return Status(202, artwork_view(recolour_it(access_to(request.user, workspace), artwork, given.colours)))


@router.post("/artwork/{uuid:artwork}/pages", response={202: list[ArtworkOut], 422: Message})
def take_pages(request: HttpRequest, workspace: Path[str], artwork: UUID, given: PagesIn) -> Status[list[ArtworkOut]]:
    """Makes artwork of further pages of a document."""
    return Status(
        202, [artwork_view(one) for one in take_pages_of(access_to(request.user, workspace), artwork, given.pages)]
    )


@router.get("/artwork/{uuid:artwork}/moment", response=Moment)
def find_moment(request: HttpRequest, workspace: Path[str], artwork: UUID, at: Seconds, step: int = 0) -> Moment:
    """When the frame at a moment is shown, or the one after it (step 1) or before it (step -1)."""
    space = workspace_to_see(request.user, workspace)
    clip = usable_clip(space, artwork)
    return Moment(seconds=find_frame.ask(clip.sha256, space.pk, artwork, at, step))


@router.get("/artwork/{uuid:artwork}/strip")
def filmstrip_picture(request: HttpRequest, workspace: Path[str], artwork: UUID, key: str = "") -> HttpResponse:
    """All frames of the filmstrip beside one another."""
    clip = usable_clip(workspace_to_see(request.user, workspace), artwork)
    return immutable_picture(strip_picture(clip), "image/jpeg")


@router.get("/artwork/{uuid:artwork}/frame")
def frame(
    request: HttpRequest, workspace: Path[str], artwork: UUID, at: Seconds, width: int = 900, key: str = ""
) -> HttpResponse:
    """The frame at a moment."""
    space = workspace_to_see(request.user, workspace)
    clip = usable_clip(space, artwork)
    return immutable_picture(*draw_frame.ask(clip.sha256, space.pk, artwork, at, width_allowed(width)))


@router.get("/artwork/{uuid:artwork}/clip")
def clip_file(request: HttpRequest, workspace: Path[str], artwork: UUID) -> HttpResponseBase:
    """The clip itself for the browser to play, in pieces as it asks for them (RFC 9110, section 14)."""
    clip = usable_clip(workspace_to_see(request.user, workspace), artwork)
    file = open_checked(Shelf.ORIGINALS, clip.workspace_id, clip.sha256)
    count, media_type = clip.bytes, format_named(clip.known_facts["format"]).media_type
    asked = re.fullmatch(r"bytes=(\d+)-(\d*)", request.headers.get("Range", ""))
    if not asked:
        answer: HttpResponseBase = FileResponse(file, content_type=media_type)
    else:
        first = int(asked[1])
        last = min(int(asked[2] or count - 1), first + PIECE_BYTES - 1, count - 1)
        if first > last:
            return HttpResponse(status=416, headers={"Content-Range": f"bytes */{count}"})
        file.seek(first)
        answer = HttpResponse(file.read(last - first + 1), status=206, content_type=media_type)
        answer["Content-Range"] = f"bytes {first}-{last}/{count}"
    answer["Accept-Ranges"] = "bytes"
    answer["Cache-Control"] = "private, max-age=3600"
    answer["Content-Disposition"] = "inline"
    return answer
