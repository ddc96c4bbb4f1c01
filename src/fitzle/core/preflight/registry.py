"""All rules. A new one is a module below `rules`, its line here, its test and its page in docs/rules."""

from __future__ import annotations

from collections.abc import Iterable

from fitzle.core.errors import DocumentError
from fitzle.core.findings import Finding
from fitzle.core.piece.changes import Change
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.rule import Demand, Evidence, Needs, Repairing, Rule
from fitzle.core.preflight.rules import (
    aspect,
    box,
    busy,
    bytes_limit,
    clash,
    clearance,
    contrast,
    covered,
    crowded,
    enlarging,
    file_format,
    file_size,
    ground_given,
    halo,
    letters,
    merging,
    missing_letters,
    motion,
    moving,
    off_centre,
    quality,
    smudge,
    stretched,
    strokes,
    transparency,
    twins,
    version,
)
from fitzle.core.spec.sheet import SpecSheet

_ORDER = {"refused": 0, "risky": 1, "note": 2}


def registered(rules: Iterable[Rule]) -> dict[str, Rule]:
    """Rules by id; raises ValueError where two have one id, or where two different repairs have one name."""
    found: dict[str, Rule] = {}
    repairs: dict[str, Repairing] = {}
    for rule in rules:
        if rule.id in found:
            raise ValueError(f"two rules are called {rule.id!r}")
        found[rule.id] = rule
        for name, repair in rule.repairs.items():
            if repairs.setdefault(name, repair) is not repair:
                raise ValueError(f"two repairs are called {name!r}")
    return found


# In reading order: what would be refused, then what the eye sees, then what was decided for the person.
RULES = registered(
    rule
    for module in (
        file_size,
        aspect,
        file_format,
        bytes_limit,
        transparency,
        motion,
        quality,
        ground_given,
        enlarging,
        clearance,
        covered,
        contrast,
        busy,
        letters,
        strokes,
        smudge,
        crowded,
        stretched,
        box,
        halo,
        off_centre,
        clash,
        merging,
        twins,
        missing_letters,
        version,
        moving,
    )
    for rule in getattr(module, "RULES", None) or (module.RULE,)
)
_REPAIRS = {name: repair for rule in RULES.values() for name, repair in rule.repairs.items()}
# Repairs that go by the figures of the eye: those are measured before they are worked out.
SEEN_REPAIRS = frozenset(name for rule in RULES.values() if rule.needs == "seen" for name in rule.repairs)


def judged(evidence: Evidence, *needs: Needs) -> list[Finding]:
    """The findings of all rules that need no more than that, the worst first."""
    found = [finding for rule in RULES.values() if rule.needs in needs for finding in rule.judge(evidence)]
    return worst_first(found)


def worst_first(found: Iterable[Finding]) -> list[Finding]:
    """Findings, the worst first."""
    return sorted(found, key=lambda finding: _ORDER[finding.severity])


def demands_of(file: FileFacts, sheet: SpecSheet) -> list[Demand]:
    """All demands of the sheet against a file, in reading order."""
    found = [rule.demand(file, sheet) for rule in RULES.values() if rule.demand]
    return [demand for demand in found if demand]


def label_of_finding(finding: Finding) -> str:
    """A finding in two or three words with its figure, where a sentence has no room."""
    rule = RULES.get(finding.rule)
    return rule.label(finding) if rule else finding.rule


def repair_changes(
    name: str, piece: Piece, placement: str, evidence: Evidence, part: str | None = None
) -> list[Change]:
    """The changes of a repair, of one part or of all; raises DocumentError when there is nothing to repair."""
    if name not in _REPAIRS:
        raise DocumentError(f"there is no repair called {name!r}")
    changes = _REPAIRS[name](piece, placement, evidence, part)
    if not changes:
        raise DocumentError("there is nothing to repair any more")
    return changes
