"""What another sheet would do to what stands in its place: said before it is saved."""

from __future__ import annotations

from typing import TYPE_CHECKING, Literal, NamedTuple
from uuid import UUID

from fitzle.apps.pieces.fits import fits_in
from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.core.findings import Finding, Severity
from fitzle.core.fit.state import FitState, Standing, fit_state
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.registry import judged
from fitzle.core.preflight.rule import Evidence

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.destinations.models import Placement
    from fitzle.core.spec.sheet import SpecSheet

Anew = Literal["made", "judged", "nothing"]
BAD: tuple[Severity, ...] = ("refused", "risky")


class Effect(NamedTuple):
    """One fit: its state now and then, whether its file is made or only judged anew, and what would be wrong."""

    fit: UUID
    subject: str
    before: FitState
    after: FitState
    anew: Anew
    messages: list[str]


def effects_of(workspace: Workspace, placement: Placement, sheet: SpecSheet) -> list[Effect]:
    """What a sheet would do to each fit of a place. Nothing is drawn: what only pixels tell shows once it is made."""
    fits = fits_in(placement)
    before = {one.fit.pk: one for one in open_fits(workspace, fits)}
    changed = fits_in(placement)
    for fit in changed:
        fit.placement.__dict__["spec"] = sheet.model_copy(update={"slug": placement.slug})  # read once, kept there
    return [_effect(before[one.fit.pk], one) for one in open_fits(workspace, changed) if one.fit.pk in before]


def _effect(before: OpenFit, after: OpenFit) -> Effect:
    now = fit_state(before.standing(None, before.planned.findings))
    same_file = before.file_key == after.file_key
    if same_file and before.judgement_key == after.judgement_key:
        return Effect(before.fit.pk, before.document.subject, now.state, now.state, "nothing", [])
    findings = [*after.planned.findings, *(_of_file(before, after) if same_file else [])]
    wrong = [finding for finding in findings if finding.severity in BAD]
    then = fit_state(Standing(after.file_key, before.record, tuple(findings)))
    messages = list(dict.fromkeys(finding.message for finding in wrong))
    return Effect(
        before.fit.pk, before.document.subject, now.state, then.state, "judged" if same_file else "made", messages
    )


def _of_file(before: OpenFit, after: OpenFit) -> list[Finding]:
    """The demands of the new sheet on the file that stays; whether it is transparent is known once it is judged."""
    record = before.record
    if record is None or not record.files:
        return []
    file = record.files[0]
    facts = FileFacts(format=file.format, width=file.width, height=file.height, bytes=file.bytes, transparent=False)
    sheet = after.sheet.model_copy(update={"transparency": "allowed"})
    return judged(Evidence(sheet, file=facts), "file")
