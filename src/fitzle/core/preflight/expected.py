"""The demands before the file is there: what the plan already knows, and dashes where only the file can tell."""

from __future__ import annotations

from fitzle.core.plan.grounds import takes_alpha
from fitzle.core.plan.placed import Plan
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.registry import demands_of
from fitzle.core.preflight.rule import Demand
from fitzle.core.spec.sheet import SpecSheet

UNKNOWN = "—"
_KNOWN_FROM_PLAN = ("size", "aspect", "motion")


def expected_demands(plan: Plan, sheet: SpecSheet, *, moves: bool = False) -> list[Demand]:
    """All demands; those that only the finished file can answer are left open, of one that `moves` its motion too."""
    known = [rule for rule in _KNOWN_FROM_PLAN if not (moves and rule == "motion")]
    clear = plan.ground_kind == "clear" and takes_alpha(sheet)
    supposed = FileFacts(
        format=sheet.formats[0], width=plan.size.width, height=plan.size.height, bytes=0, transparent=clear
    )
    return [
        demand if demand.rule in known else Demand(
            rule=demand.rule, asked=demand.asked, measured=UNKNOWN, state="fits"
        )
        for demand in demands_of(supposed, sheet)
    ]  # fmt: skip
