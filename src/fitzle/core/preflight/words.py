"""Rules for words that need no pixels: letters too small to read, letters that no typeface has."""

from __future__ import annotations

from fitzle.core.findings import Finding, Repair
from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.preflight.places import where_in
from fitzle.core.spec.sheet import Seen, SpecSheet

# Height of a capital in seen px. Fluent reading needs an x-height of about 0.2 degrees (Legge and Bigelow, "Does print
# size matter for reading?", Journal of Vision 2011, critical print size), about 7 px at arm's length; a few large words
# are still read a little below that.
LEAST_LETTER_PX = 9.0


def judge_words(plan: Plan, sheet: SpecSheet) -> list[Finding]:
    """All findings about words, back to front."""
    found = []
    for words in plan.words:
        found += [finding for rule in (small_letters, missing_letters) if (finding := rule(words, plan, sheet))]
    return found


def smallest_seen(sheet: SpecSheet) -> Seen | None:
    """Where the picture is seen smallest."""
    return min(sheet.seen, key=lambda seen: seen.width, default=None)


def seen_letter_px(words: PlacedWords, plan: Plan, seen: Seen) -> float:
    """Height of the capitals in px of the viewer's screen."""
    return words.layout.letter_px * seen.width / plan.size.width


def small_letters(words: PlacedWords, plan: Plan, sheet: SpecSheet) -> Finding | None:
    """Letters below the height that reads, where the picture is seen smallest."""
    seen = smallest_seen(sheet)
    if seen is None or not words.layout.glyphs:
        return None
    height = seen_letter_px(words, plan, seen)
    if height >= LEAST_LETTER_PX - 0.05:
        return None
    needed = words.layout.letter_px * LEAST_LETTER_PX / height
    room = words.stands.width < 0.99 * plan.size.width or words.stands.height < 0.99 * plan.size.height
    return Finding(
        rule="letters",
        severity="risky",
        message=f"“{_short(words)}” is {height:.1f} px tall where it is seen smallest ({seen.name}, {seen.width} px"
        f" wide). {LEAST_LETTER_PX:g} px is the least that reads: {needed:.0f} px in the file instead of"
        f" {words.layout.letter_px:.0f}. Fewer words or a larger box would do it.",
        measured=round(height, 2),
        limit=LEAST_LETTER_PX,
        where=where_in(plan, words.box),
        repair=Repair(name="enlarge-words", label="Enlarge its box") if room else None,
        part=words.part,
    )


def missing_letters(words: PlacedWords, plan: Plan, _sheet: SpecSheet) -> Finding | None:
    """Letters that neither the typeface nor the ones that help it out have."""
    if not words.layout.missing:
        return None
    letters = words.layout.missing
    return Finding(
        rule="missing-letters",
        severity="risky",
        message=f"No typeface here has {'the letter' if len(letters) == 1 else 'these letters'}: {letters[:20]}."
        " An empty box stands in its place; write it another way.",
        measured=len(letters),
        limit=0,
        where=where_in(plan, words.box),
        part=words.part,
    )


def _short(words: PlacedWords) -> str:
    text = " ".join(words.layout.lines)
    return text if len(text) <= 24 else text[:23].rstrip() + "…"
