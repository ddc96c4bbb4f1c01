"""The one state that a placement or a fit is in; every screen shows this one."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, NamedTuple

from fitzle.core.findings import Finding, verdict_of
from fitzle.core.fit.record import RenditionRecord
from fitzle.core.preflight.registry import label_of_finding

FitState = Literal["empty", "working", "fits", "risky", "refused", "out of date", "failed"]


class Standing(NamedTuple):
    """What is known of a fit in its present state.

    `record` is the rendition under its file key and `findings` are those of its judgement, None while they are not
    made; `expected` are findings known before that. `delivered` are the hashes of the files that were handed over
    last, None if none were.
    """

    file_key: str
    record: RenditionRecord | None
    findings: Sequence[Finding] | None
    expected: Sequence[Finding] = ()
    delivered: frozenset[str] | None = None

    @property
    def made(self) -> bool:
        """Whether its file is made and judged, or cannot be."""
        return self.record is not None and (self.findings is not None or self.record.outcome.kind == "failed")

    @property
    def deliverable(self) -> bool:
        """Whether there is a file and the destination would take it."""
        known = self.record is not None and self.findings is not None and bool(self.record.files)
        return known and verdict_of(list(self.findings or ())) != "refused"

    @property
    def out_of_date(self) -> bool:
        """Whether other bytes than the present ones were handed over last."""
        return self.delivered is not None and self.changed

    @property
    def changed(self) -> bool:
        """Whether there are files, and other ones or none were handed over last."""
        return bool(self.record and self.record.files) and self.contents != self.delivered

    @property
    def contents(self) -> frozenset[str]:
        """The hashes of all its files."""
        return self.record.contents if self.record else frozenset()


class ShownState(NamedTuple):
    """A state and its reason in a few words, empty where there is nothing to say."""

    state: FitState
    why: str = ""


def fit_state(standing: Standing | None) -> ShownState:
    """The state of a fit; None is a placement that nothing stands in."""
    if standing is None:
        return ShownState("empty")
    if standing.record and standing.record.outcome.kind == "failed":
        return ShownState("failed", "the file could not be made")
    findings = standing.expected if standing.findings is None else standing.findings
    verdict = verdict_of(list(findings))
    if verdict != "fits":
        worst = next(one for one in findings if one.severity == verdict and not one.muted)
        return ShownState(verdict, label_of_finding(worst))
    if not standing.made:
        return ShownState("working", "measuring")
    if standing.out_of_date:
        return ShownState("out of date", "changed since delivery")
    return ShownState("fits")
