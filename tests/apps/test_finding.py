"""Artwork is found by words, tags, kind and place, a page at a time."""

from typing import Any
from uuid import uuid4

import pytest
from django.test import Client

from fitzle.apps.artwork.models import Artwork, State
from tests.apps.helpers import Bring, mark_in_a_place, send
from tests.make import disc, photo, saved, svg

pytestmark = pytest.mark.django_db
HERE = "/api/workspaces/juno/artwork"


@pytest.fixture
def library(signed_in: Client, bring: Bring, place: Any, run: Any) -> dict[str, str]:
    """Four artworks of different kinds, by name; the mark is seen in a place."""
    mark_in_a_place(signed_in, place, run)
    bring("Bell tower.jpg", saved(photo(400, 300), "JPEG"))
    bring("bell.png", saved(disc(200), "PNG"))
    away = bring("old bell.png", saved(disc(120, margin=9), "PNG"))
    send(signed_in, "patch", f"workspaces/juno/artwork/{away['id']}", {"put_away": True})
    found = {entry["name"]: entry["id"] for entry in signed_in.get(HERE).json()}
    send(signed_in, "patch", f"workspaces/juno/artwork/{found['bell.png']}", {"tags": ["Spring", "ride 7"]})
    return found


@pytest.mark.parametrize(
    ("asked", "names"),
    [
        ("", ["old bell.png", "bell.png", "Bell tower.jpg", "mark.svg"]),
        ("put_away=false", ["bell.png", "Bell tower.jpg", "mark.svg"]),
        ("put_away=true", ["old bell.png"]),
        ("words=BELL&put_away=false", ["bell.png", "Bell tower.jpg"]),
        ("words=bell%20jpeg", ["Bell tower.jpg"]),
        ("words=spring", ["bell.png"]),
        ("words=test%20site", ["mark.svg"]),
        ("words=test%20svg", ["mark.svg"]),
        ("words=100%25", []),
        ("words=_ell", []),
        ("tag=ride%207", ["bell.png"]),
        ("tag=ride", []),
        ("kind=picture", ["Bell tower.jpg"]),
        ("seen_in=Test%20site", ["mark.svg"]),
        ("seen_in=no%20place%20yet&put_away=false", ["bell.png", "Bell tower.jpg"]),
        ("seen_in=put%20away&put_away=false", ["old bell.png"]),
        ("start=1&count=2", ["bell.png", "Bell tower.jpg"]),
        ("start=-5&count=0", ["old bell.png"]),
        ("ids=nonsense", []),
    ],
)
def test_what_is_asked_for_is_found(signed_in: Client, library: dict[str, str], asked: str, names: list[str]) -> None:
    assert [entry["name"] for entry in signed_in.get(f"{HERE}?{asked}").json()] == names
    counted = signed_in.get(f"{HERE}/found?{asked}").json()
    if "count" not in asked:
        assert counted["found"] == len(names)
    assert (counted["all"], counted["put_away"]) == (3, True)
    assert (counted["tags"], counted["seen_in"]) == (["Spring", "ride 7"], ["Test site", "no place yet", "put away"])


def test_some_are_asked_for_by_their_ids_and_one_by_its_own(signed_in: Client, library: dict[str, str]) -> None:
    both = f"{library['mark.svg']},{library['bell.png']},{uuid4()}"
    assert {entry["name"] for entry in signed_in.get(f"{HERE}?ids={both}").json()} == {"mark.svg", "bell.png"}
    one = signed_in.get(f"{HERE}/{library['mark.svg']}").json()
    assert (one["name"], one["used_in"]) == ("mark.svg", ["Test site, Test place"])
    assert signed_in.get(f"{HERE}/{uuid4()}").status_code == 404


def test_another_name_is_found_from_then_on(signed_in: Client, library: dict[str, str]) -> None:
    send(signed_in, "patch", f"workspaces/juno/artwork/{library['bell.png']}", {"name": "Gong.png"})
    assert [entry["name"] for entry in signed_in.get(f"{HERE}?words=gong").json()] == ["Gong.png"]
    assert not signed_in.get(f"{HERE}?words=bell.png&put_away=false").json()


def test_what_is_alike_is_found_beyond_the_page(signed_in: Client, bring: Bring) -> None:
    bring("large.jpg", saved(photo(800, 600), "JPEG"))
    for number in range(3):
        bring(f"{number}.svg", svg(f'<circle cx="50" cy="25" r="{5 + number * 6}"/>'))
    bring("small.jpg", saved(photo(800, 600).resize((400, 300)), "JPEG"))
    [first] = signed_in.get(f"{HERE}?count=1").json()
    assert [(one["name"], one["relation"]) for one in first["alike"]] == [("large.jpg", "larger")]


def test_a_long_library_costs_no_more_look_ups(
    signed_in: Client, bring: Bring, juno: Any, django_assert_max_num_queries: Any
) -> None:
    bring("mark.svg", svg())
    known = Artwork.objects.get()
    rows = [
        Artwork(
            workspace=juno[1], name=f"mark {number}.svg", sha256=f"{number:064x}", bytes=9, state=State.READY,
            facts=known.facts, likeness=f"{number * 977 % 2**60:016x}", kind="mark", said=f"mark {number}.svg mark svg",
        )
        for number in range(300)
    ]  # fmt: skip
    Artwork.objects.bulk_create(rows)
    with django_assert_max_num_queries(12):
        assert len(signed_in.get(f"{HERE}?count=60&words=mark").json()) == 60
