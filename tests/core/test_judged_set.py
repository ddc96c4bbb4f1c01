"""The set of made pictures: what is found, what is left alone, and that every repair mends what it says."""

from dataclasses import replace

import pytest

from fitzle.core.artwork.reading import Artwork
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.making import look_at
from fitzle.core.piece.changes import apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.registry import judged, repair_changes
from fitzle.core.preflight.rule import Evidence
from tests.core.judged.cases import Case, all_cases
from tests.core.judged.rating import rated, read_files
from tests.fits import facts_and_sources, request_for
from tests.make import sheet

CASES = all_cases()
HELD = [case for case in CASES if case.held]


def test_the_set_is_large_enough_and_every_rule_is_in_it() -> None:
    assert len(HELD) >= 120
    assert len({case.name for case in CASES}) == len(CASES), "each has a name of its own"


def test_what_is_risky_is_found_and_good_pictures_are_left_alone() -> None:
    table = rated(HELD)
    assert table.recall >= 0.9, table.bad
    for rule, found in table.found.items():
        assert found >= 0.7 * (found + table.missed[rule]), f"{rule}: {table.bad}"
    assert table.good >= 60
    assert table.good_warned <= table.good / 20, table.bad


def _evidence(document: Piece, case: Case, known: dict[str, Artwork]) -> Evidence:
    sources = facts_and_sources(known)[1]
    decided = decide(plan_fit(request_for(document, sheet(**case.place), known)), sources)
    return replace(decided.evidence, eye=look_at(decided, sources))


@pytest.mark.parametrize("case", [case for case in CASES if case.must], ids=lambda case: case.name)
def test_every_repair_mends_its_finding_and_makes_no_other(case: Case) -> None:
    known, document = read_files(case), Piece.model_validate(case.document)
    evidence = _evidence(document, case, known)
    before = judged(evidence, "plan", "pixels", "seen")
    for finding in before:
        for repair in (finding.repair, *finding.other_repairs):
            if repair is None:
                continue
            changes = repair_changes(repair.name, document, "here", evidence, finding.part)
            after = judged(_evidence(apply_changes(document, changes), case, known), "plan", "pixels", "seen")
            told = {(one.rule, one.part) for one in after if one.severity != "note" or one.rule == finding.rule}
            assert (finding.rule, finding.part) not in told, f"{repair.name} for {finding.message}"
            risky = {one.rule for one in after if one.severity != "note"}
            assert risky <= {one.rule for one in before}, f"{repair.name} brings {risky}"
