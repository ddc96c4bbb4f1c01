"""The text that is read, which letters of it are claimed, and the facts that were found."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any, NamedTuple

_ALIKE = {"×✕✖⨯*": "x", "–—−‑‒": "-", "’‘´`": "'", "“”„«»": '"', "\u00a0\u202f\u2009\t": " "}
_FOLDED = str.maketrans({letter: one for letters, one in _ALIKE.items() for letter in letters})


class Fact(NamedTuple):
    """Something that was understood: the letters `start` to `end`, and what they say.

    `strength` is least, most, exact, recommended or empty (said plainly).
    """

    start: int
    end: int
    key: str
    value: Any
    strength: str = ""


def folded(text: str) -> str:
    """Small letters and one kind of dash, quote and times sign; every letter keeps its place."""
    small = "".join(low if len(low := letter.lower()) == 1 else letter for letter in text)
    return small.translate(_FOLDED)


class Text:
    """A text with its claimed letters."""

    def __init__(self, text: str) -> None:
        self.original = text
        self.folded = folded(text)
        self.facts: list[Fact] = []
        self.left: list[tuple[int, int]] = []  # taken, but not understood
        self.negated = set[int]()  # where measures with a negated limit end: "not wider than 250 px"
        self._taken = bytearray(len(text))

    def free(self, start: int, end: int) -> bool:
        """Whether nobody claimed any of these letters."""
        return not any(self._taken[start:end])

    def find(self, pattern: re.Pattern[str]) -> Iterator[re.Match[str]]:
        """Matches whose letters are free at that moment."""
        for found in pattern.finditer(self.folded):
            if self.free(*found.span()):
                yield found

    def claim(self, start: int, end: int, key: str, value: Any, strength: str = "") -> None:
        """Notes a fact and takes its letters."""
        self.facts.append(Fact(start, end, key, value, strength))
        self.take(start, end)

    def take(self, start: int, end: int) -> None:
        """Takes letters without a fact."""
        self._taken[start:end] = b"\1" * (end - start)

    def leave(self, start: int, end: int) -> None:
        """Keeps letters from the other readers, which would misread them."""
        self.left.append((start, end))
        self.take(start, end)

    def give_up(self, fact: Fact) -> None:
        """Something that was understood, but that nothing can be made of here."""
        self.facts.remove(fact)
        self.left.append((fact.start, fact.end))

    def of(self, key: str) -> list[Fact]:
        """The facts with a key, as they stand in the text."""
        return sorted((fact for fact in self.facts if fact.key == key), key=lambda fact: fact.start)
