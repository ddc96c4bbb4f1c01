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
from fitzle.apps.artwork.library import facts_by_id, names_by_id
from fitzle.apps.pieces.fits import OpenFit, fits_of_piece, open_fits
from fitzle.apps.pieces.saving import document_of, undo_and_redo_names
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.findings import Finding, verdict_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.geometry.shapes import SHAPES
from fitzle.core.piece.document import artworks_in, parts_in
from fitzle.core.piece.parts import AnyPart, ArtworkPart, ShapePart, WordsPart
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
    if measured(opened):
        return [Finding.model_validate(entry) for entry in opened.fit.result["findings"]]
    return opened.planned.findings


def measured(opened: OpenFit) -> bool:
    """Whether the file for the fit's present state is made."""
    return bool(opened.fit.result and opened.fit.result_key == opened.key)


def state_of(opened: OpenFit, delivered_key: str | None) -> tuple[PlaceState, str]:
    """A fit's one state on the wall and the reason in a few words."""
    findings = findings_of(opened)
    verdict = verdict_of(findings)
    if verdict != "fits":
        return verdict, next(brief(finding) for finding in findings if finding.severity == verdict)
    if not measured(opened):
        return "working", "measuring"
    if delivered_key and delivered_key != opened.key:
        return "out of date", "changed since delivery"
    return "fits", ""


def fit_view(workspace: Any, opened: OpenFit, delivered: dict[UUID, str]) -> FitOut:
    """Everything the bench shows of one fit."""
    plan, fit, sheet = opened.planned.plan, opened.fit, opened.sheet
    placement = str(fit.placement_id)
    facts = facts_by_id(workspace, artworks_in(opened.document, placement))
    names = _part_names(workspace, parts_in(opened.document, placement))
    state, _ = state_of(opened, delivered.get(fit.placement_id))
    file = fit.result["file"] if measured(opened) else None
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
        state=state,
        measuring=not measured(opened),
        demands=_demands(opened),
        findings=findings_of(opened),
        file=FileOut(**file) if file else None,
        house=list(house_colours(workspace)),
        artwork_colours=[entry.hex for own in facts.values() for entry in own.colours[:6]],
        rail=rail_view(workspace, opened, delivered),
    )


def rail_view(workspace: Any, known: OpenFit, delivered: dict[UUID, str]) -> list[FitBrief]:
    """All fits of a piece, each drawn to fit the rail; `known` is the one that is planned already."""
    briefs = []
    fits = fits_of_piece(known.fit.piece)
    others = open_fits(workspace, [fit for fit in fits if fit.pk != known.fit.pk])
    planned = {opened.fit.pk: opened for opened in [*others, known]}
    for opened in (planned[fit.pk] for fit in fits if fit.pk in planned):
        size = opened.planned.plan.size
        scale = min(RAIL_TALLEST_PX / size.height, RAIL_WIDEST_PX / size.width, 1.0)
        state, why = state_of(opened, delivered.get(opened.fit.placement_id))
        briefs.append(
            FitBrief(
                id=opened.fit.pk,
                placement=opened.fit.placement_id,
                placement_name=opened.sheet.name,
                destination=opened.fit.placement.destination.name,
                size=size_words(opened.sheet),
                drawn_width=round(size.width * scale, 1),
                drawn_height=round(size.height * scale, 1),
                state=state,
                why=why,
                key=opened.key,
                page=opened.sheet.grounds[0] if opened.sheet.grounds else "#ffffff",
            )
        )
    return briefs


def _demands(opened: OpenFit) -> list[Demand]:
    if measured(opened) and opened.fit.result["demands"]:
        return [Demand.model_validate(entry) for entry in opened.fit.result["demands"]]
    return expected_demands(opened.planned.plan, opened.sheet)


def _part_names(workspace: Any, parts: tuple[AnyPart, ...]) -> dict[str, str]:
    """What people call each part: the name they gave it, else what is in it."""
    shown = [part.artwork for part in parts if isinstance(part, ArtworkPart)]
    files = names_by_id(workspace, shown)
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
