"""Versions of a mark: one for light grounds, one for dark ones, joined so that each fit takes the one that shows."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING
from uuid import UUID, uuid4

from django.db import transaction
from django.db.models import Q

from fitzle.apps.artwork.library import ready_by_id
from fitzle.apps.artwork.models import Artwork, State
from fitzle.apps.artwork.preparing import before_steps, document_of, preparation_of, save_steps, shown_stages
from fitzle.apps.drawing.calls import drawable
from fitzle.core.artwork.steps.document import AnyStep
from fitzle.core.artwork.steps.proposing import proposed
from fitzle.core.errors import ArtworkError

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace


def group_of(artwork: Artwork) -> str:
    """What all versions of a mark have in common: the id of the one that they are versions of."""
    return str(artwork.version_of_id or artwork.pk)


def groups_of(marks: Iterable[Artwork]) -> list[list[Artwork]]:
    """Marks that are ready, each group of versions together: first the one that the others are versions of."""
    groups: dict[str, list[Artwork]] = {}
    for mark in marks:
        groups.setdefault(group_of(mark), []).append(mark)
    return [
        sorted(group, key=lambda mark: (mark.version_of_id is not None, mark.created_at)) for group in groups.values()
    ]


def versions_by_id(artworks: Iterable[Artwork]) -> dict[str, list[Artwork]]:
    """For each mark that is ready its versions, itself among them."""
    marks = [entry for entry in artworks if entry.state == State.READY and entry.content.facts["kind"] == "mark"]
    return {str(mark.pk): group for group in groups_of(marks) for mark in group}


def versions_with(workspace: Workspace, artwork_id: UUID | str) -> set[str]:
    """The ids of an artwork and of all its other versions."""
    own = Artwork.objects.filter(workspace=workspace, pk=artwork_id).first()
    if own is None:
        return {str(artwork_id)}
    group = group_of(own)
    found = Artwork.objects.filter(Q(pk=group) | Q(version_of=group), workspace=workspace)
    return {str(key) for key in found.values_list("pk", flat=True)}


def ready_with_versions(workspace: Workspace, ids: Iterable[str]) -> dict[str, Artwork]:
    """Those of these artworks that are ready and can be drawn, each with its other versions."""
    found = ready_by_id(workspace, ids)
    groups = {group_of(artwork) for artwork in found.values()}
    others = Artwork.objects.filter(workspace=workspace, state=State.READY, facts__kind="mark")
    others = others.filter(Q(pk__in=groups) | Q(version_of__in=groups)).exclude(pk__in=found.keys())
    return found | {str(entry.pk): entry for entry in others}


@transaction.atomic
def join(artwork: Artwork, other: Artwork) -> None:
    """Makes a mark a version of another one; with it come the versions it had. Raises ArtworkError."""
    for mark in (artwork, other):
        if mark.state != State.READY or mark.known_facts["kind"] != "mark":
            raise ArtworkError("only marks have versions for other grounds", subject=mark.name)
    group = group_of(other)
    if group == group_of(artwork):
        return
    own = versions_with(artwork.workspace, artwork.pk) if artwork.version_of_id is None else {str(artwork.pk)}
    Artwork.objects.filter(pk__in=own).update(version_of=group)


@transaction.atomic
def part(artwork: Artwork) -> None:
    """Makes a mark one of its own again; where others are versions of it, the first of them takes its place."""
    if artwork.version_of_id:
        Artwork.objects.filter(pk=artwork.pk).update(version_of=None)
        return
    heirs = list(Artwork.objects.filter(version_of=artwork).order_by("created_at"))
    if heirs:
        Artwork.objects.filter(version_of=artwork).update(version_of=heirs[0])
        Artwork.objects.filter(pk=heirs[0].pk).update(version_of=None)


@drawable
def propose_dark_step(artwork: UUID) -> AnyStep:
    """The step that recolours a mark as it is prepared for dark grounds; ArtworkError where all of it shows there."""
    mark = Artwork.objects.get(pk=artwork)
    made = shown_stages(mark, document_of(preparation_of(mark)))
    return proposed("dark-version", made[-1].material if made else before_steps(mark), uuid4().hex[:8])


@transaction.atomic
def make_dark_version(artwork: Artwork, user: User | None) -> tuple[Artwork, int]:
    """A new mark, the same one recoloured for dark grounds, joined with it; and the revision of its steps to be made.

    Raises ArtworkError where all its colours show there already.
    """
    step = propose_dark_step.ask(str(artwork.changed_at), artwork.pk)  # first: what is locked here it could not read
    return _version_with(artwork, step, "for dark grounds", user)


@transaction.atomic
def prepared_version(artwork: Artwork, step: AnyStep, words: str, user: User | None) -> tuple[Artwork, int | None]:
    """The version of a mark that differs by one further step, and the revision to be made; None where it is there."""
    wanted = _without_ids((*document_of(preparation_of(artwork)).steps, step))
    group = group_of(artwork)
    for other in Artwork.objects.filter(Q(pk=group) | Q(version_of=group), sha256=artwork.sha256):
        if other.state == State.READY and _without_ids(document_of(preparation_of(other)).steps) == wanted:
            return other, None
    return _version_with(artwork, step, words, user)


def _without_ids(steps: Iterable[AnyStep]) -> list[AnyStep]:
    return [step.model_copy(update={"id": ""}) for step in steps]


def _version_with(artwork: Artwork, step: AnyStep, words: str, user: User | None) -> tuple[Artwork, int]:
    document = document_of(preparation_of(artwork))
    stem, _, extension = artwork.name.rpartition(".")
    version = Artwork.objects.create(
        workspace=artwork.workspace, name=f"{(stem or extension)[:200]}, {words}.{extension}",
        sha256=artwork.sha256, bytes=artwork.bytes, state=State.READY, progress=100, facts=artwork.facts,
        working_format=artwork.working_format, likeness=artwork.likeness, version_of_id=group_of(artwork),
        created_by=user,
    )  # fmt: skip
    preparation = preparation_of(version)
    steps = document.model_copy(update={"steps": (*document.steps, step)})
    saved = save_steps(version, preparation.revision, steps, words, user)
    return version, saved.revision
