"""A finding in two or three words with its figure, for places where a sentence has no room."""

from __future__ import annotations

from fitzle.core.findings import Finding
from fitzle.core.units import words_for_bytes


def brief(finding: Finding) -> str:
    """For example `reads 1.3 : 1`, `9.0 KB too heavy`, `enlarged 2.3 ×`."""
    measured, limit = finding.measured, finding.limit
    if finding.rule == "bytes" and isinstance(measured, int) and isinstance(limit, int):
        return f"{words_for_bytes(measured - limit)} too heavy"
    if finding.rule == "quality" and finding.severity == "refused":
        return "too much for its limit"
    if isinstance(measured, float | int):
        figure = {
            "contrast": f"reads {measured:.1f} : 1",
            "enlarging": f"enlarged {measured:.2g} ×",
            "clearance": "touches the edge" if measured < 0.05 else f"{measured:.1f} px from the edge",
            "letters": f"letters {measured:.0f} px tall",
            "quality": f"looks {measured:.0f} of 100",
        }.get(finding.rule)
        if figure:
            return figure
    return _WORDS.get(finding.rule, finding.rule)


_WORDS = {
    "size": "wrong size",
    "aspect": "wrong shape",
    "format": "wrong format",
    "transparency": "wrong transparency",
    "motion": "wrong motion",
    "box": "its box shows",
    "missing-letters": "letters missing",
    "ground-given": "ground added",
}
