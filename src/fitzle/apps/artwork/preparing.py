"""Preparation: steps saved with undo and redo, shown at once from the working copy, made by a worker at full size."""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from threading import Lock
from typing import TYPE_CHECKING, Any, NamedTuple
from uuid import UUID

from celery.exceptions import SoftTimeLimitExceeded
from django.db import IntegrityError, transaction
from django.db.models import F
from django.http import Http404
from django.utils import timezone

from fitzle.apps.artwork.costly import CostlyShelf
from fitzle.apps.artwork.intake import limits
from fitzle.apps.artwork.library import NOT_THERE, artwork_of, original_bytes, small_original
from fitzle.apps.artwork.models import Artwork, Preparation, PreparationState, State
from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.files.keeping import keep
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.history import Kind, moved, names_of
from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.reading import read_and_judge
from fitzle.core.artwork.steps.costly import is_costly
from fitzle.core.artwork.steps.document import AnyStep, Turn
from fitzle.core.artwork.steps.document import Preparation as Document
from fitzle.core.artwork.steps.material import Material, material_of
from fitzle.core.artwork.steps.preparing import Stage, prepared, stages
from fitzle.core.artwork.steps.written import file_of
from fitzle.core.artwork.working import make_working_copy
from fitzle.core.errors import ArtworkError, FitzleError

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

KEPT_STATES = 100
STEPS = "steps"
PREVIEW_PX = 1280  # the long side at which steps are shown while they are worked on
_MOST_HELD = 8  # stages of one or two artworks, each up to 6.5 MB
TOO_MUCH = "Making these steps takes too long or too much memory. Switch one off, or crop the picture first."
_NO_STEP = Turn(id="none")
_held: OrderedDict[str, Stage] = OrderedDict()
_lock = Lock()


class Prepared(NamedTuple):
    """The file that steps made, as artwork keeps it; None where no step is on and the original stands for itself."""

    file: dict[str, Any] | None


class StalePreparation(Exception):
    """The save was made on an older revision; carries the artwork, whose preparation is newer."""

    def __init__(self, artwork: Artwork) -> None:
        super().__init__("somebody else has changed the preparation")
        self.artwork = artwork


def preparation_of(artwork: Artwork) -> Preparation:
    """The artwork's preparation, made empty where there is none; Http404 where the artwork has gone meanwhile."""
    try:
        with transaction.atomic():
            found, made = Preparation.objects.get_or_create(artwork=artwork)
            if made:
                PreparationState.objects.create(
                    preparation=found, position=0, document=found.document, step="as it came"
                )
    except IntegrityError as gone:
        raise Http404(NOT_THERE) from gone
    return found


def preparable(workspace: Workspace, artwork_id: UUID | str) -> Artwork:
    """An artwork that can be prepared; Http404 where it is not there, ArtworkError where it is not ready or a clip."""
    found = artwork_of(workspace, artwork_id)
    if found.state != State.READY or found.facts is None:
        raise ArtworkError("this artwork is not ready yet", advice="Wait until it is read.")
    if found.facts["kind"] == "clip":
        raise ArtworkError("this is a clip", advice="Take a still from it and prepare that one.")
    return found


def document_of(preparation: Preparation) -> Document:
    """The steps as a frozen document."""
    return Document.model_validate(preparation.document)


@transaction.atomic
def save_steps(
    artwork: Artwork, revision: int, document: Document, step: str, user: User | None = None, key: UUID | None = None
) -> Preparation:
    """Saves the steps; `step` names the change for undo. Raises StalePreparation for an older revision.

    A save whose `key` came before is not made again.
    """
    locked = _locked(artwork)
    if key and locked.states.filter(key=key).exists():
        return locked
    if locked.revision != revision:
        raise StalePreparation(artwork)
    _remember(locked, document.model_dump(mode="json"), step, made_by=user, key=key)
    return locked


@transaction.atomic
def move_in_history(artwork: Artwork, user: User, kind: Kind) -> Preparation:
    """Undo or redo of the person's own last step; as it is where there is none. Raises CannotTakeBack."""
    locked = _locked(artwork)
    rows = list(locked.states.filter(position__lte=locked.position).defer("document").select_related("made_by"))

    def plain_at(position: int) -> dict[str, Any]:
        return Document.model_validate(locked.states.get(position=position).document).model_dump(mode="json")

    newest = document_of(locked).model_dump(mode="json")
    found = moved(rows, plain_at, newest, kind, user.pk, STEPS)
    if found:
        document = Document.model_validate(found.document).model_dump(mode="json")
        _remember(locked, document, found.of.step, made_by=user, kind=kind, of=found.of.position)
    return locked


def undo_and_redo(preparation: Preparation, user_id: int) -> tuple[str | None, str | None]:
    """What undo would take back and redo would make again for a person, in words; None where there is nothing."""
    rows = preparation.states.filter(position__lte=preparation.position).defer("document")
    return names_of(list(rows), user_id)


def _remember(preparation: Preparation, document: dict[str, Any], step: str, **more: Any) -> None:
    """Stores steps as the next state of the history."""
    preparation.states.filter(position__gt=preparation.position).delete()
    preparation.position += 1
    _store(preparation, document)
    PreparationState.objects.create(
        preparation=preparation, position=preparation.position, document=document, step=step[:120], **more
    )
    preparation.states.filter(position__lte=preparation.position - KEPT_STATES).delete()


