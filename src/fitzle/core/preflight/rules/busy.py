"""Words that run over drawing of their own tone, or over clutter of the size of their strokes."""

from __future__ import annotations

import math

from fitzle.core.findings import Finding, Repair
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.plan.standing import standing_at
from fitzle.core.preflight.making_stronger import veil_below
from fitzle.core.preflight.places import quoted, where_in
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.preflight.seeing_words import MOST, NAMES, veil_colour

# What each figure says of the words.
_SAID = (
    "{value:.0%} of the outline of {words} is lost in what is behind it.",
    "A letter of {words} loses {value:.0%} of its outline in what is behind it.",
    "What is behind {words} is as fine as its strokes, and {value:.0%} as strong.",
    "A letter of {words} runs into drawing of its own tone.",
)


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each words, of what is worst."""
    return [found for words in evidence.plan.words if (found := _busy(words, evidence))]


def _busy(words: PlacedWords, evidence: Evidence) -> Finding | None:
    found = [
        (reading.value / limit, reading.value, limit, said)
        for name, limit, said in zip(NAMES, MOST, _SAID, strict=True)
        for reading in evidence.seen(str(name))
        if reading.part == words.part and reading.value > limit
    ]
    if not found:
        return None
    _, value, limit, said = max(found)
    repairs = _repairs(words, evidence)
    return Finding(
        rule="busy",
        severity="risky",
        message=said.format(value=value, words=quoted(words)) + " A calmer place, or a plate, would let it stand out.",
        measured=round(value, 3),
        limit=limit,
        where=where_in(evidence.plan, words.box),
        repair=next(iter(repairs), None),
        other_repairs=tuple(repairs[1:]),
        part=words.part,
    )


def _repairs(words: PlacedWords, evidence: Evidence) -> list[Repair]:
    own = next((one for one in evidence.seen("busy") if one.part == words.part), None)
    if words.plate is not None or own is None:
        return []
    found = [Repair(name="plate-behind", label="Put a plate behind it")]
    if own.shift:
        px = math.hypot(own.shift.x, own.shift.y)
        found.insert(0, Repair(name="move-calm", label=f"Move it {px:.0f} px to where it is calm"))
    if own.detail:
        found.append(Repair(name="veil-behind", label=f"Calm what is behind it by {own.detail:.0%}"))
    return found


def move_calm(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The words moved by the smallest shift after which what is behind them is calm."""
    changes: list[Change] = []
    for own in evidence.plan.words:
        shift = next((one.shift for one in evidence.seen("busy") if one.part == own.part), None)
        if shift is None or part not in (None, own.part):
            continue
        stands, beyond = standing_at(own.stands.moved(shift.x, shift.y), evidence.plan.size)
        changes.append(SetField(part=own.part, field="stands", value=stands.model_dump(), placement=placement))
        changes.append(SetField(part=own.part, field="beyond", value=beyond, placement=placement))
    return changes


def veil_behind(piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The thinnest veil over all that lies below the words after which it is calm."""
    veils = {one.part: one.detail for one in evidence.seen("busy") if one.detail}
    for own in evidence.plan.words:
        if part in (None, own.part) and own.part in veils:
            return veil_below(piece, placement, own.part, veil_colour(own), veils[own.part])
    return []


def label(_finding: Finding) -> str:
    """In words: the figure says nothing without its sentence."""
    return "busy behind words"


RULE = Rule("busy", "seen", judge, label, {"move-calm": move_calm, "veil-behind": veil_behind})
