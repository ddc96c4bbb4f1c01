"""The page of a rule: what is measured, where it comes from, and what it cannot tell."""

from __future__ import annotations

from pathlib import Path

from fitzle.core.errors import ValueOutOfRange
from fitzle.core.preflight.registry import RULES

FOLDER = Path(__file__).parents[4] / "docs" / "rules"


def page_of(rule: str) -> str:
    """The page of a rule as Markdown; raises ValueOutOfRange where there is no such rule."""
    if rule not in RULES:
        raise ValueOutOfRange("there is no such rule", expected=", ".join(sorted(RULES)), actual=repr(rule))
    return (FOLDER / RULES[rule].page).read_text(encoding="utf-8")
