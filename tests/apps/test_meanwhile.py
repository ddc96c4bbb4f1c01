"""Somebody changes the workspace between any two looks at the database: pages are answered all the same."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

import pytest
from django.db import connection, transaction
from django.utils import timezone

from tests.apps.helpers import upload
from tests.make import svg

pytestmark = pytest.mark.django_db
MOST_LOOKS = 60


@pytest.fixture
def filled(signed_in: Any, place: Any, run: Any) -> dict[str, str]:
    """A mark in one placement beside an empty one: what the addresses of the pages need."""
    first = place(name="Card")
    place(name="Badge", destination="Other site")
    artwork = upload(signed_in, "juno", "mark.svg", svg(), str(first.pk), run)
    fit = all_fits().get()
    return {"artwork": artwork["id"], "fit": str(fit.pk)}


def all_fits() -> Any:
    from fitzle.apps.pieces.models import Fit

    return Fit.objects.all()


def place_in_the_empty_one() -> None:
    from fitzle.apps.destinations.models import Placement
    from fitzle.apps.pieces.models import Fit, Piece

    piece, empty = Piece.objects.get(), Placement.objects.get(destination__name="Other site")
    Fit.objects.create(piece=piece, placement=empty, placed_at=timezone.now())


def place_another_in_the_same() -> None:
    from fitzle.apps.pieces.models import Fit, Piece

    piece, fit = Piece.objects.get(), Fit.objects.get()
    other = Piece.objects.create(workspace=piece.workspace, document=piece.document)
    Fit.objects.create(piece=other, placement=fit.placement, placed_at=timezone.now())


def take_away() -> None:
    all_fits().delete()


def take_the_placement_away() -> None:
    from fitzle.apps.destinations.models import Placement

    Placement.objects.all().delete()


def take_the_artwork_away() -> None:
    from fitzle.apps.artwork.models import Artwork

    Artwork.objects.all().delete()


@contextmanager
def after_look(number: int, change: Callable[[], None]) -> Iterator[list[int]]:
    """Makes a change right after the look of this number (from 1); counts the looks."""
    looks = [0]

    def looked(execute: Any, *details: Any) -> Any:
        answer = execute(*details)
        looks[0] += 1
        if looks[0] == number:
            change()
        return answer

    with connection.execute_wrapper(looked):
        yield looks


@pytest.mark.parametrize(
    "change",
    [place_in_the_empty_one, place_another_in_the_same, take_away, take_the_placement_away, take_the_artwork_away],
)
@pytest.mark.parametrize("page", ["wall", "deliveries", "artwork", "house-style", "fits/{fit}", "fits/{fit}/proof",
                                  "artwork/{artwork}/preparation", "artwork/{artwork}/picture"])  # fmt: skip
def test_a_page_is_answered_whatever_changes_meanwhile(
    signed_in: Any, filled: dict[str, str], page: str, change: Callable[[], None]
) -> None:
    path = f"/api/workspaces/juno/{page.format(**filled)}"
    for number in range(1, MOST_LOOKS):
        with transaction.atomic(), after_look(number, change) as looks:
            status = signed_in.get(path).status_code
            transaction.set_rollback(True)
        assert status in (200, 404), f"changed after look {number}"
        if looks[0] < number:
            return
    raise AssertionError(f"more than {MOST_LOOKS} looks")
