"""What reading a text gives."""

from __future__ import annotations

from typing import Any, NamedTuple

from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.words.text import Fact


class Understood(NamedTuple):
    """Letters `start` to `end` of the text, the key of the sheet that they became, and what they say of it."""

    text: str
    start: int
    end: int
    key: str
    value: Any


class Left(NamedTuple):
    """Letters of which nothing was made."""

    text: str
    start: int
    end: int


class Problem(NamedTuple):
    """Something that cannot hold, in words, with the places in the text that say it."""

    message: str
    places: tuple[Left, ...]


class Reading(NamedTuple):
    """The sheet (None where the words have no size or contradict each other) and how it came about.

    `assumed` names keys that the sheet needs and the words do not say.
    """

    sheet: SpecSheet | None
    understood: tuple[Understood, ...]
    not_understood: tuple[Left, ...]
    problems: tuple[Problem, ...]
    assumed: tuple[str, ...]


class Cannot(Exception):
    """Facts that cannot hold together, or one that cannot hold at all."""

    def __init__(self, message: str, *facts: Fact) -> None:
        super().__init__(message)
        self.facts = facts
