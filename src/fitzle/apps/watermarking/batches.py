"""Watermarkings found, their marks drawn, their files named."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Any, NamedTuple
from uuid import UUID

from django.http import Http404

from fitzle.apps.artwork.library import facts_of, source_of
from fitzle.apps.artwork.versions import groups_of, ready_with_versions
from fitzle.apps.watermarking.models import RUNNING, WAITING, MarkedPicture, Watermarking
from fitzle.core.artwork.reading import Artwork as ReadArtwork
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError
from fitzle.core.spec.naming import distinct_names
from fitzle.core.watermark.placing import Stamp, drawn_marks

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork

NOT_THERE = "There is no such watermark."
UNDER_WAY = (WAITING, RUNNING)


class DrawnMark(NamedTuple):
    """The versions of a mark as artwork, and drawn, in the same order: the usual one first."""

    versions: list[Artwork]
    pixels: tuple[Pixels, ...]


def watermarkings_of(workspace: Workspace, most: int) -> list[Watermarking]:
    """The newest ones, the newest first."""
    return list(Watermarking.objects.filter(workspace=workspace).select_related("made_by", "mark")[:most])


def watermarking_of(workspace: Workspace, key: UUID) -> Watermarking:
    """One of the workspace; Http404 for any other."""
    found = Watermarking.objects.filter(workspace=workspace, pk=key).select_related("made_by", "mark").first()
    if found is None:
        raise Http404(NOT_THERE)
    return found


def picture_of(workspace: Workspace, key: UUID, picture: UUID) -> MarkedPicture:
    """One picture of a watermarking of the workspace; Http404 for any other."""
    found = MarkedPicture.objects.filter(watermarking__workspace=workspace, watermarking=key, pk=picture).first()
    if found is None:
        raise Http404("There is no such picture.")
    return found


def pictures_of(watermarking: Watermarking) -> list[MarkedPicture]:
    """All its pictures in their order, without their looks."""
    return list(watermarking.pictures.defer("look"))


def stamp_of(watermarking: Watermarking) -> Stamp:
    """How its mark stands."""
    return Stamp.model_validate(watermarking.stamp)


def versions_of(watermarking: Watermarking) -> list[Artwork]:
    """The versions of its mark that are ready, the one that was chosen first."""
    chosen = watermarking.mark
    if chosen is None:
        return []
    found = ready_with_versions(watermarking.workspace, [str(chosen.pk)])
    if str(chosen.pk) not in found:
        return []
    [group] = groups_of(found.values())
    return sorted(group, key=lambda one: one.pk != chosen.pk)


def drawn_mark(watermarking: Watermarking) -> DrawnMark:
    """Its mark, drawn; raises ArtworkError where that is gone."""
    versions = versions_of(watermarking)
    if not versions:
        raise ArtworkError("the mark is not there any more", advice="Choose another one.")
    read = [ReadArtwork(one.name, facts_of(one), source_of(one, preview=False)) for one in versions]
    return DrawnMark(versions, drawn_marks(read))


def file_names(pictures: list[MarkedPicture]) -> dict[UUID, str]:
    """What the files of these pictures are called: as they came, with the ending of what was made."""
    names = distinct_names(picture.name for picture in pictures)
    return {
        picture.pk: f"{name.rpartition('.')[0] or name}.{picture.extension}" if picture.extension else name
        for picture, name in zip(pictures, names, strict=True)
    }


def contents_of(workspace_id: int) -> dict[str, set[str]]:
    """The hashes of all originals and of all files made, which are needed as long as their watermarking is there."""
    rows = MarkedPicture.objects.filter(watermarking__workspace=workspace_id).values_list("original", "sha256")
    pairs: list[tuple[Any, Any]] = list(rows)
    return {"originals": {original for original, _ in pairs}, "made": {made for _, made in pairs if made}}


def forget_watermarkings(workspace_id: int, before: datetime) -> None:
    """Takes away what was begun before then and is not under way."""
    old = Watermarking.objects.filter(workspace_id=workspace_id, made_at__lt=before)
    old.exclude(state__in=UNDER_WAY).delete()
