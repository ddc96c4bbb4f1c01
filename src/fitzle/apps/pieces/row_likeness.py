"""What makes a run look made of one piece: one size for words in all rows, faces of one height on one line."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.artwork.library import facts_by_id
from fitzle.apps.pieces import saving
from fitzle.apps.pieces.actions import change_piece
from fitzle.apps.pieces.models import Run
from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.apps.pieces.row_fits import places_of_run
from fitzle.apps.pieces.row_history import keep_changes
from fitzle.apps.pieces.rows import look_at_rows_again, open_rows, rows_of, run_of
from fitzle.core.errors import DocumentError
from fitzle.core.geometry.rect import Point
from fitzle.core.piece.changes import AnyChange, ResetField, SetField
from fitzle.core.piece.document import Piece as Document
from fitzle.core.runs.aligning import Aligned, Alignment, aligned_all
from fitzle.core.runs.changes import AnyRowChange, Differ, Differing
from fitzle.core.runs.fields import columns_of
from fitzle.core.runs.sizes import CommonSize, common_size

if TYPE_CHECKING:
    from fitzle.core.artwork.facts import ArtworkFacts

ALIGNED = ("focal_point", "zoom")
SAME_FRAME = 1.02  # between two ratios


class WordSizes(NamedTuple):
    """The sizes (em, in px of the file) of a part's words over all rows in a place; `row` is the one of the smallest.

    `common`: somebody gave them one size there.
    """

    part: str
    placement: UUID
    smallest: float
    largest: float
    row: str
    common: bool


class Faces(NamedTuple):
    """How faces of a run were aligned: how many pictures have one, their height and line in parts of the frame."""

    aligned: int
    without: int
    share: float
    eye_line: float


def word_sizes(run: Run) -> list[WordSizes]:
    """The sizes of all words that rows change, in each place, as far as rows are judged."""
    document = saving.document_of(run.piece)
    parts = [one.target.part for one in columns_of(document).values() if one.kind == "words"]
    found = []
    for opened in open_fits(run.piece.workspace, places_of_run(run.piece)):
        own = {part.id: getattr(part, "size", None) for part in opened.resolved.parts}
        for part in dict.fromkeys(parts):
            sizes = _sizes(run, opened.fit.placement_id, part)
            least = common_size(sizes)
            if least is None:
                continue
            px = opened.size.short_side
            found.append(
                WordSizes(
                    part, opened.fit.placement_id, least.size * px, max(sizes.values()) * px, least.row,
                    own.get(part) is not None,
                )
            )  # fmt: skip
    return found


@action(Capability.CHANGE)
def one_size(access: Access, piece_id: UUID, part: str, on: bool) -> None:
    """Gives the words of a part one size in all rows, the largest that fits all of them in each place; or lets each row
    have its own again. Raises DocumentError where no row is judged yet.
    """
    piece = saving.piece_of(access.workspace, piece_id)
    run = run_of(piece)
    document = saving.document_of(piece)
    changes: list[AnyChange] = []
    for number, opened in enumerate(open_fits(access.workspace, places_of_run(piece))):
        here = None if number == 0 else opened.slug
        if here and part in document.adjustments.get(here, {}) and "size" in document.adjustments[here][part]:
            changes.append(ResetField(part=part, field="size", placement=here))
        least = common_size(_sizes(run, opened.fit.placement_id, part)) if on else None
        if on and least is None:
            raise DocumentError("the rows are still being looked at", advice="Try again in a moment.")
        if least or number == 0:
            size = _within(least, document, part) if least else None
            changes.append(SetField(part=part, field="size", value=size, placement=here))
    step = "one size for all rows" if on else "a size for each row"
    change_piece(access, piece_id, piece.revision, changes, step)


@action(Capability.CHANGE)
def align_faces(access: Access, piece_id: UUID, field: str, on: bool) -> Faces:
    """Lets faces have one height and their eyes one line in all rows, in one step; or lets all pictures stand as they
    are fitted. Raises DocumentError where no picture of the field has a face.
    """
    piece = saving.piece_of(access.workspace, piece_id)
    run, document = run_of(piece), saving.document_of(piece)
    column = columns_of(document).get(field)
    if column is None or column.kind != "picture":
        raise DocumentError(f"this run has no field {field!r} for pictures")
    part = column.target.part
    rows = open_rows(access.workspace, document, run, [one for one in rows_of(run) if not one.put_away])
    pictures = {one.entry.id: str(one.row.values[field]) for one in rows if one.row.values.get(field)}
    changes = [change for one in rows for change in _as_fitted(one.entry.adjustments, one.entry.id, part)]
    to: Alignment | None = None
    with_faces: set[str] = set()
    if on:
        facts = facts_by_id(access.workspace, set(pictures.values()))
        known = {row: facts[key] for row, key in pictures.items() if key in facts}
        to, with_faces, more = _aligned_everywhere(open_fits(access.workspace, places_of_run(piece)), part, known)
        changes += more
        if to is None:
            raise DocumentError("no picture of these rows has a face", advice="Frame them by hand.")
    keep_changes(run, access.actor, changes, "faces alike" if on else "pictures as they are fitted")
    look_at_rows_again(piece)
    share, line = (to.share, to.eye_line) if to else (0.0, 0.0)
    return Faces(len(with_faces), len(pictures) - len(with_faces), share, line)


def _sizes(run: Run, placement: UUID, part: str) -> dict[str, float]:
    judged = run.judgements.filter(placement=placement).values_list("row", "sizes")
    return {row: sizes[part] for row, sizes in judged if part in sizes}


def _within(least: CommonSize, document: Document, part: str) -> float:
    """The size that the words have in all rows; a part that is there."""
    if all(one.id != part for one in document.parts):
        raise DocumentError(f"there is no part {part!r}")
    return least.size


def _as_fitted(adjustments: dict[str, dict[str, dict[str, object]]], row: str, part: str) -> Iterable[AnyRowChange]:
    for placement in ("", *adjustments):
        for field in ALIGNED:
            yield Differ(row=row, placement=placement, part=part, field=field)


def _aligned_everywhere(
    places: list[OpenFit], part: str, pictures: dict[str, ArtworkFacts]
) -> tuple[Alignment | None, set[str], list[AnyRowChange]]:
    """What aligns the pictures of rows in the frame of the first place, and in those of other ratios there alone."""
    first: float | None = None
    to: Alignment | None = None
    rows: set[str] = set()
    changes: list[AnyRowChange] = []
    for opened in places:
        ratio = _frame(opened, part)
        if ratio is None or (first is not None and max(ratio / first, first / ratio) <= SAME_FRAME):
            continue
        alignment, found = aligned_all(pictures, ratio)
        placement = "" if first is None else opened.slug
        changes += [change for row, one in found.items() for change in _standing(row, placement, part, one)]
        if first is None:
            first, to, rows = ratio, alignment, set(found)
    return to, rows, changes


def _frame(opened: OpenFit, part: str) -> float | None:
    """The ratio of the frame in which a part shows its picture in a place; None where it does not show."""
    own = next((one for one in opened.planned.plan.artworks if one.part == part), None)
    return own.stands.width / own.stands.height if own else None


def _standing(row: str, placement: str, part: str, one: Aligned) -> Iterable[AnyRowChange]:
    focal: Point = one.focal_point
    values = {"focal_point": {"x": focal.x, "y": focal.y}, "zoom": one.zoom}
    for field, value in values.items():
        now = Differing(given=True, value=value)
        yield Differ(row=row, placement=placement, part=part, field=field, now=now)
