"""Words that run over drawing of their own tone, or over clutter of the size of their strokes."""

from __future__ import annotations

from fitzle.core.findings import Finding, Repair
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import Evidence, Rule

# The figure, its limit, and what it says of the words.
_LIMITS = (
    ("busy", 0.05, "{value:.0%} of the outline of {words} is lost in what is behind it."),
    ("busy-letter", 0.15, "A letter of {words} loses {value:.0%} of its outline in what is behind it."),
    ("busy-clutter", 0.16, "What is behind {words} is as fine as its strokes, and {value:.0%} as strong."),
)
QUOTED_LETTERS = 24


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each words, of what is worst."""
    return [found for words in evidence.plan.words if (found := _busy(words, evidence))]


def _busy(words: PlacedWords, evidence: Evidence) -> Finding | None:
    found = [
        (reading.value / limit, reading.value, limit, said)
        for name, limit, said in _LIMITS
        for reading in evidence.seen(name)
        if reading.part == words.part and reading.value > limit
    ]
    if not found:
        return None
    _, value, limit, said = max(found)
    quoted = f"“{' '.join(words.layout.lines)[:QUOTED_LETTERS]}”"
    return Finding(
        rule="busy",
        severity="risky",
        message=said.format(value=value, words=quoted) + " A plate, or a calmer place, would let it stand out.",
        measured=round(value, 3),
        limit=limit,
        where=where_in(evidence.plan, words.box),
        repair=Repair(name="plate-behind", label="Put a plate behind it") if words.plate is None else None,
        part=words.part,
    )


def label(_finding: Finding) -> str:
    """In words: the figure says nothing without its sentence."""
    return "busy behind words"


RULE = Rule("busy", "seen", judge, label)
