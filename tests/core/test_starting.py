"""Starting points: eight and more for each kind of placement, which break no rule there and read as one arrangement."""

from typing import Any

import pytest

from fitzle.core.piece.document import artworks_in
from fitzle.core.starting.house import House
from fitzle.core.starting.points import (
    OFFERED,
    Kind,
    kind_of_placement,
    starting_point,
    structures_for,
    unbroken,
)
from tests.core.composed import artworks, read_artworks
from tests.fits import plan_of, request_for
from tests.make import sheet

FACTS, SOURCES = artworks()
HOUSES = {
    "with artwork": House("Ottermoor", ("#17443c", "#f4d06f"), "Anton", "Work Sans", ("ding.svg",), ("photo",)),
    "with a mark alone": House("Ottermoor", ("#17443c", "#f4d06f"), "Anton", "Work Sans", ("ding.svg",)),
    "with nothing": House("Nobody yet"),
}


def place(width: int, height: int, seen: int, **more: Any) -> dict[str, Any]:
    size = {"width": width, "height": height}
    return {"size": size, "seen": [{"name": "there", "width": seen}], "transparency": "forbidden", **more}


CLEAR: dict[str, Any] = {"transparency": "required", "grounds": ["#ffffff"]}
PLACES: dict[Kind, dict[str, Any]] = {
    "page header": place(2400, 500, 1200),
    "wide banner": place(1500, 500, 750),
    "thumbnail": place(1280, 720, 360),
    "card": place(640, 640, 320),
    "product": place(1000, 1000, 400, kind="product-square"),
    "story": place(1080, 1920, 360),
    "watermark": place(512, 512, 150, **CLEAR),
    "sticker": place(512, 512, 160, kind="sticker", **CLEAR),
    "header logo": place(880, 220, 220, **CLEAR),
    "icon": place(64, 64, 32, transparency="allowed"),
}


@pytest.mark.parametrize("kind", PLACES)
def test_eight_and_more_of_each_kind_break_no_rule(kind: Kind) -> None:
    there, house = sheet(**PLACES[kind]), HOUSES["with artwork"]
    assert kind_of_placement(there) == kind
    good = []
    for number in range(len(structures_for(there))):
        point = starting_point(there, house, FACTS, number)
        assert point
        if unbroken(request_for(point.piece, there, read_artworks(), house=house.colours), SOURCES):
            good.append(point.name)
    assert len(set(good)) >= 8, "though the only picture is a small one"
    assert len(structures_for(there)) <= 2 * OFFERED


@pytest.mark.parametrize("house", HOUSES)
@pytest.mark.parametrize("kind", PLACES)
def test_all_can_be_planned_whatever_a_house_has(kind: Kind, house: str) -> None:
    there = sheet(**PLACES[kind])
    names = set()
    for number in range(len(structures_for(there))):
        point = starting_point(there, HOUSES[house], FACTS, number)
        assert point
        names.add(point.name)
        plan = plan_of(point.piece, there, FACTS)
        assert plan.parts and point.piece.composed
        assert point.piece.composed.is_shape_of(plan.size)
        assert not any(part.hidden for part in point.piece.parts), "what finds no room is left out"
        assert artworks_in(point.piece) <= {*HOUSES[house].marks, *HOUSES[house].pictures}
    assert len(names) == len(structures_for(there))
    assert starting_point(there, HOUSES[house], FACTS, len(names)) is None
    assert starting_point(there, HOUSES[house], FACTS, -1) is None


def test_those_of_its_own_shape_come_first() -> None:
    first = {kind: structures_for(sheet(**PLACES[kind]))[0].size.ratio for kind in ("page header", "card", "thumbnail")}
    assert first == {"page header": 3.0, "card": 1.0, "thumbnail": pytest.approx(16 / 9)}
