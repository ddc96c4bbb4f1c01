"""Artwork for the other apps: listed, found, and opened as sources of pixels."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any
from uuid import UUID

from django.http import Http404

from fitzle.apps.artwork.files import read_kept
from fitzle.apps.artwork.intake import limits
from fitzle.apps.artwork.models import Artwork, Content, State
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.reading import open_source
from fitzle.core.artwork.sources import Source
from fitzle.core.artwork.working import CachedSource, PixelCache, WorkingSource
from fitzle.core.errors import ArtworkError

_pixels = PixelCache()
_opened: dict[str, Source] = {}
_MOST_OPENED = 12  # each holds its working copy decoded, at most 8 MB


def artworks_of(workspace: Any) -> list[Artwork]:
    """All artwork, the newest first."""
    return list(Artwork.objects.filter(workspace=workspace))


def artwork_of(workspace: Any, artwork_id: UUID | str) -> Artwork:
    """One artwork of the workspace; Http404 for any other."""
    found = Artwork.objects.filter(workspace=workspace, pk=artwork_id).first()
    if found is None:
        raise Http404("There is no such artwork.")
    return found


def artwork_named(artwork_id: UUID | str) -> Artwork | None:
    """One artwork by its id alone, for the workers; None where it is gone."""
    return Artwork.objects.select_related("workspace").filter(pk=artwork_id).first()


def rename(artwork: Artwork, name: str) -> None:
    """Another name for people; the file stays as it came."""
    artwork.name = name.strip()[:255] or artwork.name
    artwork.save(update_fields=["name", "changed_at"])


def original_bytes(artwork: Artwork) -> bytes:
    """The file exactly as it came."""
    return _there(read_kept("originals", artwork.workspace_id, artwork.sha256))


def content_bytes(artwork: Artwork) -> bytes:
    """The file that stands for it now: the original, or what its preparation made."""
    content = artwork.content
    if content.is_original:
        return original_bytes(artwork)
    return _there(read_kept("prepared", artwork.workspace_id, content.sha256))


def _there(data: bytes | None) -> bytes:
    if data is None:
        raise Http404("The file of this artwork is not there any more.")
    return data


def ready_by_id(workspace: Any, ids: Iterable[str]) -> dict[str, Artwork]:
    """Those of these artworks that are ready and can be drawn: a clip must give a still first."""
    ready = Artwork.objects.filter(workspace=workspace, pk__in=list(ids), state=State.READY).exclude(facts__kind="clip")
    return {str(entry.pk): entry for entry in ready}


def facts_of(artwork: Artwork) -> ArtworkFacts:
    """What is known of an artwork that is ready, as it is prepared."""
    return ArtworkFacts.model_validate(artwork.content.facts)


def contents_of(artworks: dict[str, Artwork]) -> dict[str, str]:
    """The hashes of the files that stand for artworks now, by id."""
    return {key: artwork.content.sha256 for key, artwork in artworks.items()}


def facts_by_id(workspace: Any, ids: Iterable[str]) -> dict[str, ArtworkFacts]:
    """The facts of those of these artworks that are ready."""
    return {key: facts_of(entry) for key, entry in ready_by_id(workspace, ids).items()}


def newest_of_kind(workspace: Any, kind: str) -> list[str]:
    """The ids of ready artwork of a kind, the newest first."""
    ready = Artwork.objects.filter(workspace=workspace, state=State.READY, facts__kind=kind)
    return [str(key) for key in ready.values_list("pk", flat=True)]


def source_of(artwork: Artwork, *, preview: bool) -> Source:
    """The artwork as a source of pixels; for previews its working copy, with a cache of what was drawn."""
    return _preview_source(artwork, artwork.content) if preview else _full_source(artwork)


def sources_by_id(workspace: Any, ids: Iterable[str], *, preview: bool) -> dict[str, Source]:
    """Sources of pixels of those of these artworks that are ready."""
    return {key: source_of(entry, preview=preview) for key, entry in ready_by_id(workspace, ids).items()}


def note_pages(document: Artwork, user: Any, pages: list[int]) -> list[Artwork]:
    """New artwork for pages of a document (from 1), queued; a worker takes them out of it."""
    count = (document.facts or {}).get("pages", 1)
    wrong = next((page for page in pages if page > count), None)
    if wrong is not None:
        raise ArtworkError(f"{document.name} has no page {wrong}", advice=f"It has {count}.")
    stem = document.name.rpartition(".")[0] or document.name
    return [
        Artwork.objects.create(
            workspace=document.workspace, name=f"{stem[:200]}, page {page}.pdf", bytes=0, parent=document,
            origin={"page": page}, created_by=user,
        )
        for page in pages
    ]  # fmt: skip


def shown_source(artwork: Artwork) -> Source:
    """What is shown of an artwork in lists, at most as large as its working copy; of a clip one of its frames."""
    return _preview_source(artwork, artwork.content)


def small_original(artwork: Artwork) -> Source:
    """The artwork before its preparation, from its working copy."""
    return _small_source(artwork, Content(artwork.sha256, artwork.facts or {}, artwork.working_format, True))


def _full_source(artwork: Artwork) -> Source:
    return open_source(content_bytes(artwork), limits())


def _preview_source(artwork: Artwork, content: Content) -> Source:
    key = f"{artwork.workspace_id}/{content.sha256}"
    if key not in _opened:
        while len(_opened) >= _MOST_OPENED:
            _opened.pop(next(iter(_opened)), None)
        _opened[key] = _small_source(artwork, content)
    return CachedSource(key, _opened[key], _pixels)


def _small_source(artwork: Artwork, content: Content) -> Source:
    """From the working copy where there is one, else from the file itself, which is small."""
    if not content.working_format:
        return open_source(original_bytes(artwork) if content.is_original else content_bytes(artwork), limits())
    copy = _there(read_kept("working", artwork.workspace_id, content.sha256))
    facts = ArtworkFacts.model_validate(content.facts)
    return WorkingSource(copy, content.working_format, facts.width, facts.height)
