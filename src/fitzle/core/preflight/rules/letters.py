"""Letters too small to be read, at each size at which the picture is seen."""

from __future__ import annotations

from fitzle.core.errors import DocumentError
from fitzle.core.findings import Finding, Repair
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece, parts_in
from fitzle.core.piece.parts import Box, WordsPart
from fitzle.core.plan.padding import AUTO_PADDING
from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.plan.standing import kept_inside, standing_at
from fitzle.core.plan.words import placed_words
from fitzle.core.preflight.places import quoted, where_in
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.preflight.viewing import SeenLetters, seen_letters
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

ROUNDING = 1.01
FILLS_ALL = 0.99  # of the picture's side: there is no room left
GROWTHS = (1.0, 1.25, 1.6, 2.2, 3.0)  # times what is needed, where words must break into more lines
ENLARGED_A_LITTLE_MORE = 1.03  # so that rounding does not leave the letters a hair below the least


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each words that are too small."""
    return [found for words in evidence.plan.words if (found := _too_small(words, evidence))]


def worst_seen(words: PlacedWords, plan: Plan, sheet: SpecSheet) -> list[SeenLetters]:
    """The sizes at which words are too small to be read, the worst first."""
    if not words.layout.glyphs:
        return []
    seen = (seen_letters(words, plan, viewing) for viewing in sheet.seen)
    return sorted((one for one in seen if one.needs > ROUNDING), key=lambda one: -one.needs)


def _too_small(words: PlacedWords, evidence: Evidence) -> Finding | None:
    plan = evidence.plan
    worst = worst_seen(words, plan, evidence.sheet)
    if not worst:
        return None
    room = words.stands.width < FILLS_ALL * plan.size.width or words.stands.height < FILLS_ALL * plan.size.height
    return Finding(
        rule="letters",
        severity="risky",
        message=f"{_said(words, worst)} {_what_to_do(words, worst[0])}",
        measured=round(worst[0].height_px, 2),
        limit=worst[0].least_px,
        where=where_in(plan, words.box),
        repair=Repair(name="enlarge-words", label="Enlarge its box") if room else None,
        part=words.part,
    )


def _said(words: PlacedWords, worst: list[SeenLetters]) -> str:
    seen = worst[0]
    also = f", and too small at {worst[1].viewing.width} px" if len(worst) > 1 else ""
    if seen.height_px >= seen.least_px:
        return (
            f"The strokes of {quoted(words)} stand {seen.rhythm_px:.1f} px apart at {seen.viewing.name},"
            f" {seen.viewing.width} px wide{also}: they run together."
        )
    letters = "letters" if seen.height_px < seen.cap_height_px else "capitals"
    return (
        f"The {letters} of {quoted(words)} are {seen.height_px:.1f} px tall at {seen.viewing.name},"
        f" {seen.viewing.width} px wide{also}; {seen.least_px:.2g} px is the least that reads."
    )


def _what_to_do(words: PlacedWords, seen: SeenLetters) -> str:
    """The least readable size, and about how many of the words it has room for: letters grow in both directions."""
    needed = seen.needs * words.layout.cap_height_px
    count = sum(len(line.split()) for line in words.layout.lines)
    kept = int(count / seen.needs ** (2 if len(words.layout.lines) > 1 else 1))
    fewer = f"Its box has room for about {kept} of its {count} words" if 0 < kept < count else "Fewer letters"
    return (
        f"It takes capitals of {needed:.0f} px in the file instead of {words.layout.cap_height_px:.0f}."
        f" {fewer}, or a larger box, would do it."
    )


def enlarge_words(piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The box made larger about its middle until the letters are tall enough where they are seen smallest.

    It grows on both sides, and where the picture ends on the other one alone: the words then take more lines. Raises
    DocumentError where there is no room for that.
    """
    there = {own.id: own for own in parts_in(piece, placement) if isinstance(own, WordsPart)}
    wanted = [own for own in evidence.plan.words if part in (None, own.part)]
    return [change for own in wanted for change in _enlarged(there[own.part], own, placement, evidence)]


def _enlarged(part: WordsPart, placed: PlacedWords, placement: str, evidence: Evidence) -> list[Change]:
    plan, sheet = evidence.plan, evidence.sheet
    worst = worst_seen(placed, plan, sheet)
    if not worst:
        return []
    for more in GROWTHS:
        stands = _grown(placed.stands, worst[0].needs * ENLARGED_A_LITTLE_MORE * more, plan.size)
        larger = part.model_copy(update={"stands": stands, "size": None, "beyond": False})
        if not worst_seen(placed_words(larger, plan.size), plan, sheet):
            values = {"stands": stands.model_dump()} | ({"size": None} if part.size else {})
            return [
                SetField(part=part.id, field=field, value=value, placement=placement) for field, value in values.items()
            ]
    raise DocumentError("there is no room for letters that read there", advice="Use fewer words, or take a part away.")


def _grown(box: Rect, factor: float, size: Size) -> Box:
    """A box larger about its middle, at most as large as the picture less the usual padding."""
    margin = 2 * AUTO_PADDING * size.short_side
    width = min(box.width * factor, max(box.width, size.width - margin))
    height = min(box.height * factor, max(box.height, size.height - margin))
    middle = box.centre
    whole = Rect(0, 0, size.width, size.height)
    kept = kept_inside(Rect(middle.x - width / 2, middle.y - height / 2, width, height), 0, whole)
    return standing_at(kept, size)[0]


def label(finding: Finding) -> str:
    """For example `letters 4.1 px tall`."""
    return f"letters {finding.measured:.1f} px tall"


RULE = Rule("letters", "plan", judge, label, {"enlarge-words": enlarge_words})
