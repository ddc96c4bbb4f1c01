"""From what the apps know to the shapes of the API."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from fitzle.apps.accounts.access import house_colours
from fitzle.apps.api.shapes import (
    ArtworkPlaced,
    BoxOut,
    FileOut,
    FitBrief,
    FitOut,
    NaturalOut,
    PartOut,
    PieceOut,
    PlaceState,
    WordsPlaced,
)
from fitzle.apps.pieces.opening import Keyed, OpenFit, SizedFit, is_made, sized_fits
from fitzle.apps.pieces.saving import document_of, undo_and_redo_names
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.findings import Finding, verdict_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.geometry.shapes import SHAPES
from fitzle.core.piece.document import parts_in
from fitzle.core.piece.parts import AnyPart, ArtworkPart, ShapePart, WordsPart
from fitzle.core.plan.first_looks import first_looks
from fitzle.core.plan.guides import guides_of
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords
from fitzle.core.preflight.brief import brief
from fitzle.core.preflight.demands import Demand, size_words
from fitzle.core.preflight.expected import expected_demands
from fitzle.core.preflight.eye import ONE_COLOUR_SHARE, Judged, clearance_px

RAIL_TALLEST_PX, RAIL_WIDEST_PX = 64, 132


def piece_view(piece: Any) -> PieceOut:
    """A piece with the names of what undo and redo would do."""
    undo, redo = undo_and_redo_names(piece)
    return PieceOut(id=piece.pk, revision=piece.revision, document=document_of(piece), undo=undo, redo=redo)


def findings_of(opened: OpenFit) -> list[Finding]:
    """The findings of the made file where it is made for this state, else those of the plan."""
    return _measured_findings(opened) if is_made(opened) else opened.planned.findings


def state_of(opened: OpenFit, delivered_key: str | None) -> tuple[PlaceState, str]:
    """A fit's one state on the wall and the reason in a few words."""
    return _state(opened, findings_of(opened), delivered_key)


def measured_state(sized: Keyed, delivered_key: str | None) -> tuple[PlaceState, str]:
    """As `state_of` for a fit that is not planned: while its file is being made nothing is said of it."""
    return _state(sized, _measured_findings(sized) if is_made(sized) else [], delivered_key)


def _measured_findings(keyed: Keyed) -> list[Finding]:
    return [Finding.model_validate(entry) for entry in keyed.fit.result["findings"]]


def _state(keyed: Keyed, findings: list[Finding], delivered_key: str | None) -> tuple[PlaceState, str]:
    verdict = verdict_of(findings)
    if verdict != "fits":
        return verdict, next(brief(finding) for finding in findings if finding.severity == verdict)
    if not is_made(keyed):
        return "working", "measuring"
    if delivered_key and delivered_key != keyed.key:
        return "out of date", "changed since delivery"
    return "fits", ""


def fit_view(workspace: Any, opened: OpenFit, beside: list[Any], delivered: dict[UUID, str]) -> FitOut:
    """Everything the bench shows of one fit; `beside` are all fits of its piece."""
    plan, fit, sheet, facts = opened.planned.plan, opened.fit, opened.sheet, opened.facts
    placement = str(fit.placement_id)
    names = _part_names(opened)
    state, _ = state_of(opened, delivered.get(fit.placement_id))
    file = fit.result["file"] if is_made(opened) else None
    return FitOut(
        id=fit.pk,
        key=opened.key,
        piece=piece_view(fit.piece),
        placement=fit.placement_id,
        sheet=sheet,
        width=plan.size.width,
        height=plan.size.height,
        ground=plan.ground,
        ground_given=plan.ground_given,
        adjusted=sorted(
            f"{part}.{field}"
            for part, fields in opened.document.adjustments.get(placement, {}).items()
            for field in fields
        ),
        parts=[_part_view(opened, part, facts, names[part.part]) for part in plan.parts],
        names=names,
        guides=guides_of(plan.size, sheet),
        shapes=list(SHAPES),
        first_looks=first_looks(house_colours(workspace)),
        state=state,
        measuring=not is_made(opened),
        demands=_demands(opened),
        findings=findings_of(opened),
        file=FileOut(**file) if file else None,
        house=list(house_colours(workspace)),
        artwork_colours=[entry.hex for own in facts.values() for entry in own.colours[:6]],
        rail=rail_view(workspace, beside, delivered, opened.known),
    )


