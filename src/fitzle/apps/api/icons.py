"""A site's icon set: its files, what to put into a page, and the set as one ZIP."""

from __future__ import annotations

from uuid import UUID

from django.http import Http404, HttpRequest
from django.http.response import HttpResponseBase
from ninja import Path, Router, Schema

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.pictures import download, streamed
from fitzle.apps.api.schemas import Message
from fitzle.apps.deliveries.packing import Packed, zip_pieces
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.icons import make_icons
from fitzle.apps.pieces.making import made_bytes
from fitzle.apps.pieces.opening import OpenFit, open_fit
from fitzle.core.fit.icon_files import icon_files
from fitzle.core.spec.stems import safe_stem
from fitzle.core.units import words_for_bytes

router = Router(tags=["icons"])


class MadeIcons(Schema):
    """The fit whose file is the set."""

    fit: UUID


class IconOut(Schema):
    """One file of a set; width and height in px, 0 for text. `key` changes with its bytes."""

    name: str
    use: str
    media_type: str
    width: int
    height: int
    bytes: int
    weight: str
    key: str


class IconSetOut(Schema):
    """The files in the order of a page, the lines for its head, and what somebody fixed."""

    made: bool
    weight: str
    files: list[IconOut]
    lines: str
    path: str
    title: str
    usual_title: str


@router.post("/artwork/{uuid:artwork}/icons", response={200: MadeIcons, 422: Message})
def make_icon_set(request: HttpRequest, workspace: Path[str], artwork: UUID) -> MadeIcons:
    """All icons of a site from this mark, or those that it has already."""
    return MadeIcons(fit=make_icons(access_to(request.user, workspace), artwork).pk)


@router.get("/fits/{uuid:fit}/icons", response=IconSetOut)
def read_icons(request: HttpRequest, workspace: Path[str], fit: UUID) -> IconSetOut:
    """The files of a set."""
    opened = _opened(request, workspace, fit)
    there, wish = icon_files(opened.record), opened.resolved.request.wish
    lines = next((one for one in there if one.media_type == "text/html"), None)
    space = opened.fit.piece.workspace
    return IconSetOut(
        made=bool(there),
        weight=words_for_bytes(sum(one.bytes for one in there)),
        files=[
            IconOut(
                name=one.name, use=one.words, media_type=one.media_type, width=one.width, height=one.height,
                bytes=one.bytes, weight=words_for_bytes(one.bytes), key=one.sha256[:16],
            )
            for one in there
        ],
        lines=made_bytes(space, lines.sha256).decode() if lines else "",
        path=wish.path,
        title=wish.title,
        usual_title=opened.document.subject,
    )  # fmt: skip


@router.get("/fits/{uuid:fit}/icons/zip")
def icons_zip(request: HttpRequest, workspace: Path[str], fit: UUID) -> HttpResponseBase:
    """All files of a set in one ZIP, as they go into a folder of the site."""
    opened = _opened(request, workspace, fit)
    space = opened.fit.piece.workspace
    packed = [Packed(one.name, one.sha256) for one in icon_files(opened.record)]
    if not packed:
        raise Http404("These icons are still being made.")
    name = safe_stem(f"{opened.document.subject} icons")
    return streamed(zip_pieces(space, packed), f"{name}.zip", "application/zip")


@router.get("/fits/{uuid:fit}/icons/{name}")
def icon_file(request: HttpRequest, workspace: Path[str], fit: UUID, name: str, key: str = "") -> HttpResponseBase:
    """One file of a set, to save; `key` makes the address change with it."""
    opened = _opened(request, workspace, fit)
    found = next((one for one in icon_files(opened.record) if one.name == name), None)
    if found is None:
        raise Http404("There is no such icon in this set.")
    return download(made_bytes(opened.fit.piece.workspace, found.sha256), name, found.media_type)


def _opened(request: HttpRequest, workspace: str, fit: UUID) -> OpenFit:
    space = workspace_to_see(request.user, workspace)
    return open_fit(space, fit_of(space, fit))
