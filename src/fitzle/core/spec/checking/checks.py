"""All checks of a sheet. A new one is a function here that yields contradictions, its line and its test."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from fitzle.core.spec.checking.contradiction import Contradiction
from fitzle.core.spec.checking.files import check_motion, check_sides, check_transparency, check_weight
from fitzle.core.spec.checking.looks import check_covered, check_veil
from fitzle.core.spec.checking.sizes import check_recommended, check_shape
from fitzle.core.spec.sheet import SpecSheet

CHECKS: tuple[Callable[[SpecSheet], Iterator[Contradiction]], ...] = (
    check_shape,
    check_recommended,
    check_sides,
    check_weight,
    check_transparency,
    check_motion,
    check_covered,
    check_veil,
)


def contradictions(sheet: SpecSheet) -> list[Contradiction]:
    """What a sheet asks for that no file can meet, in the order in which people read it."""
    return [found for check in CHECKS for found in check(sheet)]
