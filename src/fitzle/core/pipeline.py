"""The only place that composes everything: artwork + piece + spec sheet → plan → picture → findings → file."""

from __future__ import annotations

import hashlib
import io
import json
from collections.abc import Collection, Mapping
from typing import NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.reading import Artwork
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.encode.choosing import Choice, best_file, too_heavy
from fitzle.core.encode.picture import Picture
from fitzle.core.encode.result import Attempt, Encoded
from fitzle.core.findings import Finding, Verdict, verdict_of
from fitzle.core.piece.document import Piece, artworks_in
from fitzle.core.piece.editing import as_in
from fitzle.core.piece.parts import WordsPart
from fitzle.core.plan.placed import PlacedArtwork, Plan
from fitzle.core.plan.planning import plan_piece
from fitzle.core.preflight.demands import Demand, judge_file
from fitzle.core.preflight.eye import judge_by_eye
from fitzle.core.preflight.file_facts import FileFacts, read_file_facts
from fitzle.core.preflight.legibility import AUTO, Looked, Seen, judge_contrast, looked_at, seen_again
from fitzle.core.render.painting import paint
from fitzle.core.render.svg import svg_of
from fitzle.core.spec.naming import file_name
from fitzle.core.spec.sheet import SpecSheet

ENGINE = "2"  # raise it when rendering or encoding changes, so that kept results are made anew
PREVIEW_JPEG_QUALITY = 88


class Planned(NamedTuple):
    """A fit, planned: where everything stands and what the eye would say.

    Without pixels the colour of words may still be `auto`, and nobody has looked at what is behind them.
    """

    plan: Plan
    findings: list[Finding]
    seen: tuple[Seen, ...] = ()


class Made(NamedTuple):
    """A fit as a file, judged. `encoded` is None where no file could be made; the findings say why."""

    plan: Plan
    encoded: Encoded | None
    demands: list[Demand]
    findings: list[Finding]
    tried: list[Attempt]

    @property
    def verdict(self) -> Verdict:
        """The worst of all findings."""
        return verdict_of(self.findings)


def plan_fit(
    piece: Piece,
    sheet: SpecSheet,
    facts: Mapping[str, ArtworkFacts],
    placement: str | None = None,
    house: tuple[str, ...] = (),
) -> Planned:
    """Plan and eye findings; milliseconds, no pixels."""
    plan = plan_piece(piece, sheet, facts, placement)
    return Planned(plan, judge_by_eye(plan, sheet, facts, house))


def look_at_fit(
    planned: Planned,
    sheet: SpecSheet,
    facts: Mapping[str, ArtworkFacts],
    sources: Mapping[str, Source],
    house: tuple[str, ...] = (),
) -> Planned:
    """The plan with the colours of words decided and contrasts measured on what is really behind them."""
    return _judged(planned, looked_at(planned.plan, sheet, sources, facts, house), sheet)


def look_remembered(planned: Planned, sheet: SpecSheet, seen: tuple[Seen, ...]) -> Planned:
    """As `look_at_fit`, from what was seen when this very fit was looked at before; no pixels."""
    return _judged(planned, seen_again(planned.plan, seen), sheet)


def _judged(planned: Planned, looked: Looked, sheet: SpecSheet) -> Planned:
    return Planned(looked.plan, planned.findings + judge_contrast(looked, sheet), looked.seen)


def make_fit(planned: Planned, sheet: SpecSheet, sources: Mapping[str, Source]) -> Made:
    """Renders, finds the best file and judges it as the destination would; the plan must have been looked at."""
    choice = _vector_file(planned.plan, sheet, sources) or best_file(Picture(paint(planned.plan, sources)), sheet)
    findings = planned.findings + choice.findings
    demands: list[Demand] = []
    if choice.file:
        demands = judge_file(read_file_facts(choice.file.data), sheet)
        findings = [demand.finding for demand in demands if demand.finding] + findings
    return Made(planned.plan, choice.file, demands, _worst_first(findings), choice.tried)


