"""Takes that really differ, proposed by calculation: parts placed otherwise, other colours, another typeface, the
picture beside, parts alone.

Each is judged by the rules as any take is, and those are kept that look different at the size seen.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Any, NamedTuple

from fitzle.core.artwork.sources import Source
from fitzle.core.colour.contrast import BLACK, WHITE, contrast_ratio, relative_luminance
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.eye.twins import cells_of, share_that_differs
from fitzle.core.findings import Finding
from fitzle.core.fit.arranged_otherwise import arranged_otherwise
from fitzle.core.fit.deciding import Decided, decide, plan_fit
from fitzle.core.fit.making import look_at
from fitzle.core.fit.proposal import Proposal
from fitzle.core.fit.request import FitRequest
from fitzle.core.fit.resolving import resolve
from fitzle.core.piece.parts import AnyPart, ArtworkPart, GroundPart, WordsPart
from fitzle.core.piece.scoping import FieldValue
from fitzle.core.preflight.registry import judged
from fitzle.core.preflight.viewing import smallest_viewing
from fitzle.core.render.painting import paint
from fitzle.core.type.library import offered_families
from fitzle.core.units import Size

DIFFERS = 0.04  # of the cells: less than that is the same take again
LOOKED_AT_PX = 320
COVERS = 0.7  # of the picture: from there on a picture is behind what else there is
PROBE = "probe"


class Ranked(NamedTuple):
    """A proposal as it was judged: what was found, its weakest contrast, and how much differs from what is there."""

    proposal: Proposal
    findings: list[Finding]
    contrast: float
    differs: float

    @property
    def risky(self) -> int:
        """How many findings are more than notes."""
        return sum(one.severity != "note" for one in self.findings)


def ranked(
    request: FitRequest,
    sources: Mapping[str, Source],
    size: Size,
    families: Sequence[str] = (),
    beside: Sequence[tuple[Decided, Mapping[str, Source]]] = (),
) -> list[Ranked]:
    """The proposals for what a request stands for, the best first.

    `families` are the house's typefaces, `beside` other takes, each with its sources: what looks like one of them is
    not proposed again.
    """
    there = decide(plan_fit(request), sources)
    cells = [_cells(there, request, sources), *(_cells(one, request, own) for one, own in beside)]
    found = []
    for proposal in proposals(request, there, size, families):
        probed = decide(plan_fit(probing(request, proposal)), sources)
        own = _cells(probed, request, sources)
        differs = min(share_that_differs(one, own) for one in cells)
        if differs < DIFFERS:
            continue
        cells.append(own)
        findings = judged(replace(probed.evidence, eye=look_at(probed, sources)), "plan", "pixels", "seen")
        found.append(Ranked(proposal, findings, min((one.ratio for one in probed.readings), default=21.0), differs))
    return sorted(found, key=lambda one: (one.risky, -min(one.contrast, 7.0), -one.differs))


def proposals(request: FitRequest, there: Decided, size: Size, families: Sequence[str] = ()) -> Iterator[Proposal]:
    """Everything that can be made of the parts that are there."""
    parts = [part for part in there.resolved.parts if not part.hidden]
    line = list(dict.fromkeys([*there.resolved.house, BLACK, WHITE]))
    words = [part for part in parts if isinstance(part, WordsPart)]
    marks = [part for part in parts if isinstance(part, ArtworkPart) and part.role == "mark"]
    behind = _picture_behind(parts, there, size)
    yield from arranged_otherwise(there)
    if words:
        yield from _other_colours(words[0], there, line)
        yield from _other_typeface(words[0], families)
    if words and behind:
        yield from _beside(words, behind, parts, size, line)
    if words and len(parts) > len(words) + 1:
        yield from _alone("words", "Words alone", words, parts, line)
    if marks and len(parts) > 2:
        yield from _alone("mark", "The mark alone", marks[:1], parts, line)


def _other_colours(words: WordsPart, there: Decided, line: Sequence[str]) -> Iterator[Proposal]:
    """The two house colours that stand out from each other most, other than those that are there."""
    now = next((own.colour for own in there.plan.words if own.part == words.id), "")
    pairs = [(contrast_ratio(parse_hex(one), parse_hex(other)), one, other) for one in line for other in line]
    good = [(ratio, one, other) for ratio, one, other in pairs if ratio >= 4.5 and one != now]
    if not good:
        return
    ratio, colour, plate = max(good, key=lambda entry: (entry[1] in line[:-2] and entry[2] in line[:-2], entry[0]))
    yield Proposal(
        "colours",
        f"{words.role.capitalize()} in {colour} on a plate of {plate}: {ratio:.1f} : 1 whatever is behind",
        (_set(words, "colour", colour), _set(words, "plate", {"colour": plate})),
    )


def _other_typeface(words: WordsPart, families: Sequence[str]) -> Iterator[Proposal]:
    """The house's other typeface, else one of another kind."""
    known = {family.name: family for family in offered_families()}
    own = known.get(words.family)
    others = [name for name in families if name in known and name != words.family]
    others += [name for name, family in known.items() if own and family.kind != own.kind]
    if others:
        yield Proposal(
            "typeface",
            f"{words.role.capitalize()} in {others[0]} instead of {words.family}",
            (_set(words, "family", others[0]),),
        )


