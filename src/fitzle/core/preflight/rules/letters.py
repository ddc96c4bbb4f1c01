"""Letters below the height that reads, where the picture is seen smallest."""

from __future__ import annotations

from fitzle.core.errors import DocumentError
from fitzle.core.findings import Finding, Repair
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece, parts_in
from fitzle.core.piece.parts import Box, WordsPart
from fitzle.core.plan.padding import AUTO_PADDING
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.plan.standing import kept_inside, standing_at
from fitzle.core.plan.words import placed_words
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.preflight.viewing import seen_cap_height_px, smallest_viewing
from fitzle.core.units import Size

# Height of a capital in seen px. Fluent reading needs an x-height of about 0.2 degrees (Legge and Bigelow, "Does print
# size matter for reading?", Journal of Vision 2011, critical print size), about 7 px at arm's length; a few large words
# are still read a little below that.
LEAST_CAP_HEIGHT_PX = 9.0
ROUNDING_PX = 0.05
FILLS_ALL = 0.99  # of the picture's side: there is no room left
GROWTHS = (1.0, 1.25, 1.6, 2.2, 3.0)  # times what is needed, where words must break into more lines
ENLARGED_A_LITTLE_MORE = 1.03  # so that rounding does not leave the letters a hair below the least
LONGEST_QUOTE = 24


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each words that are too small."""
    return [found for words in evidence.plan.words if (found := _too_small(words, evidence))]


def _too_small(words: PlacedWords, evidence: Evidence) -> Finding | None:
    plan, viewing = evidence.plan, smallest_viewing(evidence.sheet)
    if viewing is None or not words.layout.glyphs:
        return None
    height = seen_cap_height_px(words, plan, viewing)
    if height >= LEAST_CAP_HEIGHT_PX - ROUNDING_PX:
        return None
    needed = words.layout.cap_height_px * LEAST_CAP_HEIGHT_PX / height
    room = words.stands.width < FILLS_ALL * plan.size.width or words.stands.height < FILLS_ALL * plan.size.height
    return Finding(
        rule="letters",
        severity="risky",
        message=f"“{_quoted(words)}” is {height:.1f} px tall where it is seen smallest ({viewing.name},"
        f" {viewing.width} px wide). {LEAST_CAP_HEIGHT_PX:g} px is the least that reads: {needed:.0f} px in the file"
        f" instead of {words.layout.cap_height_px:.0f}. Fewer words or a larger box would do it.",
        measured=round(height, 2),
        limit=LEAST_CAP_HEIGHT_PX,
        where=where_in(plan, words.box),
        repair=Repair(name="enlarge-words", label="Enlarge its box") if room else None,
        part=words.part,
    )


def _quoted(words: PlacedWords) -> str:
    text = " ".join(words.layout.lines)
    return text if len(text) <= LONGEST_QUOTE else text[: LONGEST_QUOTE - 1].rstrip() + "…"


def enlarge_words(piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The box made larger about its middle until the letters are tall enough where they are seen smallest.

    It grows on both sides, and where the picture ends on the other one alone: the words then take more lines. Raises
    DocumentError where there is no room for that.
    """
    there = {own.id: own for own in parts_in(piece, placement) if isinstance(own, WordsPart)}
    wanted = [own for own in evidence.plan.words if part in (None, own.part)]
    return [change for own in wanted for change in _enlarged(there[own.part], own, placement, evidence)]


def _enlarged(part: WordsPart, placed: PlacedWords, placement: str, evidence: Evidence) -> list[Change]:
    plan, viewing = evidence.plan, smallest_viewing(evidence.sheet)
    if viewing is None:
        return []
    needed = ENLARGED_A_LITTLE_MORE * LEAST_CAP_HEIGHT_PX / max(seen_cap_height_px(placed, plan, viewing), 0.01)
    for more in GROWTHS:
        stands = _grown(placed.stands, needed * more, plan.size)
        larger = part.model_copy(update={"stands": stands, "size": None, "beyond": False})
        if seen_cap_height_px(placed_words(larger, plan.size), plan, viewing) >= LEAST_CAP_HEIGHT_PX:
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
    """For example `letters 6 px tall`."""
    return f"letters {finding.measured:.0f} px tall"


RULE = Rule("letters", "plan", judge, label, {"enlarge-words": enlarge_words})