def _vector_file(plan: Plan, sheet: SpecSheet, sources: Mapping[str, Source]) -> Choice | None:
    """An SVG where the place prefers one and it is light enough; nothing is lost in it."""
    if sheet.formats[0] != "svg":
        return None
    data = svg_of(plan, sources)
    if sheet.max_bytes is not None and len(data) > sheet.max_bytes and len(sheet.formats) > 1:
        return None
    if sheet.max_bytes is not None and len(data) > sheet.max_bytes:
        return Choice(None, [Attempt("svg", "outlines", len(data))], [too_heavy("SVG", len(data), sheet.max_bytes)])
    return Choice(Encoded(data, "svg", "outlines", 100.0), [Attempt("svg", "outlines", len(data))], [])


def judge_finished(data: bytes, name: str, sheet: SpecSheet) -> tuple[FileFacts, list[Demand]]:
    """A file made anywhere against a spec sheet; raises ArtworkError when it cannot be read."""
    facts = read_file_facts(data, name)
    return facts, judge_file(facts, sheet)


def proof_bytes(plan: Plan, sources: Mapping[str, Source], width_px: int) -> tuple[bytes, str]:
    """A preview of the plan at this width and its media type: JPEG where opaque, else PNG."""
    return preview_bytes(paint(plan, sources, width_px))


def preview_bytes(pixels: Pixels) -> tuple[bytes, str]:
    """Pixels (h, w, 4) for the screen: quick to make, larger than a delivered file."""
    from PIL import Image

    out = io.BytesIO()
    if pixels[..., 3].min() == 255:
        Image.fromarray(pixels[..., :3]).save(out, "JPEG", quality=PREVIEW_JPEG_QUALITY, subsampling=0)
        return out.getvalue(), "image/jpeg"
    Image.fromarray(pixels).save(out, "PNG", compress_level=1)
    return out.getvalue(), "image/png"


def parts_alone(plan: Plan, parts: Collection[str]) -> Plan:
    """The plan with nothing in it but some parts, on a clear ground: what moves while they are dragged."""
    return plan._replace(under=None, fill=None, edge=None, parts=tuple(own for own in plan.parts if own.part in parts))


def without_parts(plan: Plan, parts: Collection[str]) -> Plan:
    """The plan without some parts: what stays while they are dragged."""
    return plan._replace(parts=tuple(own for own in plan.parts if own.part not in parts))


def off_the_grid(plan: Plan) -> Plan:
    """The plan with nothing fitted to the pixel grid, to be seen beside the one that is."""
    loose = (own._replace(grid=False) if isinstance(own, PlacedArtwork) else own for own in plan.parts)
    return plan._replace(parts=tuple(loose))


def fit_key(
    piece: Piece,
    sheet: SpecSheet,
    placement: str | None = None,
    house: tuple[str, ...] = (),
    contents: Mapping[str, str] | None = None,
) -> str:
    """A hash of everything a fit's file depends on: the piece as it is there, its artwork, the sheet, the engine.

    `contents` are the hashes of the files by id of its artwork and of the versions that could stand for it: an artwork
    that is prepared or replaced, and a version that is joined or parted, make another key.

    The house colours count only where the colour of words is chosen from them.
    """
    there = as_in(piece, placement)
    chosen = any(isinstance(part, WordsPart) and part.colour == AUTO for part in there.parts)
    text = json.dumps(
        [
            ENGINE,
            there.model_dump(mode="json", exclude={"adjustments"}),
            sheet.model_dump(mode="json"),
            list(house) if chosen else [],
            dict.fromkeys(artworks_in(there), "") | dict(contents or {}),
        ],
        sort_keys=True,
    )
    return hashlib.sha256(text.encode()).hexdigest()[:32]


def name_of(made: Made, sheet: SpecSheet, subject: str, date: str = "", version: str = "") -> str:
    """The delivered file's name by the sheet's rule; only for a fit that has a file."""
    fmt = made.encoded.format if made.encoded else sheet.formats[0]
    return file_name(
        sheet.naming, fmt, subject=subject, placement=sheet.name, size=made.plan.size, date=date, version=version
    )


def facts_and_sources(artworks: Mapping[str, Artwork]) -> tuple[dict[str, ArtworkFacts], dict[str, Source]]:
    """Artworks by id as the two mappings that planning and painting take."""
    facts = {key: artwork.facts for key, artwork in artworks.items()}
    return facts, {key: artwork.source for key, artwork in artworks.items()}


def _worst_first(findings: list[Finding]) -> list[Finding]:
    order = {"refused": 0, "risky": 1, "note": 2}
    return sorted(findings, key=lambda finding: order[finding.severity])