def _picture_behind(parts: Sequence[AnyPart], there: Decided, size: Size) -> ArtworkPart | None:
    """The picture that most of the place is filled with."""
    areas = {own.part: own.box.width * own.box.height for own in there.plan.artworks}
    pictures = [part for part in parts if isinstance(part, ArtworkPart) and part.role == "picture"]
    large = [part for part in pictures if areas.get(part.id, 0) >= COVERS * size.width * size.height]
    return large[0] if large else None


def _beside(
    words: Sequence[WordsPart], behind: ArtworkPart, parts: Sequence[AnyPart], size: Size, line: Sequence[str]
) -> Iterator[Proposal]:
    ground = next((part for part in parts if isinstance(part, GroundPart)), None)
    if ground is None:
        return
    unit, wide = size.short_side, size.width >= size.height
    across, down = size.width / unit, size.height / unit
    picture = (
        {"anchor": "right", "width": across / 2, "height": down}
        if wide
        else {"anchor": "bottom", "width": across, "height": down / 2}
    )
    room = (across * 0.42, down * 0.8) if wide else (across * 0.86, down * 0.4)
    each = room[1] / len(words)
    values = [
        _set(ground, "fill", {"kind": "solid", "colour": _strongest(line)}),
        _set(behind, "stands", picture),
        _set(behind, "die", None),
    ]
    for number, own in enumerate(words):
        offset = (
            {"dx": across * 0.04, "dy": down * 0.1 + number * each} if wide else {"dy": down * 0.06 + number * each}
        )
        box = {"anchor": "top-left" if wide else "top", **offset, "width": room[0], "height": each * 0.9}
        values += [_set(own, "stands", box), _set(own, "colour", "auto"), _set(own, "plate", None)]
    yield Proposal("beside", "The picture beside the words instead of behind them", tuple(values))


def _alone(
    name: str, words: str, kept: Sequence[AnyPart], parts: Sequence[AnyPart], line: Sequence[str]
) -> Iterator[Proposal]:
    ground = next((part for part in parts if isinstance(part, GroundPart)), None)
    if ground is None:
        return
    colour = _strongest(line)
    hidden = [part for part in parts if part not in kept and part is not ground]
    values = [_set(ground, "fill", {"kind": "solid", "colour": colour}), *(_set(one, "hidden", True) for one in hidden)]
    for own in kept:
        if isinstance(own, WordsPart):
            values += [_set(own, "colour", "auto"), _set(own, "plate", None)]
        else:
            values.append(_set(own, "stands", "fill"))
    yield Proposal(name, f"{words} on {colour}", tuple(values))


def _strongest(line: Sequence[str]) -> str:
    """The darkest colour of the house, on which light words and marks are at home; white where it has none."""
    house = line[:-2]
    return min(house, key=lambda one: relative_luminance(parse_hex(one))) if house else WHITE


def _set(part: AnyPart, field: str, value: Any) -> FieldValue:
    return FieldValue(part=part.id, field=field, value=value)


def probing(request: FitRequest, proposal: Proposal) -> FitRequest:
    """The request for a take with the values of a proposal on top of what is there."""
    now: dict[str, Any] = {"parts": resolve(request).parts, "composed": None, "adjustments": {}, "takes": {PROBE: {}}}
    piece = request.piece.model_copy(update=now)
    differences: dict[str, dict[str, Any]] = {}
    for one in proposal.values:
        differences.setdefault(one.part, {})[one.field] = one.value
    probe = type(piece).model_validate({**piece.model_dump(), "takes": {PROBE: differences}})
    return request._replace(piece=probe, take=PROBE)


def _cells(decided: Decided, request: FitRequest, sources: Mapping[str, Source]) -> Any:
    viewing = smallest_viewing(request.sheet)
    pixels = paint(decided.plan, decided.planned.sources(sources), LOOKED_AT_PX)
    seen = viewing.width if viewing else LOOKED_AT_PX
    ground = parse_hex(request.sheet.grounds[0] if request.sheet.grounds else WHITE)
    return cells_of(pixels, ground, max(seen, 24) * max(pixels.shape[:2]) / pixels.shape[1])
