"""The shapes of the API's answers about preparations."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field

from fitzle.core.artwork.steps.document import Preparation, Step, StepId, Window


class SizeOut(Schema):
    """Natural size in px."""

    width: float
    height: float


class BoxOffer(Schema):
    """A box around the subject to accept or to move, and what to say of it."""

    words: str
    accept: str
    box: Window


class StepOut(Schema):
    """How a step that is on came out. `engine` and `confidence` are of a cut-out; `key` changes with its picture.

    `colours` are those before a recolouring, for it to change, and those of a tracing. `offer` is a better box for a
    cut-out: one that is proposed where nothing was found, or a wider one where the box cuts the subject.
    """

    id: str
    problem: str
    waiting: bool
    engine: str | None
    confidence: float | None
    size: SizeOut
    key: str
    colours: list[str]
    offer: BoxOffer | None


class PreparationOut(Schema):
    """`steps` are those that are on, in order; `working` while the file at full size is being made.

    `first_steps` are one of each kind as it is when somebody adds it.
    """

    revision: int
    document: Preparation
    undo: str | None
    redo: str | None
    working: bool
    progress: int
    message: str
    before: SizeOut
    steps: list[StepOut]
    first_steps: list[Step]
    key: str


class StepsIn(Schema):
    """All steps, as changed on a revision; `step` names the change for undo, `key` the save, which is made once."""

    revision: int
    document: Preparation
    step: Annotated[str, Field(min_length=1, max_length=120)]
    key: UUID | None = None


class StaleSteps(Schema):
    """Somebody else was faster."""

    message: str
    newest: PreparationOut


class ProposalIn(Schema):
    """The id that the proposed step shall have (an existing one is left out of the picture), and a crop's shape."""

    step: StepId
    ratio: Annotated[float, Field(gt=0.01, lt=100)] | None = None
