"""A bitmap drawn larger than its own pixels, or than the detail that is really in them, at the density it is seen."""

from __future__ import annotations

from fitzle.core.artwork.facts import ENLARGED_FROM, FEW_COLOURS, FLAT_COLOURS_SHARE, ArtworkFacts
from fitzle.core.findings import Finding, Offer
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence, Rule
from fitzle.core.preflight.viewing import MOST_DENSITY

ENLARGED_SHOWS = 1.1  # times; up to that the softening is within what the encoder costs
ROUNDING = 1.001


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each bitmap that is enlarged."""
    return [found for own in evidence.artworks() if (found := _enlarged(own))]


def _enlarged(own: ArtworkInPlan) -> Finding | None:
    scale = own.part.scale * _px_for_each_detail(own.facts)
    if own.facts.vector or scale <= ROUNDING:
        return None
    again = _enlarged_again(own)
    scale *= again
    shows = scale > ENLARGED_SHOWS
    blur = "It will look blurred" if shows else "That hardly shows"
    return Finding(
        rule="enlarging",
        severity="risky" if shows else "note",
        message=f"It is enlarged {scale:.2g} times: {_what_is_drawn(own)}."
        f"{_again_in_words(again)} {blur}; a larger file or an SVG would be crisp.",
        measured=round(scale, 3),
        limit=1.0,
        where=where_in(own.plan, own.part.box),
        offer=_offer_tracing(own) if shows else None,
        part=own.part.part,
    )


def _enlarged_again(own: ArtworkInPlan) -> float:
    """How many times the screen enlarges the file where the most px of it are shown, at least 1."""
    width = own.plan.size.width
    return max([1.0, *(one.width * min(one.density, MOST_DENSITY) / width for one in own.sheet.seen)])


def _again_in_words(again: float) -> str:
    return f" Screens that show more px than the file has enlarge that {again:.2g} times again." if again > 1.01 else ""


def _offer_tracing(own: ArtworkInPlan) -> Offer | None:
    """Flat colours can be traced: the outlines are crisp at any size."""
    flat = sum(entry.share for entry in own.facts.colours[:FEW_COLOURS]) >= FLAT_COLOURS_SHARE
    if own.facts.kind != "mark" or own.facts.format == "svg" or not flat:
        return None
    return Offer(step="trace", artwork=own.part.artwork, label="Make outlines of its pixels")


def _px_for_each_detail(facts: ArtworkFacts) -> float:
    """Px of the artwork for each px of detail in it: above 1 it was enlarged before it came; 1 if nobody measured."""
    longest = max(facts.width, facts.height)
    enlarged = facts.detail_px is not None and facts.detail_px < ENLARGED_FROM * longest
    return longest / facts.detail_px if enlarged and facts.detail_px else 1.0


def _what_is_drawn(own: ArtworkInPlan) -> str:
    shown, window, facts = own.part.box, own.part.window, own.facts
    drawn = f"{window.width:.0f} × {window.height:.0f} px are drawn at {shown.width:.0f} × {shown.height:.0f}"
    if _px_for_each_detail(facts) == 1:
        return drawn
    return f"{drawn}, and the file, {max(facts.width, facts.height):.0f} px long, carries only {facts.detail_px:.0f} px"


def label(finding: Finding) -> str:
    """For example `enlarged 2.3 ×`."""
    return f"enlarged {finding.measured:.2g} ×"


RULE = Rule("enlarging", "plan", judge, label)
