"""Artwork for the other apps: listed, found, and opened as sources of pixels."""

from __future__ import annotations

import logging
from collections.abc import Iterable
from typing import TYPE_CHECKING, Any, NamedTuple
from uuid import UUID

from django.core.files.base import File
from django.db.models import Max
from django.http import Http404

from fitzle.apps.artwork.intake import limits
from fitzle.apps.artwork.models import Artwork, Content, State, plain_tags
from fitzle.apps.files.keeping import keep, open_checked, read
from fitzle.apps.files.shelves import Shelf
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.likeness import are_alike
from fitzle.core.artwork.lottie_player import drawn_copy
from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.remembering import CachedSource, OpenSources, PixelCache
from fitzle.core.artwork.sources import Source
from fitzle.core.artwork.working import WorkingSource, make_working_copy
from fitzle.core.errors import ArtworkError

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

FULL_CACHE_BYTES = 12_000_000  # in each worker: what a series shows in every row
WORKER_OPEN_BYTES, WORKER_CACHE_BYTES = 20_000_000, 12_000_000
_pixels = PixelCache()
_full_pixels = PixelCache(FULL_CACHE_BYTES)
_opened = OpenSources()
_opened_full = OpenSources(1)  # it may hold a reading of 36 MB, in each worker
log = logging.getLogger(__name__)
GONE = "The file of this artwork is not there any more."
NOT_THERE = "There is no such artwork."
SAME_SIZE = 0.01
SAME_DETAIL = 0.15  # it is measured to within that


def remember_less() -> None:
    """For the process of a worker, which shows nobody the same picture again and again."""
    _opened.bound(WORKER_OPEN_BYTES)
    _pixels.bound(WORKER_CACHE_BYTES)


def artworks_of(workspace: Workspace) -> list[Artwork]:
    """All artwork, the newest first."""
    return list(Artwork.objects.filter(workspace=workspace))


def artwork_of(workspace: Workspace, artwork_id: UUID | str) -> Artwork:
    """One artwork of the workspace; Http404 for any other."""
    found = Artwork.objects.filter(workspace=workspace, pk=artwork_id).first()
    if found is None:
        raise Http404(NOT_THERE)
    return found


def ready_names(workspace: Workspace) -> list[tuple[str, str]]:
    """The id and name of all artwork that can be shown, the oldest first."""
    found = Artwork.objects.filter(workspace=workspace, state=State.READY).order_by("created_at")
    return [(str(key), name) for key, name in found.values_list("pk", "name")]


def artwork_named(artwork_id: UUID | str) -> Artwork | None:
    """One artwork by its id alone, for the workers; None where it is gone."""
    return Artwork.objects.select_related("workspace").filter(pk=artwork_id).first()


def heaviest(workspace: Workspace, count: int) -> list[tuple[Artwork, int]]:
    """The artwork that weighs most, with its earlier files, and how much in bytes; the heaviest first."""
    rows = Artwork.objects.filter(workspace=workspace).values_list("pk", "bytes", "earlier")
    weights = {key: own + sum(file["bytes"] for file in earlier) for key, own, earlier in rows}
    first = sorted(weights, key=lambda key: -weights[key])[:count]
    known = Artwork.objects.in_bulk(first)
    return [(known[key], weights[key]) for key in first if key in known]


def newest_change(workspace: Workspace, ids: Iterable[str] | None = None) -> str:
    """When any of these artworks, or of all, changed last, as a text that differs after each change."""
    found = Artwork.objects.filter(workspace=workspace)
    if ids is not None:
        found = found.filter(pk__in=[key for key in ids if is_id(key)])
    return str(found.aggregate(newest=Max("changed_at"))["newest"])


def describe(artwork: Artwork, name: str | None, tags: list[str] | None, put_away: bool | None = None) -> None:
    """Another name, other tags, or put away or brought back; the file stays as it came."""
    if put_away is not None:
        artwork.put_away = put_away
    if name is not None:
        artwork.name = name.strip()[:255] or artwork.name
    if tags is not None:
        artwork.tags = plain_tags(tags)
    artwork.save(update_fields=["name", "tags", "put_away", "changed_at"])


