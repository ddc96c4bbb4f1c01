"""From what the apps know to the shapes of the API."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from fitzle.apps.accounts.access import house_colours
from fitzle.apps.api.schemas import (
    ArtworkPlaced,
    BoxOut,
    FileOut,
    FitBrief,
    FitOut,
    NaturalOut,
    PartOut,
    PieceOut,
    RowOfFit,
    WordsPlaced,
)
from fitzle.apps.artwork.library import is_id
from fitzle.apps.pieces.history import undo_and_redo_names
from fitzle.apps.pieces.opening import OpenFit, decided
from fitzle.apps.pieces.progress import told
from fitzle.apps.pieces.row_edits import differing_in_row
from fitzle.apps.pieces.row_history import undo_and_redo_of_rows
from fitzle.apps.pieces.rows import OpenRow, number_of_rows
from fitzle.apps.pieces.saving import document_of
from fitzle.core.fit.arrangement import PLACED, stance_of_all
from fitzle.core.fit.deciding import Decided
from fitzle.core.fit.record import FileRecord
from fitzle.core.fit.state import ShownState, fit_state
from fitzle.core.formats import label_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.geometry.shapes import SHAPES
from fitzle.core.piece.parts import AnyPart, ArtworkPart, ShapePart, WordsPart
from fitzle.core.piece.scoping import adjusted_fields
from fitzle.core.plan.first_looks import first_looks
from fitzle.core.plan.guides import guides_of
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords
from fitzle.core.preflight.demand_words import size_words
from fitzle.core.preflight.expected import expected_demands
from fitzle.core.preflight.rule import ArtworkInPlan
from fitzle.core.preflight.rules.clearance import clearance_px
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size, words_for_bytes

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.pieces.models import Piece

Delivered = frozenset[str]  # hashes of what was handed over last
RAIL_TALLEST_PX, RAIL_WIDEST_PX = 64, 132


def piece_view(piece: Piece, person: int) -> PieceOut:
    """A piece with the names of what undo and redo would do for a person, by their number."""
    undo, redo = undo_and_redo_names(piece, person)
    return PieceOut(id=piece.pk, revision=piece.revision, document=document_of(piece), undo=undo, redo=redo)


def row_history_view(piece: Piece, row: OpenRow, person: int) -> PieceOut:
    """A piece at one of its rows: undo and redo are those of the rows."""
    undo, redo = undo_and_redo_of_rows(row.run, person)
    return piece_view(piece, person).model_copy(update={"undo": undo, "redo": redo})


def row_of_fit(row: OpenRow) -> RowOfFit:
    """A row, for the bench."""
    title = next((text for text in row.entry.cells.values() if text and not is_id(text)), "")
    return RowOfFit(id=row.entry.id, number=row.number + 1, title=title, by_hand=row.entry.by_hand)


def state_of(opened: OpenFit, delivered: Delivered | None) -> ShownState:
    """A fit's one state and the reason in a few words; what its plan says counts until its file is judged."""
    expected = () if opened.judgement else opened.planned.findings
    return fit_state(opened.standing(delivered, expected))


def fit_view(
    workspace: Workspace, opened: OpenFit, beside: list[OpenFit], delivered: dict[UUID, Delivered], person: int
) -> FitOut:
    """Everything the bench shows a person of one fit; `beside` are all fits of its piece, itself among them."""
    looked, fit, sheet = decided(workspace, opened), opened.fit, opened.sheet
    plan, names, record = looked.plan, part_names(opened), opened.record
    findings = opened.muting(looked.findings) if opened.findings is None else opened.findings
    standing = opened.standing(delivered.get(fit.placement_id), looked.findings)
    file = record.files[0] if record and record.files else None
    stances = opened.stances
    row = opened.of_row
    return FitOut(
        row=row_of_fit(row) if row else None,
        rows=number_of_rows(fit.piece),
        stance=stance_of_all(stances),
        arranged=opened.is_arranged,
        by_hand=[entry for entry in adjusted_fields(opened.document, opened.slug) if entry.partition(".")[2] in PLACED],
        id=fit.pk,
        key=opened.proof_key,
        piece=row_history_view(fit.piece, row, person) if row else piece_view(fit.piece, person),
        placement=fit.placement_id,
        sheet=sheet,
        width=plan.size.width,
        height=plan.size.height,
        ground=plan.ground,
        ground_given=plan.ground_given,
        adjusted=(differing_in_row(row.entry, opened.slug) if row else adjusted_fields(opened.document, opened.slug)),
        parts=[
            _part_view(opened, looked, part, names[part.part]).model_copy(update={"stance": stances[part.part]})
            for part in plan.parts
        ],
        names=names,
        here={part.id: part for part in opened.resolved.parts},
        guides=guides_of(plan.size, sheet),
        shapes=list(SHAPES),
        first_looks=first_looks(house_colours(workspace)),
        state=fit_state(standing).state,
        failure=record.outcome.message if record else "",
        mask=mask_path(sheet, plan.size),
        measuring=not standing.made,
        making="" if standing.made else told(workspace.pk, opened.file_key),
        deliverable=standing.deliverable,
        demands=opened.demands or expected_demands(plan, sheet, moves=opened.resolved.moves),
        findings=sorted(findings, key=lambda one: bool(one.muted)),
        file=_file_view(file) if file else None,
        house=list(house_colours(workspace)),
        artwork_colours=[entry.hex for own in looked.planned.facts.values() for entry in own.colours[:6]],
        rail=rail_view(beside, delivered),
    )


