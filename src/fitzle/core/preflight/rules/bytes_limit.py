"""The byte limit."""

from __future__ import annotations

from dataclasses import replace

from fitzle.core.findings import Finding
from fitzle.core.formats import label_of
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.rule import Demand, Evidence, demand_rule, demanded, refused
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import words_for_bytes


def bytes_demand(file: FileFacts, sheet: SpecSheet) -> Demand | None:
    """The limit beside the file's weight; None where there is no limit."""
    if sheet.max_bytes is None:
        return None
    asked, measured = f"at most {words_for_bytes(sheet.max_bytes)}", words_for_bytes(file.bytes)
    finding = None
    if file.bytes > sheet.max_bytes:
        over = words_for_bytes(file.bytes - sheet.max_bytes)
        finding = refused("bytes", f"It has {measured}, {over} too many.", file.bytes, sheet.max_bytes)
    return demanded("bytes", asked, measured, finding)


def _over_limit(evidence: Evidence) -> list[Finding]:
    """No file stays under the limit: what was tried, and what would help."""
    choice, limit = evidence.choice, evidence.sheet.max_bytes
    if choice.problem != "over limit" or limit is None:
        return []
    least = min(choice.candidates, key=lambda candidate: candidate.bytes)
    if {candidate.format for candidate in choice.candidates} == {"svg"}:
        message = (
            f"As SVG it has {words_for_bytes(least.bytes)}, {words_for_bytes(least.bytes - limit)} too many. Photos"
            " weigh most in it: a mark, a shape or a plain ground instead would help."
        )
        return [refused("bytes", message, least.bytes, limit)]
    moving = choice.moving is not None
    helps = (
        "A shorter loop, less that moves, a smaller place or a still picture would help."
        if moving
        else "Fewer colours, a plain ground or less detail would help."
    )
    kinds = ", ".join(label_of(name) for name in sorted({candidate.format for candidate in choice.candidates}))
    message = (
        f"No file stays under {words_for_bytes(limit)}. {len(choice.candidates)} were tried as {kinds}; the smallest"
        f" has {words_for_bytes(least.bytes)} ({least.settings.words}). {helps}"
    )
    return [refused("bytes", message, least.bytes, limit)]


def _label(finding: Finding) -> str:
    measured, limit = finding.measured, finding.limit
    if isinstance(measured, int) and isinstance(limit, int):
        return f"{words_for_bytes(measured - limit)} too heavy"
    return "too heavy"


RULE = replace(demand_rule("bytes", bytes_demand, "", _over_limit), label=_label)
