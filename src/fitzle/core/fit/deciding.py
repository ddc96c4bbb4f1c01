"""A fit planned, and then decided: which version of each mark stands there and which colour automatic words have.

Making a file takes a `Decided`, so that nothing is made of a plan that nobody has looked at.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.sources import Source
from fitzle.core.findings import Finding
from fitzle.core.fit.request import FitRequest, Resolved
from fitzle.core.fit.resolving import resolve
from fitzle.core.plan.placed import Plan
from fitzle.core.plan.planning import plan_parts
from fitzle.core.plan.versions import ChosenVersion, chosen_versions
from fitzle.core.preflight.legibility import Looked, looked_at, read_again
from fitzle.core.preflight.readings import ContrastReading
from fitzle.core.preflight.registry import judged
from fitzle.core.preflight.rule import Evidence


class Planned(NamedTuple):
    """A fit planned: where everything stands. No pixels: the colour of words may still be `auto`.

    The versions of marks are chosen already, by arithmetic on facts; `facts` are by the ids that the piece uses, of the
    version in the place of its mark.
    """

    resolved: Resolved
    plan: Plan
    facts: Mapping[str, ArtworkFacts]
    versions: tuple[ChosenVersion, ...]

    @property
    def stand_ins(self) -> dict[str, str]:
        """For each mark in whose place another version stands, that version's id."""
        return {one.artwork: one.version for one in self.versions}

    def sources(self, all_sources: Mapping[str, Source]) -> dict[str, Source]:
        """Sources by the ids that the piece uses, of the version in the place of its mark."""
        return {**all_sources, **{name: all_sources[other] for name, other in self.stand_ins.items()}}

    @property
    def evidence(self) -> Evidence:
        """What rules may look at before any pixel is drawn."""
        return Evidence(self.resolved.own_sheet, self.plan, self.facts, self.resolved.house, versions=self.versions)

    @property
    def findings(self) -> list[Finding]:
        """What can be said before any pixel is drawn."""
        return judged(self.evidence, "plan")


class Decided(NamedTuple):
    """A fit with every colour decided, and the contrasts that were read for that."""

    planned: Planned
    plan: Plan
    readings: tuple[ContrastReading, ...]

    @property
    def resolved(self) -> Resolved:
        """The request with its layers resolved."""
        return self.planned.resolved

    @property
    def evidence(self) -> Evidence:
        """What rules may look at before the file is made."""
        return Evidence(
            self.resolved.own_sheet,
            self.plan,
            self.planned.facts,
            self.resolved.house,
            readings=self.readings,
            versions=self.planned.versions,
        )

    @property
    def findings(self) -> list[Finding]:
        """What can be said before the file is made."""
        return judged(self.evidence, "plan", "pixels")


def plan_fit(request: FitRequest) -> Planned:
    """Resolved, planned, versions chosen; milliseconds. Raises DocumentError when an artwork is missing."""
    return plan_resolved(resolve(request))


def plan_resolved(resolved: Resolved) -> Planned:
    """As `plan_fit`, of a request that is resolved already."""
    facts = resolved.facts
    plan = plan_parts(resolved.parts, resolved.sheet, facts)
    chosen = chosen_versions(plan, resolved.sheet, facts, resolved.versions)
    if chosen:
        facts = facts | {one.artwork: facts[one.version] for one in chosen}
        plan = plan_parts(resolved.parts, resolved.sheet, facts)
    return Planned(resolved, plan, facts, tuple(chosen))


def decide(planned: Planned, sources: Mapping[str, Source]) -> Decided:
    """Looks at what is behind words and marks (a small drawing) and decides; `sources` are by all ids."""
    resolved, own = planned.resolved, planned.sources(sources)
    return _decided(planned, looked_at(planned.plan, resolved.sheet, own, planned.facts, resolved.house))


def decide_again(planned: Planned, readings: Sequence[ContrastReading]) -> Decided:
    """As `decide`, from what was read when a fit with this very proof key was decided before; no pixels."""
    return _decided(planned, read_again(planned.plan, readings))


def _decided(planned: Planned, looked: Looked) -> Decided:
    return Decided(planned, looked.plan, looked.readings)
