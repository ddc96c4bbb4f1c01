"""Typefaces: which there are, how each sets somebody's words, and how well it reads small."""

from __future__ import annotations

from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Path, Router

from fitzle.apps.accounts.access import workspace_to_see
from fitzle.apps.api.pictures import immutable_picture
from fitzle.apps.api.schemas import TypefaceOut
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import open_fit
from fitzle.core.errors import DocumentError
from fitzle.core.piece.parts import WordsPart
from fitzle.core.preflight.typefaces import Typeface, typefaces_for
from fitzle.core.type.library import Family, family_named
from fitzle.core.type.sample import LONGEST_SAMPLE, sample_svg

router = Router(tags=["typefaces"])


@router.get("/fits/{uuid:fit}/typefaces/{part}", response=list[TypefaceOut])
def list_typefaces(request: HttpRequest, workspace: Path[str], fit: UUID, part: Path[str]) -> list[Typeface]:
    """Every family with the size that these words get in it, and whether that reads where it is seen smallest."""
    space = workspace_to_see(request.user, workspace)
    opened = open_fit(space, fit_of(space, fit))
    there = opened.resolved.parts
    words = next((entry for entry in there if entry.id == part and isinstance(entry, WordsPart)), None)
    if not isinstance(words, WordsPart):
        raise Http404("There are no such words.")
    return typefaces_for(words, opened.size, opened.sheet)


@router.get("/typefaces/sample")
def sample(
    request: HttpRequest, workspace: Path[str], family: str, text: str, weight: int = 400, italic: bool = False
) -> HttpResponse:
    """Words in a typeface as SVG outlines; black on clear, for the chooser."""
    workspace_to_see(request.user, workspace)
    face = _family(family).face(weight, italic)
    return immutable_picture(sample_svg(text[:LONGEST_SAMPLE], face), "image/svg+xml")


@router.get("/typefaces/file")
def file(
    request: HttpRequest, workspace: Path[str], family: str, weight: int = 400, italic: bool = False
) -> HttpResponse:
    """The Latin file of a face, so that words can be typed on the proof in their own typeface."""
    workspace_to_see(request.user, workspace)
    face = _family(family).face(weight, italic)
    return immutable_picture(face.files[0].read_bytes(), "font/ttf")


def _family(name: str) -> Family:
    try:
        return family_named(name)
    except DocumentError as error:
        raise Http404("There is no such typeface.") from error
