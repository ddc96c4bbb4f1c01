"""What another sheet would do to what stands in its place: said before it is saved."""

from __future__ import annotations

from typing import TYPE_CHECKING, Literal, NamedTuple
from uuid import UUID

from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.apps.pieces.serving import served_fits
from fitzle.apps.pieces.sharing import shared_files
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
    place: UUID
    place_name: str
    subject: str
    before: FitState
    after: FitState
    anew: Anew
    messages: list[str]

    def own_of(self, placement: Placement) -> bool:
        """Whether it stands in this place, and not in one that the same file serves."""
        return self.place == placement.pk


class Effects(NamedTuple):
    """What a sheet would do to fits, of its own place and of those that the same file serves.

    `broken` says why no file would serve them all any more, None where one would or the place has its own.
    """

    fits: list[Effect]
    broken: str | None


def effects_of(workspace: Workspace, placement: Placement, sheet: SpecSheet) -> Effects:
    """What a sheet would do to what stands there. Nothing is drawn: what only pixels tell shows once it is made."""
    sheets = {placement.pk: sheet.model_copy(update={"slug": placement.slug})}
    now, then = (shared_files(workspace, some).get(placement.pk) for some in ({}, sheets))
    fits = served_fits(placement)
    before = {one.fit.pk: one for one in open_fits(workspace, fits)}
    after = open_fits(workspace, fits, sheets=sheets)
    broken = then.obstacle.message if then and then.obstacle and now and not now.obstacle else None
    effects = [_effect(before[one.fit.pk], one) for one in after if one.fit.pk in before]
    standing = {fit.pk for fit in fits if fit.chosen}
    shown = [one for one in effects if one.own_of(placement) or (one.fit in standing and one.anew != "nothing")]
    return Effects(shown, broken)


def _effect(before: OpenFit, after: OpenFit) -> Effect:
    now = fit_state(before.standing(None, before.planned.findings)).state
    same_file = before.file_key == after.file_key
    who = (before.fit.pk, before.fit.placement_id, before.sheet.name, before.document.subject)
    if same_file and before.judgement_key == after.judgement_key:
        return Effect(*who, now, now, "nothing", [])
    findings = after.muting([*after.planned.findings, *(_of_file(before, after) if same_file else [])])
    wrong = [finding for finding in findings if finding.severity in BAD and not finding.muted]
    then = fit_state(Standing(after.file_key, before.record, tuple(findings))).state
    messages = list(dict.fromkeys(finding.message for finding in wrong))
    return Effect(*who, now, then, "judged" if same_file else "made", messages)


def _of_file(before: OpenFit, after: OpenFit) -> list[Finding]:
    """The demands of the new sheet on the file that stays; whether it is transparent is known once it is judged."""
    record = before.record
    if record is None or not record.files:
        return []
    file = record.files[0]
    facts = FileFacts(format=file.format, width=file.width, height=file.height, bytes=file.bytes, transparent=False)
    sheet = after.sheet.model_copy(update={"transparency": "allowed"})
    return judged(Evidence(sheet, file=facts), "file")