class Alike(NamedTuple):
    """Another artwork that shows the same: its id, its name, and how it compares."""

    id: str
    name: str
    relation: str


def relation(one: Artwork, other: Artwork) -> tuple[str, str] | None:
    """What the other is to the one, and the one to the other; None for pictures of different things, and versions."""
    if (one.version_of_id or one.pk) == (other.version_of_id or other.pk):
        return None
    if one.sha256 == other.sha256:
        return "the same file", "the same file"
    sizes = [(entry.known_facts["width"], entry.known_facts["height"]) for entry in (one, other)]
    if not are_alike(one.likeness, other.likeness, (sizes[0][0] / sizes[0][1], sizes[1][0] / sizes[1][1])):
        return None
    if one.known_facts["vector"] != other.known_facts["vector"]:
        return ("a vector", "a bitmap") if other.known_facts["vector"] else ("a bitmap", "a vector")
    own, others = (_detail(entry) for entry in (one, other))
    enlarged = any(_detail(entry) < max(size) for entry, size in zip((one, other), sizes, strict=True))
    if abs(own - others) <= (SAME_DETAIL if enlarged else SAME_SIZE) * max(own, others):
        return "as large", "as large"
    return ("larger", "smaller") if others > own else ("smaller", "larger")


def _detail(artwork: Artwork) -> float:
    """The px that it really carries along its longest side: one that was enlarged is no larger for that."""
    return float(
        artwork.known_facts.get("detail_px") or max(artwork.known_facts["width"], artwork.known_facts["height"])
    )


def original_bytes(artwork: Artwork) -> bytes:
    """The file exactly as it came."""
    return _there(read(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256))


def original_file(artwork: Artwork) -> File[Any]:
    """The file exactly as it came, compared with its hash, to be sent piece by piece."""
    try:
        return open_checked(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256, check=True)
    except FileNotFoundError as error:
        raise Http404(GONE) from error


def content_bytes(artwork: Artwork) -> bytes:
    """The file that stands for it now: the original, or what its preparation made."""
    content = artwork.content
    if content.is_original:
        return original_bytes(artwork)
    return _there(read(Shelf.PREPARED, artwork.workspace_id, content.sha256))


def _there(data: bytes | None) -> bytes:
    if data is None:
        raise Http404(GONE)
    return data


def ready_by_id(workspace: Workspace, ids: Iterable[str]) -> dict[str, Artwork]:
    """Those of these artworks that are ready and can be drawn: a clip must give a still first."""
    known = [key for key in ids if is_id(key)]
    ready = Artwork.objects.filter(workspace=workspace, pk__in=known, state=State.READY).exclude(facts__kind="clip")
    return {str(entry.pk): entry for entry in ready}


def require_ready(workspace: Workspace, ids: Iterable[str]) -> None:
    """Raises ArtworkError where one of these is no artwork of the workspace that can be drawn."""
    wanted = set(ids)
    if wanted and wanted != ready_by_id(workspace, wanted).keys():
        raise ArtworkError("this artwork is not in this workspace, or not ready", advice="Choose another one.")


def is_id(text: str) -> bool:
    """Whether this can be the id of an artwork."""
    try:
        return str(UUID(text)) == text
    except ValueError:
        return False


def facts_of(artwork: Artwork) -> ArtworkFacts:
    """What is known of an artwork that is ready, as it is prepared."""
    return ArtworkFacts.model_validate(artwork.content.facts)


def contents_of(artworks: dict[str, Artwork]) -> dict[str, str]:
    """The hashes of the files that stand for artworks now, by id."""
    return {key: artwork.content.sha256 for key, artwork in artworks.items()}


def facts_by_id(workspace: Workspace, ids: Iterable[str]) -> dict[str, ArtworkFacts]:
    """The facts of those of these artworks that are ready."""
    return {key: facts_of(entry) for key, entry in ready_by_id(workspace, ids).items()}


