"""What a rule of preflight is, and the evidence that it judges."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.encode.result import NOTHING_TRIED, Choice
from fitzle.core.findings import Finding, Frozen, Where
from fitzle.core.piece.changes import Change
from fitzle.core.piece.document import Piece
from fitzle.core.plan.placed import EMPTY_PLAN, PlacedArtwork, Plan
from fitzle.core.plan.versions import ChosenVersion
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.readings import ContrastReading, EyeReading
from fitzle.core.spec.sheet import SpecSheet

Needs = Literal["plan", "pixels", "seen", "file"]


class ArtworkInPlan(NamedTuple):
    """One placed artwork with everything that a rule about it may look at; `house` are the business's colours."""

    part: PlacedArtwork
    facts: ArtworkFacts
    plan: Plan
    sheet: SpecSheet
    house: tuple[str, ...] = ()


@dataclass(frozen=True)
class Evidence:
    """Everything that is known of a fit or a finished file; what is not known yet is empty.

    `readings` are the contrasts measured on pixels, `eye` the figures at the size at which it is seen, `versions` the
    versions of marks that were chosen, `choice` what the search for the best file came to, `file` what the file is by
    its own bytes.
    """

    sheet: SpecSheet
    plan: Plan = EMPTY_PLAN
    facts: Mapping[str, ArtworkFacts] = field(default_factory=dict)
    house: tuple[str, ...] = ()
    readings: tuple[ContrastReading, ...] = ()
    versions: tuple[ChosenVersion, ...] = ()
    eye: tuple[EyeReading, ...] = ()
    choice: Choice = NOTHING_TRIED
    file: FileFacts | None = None

    def seen(self, rule: str) -> Iterator[EyeReading]:
        """The figures that one rule goes by."""
        return (reading for reading in self.eye if reading.rule == rule)

    def where(self, part: str) -> Where | None:
        """Where a part stands, None for the whole picture."""
        box = next((one.box for one in self.plan.parts if one.part == part), None)
        return where_in(self.plan, box) if box else None

    def artworks(self) -> Iterator[ArtworkInPlan]:
        """The placed artworks, back to front."""
        for part in self.plan.artworks:
            yield ArtworkInPlan(part, self.facts[part.artwork], self.plan, self.sheet, self.house)


class Demand(Frozen):
    """One line of the spec sheet: what is asked, what was measured, and the finding where they disagree."""

    rule: str
    asked: str
    measured: str
    state: Literal["fits", "risky", "refused"]
    finding: Finding | None = None


# A repair: the piece, the placement's slug, the evidence, and the part it is for (None: all) to the changes it makes.
Repairing = Callable[[Piece, str, Evidence, str | None], list[Change]]


@dataclass(frozen=True)
class Rule:
    """One rule.

    `needs` is what must be known before it can judge, `label` puts one of its findings into two or three words,
    `repairs` are what a click can do about it, `page` is its page below docs/rules. A demand of the spec sheet also
    says what is asked beside what was measured.
    """

    id: str
    needs: Needs
    judge: Callable[[Evidence], list[Finding]]
    label: Callable[[Finding], str]
    repairs: Mapping[str, Repairing] = field(default_factory=dict)
    demand: Callable[[FileFacts, SpecSheet], Demand | None] | None = None

    @property
    def page(self) -> str:
        """The file of its page, below docs/rules."""
        return f"{self.id}.md"


def demand_rule(
    rule_id: str,
    demand: Callable[[FileFacts, SpecSheet], Demand | None],
    label: str,
    before: Callable[[Evidence], list[Finding]] | None = None,
) -> Rule:
    """A rule that judges a demand of the sheet on the finished file; `before` judges where there is no file."""

    def judge(evidence: Evidence) -> list[Finding]:
        if evidence.file is None:
            return before(evidence) if before else []
        found = demand(evidence.file, evidence.sheet)
        return [found.finding] if found and found.finding else []

    return Rule(rule_id, "file", judge, lambda _finding: label, demand=demand)


def demanded(rule: str, asked: str, measured: str, finding: Finding | None) -> Demand:
    """A demand with the state that follows from its finding."""
    state = finding.severity if finding and finding.severity != "note" else "fits"
    return Demand(rule=rule, asked=asked, measured=measured, state=state, finding=finding)


def refused(rule: str, message: str, measured: float | str | None, limit: float | str | None) -> Finding:
    """A finding about a file that would not be taken."""
    return Finding(rule=rule, severity="refused", message=message, measured=measured, limit=limit)
