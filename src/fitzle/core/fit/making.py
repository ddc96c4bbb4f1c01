"""A decided fit made a file, and judged as its destination and the eye would."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import NamedTuple

from fitzle.core.artwork.sources import Source
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.like import file_like
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Choice, Encoded
from fitzle.core.findings import Finding, Verdict, verdict_of
from fitzle.core.fit.deciding import Decided
from fitzle.core.fit.remedies import with_remedies
from fitzle.core.icons.kind import is_icon_set
from fitzle.core.plan.placed import Plan
from fitzle.core.preflight.file_facts import FileFacts, read_file_facts
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.preflight.registry import demands_of, judged, worst_first
from fitzle.core.preflight.rule import Demand
from fitzle.core.preflight.seeing import eye_readings
from fitzle.core.render.painting import paint
from fitzle.core.spec.naming import file_name
from fitzle.core.units import Size

MOVING_TIMES = 3.6  # the time of a still: the search for a moving file goes through many frames


class Judgement(NamedTuple):
    """All findings, the worst first, and the demands of the sheet beside what was measured."""

    findings: list[Finding]
    demands: list[Demand]

    @property
    def verdict(self) -> Verdict:
        """The worst of all findings."""
        return verdict_of(self.findings)


class Made(NamedTuple):
    """A decided fit with what the search for its file came to, judged."""

    decided: Decided
    choice: Choice
    judgement: Judgement

    @property
    def encoded(self) -> Encoded | None:
        """The file; None where none could be made, the findings say why."""
        return self.choice.best

    @property
    def size(self) -> Size:
        """Of the file, in px."""
        drawn = self.decided.plan.size
        return self.encoded.size(drawn) if self.encoded else drawn


def make_fit(
    decided: Decided, sources: Mapping[str, Source], budget: Budget | None = None, like: Encoded | None = None
) -> Made:
    """Renders, finds the best file within the budget and judges it; `sources` are by all ids.

    The search begins where it ended for a file that it is `like`, a sibling in a run.
    """
    choice = make_file(decided, sources, budget, like=like)
    file = read_file_facts(choice.best.data) if choice.best else None
    return Made(decided, choice, judge_fit(decided, choice, file, look_at(decided, sources)))


def make_file(
    decided: Decided,
    sources: Mapping[str, Source],
    budget: Budget | None = None,
    tell: Callable[[str], None] | None = None,
    like: Encoded | None = None,
) -> Choice:
    """The best file of a decided fit; `tell` hears what is being done for one that moves, which takes a while."""
    if is_icon_set(decided.resolved.sheet):
        from fitzle.core.fit.icon_set import make_icon_set_file  # loads what most files do not need

        return make_icon_set_file(decided, sources)
    if decided.resolved.moves:
        from fitzle.core.fit.moving import make_moving_file

        longer = Budget(budget.seconds * MOVING_TIMES) if budget else None
        return make_moving_file(decided, sources, longer, tell=tell)
    plan, rendered = decided.plan, rendered_fit(decided, sources)
    choice = file_like(like, rendered, decided.resolved.sheet, plan.size, budget, decided.resolved.request.wish)
    return with_remedies(choice, decided, sources, rendered)


def rendered_fit(decided: Decided, sources: Mapping[str, Source]) -> Rendered:
    """A decided fit, drawn when an encoder asks for it."""
    plan, own = decided.plan, decided.planned.sources(sources)
    return Rendered(lambda: paint(plan, own), lambda: _svg(plan, own))


def _svg(plan: Plan, sources: Mapping[str, Source]) -> bytes:
    from fitzle.core.encode.svg_minimise import minimised_svg  # loads what most files do not need
    from fitzle.core.render.svg import svg_of

    return minimised_svg(svg_of(plan, sources))


def look_at(decided: Decided, sources: Mapping[str, Source]) -> tuple[EyeReading, ...]:
    """The figures for the rules of the eye, at the sizes at which it is seen; `sources` are by all ids."""
    planned, resolved = decided.planned, decided.resolved
    own = planned.sources(sources)
    return eye_readings(decided.plan, resolved.own_sheet, own, planned.facts, resolved.versions)


def judge_fit(decided: Decided, choice: Choice, file: FileFacts | None, eye: tuple[EyeReading, ...] = ()) -> Judgement:
    """All rules on a fit whose file was made; `file` is what the file is by its own bytes."""
    evidence = replace(decided.evidence, choice=choice, file=file, eye=eye)
    demands = demands_of(file, evidence.sheet) if file else []
    found = judged(evidence, "plan", "pixels", "seen", "file")
    return Judgement(worst_first([*found, *choice.found]) if choice.found else found, demands)


def name_of(made: Made, subject: str, date: str = "", version: str = "") -> str:
    """The delivered file's name by the sheet's rule; only for a fit that has a file."""
    sheet = made.decided.resolved.own_sheet
    fmt = made.encoded.format if made.encoded else sheet.formats[0]
    return file_name(
        sheet.naming, fmt, subject=subject, placement=sheet.name, size=made.size, date=date, version=version
    )
