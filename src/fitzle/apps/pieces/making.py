"""Files made, kept by content and judged, in a worker."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial
from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings

from fitzle.apps.files.errors import DamagedFileError
from fitzle.apps.files.keeping import is_whole, keep_by_content, note_of, read
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.queue import make_later
from fitzle.apps.pieces.fits import all_fits
from fitzle.apps.pieces.models import Fit, Judgement, Rendition
from fitzle.apps.pieces.opening import OpenFit, decide_and_remember, decided, open_fits
from fitzle.apps.pieces.progress import teller
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.result import Choice, Encoded
from fitzle.core.fit.deciding import Decided
from fitzle.core.fit.making import judge_fit, look_at
from fitzle.core.fit.making import make_file as make_best_file
from fitzle.core.fit.record import RenditionRecord, choice_of, failed, record_of
from fitzle.core.preflight.file_facts import read_file_facts

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

LOST = "the bytes of this file were lost or damaged on this server"
NOT_MADE = "Making this file takes too long or too much memory. Ask for a smaller size here, or for a larger limit."


def make_file(fit_id: UUID | str) -> None:
    """Makes the file of a fit unless its key was made before, and judges it unless it was judged as it is seen now."""
    fit = _fit(fit_id)
    if fit is None:
        return
    workspace = fit.piece.workspace
    opened = next(iter(open_fits(workspace, [fit])), None)
    if opened is None:
        return  # its artwork is gone, or it cannot be read: the wall says so
    make_open(opened)


def make_open(opened: OpenFit, like: Encoded | None = None) -> None:
    """Makes the file of an open fit, and judges it, unless both were done before; the search begins where that for the
    file ended that it is `like`.
    """
    if opened.judgement or (opened.record and opened.record.outcome.kind == "failed"):
        return  # a state that could not be made is not tried on and on; the next change is another one
    workspace = opened.fit.piece.workspace
    kept = _kept_choice(workspace, opened) if opened.record else None
    looked, choice = (decided(workspace, opened), kept) if kept else _made(workspace, opened, like)
    _judge(opened, looked, choice)


def end_unmade_file(fit_id: UUID | str) -> None:
    """Notes that the file of a fit cannot be made, in words; its state would be `working` for ever."""
    fit = _fit(fit_id)
    if fit is None:
        return
    for opened in open_fits(fit.piece.workspace, [fit]):
        if opened.record is not None:
            continue
        _keep_record(fit.piece.workspace, opened, failed(NOT_MADE))


def made_bytes(workspace: Workspace, sha256: str) -> bytes:
    """The bytes of a file that was made, compared with their hash.

    Raises DamagedFileError where they are lost or damaged; its remedy has the file made anew for what still wants it.
    """
    data = read(Shelf.MADE, workspace.pk, sha256, check=True)
    if data is None:
        raise _lost(workspace, sha256)
    return data


def require_made(workspace: Workspace, hashes: Iterable[str]) -> None:
    """Raises DamagedFileError, as `made_bytes` does, where one of these files is not there by its weight."""
    for sha256 in hashes:
        note = note_of(Shelf.MADE, workspace.pk, sha256)
        if note is None or not is_whole(note):
            raise _lost(workspace, sha256)


def _lost(workspace: Workspace, sha256: str) -> DamagedFileError:
    error = DamagedFileError(LOST, advice="It is made anew now, if a place still shows it: try again in a moment.")
    error.remedy = partial(make_anew, workspace, sha256)
    return error


def make_anew(workspace: Workspace, sha256: str) -> None:
    """Forgets that a file was made, so that it is made for whatever fits still want it."""
    holding = [
        key
        for key, files, beside in Rendition.objects.filter(workspace=workspace).values_list("pk", "files", "beside")
        if any(file["sha256"] == sha256 for file in (*files, *beside))
    ]
    Rendition.objects.filter(pk__in=holding).delete()
    make_later(Fit.objects.filter(piece__workspace=workspace).values_list("pk", flat=True))


def _made(workspace: Workspace, opened: OpenFit, like: Encoded | None) -> tuple[Decided, Choice]:
    sources = opened.sources(preview=False)
    looked = decide_and_remember(workspace, opened, sources)
    budget = Budget(settings.SEARCH_SECONDS)
    choice = make_best_file(looked, sources, budget, teller(workspace.pk, opened.file_key, budget), like)
    record = record_of(choice, looked.plan.size)
    if choice.best:
        for data in (choice.best.data, *(one.data for one in choice.beside)):
            keep_by_content(Shelf.MADE, workspace.pk, [data])
    _keep_record(workspace, opened, record)
    return looked, choice


def _kept_choice(workspace: Workspace, opened: OpenFit) -> Choice | None:
    """The choice of a file that was made before, which is judged anew; None where its bytes are lost."""
    assert opened.record
    record = RenditionRecord.model_validate({**opened.record.model_dump(), "candidates": opened.candidates})
    data = read(Shelf.MADE, workspace.pk, record.files[0].sha256, check=True) if record.files else b""
    return None if data is None else choice_of(record, data)


def _keep_record(workspace: Workspace, opened: OpenFit, record: RenditionRecord) -> None:
    opened.rendition, _ = Rendition.objects.update_or_create(
        workspace=workspace, file_key=opened.file_key, defaults=record.model_dump(mode="json")
    )


def _judge(opened: OpenFit, looked: Decided, choice: Choice) -> None:
    file = read_file_facts(choice.best.data) if choice.best else None
    judgement = judge_fit(looked, choice, file, look_at(looked, opened.sources(preview=True)))
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


def make_missing(workspace: Workspace) -> int:
    """Has made and judged what this version of Fitzle has not made or judged yet; how many fits."""
    opened = open_fits(workspace, all_fits(workspace, rows=False))
    missing = [one.fit.pk for one in opened if one.rendition is None or one.judgement is None]
    make_later(missing)
    return len(missing)