def rail_view(
    workspace: Any, fits: list[Any], delivered: dict[UUID, str], known: dict[str, Any] | None = None
) -> list[FitBrief]:
    """The fits of a piece, each drawn to fit the rail; `known` is artwork that was looked up already."""
    return [_brief(sized, delivered.get(sized.fit.placement_id)) for sized in sized_fits(workspace, fits, known)]


def _brief(sized: SizedFit, delivered_key: str | None) -> FitBrief:
    fit, sheet, size = sized.fit, sized.sheet, sized.size
    scale = min(RAIL_TALLEST_PX / size.height, RAIL_WIDEST_PX / size.width, 1.0)
    state, why = measured_state(sized, delivered_key)
    return FitBrief(
        id=fit.pk,
        placement=fit.placement_id,
        placement_name=sheet.name,
        destination=fit.placement.destination.name,
        size=size_words(sheet),
        drawn_width=round(size.width * scale, 1),
        drawn_height=round(size.height * scale, 1),
        state=state,
        why=why,
        key=sized.key,
        page=sheet.grounds[0] if sheet.grounds else "#ffffff",
    )


def _demands(opened: OpenFit) -> list[Demand]:
    if is_made(opened) and opened.fit.result["demands"]:
        return [Demand.model_validate(entry) for entry in opened.fit.result["demands"]]
    return expected_demands(opened.planned.plan, opened.sheet)


def _part_names(opened: OpenFit) -> dict[str, str]:
    """What people call each part: the name they gave it, else what is in it."""
    files = {key: artwork.name for key, artwork in opened.artworks.items()}
    parts = parts_in(opened.document, str(opened.fit.placement_id))
    return {part.id: part.name or _own_name(part, files) for part in parts}


def _own_name(part: AnyPart, files: dict[str, str]) -> str:
    if isinstance(part, ArtworkPart):
        return files.get(part.artwork, part.role)
    if isinstance(part, WordsPart):
        return " ".join(part.text.split()) or part.role
    return part.shape if isinstance(part, ShapePart) else part.role


def _part_view(opened: OpenFit, part: Placed, facts: dict[str, ArtworkFacts], name: str) -> PartOut:
    view = PartOut(
        part=part.part, role=part.role, name=name, box=_box(part.box), stands=_box(part.stands), turn=part.look.turn
    )
    if isinstance(part, PlacedArtwork):
        view.artwork = _artwork_view(opened, part, facts[part.artwork])
    elif isinstance(part, PlacedWords):
        view.words = _words_view(opened, part)
    return view


def _box(box: Rect) -> BoxOut:
    return BoxOut(**{key: round(value, 3) for key, value in box._asdict().items()})


def _words_view(opened: OpenFit, part: PlacedWords) -> WordsPlaced:
    contrast = next((entry.ratio for entry in opened.planned.seen if entry.part == part.part), None)
    layout = part.layout
    return WordsPlaced(
        lines=list(layout.lines),
        size_px=round(layout.size_px, 2),
        letter_px=round(layout.letter_px, 2),
        colour=part.colour,
        contrast=contrast,
        family=part.family,
    )


def _artwork_view(opened: OpenFit, part: PlacedArtwork, facts: ArtworkFacts) -> ArtworkPlaced:
    return ArtworkPlaced(
        artwork=UUID(part.artwork),
        key=opened.artworks[part.artwork].content.sha256[:20],
        window=_box(part.window),
        natural=NaturalOut(width=facts.width, height=facts.height),
        mode=part.mode,
        padding_px=round(part.padding_px, 2),
        clearance_px=round(clearance_px(Judged(part, facts, opened.planned.plan, opened.sheet)), 1),
        vector=part.vector,
        one_colour=bool(facts.colours and facts.colours[0].share >= ONE_COLOUR_SHARE and facts.transparency != "none"),
        colours=[entry.hex for entry in facts.colours],
        on_grid=part.grid,
    )
