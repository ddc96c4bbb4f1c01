"""The phrases before and after a measure, within its clause."""

from __future__ import annotations

import re
from typing import NamedTuple

from fitzle.core.spec.words.text import Text
from fitzle.core.spec.words.vocabulary import LONGEST, WORD, Sort, sort_of

OPPOSITE: dict[str, Sort] = {
    "least": "most", "most": "least", "least width": "most width", "most width": "least width",
    "least height": "most height", "most height": "least height",
}  # fmt: skip
NEGATIONS = frozenset(
    """no not never nor cannot can't mustn't shouldn't mayn't don't doesn't isn't
    nicht nie kein keine pas jamais ni""".split()
)
COMPARED = frozenset("than als de que exceed under below over above unter".split())  # how a comparison ends
JOINTS = frozenset("or nor oder noch ou ni o and und et y".split())
STRENGTHS = ("least", "most", "exact", "recommended")
SIDES = ("width", "height", "both", "long", "short")
_NUMBER = re.compile(r"\s*(?:than|als|que)\b|\s*(?:[:=]\s*)?(?:of |is |de |von |à |auf )?\s*\d")


class Around(NamedTuple):
    """What is said around a measure, and from where to where, without filling words at the ends."""

    start: int
    end: int
    sorts: tuple[str, ...]

    @property
    def strength(self) -> str:
        """The first strength that is said; empty where none is."""
        return next((sort for sort in self.sorts if sort in STRENGTHS), "")

    @property
    def side(self) -> str | None:
        """The first side that is said."""
        return next((sort for sort in self.sorts if sort in SIDES), None)


class _Word(NamedTuple):
    text: str
    start: int
    end: int


def around(text: Text, start: int, end: int) -> Around:
    """The phrases on both sides of the letters `start` to `end`; those before come first.

    A comparison that is negated is its opposite: *should not be less than* is a least.
    """
    before, first, negated = _before(text, start)
    after, last = _after(text, end)
    if negated:
        text.negated.add(last)
    said = [part for sort in (*before, *after) for part in sort.split()]
    return Around(first, last, tuple(said))  # "least width" is both


def _words(text: Text, start: int, end: int) -> list[_Word]:
    return [_Word(found[0], *found.span()) for found in WORD.finditer(text.folded, start, end)]


def _before(text: Text, end: int) -> tuple[list[Sort], int, bool]:
    words = _words(text, max(0, end - 120), end)
    sorts, first, compared, negated = list[Sort](), end, False, False
    while words:
        if words[-1].text in (":", "-") and len(words) > 1:
            words.pop()
            continue
        inside = _filling_in_brackets(words)
        if inside:
            del words[-inside:]
            continue
        word = words[-1]
        if compared and not negated and _negates(text, words):
            negated = True
            sorts = [OPPOSITE.get(sort, sort) for sort in sorts]
            if not text.free(word.start, word.end) or word.text not in NEGATIONS:
                break
            first = word.start
            words.pop()
            continue
        found = _longest_at_end(text, words)
        if found is None:
            break
        count, sort = found
        if sort != "glue":
            if sort in STRENGTHS and any(one in STRENGTHS for one in sorts):
                break
            sorts.append(sort)
            first = words[-count].start
            compared = compared or words[-1].text in COMPARED
        del words[-count:]
    return sorts, first, negated


def _negates(text: Text, words: list[_Word]) -> bool:
    """A negation, or a joint after a measure that was negated: not wider than 250 px *or* taller than 80 px."""
    word = words[-1]
    if word.text in NEGATIONS and text.free(word.start, word.end):
        return True
    return word.text in JOINTS and len(words) > 1 and words[-2].end in text.negated


def _filling_in_brackets(words: list[_Word]) -> int:
    """How many words at the end are brackets with filling words alone, as in `size (px): 300`."""
    if words[-1].text != ")":
        return 0
    for count in range(2, min(8, len(words)) + 1):
        if words[-count].text == "(":
            inner = words[len(words) - count + 1 : -1]
            return count if all(sort_of((word.text,)) == "glue" for word in inner) else 0
    return 0


def _longest_at_end(text: Text, words: list[_Word]) -> tuple[int, Sort] | None:
    for count in range(min(LONGEST, len(words)), 0, -1):
        part = words[-count:]
        sort = sort_of(tuple(word.text for word in part))
        if sort and text.free(part[0].start, part[-1].end):
            return count, sort
    return None


def _after(text: Text, start: int) -> tuple[list[Sort], int]:
    words = _words(text, start, min(len(text.folded), start + 90))
    sorts, last, index, depth = list[Sort](), start, 0, 0
    while index < len(words):
        if words[index].text == "(" and not depth:
            depth, index = 1, index + 1
            continue
        if words[index].text == ")" and depth:
            last, depth, index = (words[index].end if sorts else last), 0, index + 1
            continue
        found = _longest_at(text, words, index)
        if found is None:
            break
        count, sort = found
        end = words[index + count - 1].end
        if sort != "glue":
            taken = (*sorts,)
            twice = sort in STRENGTHS and any(one in STRENGTHS for one in taken)
            if twice or _belongs_to_the_next(text, end):
                break
            sorts.append(sort)
            last = end
        index += count
    return sorts, last


def _belongs_to_the_next(text: Text, end: int) -> bool:
    return _NUMBER.match(text.folded, end) is not None


def _longest_at(text: Text, words: list[_Word], index: int) -> tuple[int, Sort] | None:
    for count in range(min(LONGEST, len(words) - index), 0, -1):
        part = words[index : index + count]
        sort = sort_of(tuple(word.text for word in part))
        if sort and text.free(part[0].start, part[-1].end):
            return count, sort
    return None
