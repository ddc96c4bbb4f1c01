"""Readers of measures: weights, seconds, frames a second, sizes, ratios."""

from __future__ import annotations

import re

from fitzle.core.spec.words.around import Around, around
from fitzle.core.spec.words.numbers import FIGURES, NUMBER, decimal, whole
from fitzle.core.spec.words.text import Fact, Text

PX = r"(?: ?(?:px|pixels?|pixel|pixeln|píxeles|pixeles|pix|pixelen)\b)"
_WORDS_FOR_UNITS = {
    1: "bytes|byte|octets|octet|b",
    1000: "kb|kbytes|kilobytes|kilobyte|ko|kilo-octets|kilooctets|k",
    1024: "kib",
    1_000_000: "mb|mbytes|megabytes|megabyte|mo|mega|megas|meg|megs|mégaoctets|megaoctets",
    1024**2: "mib",
    1_000_000_000: "gb|go",
    1024**3: "gib",
}
_UNITS = {word: count for count, words in _WORDS_FOR_UNITS.items() for word in words.split("|")}
_WEIGHT = re.compile(rf"({NUMBER})[ -]?({'|'.join(sorted(_UNITS, key=len, reverse=True))})(?![\w-])")
_SECONDS = re.compile(
    rf"({NUMBER})[ -]?(seconds?|secs?\.?|sekunden?|sek\.?|segundos?|seg\.?|secondes?|s|ms|milliseconds|minutes?"
    rf"|minuten?|minutos?|min(?= long))(?![\w])"
)
_FPS = re.compile(
    rf"({NUMBER}) ?(?:fps\b|frames? (?:per|a|each) second|frames?/s(?:ec)?\b|bilder pro sekunde|bilder/s"
    rf"|images par seconde|images/s"
    r"|fotogramas por segundo|i/s\b|pictures a second|hz\b)"
)
_SIDE_MARK = (
    r"(?: ?\(? ?(?:wide|width|w|breit|breite|b|large|largeur|l|ancho|tall|high|height|hoch|höhe|h|haut"
    r"|hauteur|alto|in width|in height|across)\b ?\)?)?"
)
_TIMES = r" ?(?:x|by|mal|par|por)(?![a-wyz]) ?"
_PAIR = re.compile(
    rf"({NUMBER}){PX}?({_SIDE_MARK}){_TIMES}({FIGURES})({_SIDE_MARK})(?!\d|[.,]\d)(?! ?%){PX}?({_SIDE_MARK})"
)
_TO = r" ?(?:-|to|and|bis|und|et|à|a|y|hasta|up to|until) ?"
_BETWEEN = re.compile(
    rf"(?:(between|from|zwischen|von|entre|de|desde) )?({NUMBER}){PX}?({_TO})({FIGURES})({PX}?)(?![\w%:]| ?x ?\d)"
)
_PAIRS_BETWEEN = re.compile(
    rf"(?:(?:between|from|zwischen|von|entre|de"
    rf"|desde) )?({NUMBER}){PX}?{_TIMES}({FIGURES}){PX}?{_TO}({FIGURES}){PX}?{_TIMES}({FIGURES}){PX}?(?!\w)"
)
_SINGLE = re.compile(rf"({NUMBER})({PX}?)(?![\w%:]|[.,]\d| ?x ?\d)")
_RATIO = re.compile(
    rf"(?:(?:aspect )?ratio(?: of)? |seitenverhältnis |format |ratio de |proporción )?({NUMBER})(?: ?: ?"
    rf"| to )({FIGURES})(?![\w:])( ?(?:aspect ratio|ratio|seitenverhältnis|format))?"
)
_RATIOS_BETWEEN = re.compile(
    rf"(?:(?:aspect )?ratios? )?(?:between |from |zwischen |entre )?{NUMBER} ?: ?{FIGURES}{_TO}{FIGURES} ?: ?{FIGURES}"
)
SQUARE = re.compile(r"\b(?:square[ds]?|quadratisch\w*|quadrat|carré[es]*|cuadrad[oa]s?)\b")
_FREE = re.compile(
    r"\b(width|height|breite|höhe|largeur|hauteur|anchura|ancho|altura|alto)(?: (?:is|can be|may be|ist|est|es))?:? ?"
    r"(?:as you like|(?:is )?free(?:ly)?|any|varies|variable|auto(?:matic)?|flexible|does not matter"
    r"|doesn't matter|unlimited|beliebig|frei|egal|libre|au choix"
    r"|whatever you like)\b|\b(any|free|variable|beliebige|flexible) (width|height|breite|höhe)\b"
    r"|\b(beliebig) (breit|hoch)\b"
)
_LENGTHS = re.compile(
    rf"{NUMBER}(?:(?: ?x ?){FIGURES})? ?(?:cm|mm|in\b|inch(?:es)?|\"|'(?!\d)|zoll|pouces?|pulgadas?|pt\b|dpi|ppi"
    rf"|%|percent|prozent|pour ?cent|por ciento|mp\b|megapixels?)"
)
_CONTRAST = re.compile(rf"contrast\w*(?: \w+){{0,3}} {NUMBER} ?: ?{FIGURES}")
_HIGH = ("h", "t", "al", "in h")
_AND = re.compile(r"\s*,?\s*(?:and|und|et|y|&|x|by)\s*(?:a |an )?")
_AND_OR_COMMA = re.compile(r"\s*(?:,|and|und|et|y|,\s*and)\s*")
NO_LIMIT = "no limit"


