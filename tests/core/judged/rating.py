"""Judges the set and counts, by rule: run as `python -m tests.core.judged.rating [--chosen]`."""

from __future__ import annotations

import sys
from collections import Counter
from dataclasses import dataclass, field, replace

from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.findings import Finding
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.making import look_at
from fitzle.core.preflight.registry import judged
from tests.core.judged.cases import EYE, Case, all_cases
from tests.fits import facts_and_sources, request_for
from tests.make import sheet


@dataclass
class Table:
    """For each rule: found where it must be, missed, and told where it must not be; `bad` lists what went wrong."""

    found: Counter[str] = field(default_factory=Counter)
    missed: Counter[str] = field(default_factory=Counter)
    false: Counter[str] = field(default_factory=Counter)
    good: int = 0
    good_warned: int = 0
    bad: list[str] = field(default_factory=list)

    @property
    def recall(self) -> float:
        """Of all that must be found."""
        found = self.found.total()
        return found / max(1, found + self.missed.total())


def findings_of(case: Case) -> list[Finding]:
    """What the rules for the eye say of a case."""
    known = read_files(case)
    planned = plan_fit(request_for(case.document, sheet(**case.place), known))
    decided = decide(planned, facts_and_sources(known)[1])
    evidence = replace(decided.evidence, eye=look_at(decided, facts_and_sources(known)[1]))
    return [one for one in judged(evidence, "plan", "pixels", "seen") if one.rule in EYE]


def read_files(case: Case) -> dict[str, Artwork]:
    """The artwork of a case by id."""
    return {name: _read(name, data) for name, data in case.files.items()}


def _read(name: str, data: bytes | str) -> Artwork:
    return read_artwork(data.encode(), f"{name}.svg") if isinstance(data, str) else read_artwork(data, f"{name}.png")


def rated(cases: list[Case]) -> Table:
    """All cases judged and counted. A note counts where it must be, and is no warning where it must not."""
    table = Table()
    for case in cases:
        findings = findings_of(case)
        told = {one.rule for one in findings}
        risky = {one.rule for one in findings if one.severity != "note"}
        table.found.update(case.must & told)
        table.missed.update(case.must - told)
        extra = risky - case.must - case.may
        table.false.update(extra)
        if not case.must:
            table.good += 1
            table.good_warned += bool(extra)
        if case.must - told or extra:
            table.bad.append(f"{case.name}: missed {sorted(case.must - told)}, told {sorted(extra)}")
    return table


def main() -> None:
    """Prints the table."""
    cases = [case for case in all_cases() if case.held is ("--chosen" not in sys.argv)]
    table = rated(cases)
    for rule in sorted(EYE):
        found, missed, false = table.found[rule], table.missed[rule], table.false[rule]
        print(f"{rule:12} found {found:3} of {found + missed:3}   false {false}")
    print(f"{len(cases)} pictures, recall {table.recall:.3f}, {table.good_warned} of {table.good} good ones warned")
    print("\n".join(table.bad))


if __name__ == "__main__":
    main()
