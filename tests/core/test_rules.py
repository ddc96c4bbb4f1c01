"""The registry of rules: each with its page, none twice; and the one state that follows from findings."""

from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from fitzle.core.encode.result import Candidate
from fitzle.core.encode.settings import Lossless
from fitzle.core.findings import Finding
from fitzle.core.fit.record import FileRecord, Outcome, RenditionRecord, choice_of, failed, record_of
from fitzle.core.fit.state import Standing, fit_state
from fitzle.core.preflight.registry import RULES, registered
from tests.core.composed import mark, piece, read_artworks
from tests.fits import made_fit
from tests.make import sheet

PAGES = Path(__file__).parents[2] / "docs" / "rules"


def test_every_rule_has_its_page_and_every_page_its_rule() -> None:
    assert {rule.page for rule in RULES.values()} == {page.name for page in PAGES.glob("*.md")} - {"README.md"}
    for rule in RULES.values():
        text = (PAGES / rule.page).read_text()
        assert text.startswith(f"# {rule.id}\n"), rule.page
        assert all(f"## {part}" in text for part in ("Measured", "Source", "Limits")), rule.page


def test_a_rule_that_is_there_already_is_refused() -> None:
    one = RULES["size"]
    with pytest.raises(ValueError, match="two rules are called 'size'"):
        registered([one, one])
    other = replace(RULES["clearance"], id="other", repairs={"add-padding": lambda *_: []})
    with pytest.raises(ValueError, match="two repairs are called 'add-padding'"):
        registered([RULES["clearance"], other])


def test_rules_judge_only_what_they_are_given() -> None:
    """A fit of which nothing is known yet is not blamed for anything."""
    from fitzle.core.preflight.rule import Evidence

    assert [finding for rule in RULES.values() for finding in rule.judge(Evidence(sheet()))] == []


FILE = FileRecord(sha256="0" * 64, bytes=9, format="png", width=1, height=1, settings=Lossless(), score=100)
MADE = RenditionRecord(files=(FILE,))
RISKY = Finding(rule="box", severity="risky", message="m")
REFUSED = Finding(rule="size", severity="refused", message="m")


@pytest.mark.parametrize(
    ("standing", "state", "deliverable"),
    [
        (None, "empty", False),
        (Standing("k", None, None), "working", False),
        (Standing("k", None, None, [RISKY]), "risky", False),
        (Standing("k", MADE, None), "working", False),
        (Standing("k", MADE, []), "fits", True),
        (Standing("k", MADE, [RISKY]), "risky", True),
        (Standing("k", MADE, [RISKY], delivered=frozenset({"other"})), "risky", True),
        (Standing("k", MADE, [REFUSED, RISKY]), "refused", False),
        (Standing("k", RenditionRecord(), [REFUSED]), "refused", False),
        (Standing("k", MADE, [], delivered=MADE.contents), "fits", True),
        (Standing("k", MADE, [], delivered=frozenset({"other"})), "out of date", True),
        (Standing("k", failed("No room."), None), "failed", False),
        (Standing("k", failed("No room."), None, [RISKY], frozenset({"other"})), "failed", False),
    ],
)
def test_a_fit_is_in_one_state(standing: Standing | None, state: str, deliverable: bool) -> None:
    assert fit_state(standing).state == state
    assert (standing is not None and standing.deliverable) is deliverable


def test_the_reason_is_that_of_the_worst_finding() -> None:
    assert fit_state(Standing("k", MADE, [REFUSED, RISKY])).why == "wrong size"


@pytest.mark.parametrize("place", [{}, {"max_bytes": 60}, {"formats": ["lottie"]}])
def test_what_is_kept_of_a_search_brings_it_back(place: dict[str, Any]) -> None:
    made = made_fit(piece(mark("ding.svg")), sheet(**place), read_artworks())
    record = record_of(made.choice, made.decided.plan.size)
    again = RenditionRecord.model_validate_json(record.model_dump_json())
    data = made.encoded.data if made.encoded else b""
    assert choice_of(again, data) == made.choice
    assert all(isinstance(entry, Candidate) for entry in choice_of(again).candidates)
    assert again.outcome == Outcome(problem=made.choice.problem, budget_seconds=made.choice.budget_seconds)