def read_weights(text: Text) -> None:
    """`max_bytes`: a weight is a limit unless it is the least that is taken, for which there is no key."""
    for found in text.find(_WEIGHT):
        said = around(text, *found.span())
        if said.strength == "least":
            text.leave(said.start, said.end)
            continue
        number, factor = found[1], _UNITS[found[2]]
        count = decimal(number) if factor > 1024 else whole(number)
        text.claim(said.start, said.end, "max_bytes", round(count * factor))


def read_times(text: Text) -> None:
    """`motion.max_fps` and `motion.max_seconds`."""
    for found in text.find(_FPS):
        said = around(text, *found.span())
        text.claim(said.start, said.end, "motion.max_fps", decimal(found[1]))
    for found in text.find(_SECONDS):
        said = around(text, *found.span())
        if said.strength == "least":
            text.leave(said.start, said.end)
            continue
        unit = found[2]
        factor = 0.001 if unit.startswith(("ms", "milli")) else 60 if unit.startswith("min") else 1
        text.claim(said.start, said.end, "motion.max_seconds", decimal(found[1]) * factor)


def keep_from_others(text: Text) -> None:
    """Letters that look like px or ratios and are none: paper sizes, dots per inch, percents, contrasts."""
    for pattern in (_CONTRAST, _LENGTHS):
        for found in list(text.find(pattern)):
            text.leave(*found.span())


def read_pairs(text: Text) -> None:
    """`size` of two numbers; one that is joined to a limit by *and* is a limit too."""
    for found in text.find(_PAIRS_BETWEEN):
        numbers = [round(whole(found[group])) for group in range(1, 5)]
        said = around(text, *found.span())
        text.claim(said.start, said.end, "size", (tuple(numbers[:2]), tuple(numbers[2:])), "between")
    for found in text.find(_PAIR):
        first, second = round(whole(found[1])), round(whole(found[3]))
        mark = found[2].strip(" (")
        if mark.startswith(_HIGH):  # the height was said first
            first, second = second, first
        said = around(text, *found.span())
        text.claim(said.start, said.end, "size", (first, second), said.strength or _carried(text, said.start))


def read_sides(text: Text) -> None:
    """`size` of one number, or two limits of one: of a side that is named before or after."""
    for found in text.find(_BETWEEN):
        said = around(text, *found.span())
        by_words = found[3].strip() not in ("-", "to", "bis", "up to", "hasta")
        if said.side is None or (by_words and not found[1]):
            continue
        limits = round(whole(found[2])), round(whole(found[4]))
        text.claim(said.start, said.end, f"size.{said.side}", limits, "between")
    for found in text.find(_SINGLE):
        said = around(text, *found.span())
        value = round(whole(found[1]))
        if said.side:
            strength = said.strength or _carried(text, said.start)
            text.claim(said.start, said.end, f"size.{said.side}", value, strength)
        elif found[2] and said.strength and (same := _side_before(text, said.start)):
            text.claim(said.start, said.end, same, value, said.strength)
        elif found[2] and _alone(text, said):
            text.claim(said.start, said.end, "size.both", value, said.strength)
    for found in text.find(_FREE):
        word = next(part for part in (found[1], found[3], found[5]) if part)
        side = "height" if word[:2] in ("he", "hö", "ho", "ha", "al") else "width"
        text.claim(*found.span(), f"size.{side}", NO_LIMIT)


def _carried(text: Text, start: int) -> str:
    """The strength of the size just before, where *and* joins them."""
    before = _just_before(text, start, _AND)
    return before.strength if before and before.strength in ("least", "most") else ""


def _side_before(text: Text, start: int) -> str | None:
    """The side of the size just before: at least 50 px high, at most 100 px."""
    before = _just_before(text, start, _AND_OR_COMMA)
    return before.key if before and before.key in ("size.width", "size.height", "size.both") else None


def _just_before(text: Text, start: int, joint: re.Pattern[str]) -> Fact | None:
    before = [fact for fact in text.facts if fact.end <= start and fact.key.startswith("size")]
    last = max(before, key=lambda fact: fact.end, default=None)
    return last if last and joint.fullmatch(text.folded, last.end, start) else None


def _alone(text: Text, said: Around) -> bool:
    """Whether px without a side are of a square or a circle: it says so elsewhere, and this is the one number."""
    square = SQUARE.search(text.folded) or any(cut.value[0] == "circle" for cut in text.of("cut"))
    return bool(square) and not text.of("size")


def read_ratios(text: Text) -> None:
    """`size.aspect`."""
    for found in list(text.find(_RATIOS_BETWEEN)):
        text.leave(*found.span())
    for found in text.find(_RATIO):
        left, right = decimal(found[1]), decimal(found[2])
        if not left or not right or (" to " in found[0] and "ratio" not in found[0] and "format" not in found[0]):
            continue
        said = around(text, *found.span())
        text.claim(
            *found.span(), "size.aspect", f"{left:g}:{right:g}", "recommended" if said.strength == "recommended" else ""
        )
    for found in text.find(SQUARE):
        text.claim(*found.span(), "size.aspect", "1:1")
