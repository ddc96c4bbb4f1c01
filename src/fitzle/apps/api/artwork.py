"""Artwork: brought in, listed, shown."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import File, Form, Path, Query, Router, Status
from ninja.files import UploadedFile

from fitzle.apps.accounts.access import Capability, access_to, workspace_to_see
from fitzle.apps.api.artwork_views import artwork_view, list_view
from fitzle.apps.api.drawn import draw_artwork
from fitzle.apps.api.pictures import (
    download,
    held_picture,
    hold_picture,
    immutable_picture,
    sandboxed,
    width_allowed,
)
from fitzle.apps.api.schemas import (
    NOWHERE,
    PUT_AWAY,
    ArtworkFound,
    ArtworkOut,
    ArtworkWanted,
    Description,
    FitBrief,
    FromWeb,
    Message,
    Place,
)
from fitzle.apps.api.views import rail_view
from fitzle.apps.artwork import actions
from fitzle.apps.artwork.finding import Wanted, any_put_away, count_of, found, page_of, tags_of, words_in
from fitzle.apps.artwork.library import (
    artwork_of,
    facts_by_id,
    original_bytes,
    original_file,
)
from fitzle.apps.deliveries.record import last_delivered
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.pieces import actions as fitting
from fitzle.apps.pieces.composing import drop_of
from fitzle.apps.pieces.fits import SUITED
from fitzle.apps.pieces.opening import open_fits
from fitzle.apps.pieces.row_actions import cell_of
from fitzle.apps.pieces.uses import seen_in
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.formats import media_type_of

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

router = Router(tags=["artwork"])


@router.get("/artwork", response=list[ArtworkOut])
def list_artwork(
    request: HttpRequest, workspace: Path[str], wanted: Query[ArtworkWanted], start: int = 0, count: int = 100
) -> list[ArtworkOut]:
    """Artwork that is as wanted, the newest first, at most 200 at a time."""
    space = workspace_to_see(request.user, workspace)
    return list_view(space, page_of(found(space, _wanted(space, wanted)), start, count))


@router.get("/artwork/found", response=ArtworkFound)
def count_artwork(request: HttpRequest, workspace: Path[str], wanted: Query[ArtworkWanted]) -> ArtworkFound:
    """How much there is of it, and by what else it can be found."""
    space = workspace_to_see(request.user, workspace)
    away = any_put_away(space)
    return ArtworkFound(
        all=count_of(found(space, Wanted(put_away=False))),
        found=count_of(found(space, _wanted(space, wanted))),
        tags=tags_of(space),
        seen_in=[*sorted({seen.destination for seen in seen_in(space)}), NOWHERE, *([PUT_AWAY] if away else [])],
        put_away=away,
    )


def _wanted(space: Workspace, wanted: ArtworkWanted) -> Wanted:
    """What is looked for, with the places that it is seen in looked up."""
    words, ids = words_in(wanted.words), wanted.ids.split(",") if wanted.ids else None
    at_destination = wanted.seen_in not in ("", NOWHERE, PUT_AWAY)
    where = seen_in(space) if words or wanted.seen_in else []
    everywhere = {seen.artwork for seen in where}
    at_place = {seen.artwork for seen in where if seen.destination == wanted.seen_in}
    return Wanted(
        words=words,
        tag=wanted.tag,
        kind=wanted.kind,
        put_away=True if wanted.seen_in == PUT_AWAY else wanted.put_away,
        ids=tuple(ids) if ids is not None else None,
        seen=at_place if at_destination else None,
        unseen=everywhere if wanted.seen_in == NOWHERE else None,
        words_seen={word: {seen.artwork for seen in where if word in seen.words.lower()} for word in words},
    )


@router.get("/artwork/{uuid:artwork}", response=ArtworkOut)
def read_artwork(request: HttpRequest, workspace: Path[str], artwork: UUID) -> ArtworkOut:
    """One artwork, with everything that the list says of it."""
    space = workspace_to_see(request.user, workspace)
    return list_view(space, [artwork_of(space, artwork)])[0]


@router.post("/artwork", response={202: list[ArtworkOut], 422: Message})
def bring_in_artwork(
    request: HttpRequest,
    workspace: Path[str],
    files: File[list[UploadedFile]],
    targets: Form[str] = "",
    tags: Form[str] = "",
) -> Status[list[ArtworkOut]] | Status[Message]:
    """Keeps files and has them read.

    `targets` are placements to fill, separated by commas, or "suited"; or, for a drop on a proof, `into/FIT/X/Y` with
    the point in fractions, or `instead/FIT/PART`; or, for a drop on a run, `row/PIECE/FIELD` for the row that names it
    or a new one, `row/PIECE/FIELD/ROW` for its cell. `tags`, separated by commas, are given to each file.
    """
    access = access_to(request.user, workspace)
    access.require(Capability.FILL)
    if len(files) > settings.UPLOAD_LIMIT_FILES:
        return Status(422, Message(message=f"At most {settings.UPLOAD_LIMIT_FILES} files at a time."))
    wanted = [entry for entry in targets.split(",") if entry]
    for target in (entry for entry in wanted if "/" in entry):
        (cell_of if target.startswith(actions.ROW_TARGET) else drop_of)(access.workspace, target)
    if wanted != [SUITED]:
        placements_of(access.workspace, _uuids([entry for entry in wanted if "/" not in entry]))
    named = tags.split(",")
    found = [actions.bring_in(access, file.name or "unnamed", file.chunks(), wanted, named) for file in files]
    return Status(202, [artwork_view(artwork) for artwork in found])


@router.post("/artwork/from-web", response={202: ArtworkOut, 422: Message})
def bring_in_from_web(request: HttpRequest, workspace: Path[str], given: FromWeb) -> Status[ArtworkOut]:
    """Has the file at an address on the public web fetched and read."""
    access = access_to(request.user, workspace)
    if given.targets != [SUITED]:
        placements_of(access.workspace, _uuids(given.targets))
    return Status(202, artwork_view(actions.bring_from_web(access, given.address, given.targets)))


@router.patch("/artwork/{uuid:artwork}", response=ArtworkOut)
def describe_artwork(request: HttpRequest, workspace: Path[str], artwork: UUID, given: Description) -> ArtworkOut:
    """Another name, or other tags; the file itself is not touched."""
    return artwork_view(actions.describe(access_to(request.user, workspace), artwork, **given.dict()))


@router.post("/artwork/{uuid:artwork}/newer", response={202: ArtworkOut})
def replace_artwork(
    request: HttpRequest, workspace: Path[str], artwork: UUID, file: File[UploadedFile]
) -> Status[ArtworkOut]:
    """Takes a newer file of an artwork: once read it stands for it, with its preparation and in all its places."""
    return Status(
        202, artwork_view(actions.replace(access_to(request.user, workspace), artwork, file.name, file.chunks()))
    )


@router.post("/artwork/{uuid:artwork}/earlier/{number}", response={202: ArtworkOut, 404: Message})
def bring_back_artwork(request: HttpRequest, workspace: Path[str], artwork: UUID, number: int) -> Status[ArtworkOut]:
    """Lets one of an artwork's earlier files stand for it again, by its place in the list."""
    return Status(202, artwork_view(actions.bring_back(access_to(request.user, workspace), artwork, number)))


