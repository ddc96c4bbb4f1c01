"""Slicing trees: every way to cut a box by straight lines so that each block gets a piece (Otten 1982)."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from itertools import combinations
from typing import NamedTuple

from fitzle.core.arrange.blocks import Block

MOST_SEARCHED = 4  # blocks: of five there are 1,680 trees, of which a handful has to do


class Split(NamedTuple):
    """A box cut in two: side by side (`across`) or one over the other. A leaf is the number of a block."""

    across: bool
    first: int | Split
    second: int | Split


def trees_for(blocks: Sequence[Block]) -> tuple[int | Split, ...]:
    """All trees of up to MOST_SEARCHED blocks, of more the usual ones; which of two comes first is decided later."""
    if len(blocks) <= MOST_SEARCHED:
        return _all_trees(tuple(range(len(blocks))))
    return _usual_trees(blocks)


@lru_cache(maxsize=32)
def _all_trees(numbers: tuple[int, ...]) -> tuple[int | Split, ...]:
    if len(numbers) == 1:
        return numbers
    first, rest = numbers[0], numbers[1:]
    found: list[int | Split] = []
    for count in range(len(rest)):
        for chosen in combinations(rest, count):
            others = tuple(number for number in rest if number not in chosen)
            found += [
                Split(across, one, other)
                for one in _all_trees((first, *chosen))
                for other in _all_trees(others)
                for across in (True, False)
            ]
    return tuple(found)


def _usual_trees(blocks: Sequence[Block]) -> tuple[int | Split, ...]:
    """All in a row or a column; pictures (or marks, where there are none) on one side of everything else."""
    numbers = list(range(len(blocks)))
    pictures = [number for number in numbers if blocks[number].kind == "pictures"]
    pictures = pictures or [number for number in numbers if blocks[number].kind == "single"][:1]
    rest = [number for number in numbers if number not in pictures]
    found = [_chain(True, numbers), _chain(False, numbers)]
    if pictures and rest:
        found += [
            Split(across, _chain(one, pictures), _chain(other, rest))
            for across, one, other in (
                (True, False, False), (False, True, True), (False, True, False), (True, False, True)
            )
        ]  # fmt: skip
    return tuple(found)


def _chain(across: bool, numbers: Sequence[int]) -> int | Split:
    tree: int | Split = numbers[0]
    for number in numbers[1:]:
        tree = Split(across, tree, number)
    return tree
