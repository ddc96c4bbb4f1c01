"""Letters that neither the typeface nor the ones that help it out have."""

from __future__ import annotations

from fitzle.core.findings import Finding
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import Evidence, Rule

MOST_NAMED = 20


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each words with letters that are missing."""
    return [_missing(words, evidence) for words in evidence.plan.words if words.layout.missing]


def _missing(words: PlacedWords, evidence: Evidence) -> Finding:
    letters = words.layout.missing
    what = "the letter" if len(letters) == 1 else "these letters"
    return Finding(
        rule="missing-letters",
        severity="risky",
        message=f"No typeface here has {what}: {letters[:MOST_NAMED]}."
        " An empty box stands in its place; write it another way.",
        measured=len(letters),
        limit=0,
        where=where_in(evidence.plan, words.box),
        part=words.part,
    )


RULE = Rule("missing-letters", "plan", judge, lambda _finding: "letters missing")