@router.get("/artwork/{uuid:artwork}/picture")
def artwork_picture(
    request: HttpRequest, workspace: Path[str], artwork: UUID, width: int = 320, key: str = ""
) -> HttpResponse:
    """The artwork as it is prepared, at a width of the screen; `key` makes the address change with it."""
    space = workspace_to_see(request.user, workspace)
    found = artwork_of(space, artwork)
    width = width_allowed(width)
    content = found.content.sha256
    held = f"artwork/{space.pk}/{content}/{width}"
    picture = held_picture(held)
    if picture is None:
        if not found.visible:
            raise Http404("This artwork cannot be shown.")
        picture = draw_artwork.ask(f"{content}/{found.changed_at}", space.pk, found.pk, width)
        hold_picture(held, picture)
    answer = immutable_picture(*picture)
    if key != content[:20]:
        answer["Cache-Control"] = "no-store"
    return answer


@router.get("/artwork/{uuid:artwork}/original")
def artwork_original(request: HttpRequest, workspace: Path[str], artwork: UUID) -> HttpResponseBase:
    """The file exactly as it came."""
    found = artwork_of(workspace_to_see(request.user, workspace), artwork)
    return download(original_file(found), found.name, "application/octet-stream")


@router.get("/artwork/{uuid:artwork}/playing")
def artwork_playing(request: HttpRequest, workspace: Path[str], artwork: UUID, key: str = "") -> HttpResponse:
    """A moving picture itself, to be watched; `key` makes the address change with it."""
    found = artwork_of(workspace_to_see(request.user, workspace), artwork)
    facts = ArtworkFacts.model_validate(found.facts) if found.facts else None
    if facts is None or not facts.plays:
        raise Http404("This does not move.")
    return sandboxed(immutable_picture(original_bytes(found), media_type_of(facts.format), key))


@router.post("/fits", response={201: list[FitBrief], 404: Message})
def place_artwork(request: HttpRequest, workspace: Path[str], given: Place) -> Status[list[FitBrief]] | Status[Message]:
    """Fits artwork that is here already into placements."""
    access = access_to(request.user, workspace)
    space = access.workspace
    if given.placements != [SUITED]:
        placements_of(space, _uuids(given.placements))
    artwork_of(space, given.artwork)
    if not facts_by_id(space, [str(given.artwork)]):
        return Status(404, Message(message="This artwork is not ready yet."))
    fits = fitting.place_artwork(access, given.artwork, given.placements)
    return Status(201, rail_view(open_fits(space, fits), last_delivered(space)))


def _uuids(texts: list[str]) -> list[UUID]:
    try:
        return [UUID(text) for text in texts]
    except ValueError as error:
        raise Http404("There is no such placement.") from error
