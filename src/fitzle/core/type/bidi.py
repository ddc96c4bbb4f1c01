"""Which way letters run: the implicit part of the Unicode Bidirectional Algorithm (UAX #9, revision 48).

Explicit embeddings and isolates are taken as neutral, and bracket pairs (rule N0) are not looked at: headlines have
neither. The package that does all of it is under a copyleft licence.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence

_RIGHT_TO_LEFT = {"R", "AL"}
_NEUTRAL = {"B", "S", "WS", "ON", "BN", "LRE", "RLE", "LRO", "RLO", "PDF", "LRI", "RLI", "FSI", "PDI"}


def runs_right_to_left(text: str) -> bool:
    """Whether anything in the text runs from right to left."""
    return not text.isascii() and any(unicodedata.bidirectional(letter) in {"R", "AL", "AN"} for letter in text)


def base_level(text: str) -> int:
    """0 for a paragraph from left to right, 1 from right to left, by its first strong letter (P2, P3)."""
    for letter in text:
        kind = unicodedata.bidirectional(letter)
        if kind == "L":
            return 0
        if kind in _RIGHT_TO_LEFT:
            return 1
    return 0


def embedding_levels(text: str) -> list[int]:
    """The level of each letter of a paragraph; even ones run from left to right."""
    base = base_level(text)
    if not runs_right_to_left(text):
        return [base] * len(text)
    kinds = [unicodedata.bidirectional(letter) or "L" for letter in text]
    edge = "R" if base else "L"
    _resolve_weak(kinds, edge)
    _resolve_neutral(kinds, edge)
    return [_level(kind, base) for kind in kinds]


def visual_order(levels: Sequence[int]) -> list[int]:
    """Indexes from left to right (rule L2)."""
    order = list(range(len(levels)))
    odd = [level for level in levels if level % 2]
    for least in range(max(levels, default=0), min(odd, default=1) - 1, -1):
        start = 0
        while start < len(order):
            end = start
            while end < len(order) and levels[order[end]] >= least:
                end += 1
            order[start:end] = reversed(order[start:end])
            start = max(end, start + 1)
    return order


def _resolve_weak(kinds: list[str], edge: str) -> None:
    """Rules W1 to W7."""
    before, strong = edge, edge
    for index in range(len(kinds)):
        if kinds[index] == "NSM":  # W1
            kinds[index] = before
        if kinds[index] in {"L", "R", "AL"}:
            strong = kinds[index]
        elif kinds[index] == "EN" and strong == "AL":  # W2
            kinds[index] = "AN"
        before = kinds[index]
    kinds[:] = ["R" if kind == "AL" else kind for kind in kinds]  # W3
    for index in range(1, len(kinds) - 1):  # W4
        around = (kinds[index - 1], kinds[index + 1])
        if (kinds[index] in {"ES", "CS"} and around == ("EN", "EN")) or (
            kinds[index] == "CS" and around == ("AN", "AN")
        ):
            kinds[index] = around[0]
    _numbers_take_terminators(kinds)
    strong = edge
    for index, kind in enumerate(kinds):  # W6, W7
        if kind in {"ES", "CS", "ET"}:
            kinds[index] = "ON"
        elif kind in {"L", "R"}:
            strong = kind
        elif kind == "EN" and strong == "L":
            kinds[index] = "L"


def _numbers_take_terminators(kinds: list[str]) -> None:
    """Rule W5."""
    for index, kind in enumerate(kinds):
        if kind != "EN":
            continue
        for step in (-1, 1):
            beside = index + step
            while 0 <= beside < len(kinds) and kinds[beside] == "ET":
                kinds[beside] = "EN"
                beside += step


def _resolve_neutral(kinds: list[str], edge: str) -> None:
    """Rules N1 and N2."""
    index = 0
    while index < len(kinds):
        end = index
        while end < len(kinds) and kinds[end] in _NEUTRAL:
            end += 1
        if end > index:
            left = _as_strong(kinds[index - 1]) if index else edge
            right = _as_strong(kinds[end]) if end < len(kinds) else edge
            kinds[index:end] = [left if left == right else edge] * (end - index)
        index = max(end, index + 1)


def _as_strong(kind: str) -> str:
    return "L" if kind == "L" else "R"


def _level(kind: str, base: int) -> int:
    """Rules I1 and I2."""
    if base == 0:
        return {"L": 0, "R": 1}.get(kind, 2)
    return 1 if kind == "R" else 2