def newest_of_kind(workspace: Workspace, kind: str) -> list[str]:
    """The ids of ready artwork of a kind, the newest first."""
    ready = Artwork.objects.filter(workspace=workspace, state=State.READY, facts__kind=kind, put_away=False)
    return [str(key) for key in ready.values_list("pk", flat=True)]


def ready_marks(workspace: Workspace) -> list[Artwork]:
    """All marks that are ready, the newest first."""
    found = Artwork.objects.filter(workspace=workspace, state=State.READY, facts__kind="mark", put_away=False)
    return [mark for mark in found if is_readable(mark)]


def is_readable(artwork: Artwork) -> bool:
    """Whether what is known of an artwork makes sense; one that was damaged fails alone."""
    return artwork.state != State.READY or sound_facts(artwork) is not None


def sound_facts(artwork: Artwork) -> ArtworkFacts | None:
    """The facts of an artwork that is ready, as it is prepared; None where what is known of it makes no sense."""
    try:
        own = ArtworkFacts.model_validate(artwork.facts)
        int(artwork.likeness or "0", 16)
        facts = facts_of(artwork) if artwork.prepared is not None else own
        return facts if min(own.width, own.height, facts.width, facts.height) > 0 else None
    except (ValueError, TypeError, KeyError) as error:
        log.warning("what is known of artwork %s cannot be read: %s", artwork.pk, error)
        return None


def source_of(artwork: Artwork, *, preview: bool) -> Source:
    """The artwork as a source of pixels; for previews its working copy, with a cache of what was drawn."""
    return _preview_source(artwork, artwork.content) if preview else _full_source(artwork)


def sources_by_id(workspace: Workspace, ids: Iterable[str], *, preview: bool) -> dict[str, Source]:
    """Sources of pixels of those of these artworks that are ready."""
    return {key: source_of(entry, preview=preview) for key, entry in ready_by_id(workspace, ids).items()}


def note_pages(document: Artwork, user: User | None, pages: list[int]) -> list[Artwork]:
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
    """The artwork at full size; of pictures that stand still what was drawn last is remembered: a series shows the same
    ones again and again.
    """
    facts = sound_facts(artwork)
    if facts is None or facts.plays or facts.vector:
        return open_source(content_bytes(artwork), limits())
    key = f"full/{artwork.workspace_id}/{artwork.content.sha256}"
    source = _opened_full.get(key, lambda: open_source(content_bytes(artwork), limits()))
    return CachedSource(key, source, _full_pixels)


def _preview_source(artwork: Artwork, content: Content) -> Source:
    key = f"{artwork.workspace_id}/{content.sha256}"
    return CachedSource(key, _opened.get(key, lambda: _small_source(artwork, content)), _pixels)


def early_source(artwork: Artwork) -> Source:
    """What can be shown of an artwork that is still being read."""
    copy = read(Shelf.WORKING, artwork.workspace_id, artwork.sha256) if artwork.working_format else None
    return open_source(copy or original_bytes(artwork), limits())


def _made_again(artwork: Artwork, content: Content) -> bytes:
    """A working copy that was lost or damaged, made anew of the file that it is of."""
    data = original_bytes(artwork) if content.is_original else content_bytes(artwork)
    drawn = content.facts.get("format") == "lottie"
    copy = (drawn_copy(data), "png") if drawn else make_working_copy(open_source(data, limits()))
    if copy is None:
        raise Http404(GONE)
    keep(Shelf.WORKING, artwork.workspace_id, content.sha256, copy[0])
    return copy[0]


def _small_source(artwork: Artwork, content: Content) -> Source:
    """From the working copy where there is one, else from the file itself, which is small."""
    if content.facts.get("format") == "lottie" and not content.working_format:
        raise Http404("This animation was read before animations were drawn. Bring it in once more.")
    if not content.working_format:
        return open_source(original_bytes(artwork) if content.is_original else content_bytes(artwork), limits())
    copy = read(Shelf.WORKING, artwork.workspace_id, content.sha256) or _made_again(artwork, content)
    facts = ArtworkFacts.model_validate(content.facts)
    return WorkingSource(copy, content.working_format, facts.width, facts.height)
