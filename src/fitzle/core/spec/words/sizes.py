"""From facts about sides and shapes to one size."""

from __future__ import annotations

from typing import Any, NamedTuple

from fitzle.core.spec.words.measures import NO_LIMIT
from fitzle.core.spec.words.result import Cannot
from fitzle.core.spec.words.text import Fact
from fitzle.core.units import ratio_precision

MOST_PX = 20_000
SIDES = ("width", "height")


class _Said(NamedTuple):
    px: int
    fact: Fact


Limits = dict[tuple[str, str], _Said]  # by strength and side


def size_of(facts: list[Fact]) -> dict[str, Any] | None:
    """The sheet's `size`; None where the words have none. Raises Cannot."""
    limits = _limits(facts)
    aspect = _aspect(facts)
    if not limits and aspect is None:
        return None
    _plain_is_advice(limits)
    _check(limits)
    exact = {side: limits["exact", side] for side in SIDES if ("exact", side) in limits}
    if len(exact) == 2:
        _check_shape(exact["width"], exact["height"], aspect)
        return {side: exact[side].px for side in SIDES}
    if exact and aspect is not None:
        found = _completed(*next(iter(exact.items())), aspect)
        if found:
            return found
    return _ranged(limits, aspect)


def _limits(facts: list[Fact]) -> Limits:
    limits: Limits = {}
    for fact in facts:
        if fact.key == "size":
            for strength, pair in _parts(fact):
                for side, px in zip(SIDES, pair, strict=True):
                    _note(limits, strength, side, px, fact)
        elif fact.key.startswith("size.") and fact.key != "size.aspect" and fact.value != NO_LIMIT:
            where = fact.key.removeprefix("size.")
            usual = {"long": "most", "short": "least"}.get(where, "")
            for strength, px in _parts(fact):
                for side in SIDES if where in ("both", "long", "short") else (where,):
                    _note(limits, strength or usual, side, px, fact)
    return limits


def _parts(fact: Fact) -> list[tuple[str, Any]]:
    if fact.strength == "between":
        return list(zip(("least", "most"), fact.value, strict=True))
    return [(fact.strength, fact.value)]


def _note(limits: Limits, strength: str, side: str, px: int, fact: Fact) -> None:
    if not 1 <= px <= MOST_PX:
        raise Cannot(f"a side of {px} px cannot be; at least 1 and at most {MOST_PX} px are taken", fact)
    known = limits.get((strength, side))
    if known and known.px != px:
        raise Cannot(f"the {side} would be {known.px} px here and {px} px there", known.fact, fact)
    limits.setdefault((strength, side), _Said(px, fact))


def _plain_is_advice(limits: Limits) -> None:
    """A size without a strength is exact, but beside limits it is what is recommended."""
    limited = any(strength in ("least", "most") for strength, _ in limits)
    for side in SIDES:
        plain = limits.pop(("", side), None)
        if plain is None:
            continue
        strength = "recommended" if limited and ("", _other(side)) in {*limits, ("", side)} else "exact"
        strength = "recommended" if limited and _has_both(plain.fact) else strength
        known = limits.get((strength, side))
        if known and known.px != plain.px:
            raise Cannot(f"the {side} would be {known.px} px here and {plain.px} px there", known.fact, plain.fact)
        limits[strength, side] = plain


def _has_both(fact: Fact) -> bool:
    return fact.key in ("size", "size.both")


def _other(side: str) -> str:
    return "height" if side == "width" else "width"


def _check(limits: Limits) -> None:
    for side in SIDES:
        least, most = limits.get(("least", side)), limits.get(("most", side))
        if least and most and least.px > most.px:
            raise Cannot(f"the {side} would be at least {least.px} and at most {most.px} px", least.fact, most.fact)
        for strength in ("exact", "recommended"):
            wanted = limits.get((strength, side))
            if wanted and least and wanted.px < least.px:
                raise Cannot(
                    f"a {side} of {wanted.px} px is less than the least, {least.px} px", wanted.fact, least.fact
                )
            if wanted and most and wanted.px > most.px:
                raise Cannot(f"a {side} of {wanted.px} px is more than the most, {most.px} px", wanted.fact, most.fact)


def _aspect(facts: list[Fact]) -> Fact | None:
    found = [fact for fact in facts if fact.key == "size.aspect"]
    for fact in found[1:]:
        if abs(_ratio(fact) - _ratio(found[0])) > 1e-6:
            raise Cannot(f"the shape would be {found[0].value} here and {fact.value} there", found[0], fact)
    return found[0] if found else None


def _ratio(fact: Fact) -> float:
    left, _, right = str(fact.value).partition(":")
    return float(left) / float(right)


def _check_shape(width: _Said, height: _Said, aspect: Fact | None) -> None:
    """A ratio holds up to a px, and one with decimals up to half of its last figure."""
    if aspect is None:
        return
    slack = ratio_precision(str(aspect.value)) * height.px
    if abs(width.px - height.px * _ratio(aspect)) > max(1.0, _ratio(aspect)) + slack:
        raise Cannot(f"{width.px} × {height.px} px are not {aspect.value}", width.fact, aspect)


def _completed(side: str, known: _Said, aspect: Fact) -> dict[str, int] | None:
    """Both sides from one and the shape, where that gives whole px."""
    other = known.px / _ratio(aspect) if side == "width" else known.px * _ratio(aspect)
    if abs(other - round(other)) > 1e-6 or not 1 <= round(other) <= MOST_PX:
        return None
    return {side: known.px, _other(side): round(other)}


def _ranged(limits: Limits, aspect: Fact | None) -> dict[str, Any]:
    size: dict[str, Any] = {"aspect": aspect.value} if aspect else {}
    for side in SIDES:
        exact = limits.get(("exact", side))
        for strength, key in (("least", "min"), ("most", "max")):
            limit = exact or limits.get((strength, side))
            if limit:
                size[f"{key}_{side}"] = limit.px
    advised = [limits.get(("recommended", side)) for side in SIDES]
    if all(advised):
        size["recommended"] = {side: said.px for side, said in zip(SIDES, advised, strict=True) if said}
    elif aspect and any(advised):
        side, said = next((side, said) for side, said in zip(SIDES, advised, strict=True) if said)
        whole = _completed(side, said, aspect)
        if whole:
            size["recommended"] = whole
    return size or {"aspect": None}
