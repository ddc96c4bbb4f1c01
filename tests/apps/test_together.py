"""Several people and processes at once, on a real database: nothing is lost, nothing is made twice."""

from __future__ import annotations

import threading
from collections.abc import Callable
from functools import partial
from typing import Any

import pytest
from django.db import connection

from tests.make import svg

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def piece(juno: Any) -> Any:
    """A piece with five words parts."""
    from fitzle.apps.pieces.saving import create_piece
    from fitzle.core.piece.document import Piece

    parts = [{"id": f"w{number}", "role": "headline", "text": "start"} for number in range(5)]
    document = {"subject": "x", "parts": [{"id": "ground", "role": "ground"}, *parts]}
    return create_piece(juno[1], juno[0], Piece.model_validate(document))


def at_once(works: list[Callable[[], Any]]) -> list[Any]:
    """Runs all at the same time, each on a connection of its own; answers or exceptions, in order."""
    answers: list[Any] = [None] * len(works)
    gate = threading.Barrier(len(works))

    def run(index: int) -> None:
        try:
            gate.wait(10)
            answers[index] = works[index]()
        except Exception as error:
            answers[index] = error
        finally:
            connection.close()

    threads = [threading.Thread(target=run, args=(index,)) for index in range(len(works))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(30)
    return answers


def saving(piece: Any, user: Any, part: str, value: str) -> Callable[[], Any]:
    from fitzle.apps.pieces.saving import save_changes
    from fitzle.core.piece.changes import SetField

    change = SetField(part=part, field="text", value=value)
    return lambda: save_changes(piece, user, 1, [change], f"set {part}")


def texts(piece: Any) -> dict[str, str]:
    from fitzle.apps.pieces.models import Piece

    parts = Piece.objects.get(pk=piece.pk).document["parts"]
    return {part["id"]: part["text"] for part in parts if "text" in part}


def test_five_people_saving_different_parts_at_once_lose_nothing(juno: Any, piece: Any) -> None:
    answers = at_once([saving(piece, juno[0], f"w{number}", f"mine {number}") for number in range(5)])
    assert not [answer for answer in answers if isinstance(answer, Exception)]
    assert texts(piece) == {f"w{number}": f"mine {number}" for number in range(5)}
    piece.refresh_from_db()
    assert (piece.revision, piece.position, piece.states.count()) == (6, 5, 6)


def test_of_two_people_saving_the_same_field_one_is_told(juno: Any, piece: Any) -> None:
    from fitzle.apps.pieces.saving import StaleRevision

    answers = at_once([saving(piece, juno[0], "w0", value) for value in ("one", "two")])
    told = [answer for answer in answers if isinstance(answer, StaleRevision)]
    assert len(told) == 1
    kept = texts(piece)["w0"]
    assert told[0].clashes[0].newest == kept
    assert {kept, told[0].clashes[0].change.value} == {"one", "two"}


def test_undo_and_a_save_at_once_leave_a_history_that_can_be_walked(juno: Any, piece: Any) -> None:
    from fitzle.apps.pieces.history import step_back, step_forward

    saving(piece, juno[0], "w1", "first")()
    piece.refresh_from_db()
    at_once([lambda: step_back(piece, juno[0]), saving(piece, juno[0], "w2", "second")])
    for move in (step_back, step_back, step_back, step_forward, step_forward, step_forward):
        move(piece, juno[0])
    piece.refresh_from_db()
    positions = list(piece.states.values_list("position", flat=True))
    assert positions == list(range(len(positions)))
    assert piece.position == positions[-1]


def test_parts_added_at_once_get_ids_of_their_own(juno: Any, piece: Any) -> None:
    from fitzle.apps.pieces.saving import save_changes
    from fitzle.core.piece.changes import AddPart

    add = AddPart(part="shape", value={"role": "shape", "shape": "star"})
    works = [lambda: save_changes(piece, juno[0], 1, [add], "add a shape") for _ in range(4)]
    assert not [answer for answer in at_once(works) if isinstance(answer, Exception)]
    piece.refresh_from_db()
    ids = [part["id"] for part in piece.document["parts"] if part["role"] == "shape"]
    assert ids == ["shape", "shape-2", "shape-3", "shape-4"]


def test_a_file_asked_for_twice_at_once_is_the_same_file(juno: Any, place: Any) -> None:
    from fitzle.apps.artwork.intake import bring_in, take_in
    from fitzle.apps.pieces.fits import place as fit_into
    from fitzle.apps.pieces.making import make_file
    from fitzle.apps.pieces.models import Judgement, Rendition

    art = bring_in(juno[1], juno[0], "m.svg", [svg()], [])
    take_in(art.pk)
    fit = fit_into(juno[1], juno[0], art.pk, [str(place().pk)])[0]
    answers = at_once([lambda: make_file(fit.pk), lambda: make_file(fit.pk)])
    assert answers == [None, None]
    [rendition], [judgement] = Rendition.objects.all(), Judgement.objects.all()
    assert rendition.files[0]["bytes"] > 0 and judgement.rendition == rendition


def test_pictures_that_are_dropped_at_once_all_come_in(juno: Any) -> None:
    from fitzle.apps.accounts.access import access_to
    from fitzle.apps.watermarking.actions import add_picture
    from fitzle.apps.watermarking.models import Watermarking

    access, batch = access_to(juno[0], "juno"), Watermarking.objects.create(workspace=juno[1])
    answers = at_once([partial(add_picture, access, batch.pk, f"{n}.jpg", [bytes([n])]) for n in range(8)])
    assert not [answer for answer in answers if isinstance(answer, Exception)]
    assert sorted(batch.pictures.values_list("position", flat=True)) == list(range(1, 9))