def shown_stages(artwork: Artwork, document: Document) -> list[Stage]:
    """The picture after each step that is on, from the working copy; costly steps may still wait."""
    steps, shelf = document.made, CostlyShelf(artwork.workspace_id)
    material, found, settled = before_steps(artwork), [], True
    for index, step in enumerate(steps):
        key = _stage_key(artwork, steps[: index + 1])
        stage = _look_up(key) if settled else None
        if stage is None:
            upto = steps[: index + 1]
            stage = next(iter(stages(material, upto, artwork.sha256, shelf, make=False, done=index)))
        settled = settled and not stage.waiting  # what follows a step that waits will look otherwise
        if settled:
            _put(key, stage)
        found.append(stage._replace(step=step))
        material = stage.material
    return found


def before_steps(artwork: Artwork) -> Material:
    """The artwork before all steps, from its working copy."""
    key = _stage_key(artwork, ())
    held = _look_up(key)
    if held:
        return held.material
    material = material_of(small_original(artwork), PREVIEW_PX)
    _put(key, Stage(_NO_STEP, material))
    return material


def make_costly_steps(artwork: Artwork, revision: int) -> bool:
    """Makes the cuts and tracings that the preparation waits for; False where it has changed since."""
    preparation = preparation_of(artwork)
    if preparation.revision != revision:
        return False
    steps = document_of(preparation).made
    last = max((number for number, step in enumerate(steps, 1) if is_costly(step)), default=0)
    try:
        original = open_source(original_bytes(artwork), limits()) if last else None
        shelf = CostlyShelf(artwork.workspace_id)
        if original:
            made = stages(material_of(original), steps[:last], artwork.sha256, shelf, make=True)
            for number, _ in enumerate(made, 1):
                _progress(preparation, 70 * number // last)
    except (SoftTimeLimitExceeded, MemoryError):
        _finish(preparation, revision, message=TOO_MUCH)
        return False
    return True


def made_again(artwork: Artwork) -> int:
    """The revision of the steps that must be made once more for another file; 0 where there is none."""
    preparation = Preparation.objects.filter(artwork=artwork).first()
    if preparation is None or not document_of(preparation).made:
        return 0
    Preparation.objects.filter(pk=preparation.pk).update(made=0, progress=0)
    return preparation.revision


def make_prepared(artwork: Artwork, revision: int) -> Prepared | None:
    """Makes the prepared file in a worker; None where the steps have changed since or cannot be made."""
    preparation = preparation_of(artwork)
    if preparation.revision != revision:
        return None
    try:
        return Prepared(_made(artwork, document_of(preparation)))
    except StorageFullError:
        raise
    except FitzleError as error:
        _finish(preparation, revision, message=error.message)
    except (SoftTimeLimitExceeded, MemoryError):
        _finish(preparation, revision, message=TOO_MUCH)
    return None


@transaction.atomic
def settle_prepared(artwork: Artwork, revision: int, prepared: Prepared) -> bool:
    """Lets a prepared file stand for the artwork; False where the steps have changed since."""
    locked = Preparation.objects.select_for_update().filter(artwork=artwork).first()
    if locked is None or locked.revision != revision:
        return False
    Artwork.objects.filter(pk=artwork.pk).update(prepared=prepared.file, changed_at=timezone.now())
    _finish(locked, revision, message="")
    return True


def being_prepared(workspace: Workspace) -> set[str]:
    """The ids of artwork whose steps a worker still makes."""
    waiting = Preparation.objects.filter(artwork__workspace=workspace, message="").exclude(made=F("revision"))
    return {str(key) for key in waiting.values_list("artwork_id", flat=True)}


def end_unmade(artwork_id: UUID | str, revision: int) -> None:
    """Ends, in words, the making of steps whose worker was ended."""
    unmade = Preparation.objects.filter(artwork_id=artwork_id, revision=revision)
    unmade.update(progress=100, message=TOO_MUCH, made=revision)


def _made(artwork: Artwork, document: Document) -> dict[str, Any] | None:
    """Keeps the prepared file with its working copy; what is known of it."""
    if not document.made:
        return None
    material = material_of(open_source(original_bytes(artwork), limits()))
    shelf = CostlyShelf(artwork.workspace_id)
    data = file_of(prepared(material, document.made, artwork.sha256, shelf, make=True).material)
    sha256 = hashlib.sha256(data).hexdigest()
    keep(Shelf.PREPARED, artwork.workspace_id, sha256, data)
    found = read_and_judge(data, artwork.name.rpartition(".")[0] or artwork.name, limits())
    copy = make_working_copy(found.source)
    if copy:
        keep(Shelf.WORKING, artwork.workspace_id, sha256, copy[0])
    facts = found.facts.model_dump(mode="json")
    return {"sha256": sha256, "bytes": len(data), "facts": facts, "working_format": copy[1] if copy else ""}


def _locked(artwork: Artwork) -> Preparation:
    preparation_of(artwork)
    return Preparation.objects.select_for_update().get(artwork=artwork)


def _store(preparation: Preparation, document: dict[str, Any]) -> None:
    preparation.document = document
    preparation.revision += 1
    preparation.progress, preparation.message = 0, ""
    preparation.save()


def _progress(preparation: Preparation, percent: int) -> None:
    Preparation.objects.filter(pk=preparation.pk, revision=preparation.revision).update(progress=percent)


def _finish(preparation: Preparation, revision: int, message: str) -> None:
    Preparation.objects.filter(pk=preparation.pk, revision=revision).update(
        progress=100, message=message, made=revision
    )


def _stage_key(artwork: Artwork, steps: tuple[AnyStep, ...]) -> str:
    text = "".join(step.model_dump_json(exclude={"id"}) for step in steps)
    return f"{artwork.workspace_id}/{artwork.sha256}/{hashlib.sha256(text.encode()).hexdigest()}"


def _look_up(key: str) -> Stage | None:
    with _lock:
        return _held.get(key)


def _put(key: str, stage: Stage) -> None:
    with _lock:
        _held[key] = stage
        _held.move_to_end(key)
        while len(_held) > _MOST_HELD:
            _held.popitem(last=False)
