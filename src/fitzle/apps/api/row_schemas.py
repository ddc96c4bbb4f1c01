"""The shapes of the API for rows."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from fitzle.core.fit.state import FitState
from fitzle.core.piece.document import FieldName, RowCounter
from fitzle.core.runs.changes import AnyRowChange, RowChange
from fitzle.core.runs.document import Entry, RowId
from fitzle.core.runs.fields import Kind
from fitzle.core.runs.table import MOST_COLUMNS, MOST_ROWS

MOST_SEEN = 60  # rows that are asked for at once
Way = Literal["zip", "folder", "upload"]


class RowField(Schema):
    """A column: its name, what kind of cells it has, the part and field that they change, what an empty one counts."""

    name: str
    kind: Kind
    part: str
    field: str
    counter: RowCounter | None


class PossibleField(RowField):
    """What rows may change: `of` says whose it is; `named` whether it is a field already."""

    of: str
    named: bool


class PlaceOfRows(Schema):
    """A place that every row stands in; `fit` is that of the piece itself."""

    fit: UUID
    placement: UUID
    name: str
    destination: str
    width: int
    height: int


class RowProblem(Schema):
    """What is wrong with a cell of a row (no field: with the row), or what the rules say of it in a place."""

    row: str
    number: int
    field: str = ""
    placement: UUID | None = None
    severity: Literal["refused", "risky"] = "refused"
    words: str
    twin: str = ""


class CellPicture(Schema):
    """The artwork that a cell names."""

    id: str
    name: str


class RowsProgress(Schema):
    """How the files that were wanted last are getting on; a problem for each of those that failed."""

    wanted: int
    done: int
    failed: int
    failures: list[RowProblem]


class RunState(Schema):
    """What changes of a run without anybody touching it: what its rows are judged to be, and how files get on.

    `looking`: rows are still being judged. `alike` are the places in which all rows look the same. `artwork` differs
    once any artwork changed.
    """

    revision: int
    piece_revision: int
    artwork: str
    alike: list[UUID]
    problems: list[RowProblem]
    looking: bool
    progress: RowsProgress


class RunOut(RunState):
    """A run with all its rows. `own` is what the piece says where a cell is empty, by field; `counted` what empty
    cells of counters say, by field, in the order of the rows; `pictures` the artwork that cells name, by their text.

    `naming` is the rule for the names of its files, `example` what the first row's would be.
    """

    piece: UUID
    subject: str
    may_change: bool
    may_deliver: bool
    fields: list[RowField]
    possible: list[PossibleField]
    places: list[PlaceOfRows]
    rows: list[Entry]
    own: dict[str, str]
    counted: dict[str, list[str]]
    pictures: dict[str, CellPicture]
    naming: str
    own_naming: str
    example: str
    by_hand: dict[str, int]
    undo: str | None
    redo: str | None


class WordSize(Schema):
    """The sizes of a part's words over all rows in a place, in px of its file; `row` has the smallest.

    `common`: somebody gave them one size there.
    """

    part: str
    placement: UUID
    smallest: float
    largest: float
    row: str
    common: bool


class OneSize(Schema):
    """Whether the words of a part have one size in all rows."""

    on: bool


class FacesAligned(Schema):
    """The run after its faces were aligned: how many, how many pictures have none, and the figures in parts of the
    frame.
    """

    run: RunOut
    aligned: int
    without: int
    share: float
    eye_line: float


class LikeRow(Schema):
    """The row whose picture is the model."""

    row: RowId


class PreparedLike(Schema):
    """How many pictures were prepared, and how many were left as they are."""

    prepared: int
    left: int


class RowsEdit(Schema):
    """Changes of rows; `key` is the browser's own name for this save."""

    changes: Annotated[list[RowChange], Field(max_length=MOST_ROWS)]
    step: Annotated[str, Field(min_length=1, max_length=120)]
    key: UUID | None = None


class RowClashOut(Schema):
    """A change that was not made, and what somebody else put there meanwhile."""

    change: AnyRowChange
    newest: Any


class RowsChanged(Schema):
    """What changing rows came to: the run as it is now, and the changes that clash."""

    run: RunOut
    clashes: list[RowClashOut] = []
    added: int = 0
    left_over: list[str] = []


class PastedIn(Schema):
    """Cells pasted at a corner: `rows` and `fields` are what is shown from there on, in that order."""

    rows: Annotated[list[RowId], Field(max_length=MOST_ROWS)]
    fields: Annotated[list[FieldName], Field(max_length=MOST_COLUMNS)]
    text: Annotated[str, Field(max_length=4_000_000)]


class RowsWanted(Schema):
    """Which rows; null for all."""

    rows: Annotated[list[RowId], Field(max_length=MOST_ROWS)] | None = None


class RowsDelivered(RowsWanted):
    """Which rows to hand over, how; `changed`: only what differs from what was handed over last."""

    changed: bool = False
    way: Way = "zip"
    folder: Annotated[str, Field(max_length=120)] = ""
    flat: bool = False


class NamingIn(Schema):
    """The rule for the names of a run's files; empty for the usual one."""

    rule: Annotated[str, Field(max_length=200)]


class RowInPlace(Schema):
    """A row in a place as it is now; `fit` where a file of it was wanted, `key` belongs to its picture."""

    row: str
    placement: UUID
    fit: UUID | None
    key: str
    state: FitState
    why: str
    by_hand: int
