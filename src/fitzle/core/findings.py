"""What preflight has to say about a fit: a rule, how bad, where, how much against how much, and a repair."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Literal

from pydantic import BaseModel, ConfigDict

Severity = Literal["refused", "risky", "note"]
Verdict = Literal["fits", "risky", "refused"]
Figure = float | int | str | None


class Frozen(BaseModel):
    """Base of every frozen document: unknown keys are refused, values never change."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)


class Where(Frozen):
    """A rectangle in fractions of the picture's width and height."""

    x: float
    y: float
    width: float
    height: float


class Repair(Frozen):
    """A repair that one click makes: its name in the registry of repairs and the words on the button.

    `becomes` is the figure that it comes to, where that is calculated beforehand: `7.1 : 1`.
    """

    name: str
    label: str
    becomes: str = ""


class Offer(Frozen):
    """What preparing the artwork itself would mend: by a version of it, or in all its places ("trace")."""

    step: Literal["trace", "cut out", "clean edge", "dark-version", "simpler"]
    artwork: str
    label: str


class Finding(Frozen):
    """One thing that would be refused, looks bad, or is worth knowing; `part` is the part it is about.

    `repair` is the one that is proposed, `other_repairs` what would do too, the best first. `muted` is why somebody
    says that it is right as it is, for this fit; empty where nobody does.
    """

    rule: str
    severity: Severity
    message: str
    measured: Figure = None
    limit: Figure = None
    where: Where | None = None
    repair: Repair | None = None
    other_repairs: tuple[Repair, ...] = ()
    offer: Offer | None = None
    part: str | None = None
    muted: str = ""


def muting(findings: Iterable[Finding], muted: Mapping[str, str]) -> list[Finding]:
    """Findings with the reasons why some rules are muted; what would be refused is refused all the same."""
    return [
        one.model_copy(update={"muted": muted[one.rule]}) if one.rule in muted and one.severity != "refused" else one
        for one in findings
    ]


def verdict_of(findings: list[Finding] | tuple[Finding, ...]) -> Verdict:
    """`refused` if any finding is that is not muted, else `risky` if any is, else `fits`."""
    severities = {finding.severity for finding in findings if not finding.muted}
    if "refused" in severities:
        return "refused"
    return "risky" if "risky" in severities else "fits"
