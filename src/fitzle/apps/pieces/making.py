"""Files made, kept by content and judged, in a worker."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage

from fitzle.apps.pieces.models import Fit, Judgement, Rendition
from fitzle.apps.pieces.opening import OpenFit, decide_and_remember, decided, open_fit
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.result import Choice
from fitzle.core.fit.deciding import Decided
from fitzle.core.fit.making import judge_fit
from fitzle.core.fit.making import make_file as make_best_file
from fitzle.core.fit.record import RenditionRecord, choice_of, failed, record_of
from fitzle.core.preflight.file_facts import read_file_facts

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

NOT_MADE = "Making this file takes too long or too much memory. Ask for a smaller size here, or for a larger limit."


def make_file(fit_id: UUID | str) -> None:
    """Makes the file of a fit unless its key was made before, and judges it unless it was judged as it is seen now."""
    fit = _fit(fit_id)
    if fit is None:
        return
    workspace = fit.piece.workspace
    opened = open_fit(workspace, fit)
    if opened.judgement or (opened.record and opened.record.outcome.kind == "failed"):
        return  # a state that could not be made is not tried on and on; the next change is another one
    if opened.record is None:
        looked, choice = _made(workspace, opened)
    else:
        looked, choice = decided(workspace, opened), _kept_choice(workspace, opened.record)
    _judge(opened, looked, choice)


def end_unmade_file(fit_id: UUID | str) -> None:
    """Notes that the file of a fit cannot be made, in words; its state would be `working` for ever."""
    fit = _fit(fit_id)
    if fit is None:
        return
    opened = open_fit(fit.piece.workspace, fit)
    if opened.record is None:
        _keep_record(fit.piece.workspace, opened, failed(NOT_MADE))


def made_bytes(workspace: Workspace, sha256: str) -> bytes:
    """The bytes of a file that was made."""
    with default_storage.open(file_path(workspace.pk, sha256)) as stored:
        return bytes(stored.read())


def file_path(workspace_id: int, sha256: str) -> str:
    """Where a made file is kept in the storage."""
    return f"made/{workspace_id}/{sha256[:2]}/{sha256}"


def _made(workspace: Workspace, opened: OpenFit) -> tuple[Decided, Choice]:
    sources = opened.sources(preview=False)
    looked = decide_and_remember(workspace, opened, sources)
    choice = make_best_file(looked, sources, Budget(settings.SEARCH_SECONDS))
    record = record_of(choice, looked.plan.size)
    if choice.best:
        path = file_path(workspace.pk, record.files[0].sha256)
        if not default_storage.exists(path):
            default_storage.save(path, ContentFile(choice.best.data))
    _keep_record(workspace, opened, record)
    return looked, choice


def _kept_choice(workspace: Workspace, record: RenditionRecord) -> Choice:
    """The choice of a file that was made before, which is judged anew."""
    return choice_of(record, made_bytes(workspace, record.files[0].sha256) if record.files else b"")


def _keep_record(workspace: Workspace, opened: OpenFit, record: RenditionRecord) -> None:
    opened.rendition, _ = Rendition.objects.update_or_create(
        workspace=workspace, file_key=opened.file_key, defaults=record.model_dump(mode="json")
    )


def _judge(opened: OpenFit, looked: Decided, choice: Choice) -> None:
    file = read_file_facts(choice.best.data) if choice.best else None
    judgement = judge_fit(looked, choice, file)
    defaults = {
        "findings": [finding.model_dump(mode="json") for finding in judgement.findings],
        "demands": [demand.model_dump(mode="json") for demand in judgement.demands],
    }
    Judgement.objects.update_or_create(
        rendition=opened.rendition, judgement_key=opened.judgement_key, defaults=defaults
    )


def _fit(fit_id: UUID | str) -> Fit | None:
    found = Fit.objects.select_related("piece__workspace", "placement__destination").filter(pk=fit_id)
    return found.first()