def rail_view(fits: list[OpenFit], delivered: dict[UUID, Delivered]) -> list[FitBrief]:
    """Fits, each drawn to fit the rail; none is planned: while a file is being made nothing is said of it."""
    return [_brief(entry, delivered.get(entry.fit.placement_id)) for entry in fits]


def mask_path(sheet: SpecSheet, size: Size) -> str | None:
    """What shows of a picture of this size at its destination, as an SVG path; None where all of it does.

    In fractions of its width and height, so that it holds at every width of the screen.
    """
    if sheet.mask is None:
        return None
    path = sheet.mask.outline.path(size.width, size.height)
    return path.transformed(1 / size.width, 0, 0, 1 / size.height, 0, 0).svg(5)


def _brief(opened: OpenFit, delivered: Delivered | None) -> FitBrief:
    fit, sheet, size = opened.fit, opened.sheet, opened.size
    scale = min(RAIL_TALLEST_PX / size.height, RAIL_WIDEST_PX / size.width, 1.0)
    shown = fit_state(opened.standing(delivered))
    width, height = round(size.width * scale, 1), round(size.height * scale, 1)
    return FitBrief(
        id=fit.pk,
        placement=fit.placement_id,
        placement_name=sheet.name,
        destination=fit.placement.destination.name,
        size=size_words(sheet),
        drawn_width=width,
        drawn_height=height,
        mask=mask_path(sheet, size),
        state=shown.state,
        why=shown.why,
        key=opened.proof_key,
        page=sheet.grounds[0] if sheet.grounds else "#ffffff",
    )


def _file_view(file: FileRecord) -> FileOut:
    return FileOut(
        bytes=file.bytes,
        weight=words_for_bytes(file.bytes),
        format=file.format,
        label=label_of(file.format),
        width=file.width,
        height=file.height,
        settings=file.settings.words,
        score=file.score,
    )


def part_names(opened: OpenFit) -> dict[str, str]:
    """What people call each part: the name they gave it, else what is in it."""
    files = {key: opened.standing_in(key).name for key in opened.artworks}
    return {part.id: part.name or _own_name(part, files) for part in opened.resolved.parts}


def _own_name(part: AnyPart, files: dict[str, str]) -> str:
    if isinstance(part, ArtworkPart):
        return files.get(part.artwork, part.role)
    if isinstance(part, WordsPart):
        return " ".join(part.text.split()) or part.role
    return part.shape if isinstance(part, ShapePart) else part.role


def _part_view(opened: OpenFit, looked: Decided, part: Placed, name: str) -> PartOut:
    view = PartOut(
        part=part.part,
        role=part.role,
        name=name,
        box=_box(part.box),
        stands=_box(part.stands),
        rotation=part.look.rotation,
    )
    if isinstance(part, PlacedArtwork):
        view.artwork = _artwork_view(opened, looked, part)
    elif isinstance(part, PlacedWords):
        view.words = _words_view(looked, part)
    return view


def _box(box: Rect) -> BoxOut:
    return BoxOut(**{key: round(value, 3) for key, value in box._asdict().items()})


def _words_view(looked: Decided, part: PlacedWords) -> WordsPlaced:
    contrast = next((entry.ratio for entry in looked.readings if entry.part == part.part), None)
    layout = part.layout
    return WordsPlaced(
        lines=list(layout.lines),
        size_px=round(layout.size_px, 2),
        cap_height_px=round(layout.cap_height_px, 2),
        colour=part.colour,
        contrast=contrast,
        family=part.family,
    )


def _artwork_view(opened: OpenFit, looked: Decided, part: PlacedArtwork) -> ArtworkPlaced:
    facts, sheet = looked.planned.facts[part.artwork], opened.sheet
    standing_in = opened.standing_in(part.artwork)
    return ArtworkPlaced(
        artwork=standing_in.pk,
        key=standing_in.content.sha256[:20],
        window=_box(part.window),
        natural=NaturalOut(width=facts.width, height=facts.height),
        mode=part.mode,
        padding_px=round(part.padding_px, 2),
        padding_percent=round(100 * part.padding_px / min(part.stands.width, part.stands.height), 2),
        clearance_px=round(clearance_px(ArtworkInPlan(part, facts, looked.plan, sheet)), 1),
        vector=part.vector,
        one_colour=facts.one_colour and facts.transparency != "none",
        colours=[entry.hex for entry in facts.colours],
        on_grid=part.grid,
        plays=facts.plays and opened.resolved.plays,
    )
