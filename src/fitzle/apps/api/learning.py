"""Places learnt by showing them: a picture and a screenshot, or a screenshot with a box drawn on it."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Any
from uuid import UUID

from django.http import HttpRequest
from ninja import File, Form, Path, Router, Schema, Status
from ninja.files import UploadedFile
from pydantic import Field

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.place_schemas import SheetOut
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.sheet_views import shown_sheet
from fitzle.apps.destinations.learning import MOST_BYTES, Shown, begin_learning, learning_of, places_of, sheet_learnt
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.learning.result import Learnt, PixelBox
from fitzle.core.learning.sheet import Answers
from fitzle.core.learning.taken import sheets_of

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Learning

router = Router(tags=["places"])


class ShownIn(Schema):
    """How the screenshot was made, and the box drawn on it where there is no picture."""

    density: float = 1.0
    x: Annotated[float, Field(ge=0, le=100_000)] = 0
    y: Annotated[float, Field(ge=0, le=100_000)] = 0
    width: Annotated[float, Field(ge=0, le=100_000)] = 0
    height: Annotated[float, Field(ge=0, le=100_000)] = 0


class LearntPlaceOut(Schema):
    """One place where the picture stands; `relative`: it looks like the picture and has other words on it."""

    learnt: Learnt
    relative: bool
    shown: SheetOut


class LearningOut(Schema):
    """How far it is; `message` says in words why nothing came of it."""

    id: UUID
    progress: int
    done: bool
    message: str
    places: list[LearntPlaceOut]


class TakenOut(Schema):
    """A file and the sheet that came of it, or why none did."""

    file: str
    message: str
    shown: SheetOut | None


@router.post("/places/learn", response={202: LearningOut, 422: Message})
def learn_place(
    request: HttpRequest,
    workspace: Path[str],
    given: Form[ShownIn],
    screenshot: File[UploadedFile],
    picture: File[UploadedFile | None] = None,
) -> Status[Any]:
    """Has a worker look for the picture in the screenshot."""
    box = (
        PixelBox(x=given.x, y=given.y, width=given.width, height=given.height) if given.width and given.height else None
    )
    name = (picture.name or "").rpartition(".")[0] if picture else ""
    shown = Shown(name, picture.read() if picture else None, screenshot.read(), given.density, box)
    return Status(202, _view(begin_learning(access_to(request.user, workspace), shown)))


@router.get("/places/learn/{uuid:learning}", response=LearningOut)
def read_learning(request: HttpRequest, workspace: Path[str], learning: UUID) -> LearningOut:
    """How far it is, and what came of it."""
    return _view(learning_of(workspace_to_see(request.user, workspace), learning))


@router.post("/places/learn/{uuid:learning}/{int:number}", response=SheetOut)
def answer(request: HttpRequest, workspace: Path[str], learning: UUID, number: int, given: Answers) -> SheetOut:
    """The sheet of one of the places with these answers; nothing is kept."""
    return shown_sheet(sheet_learnt(learning_of(workspace_to_see(request.user, workspace), learning), number, given))


@router.post("/places/from-files", response={200: list[TakenOut], 422: Message})
def read_files(request: HttpRequest, workspace: Path[str], files: File[list[UploadedFile]]) -> list[TakenOut]:
    """The sheets of sheet files, of ZIPs of them, and of pictures that a place took; nothing is kept."""
    workspace_to_see(request.user, workspace)
    heavy = [file for file in files if (file.size or 0) > MOST_BYTES]
    if heavy:
        raise ValueOutOfRange(f"{heavy[0].name} is too heavy", advice="At most 40 MB are taken.")
    found = [taken for file in files for taken in sheets_of(file.name or "unnamed", file.read())]
    return [
        TakenOut(file=one.file, message=one.message, shown=shown_sheet(one.sheet) if one.sheet else None)
        for one in found
    ]


def _view(learning: Learning) -> LearningOut:
    found = places_of(learning)
    relatives = len(learning.result["found"]["relatives"]) if learning.result else 0
    return LearningOut(
        id=learning.pk,
        progress=learning.progress,
        done=learning.progress == 100,
        message=learning.message,
        places=[
            LearntPlaceOut(
                learnt=one,
                relative=number >= len(found) - relatives,
                shown=shown_sheet(sheet_learnt(learning, number, Answers())),
            )
            for number, one in enumerate(found)
        ],
    )
