"""Where lines break, and which breaks look best."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import NamedTuple

from fitzle.core.type.shaping import Cluster

SOFT_HYPHEN, ZERO_WIDTH_SPACE = "\u00ad", "\u200b"
LONELY_SHARE = 0.4  # a single last word narrower than this part of the widest line looks forgotten
LONELY_COSTS = 0.5  # in squares of the line's width
_SPACED_SCRIPTS = re.compile(r"^[\u0000-\u0e00\u1e00-\u27ff\ufb1d-\ufdff]*$")
_SIMPLE_BREAK = re.compile(r"[^\S\u00a0\u202f]+|(?<=\w)[-\u2010](?=\w)|\u2014|\u00ad|\u200b")


class Token(NamedTuple):
    """What stays on one line: clusters from `start` to `end`, of which those from `blank` on vanish at a line's end.

    Widths in em, letter spacing included; `hyphen` is what a break here adds.
    """

    start: int
    blank: int
    end: int
    width: float
    space: float
    hyphen: float


@lru_cache(maxsize=2000)
def break_positions(text: str) -> tuple[int, ...]:
    """Positions in the text at which a line may end, the text's own end included.

    Scripts that part words by spaces are broken after spaces and hyphens; others by UAX #14.
    """
    if _SPACED_SCRIPTS.match(text):
        inner = {found.end() for found in _SIMPLE_BREAK.finditer(text)} - {0}
        return tuple(sorted(inner | {len(text)}))
    from uniseg.linebreak import line_break_units

    positions, at = [], 0
    for unit in line_break_units(text):
        at += len(unit)
        positions.append(at)
    return tuple(positions)


def tokens_of(clusters: tuple[Cluster, ...], spacing: float, hyphen: float) -> list[Token]:
    """The tokens of a shaped paragraph; `spacing` is added after each cluster, `hyphen` is the width of one."""
    text = "".join(cluster.letters for cluster in clusters)
    ends, at = set(break_positions(text)), 0
    tokens: list[Token] = []
    start = 0
    for index, cluster in enumerate(clusters):
        at += len(cluster.letters)
        if at in ends or index == len(clusters) - 1:
            tokens.append(_token(clusters, start, index + 1, spacing, hyphen))
            start = index + 1
    return tokens


def _token(clusters: tuple[Cluster, ...], start: int, end: int, spacing: float, hyphen: float) -> Token:
    blank = end
    while blank > start and clusters[blank - 1].blank:
        blank -= 1
    width = sum(_advance(cluster, spacing) for cluster in clusters[start:blank])
    space = sum(_advance(cluster, spacing) for cluster in clusters[blank:end])
    soft = clusters[end - 1].letters == SOFT_HYPHEN
    return Token(start, blank, end, width, space, hyphen if soft else 0.0)


def _advance(cluster: Cluster, spacing: float) -> float:
    return 0.0 if cluster.letters in (SOFT_HYPHEN, ZERO_WIDTH_SPACE) else cluster.advance + spacing


def line_width(tokens: list[Token], start: int, end: int, spacing: float) -> float:
    """The width of tokens start to end on one line."""
    inner = sum(token.width + token.space for token in tokens[start : end - 1])
    return inner + tokens[end - 1].width + tokens[end - 1].hyphen - spacing


def lines_needed(tokens: list[Token], width: float, spacing: float) -> int | None:
    """The fewest lines of at most this width; None where one token alone is wider."""
    lines, used = 1, 0.0
    for token in tokens:
        if token.width + token.hyphen - spacing > width:
            return None
        if used + token.width + token.hyphen - spacing > width:
            lines, used = lines + 1, 0.0
        used += token.width + token.space
    return lines


def best_breaks(tokens: list[Token], lines: int, width: float, spacing: float) -> list[tuple[int, int]]:
    """The partition into so many lines of at most `width` with the least raggedness and no lonely last word.

    Dynamic programming over the squares of what is left free, as in Knuth and Plass, "Breaking Paragraphs into Lines"
    (1981), without stretching.
    """
    count = len(tokens)
    costs: list[dict[int, tuple[float, int]]] = [{0: (0.0, 0)}]
    for number in range(1, lines + 1):
        row: dict[int, tuple[float, int]] = {}
        for start, (cost, _) in costs[-1].items():
            for end in range(start + 1, count + 1):
                used = line_width(tokens, start, end, spacing)
                if used > width * (1 + 1e-9):
                    break
                if number == lines and end < count:
                    continue
                free = 1 - used / width
                lonely = number == lines > 1 and end - start == 1 and used < LONELY_SHARE * width
                total = cost + free * free + (LONELY_COSTS if lonely else 0)
                if end not in row or total < row[end][0]:
                    row[end] = (total, start)
        costs.append(row)
    return _followed(costs, count)


def _followed(costs: list[dict[int, tuple[float, int]]], count: int) -> list[tuple[int, int]]:
    spans, end = [], count
    for row in reversed(costs[1:]):
        start = row[end][1]
        spans.append((start, end))
        end = start
    return spans[::-1]
