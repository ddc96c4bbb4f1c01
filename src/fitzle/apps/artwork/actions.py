"""What people do with artwork: each checks who does it, writes in one transaction and queues its own work."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from uuid import UUID

from django.http import Http404

from fitzle.apps.accounts.access import Access, Capability, action, house_colours
from fitzle.apps.artwork import clips, intake, library, preparing, versions
from fitzle.apps.artwork.models import Artwork, Preparation
from fitzle.apps.history import Kind
from fitzle.apps.jobs.queue import prepare_later, read_later
from fitzle.core.artwork.glyphs import Style, glyph_svg
from fitzle.core.artwork.lottie_colours import recoloured
from fitzle.core.artwork.steps.document import AnyStep
from fitzle.core.artwork.steps.document import Preparation as Steps
from fitzle.core.colour.contrast import BLACK
from fitzle.core.motion.footage import Cut

ROW_TARGET = "row/"  # a cell of a run, or a new row with it


@action(Capability.FILL)
def bring_in(
    access: Access, name: str, chunks: Iterable[bytes], targets: list[str], tags: Iterable[str] = ()
) -> Artwork:
    """Keeps the bytes of one file and has it read; then it fills its targets. Who may only fill in rows brings in what
    goes into a cell.
    """
    if not all(target.startswith(ROW_TARGET) for target in targets) or not targets:
        access.require(Capability.CHANGE)
    return _read(intake.bring_in(access.workspace, access.actor, name, chunks, targets, tags=tags))


@action(Capability.CHANGE)
def bring_from_web(access: Access, address: str, targets: list[str]) -> Artwork:
    """Has the file at an address on the web fetched and read."""
    return _read(intake.bring_from_web(access.workspace, access.actor, address, targets))


@action(Capability.CHANGE)
def make_mark(access: Access, glyph: str, style: Style, colour: str | None, stroke: float | None) -> Artwork:
    """Makes a mark of a glyph; in the first of the house's colours where none is said."""
    shown = colour or next(iter(house_colours(access.workspace)), BLACK)
    data, origin = glyph_svg(glyph, style, shown, stroke), {"glyph": glyph}
    return _read(intake.bring_in(access.workspace, access.actor, f"{glyph}.svg", [data], [], origin=origin))


@action(Capability.CHANGE)
def describe(
    access: Access,
    artwork_id: UUID,
    name: str | None = None,
    tags: list[str] | None = None,
    put_away: bool | None = None,
) -> Artwork:
    """Another name, other tags, or put away or brought back; the file stays as it came."""
    artwork = library.artwork_of(access.workspace, artwork_id)
    library.describe(artwork, name, tags, put_away)
    return artwork


@action(Capability.CHANGE)
def replace(access: Access, artwork_id: UUID, name: str | None, chunks: Iterable[bytes]) -> Artwork:
    """Takes a newer file of an artwork: once read it stands for it, with its preparation and in all its places."""
    target = library.artwork_of(access.workspace, artwork_id)
    return _read(intake.bring_in_newer(target, access.actor, name or target.name, chunks))


@action(Capability.CHANGE)
def recolour(access: Access, artwork_id: UUID, colours: Mapping[str, str]) -> Artwork:
    """Replaces colours of a Lottie animation; what comes of it stands for it once it is read. Raises ArtworkError."""
    target = library.artwork_of(access.workspace, artwork_id)
    data = recoloured(clips.animation_bytes(target), colours)
    return _read(intake.bring_in_newer(target, access.actor, target.name, [data]))


@action(Capability.CHANGE)
def bring_back(access: Access, artwork_id: UUID, number: int) -> Artwork:
    """Lets one of an artwork's earlier files stand for it again, by its place in the list."""
    found = intake.bring_back(library.artwork_of(access.workspace, artwork_id), access.actor, number)
    if found is None:
        raise Http404("There is no such earlier file.")
    return _read(found)


@action(Capability.CHANGE)
def take_stills(access: Access, clip_id: UUID, moments: list[float]) -> list[Artwork]:
    """Makes artwork of frames of a clip, at full resolution."""
    clip = clips.usable_clip(access.workspace, clip_id)
    return [_read(still) for still in clips.note_stills(clip, access.actor, moments)]


@action(Capability.CHANGE)
def take_loop(access: Access, clip_id: UUID, cut: Cut) -> Artwork:
    """Makes artwork of a part of a clip or a drawn animation: a moving picture for places that take motion."""
    return _read(clips.note_loop(clips.playable(access.workspace, clip_id), access.actor, cut))


@action(Capability.CHANGE)
def take_pages(access: Access, document_id: UUID, pages: list[int]) -> list[Artwork]:
    """Makes artwork of further pages of a document."""
    document = library.artwork_of(access.workspace, document_id)
    return [_read(page) for page in library.note_pages(document, access.actor, pages)]


@action(Capability.CHANGE)
def save_steps(
    access: Access, artwork_id: UUID, revision: int, steps: Steps, step: str, key: UUID | None = None
) -> Artwork:
    """Saves all steps of a preparation, and has them made."""
    artwork = preparing.preparable(access.workspace, artwork_id)
    return _prepared(artwork, preparing.save_steps(artwork, revision, steps, step, access.actor, key))


@action(Capability.CHANGE)
def move_in_history(access: Access, artwork_id: UUID, kind: Kind) -> Artwork:
    """Takes the actor's own last change of the steps back (undo), or makes it again (redo)."""
    artwork = preparing.preparable(access.workspace, artwork_id)
    return _prepared(artwork, preparing.move_in_history(artwork, access.actor, kind))


@action(Capability.CHANGE)
def make_dark_version(access: Access, artwork_id: UUID) -> Artwork:
    """Makes a version of a mark for dark grounds; its colours can be changed in its preparation."""
    artwork = library.artwork_of(access.workspace, artwork_id)
    version, revision = versions.make_dark_version(artwork, access.actor)
    prepare_later(version.pk, revision)
    return version


@action(Capability.CHANGE)
def make_prepared_version(access: Access, artwork_id: UUID, step: AnyStep, words: str) -> Artwork:
    """A version of a mark with one further step; the one that is there already where somebody made it before."""
    artwork = preparing.preparable(access.workspace, artwork_id)
    version, revision = versions.prepared_version(artwork, step, words, access.actor)
    if revision is not None:
        prepare_later(version.pk, revision)
    return version


def _read(artwork: Artwork) -> Artwork:
    read_later(artwork.pk)
    return artwork


def _prepared(artwork: Artwork, preparation: Preparation) -> Artwork:
    prepare_later(artwork.pk, preparation.revision)
    return artwork
