"""Reads what an upload page or its help says of a place into a spec sheet; docs/places-in-words.md has the grammar."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from fitzle.core.documents import validated
from fitzle.core.errors import DocumentError, ValueOutOfRange
from fitzle.core.spec.checking.checks import contradictions
from fitzle.core.spec.checking.contradiction import Contradiction
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.words import asked, looks, measures
from fitzle.core.spec.words.assembling import Assembly
from fitzle.core.spec.words.filling import FILLING
from fitzle.core.spec.words.measures import NO_LIMIT
from fitzle.core.spec.words.result import Cannot, Left, Problem, Reading, Understood
from fitzle.core.spec.words.text import Fact, Text
from fitzle.core.spec.words.vocabulary import WORD

LONGEST_TEXT = 5_000
BOUNDS = frozenset(',;.:!?()\n/|&"-')
NO_SIZE = "There is no size in these words: say how many px, or which shape."
# The most telling first: whoever claims letters keeps the readers after it from misreading them.
_READERS = (
    measures.read_weights,
    measures.read_times,
    asked.read_fields,
    looks.read_cut,
    looks.read_seen_after_cut,
    looks.read_veil,
    measures.keep_from_others,
    asked.read_count,
    looks.keep_seen_heights,
    looks.read_seen,
    measures.read_pairs,
    measures.read_sides,
    measures.read_ratios,
    looks.read_density,
    asked.read_not_formats,
    looks.read_transparency,
    asked.read_motion_first,
    asked.read_formats,
    asked.read_motion,
    looks.read_grounds,
    asked.read_name,
)


def sheet_in_words(words: str) -> SpecSheet:
    """The sheet alone; raises ValueOutOfRange where the words have no size or contradict each other."""
    found = read_words(words)
    if found.sheet is None:
        raise ValueOutOfRange("these words are no place yet", advice=" ".join(one.message for one in found.problems))
    return found.sheet


def read_words(words: str) -> Reading:
    """A sheet from words, with what each of them became; raises ValueOutOfRange where they are too many."""
    if len(words) > LONGEST_TEXT:
        raise ValueOutOfRange(
            "this is too much to read as one place", expected=f"at most {LONGEST_TEXT} letters", actual=f"{len(words)}"
        )
    text = Text(words)
    for read in _READERS:
        read(text)
    sheet, problems, assumed = _sheet(text)
    facts = sorted(text.facts, key=lambda fact: fact.start)
    return Reading(
        sheet=sheet,
        understood=tuple(_understood(text, fact) for fact in facts),
        not_understood=tuple(_left(text)),
        problems=problems,
        assumed=assumed,
    )


def _sheet(text: Text) -> tuple[SpecSheet | None, tuple[Problem, ...], tuple[str, ...]]:
    assembly = Assembly(text)
    try:
        data = assembly.assemble()
        if data is None:
            return None, (Problem(NO_SIZE, ()),), tuple(assembly.assumed)
        sheet = validated(SpecSheet, {"fitzle_spec": 1, **data}, subject="the words", noun="spec sheet")
    except Cannot as error:
        places = tuple(dict.fromkeys(_place(text, fact.start, fact.end) for fact in error.facts))
        return None, (Problem(_said(error, places), places),), tuple(assembly.assumed)
    except DocumentError as error:
        return None, (Problem(error.message, ()),), tuple(assembly.assumed)
    problems = tuple(_contradicting(text, one) for one in contradictions(sheet))
    return (None if problems else sheet), problems, tuple(assembly.assumed)


def _said(error: Cannot, places: tuple[Left, ...]) -> str:
    quoted = " and ".join(f"“{place.text}”" for place in places)
    return f"{quoted}: {error}." if quoted else f"{str(error).capitalize()}."


def _contradicting(text: Text, found: Contradiction) -> Problem:
    """With the words that say the keys it is about."""
    facts = sorted(
        (fact for fact in text.facts if fact.key.partition(".")[0] in found.keys), key=lambda fact: fact.start
    )
    places = tuple(dict.fromkeys(_place(text, fact.start, fact.end) for fact in facts))
    quoted = " and ".join(f"“{place.text}”" for place in places)
    return Problem(f"{quoted}: {found.message}" if quoted else found.message, places)


def _place(text: Text, start: int, end: int) -> Left:
    return Left(text.original[start:end], start, end)


def _understood(text: Text, fact: Fact) -> Understood:
    key, value = _as_in_the_sheet(fact)
    return Understood(text.original[fact.start : fact.end], fact.start, fact.end, key, value)


def _as_in_the_sheet(fact: Fact) -> tuple[str, Any]:
    """The sheet's own key, and the part of its value that the words say."""
    key, _, inner = fact.key.partition(".")
    if key == "size":
        return key, _part_of_size(fact, inner)
    if inner:
        return key, {inner: fact.value}
    return key, _VALUES[key](fact.value) if key in _VALUES else fact.value


_VALUES: dict[str, Callable[[Any], Any]] = {
    "formats": lambda value: value[0],
    "seen": lambda value: [{"width": width} for width in value],
    "cut": lambda value: value[0],
    "veil": lambda value: {"colour": value[0], "opacity": value[1]},
    "fields": lambda value: {"label": value[0]} | ({"max_length": value[1]} if value[1] else {}),
}


def _part_of_size(fact: Fact, inner: str) -> Any:
    if inner == "aspect" or fact.value == NO_LIMIT:
        return {inner: fact.value}
    sides = {"": ("width", "height"), "width": ("width",), "height": ("height",)}.get(inner, ("width", "height"))
    strengths = ("least", "most") if fact.strength == "between" else (fact.strength,)
    values = fact.value if fact.strength == "between" else (fact.value,)
    found: dict[str, int] = {}
    for strength, value in zip(strengths, values, strict=True):
        start = {"least": "min_", "most": "max_", "recommended": "recommended_"}.get(strength, "")
        start = start or {"long": "max_", "short": "min_"}.get(inner, "")
        numbers = value if isinstance(value, tuple) else (value,) * len(sides)
        found |= {f"{start}{side}": number for side, number in zip(sides, numbers, strict=True)}
    return found


def _left(text: Text) -> Iterator[Left]:
    """Runs of words that nobody claimed, without filling words at their ends."""
    run: list[tuple[int, int, bool]] = []
    for found in WORD.finditer(text.folded):
        word, (start, end) = found[0], found.span()
        kept = any(first <= start and end <= last for first, last in text.left)
        filling = word.rstrip(".") in FILLING
        if not kept and (word in BOUNDS or not text.free(start, end)):
            yield from _told(text, run)
            run = []
        elif kept or run or not filling:
            run.append((start, end, filling and not kept))
    yield from _told(text, run)


def _told(text: Text, run: list[tuple[int, int, bool]]) -> Iterator[Left]:
    while run and run[-1][2]:
        run = run[:-1]
    if run:
        yield _place(text, run[0][0], run[-1][1])
