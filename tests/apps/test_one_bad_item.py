"""Wherever a list is shown, one bad item fails alone, in words; everything else is there."""

from collections.abc import Callable
from typing import Any

import pytest

from fitzle.apps.artwork.models import Artwork
from fitzle.apps.destinations.models import Placement
from fitzle.apps.pieces.models import Fit, Judgement, Piece, Rendition
from tests.apps.helpers import Bring, deliver, wall_proofs
from tests.make import disc, saved, svg

pytestmark = pytest.mark.django_db
FLAT = {"width": 1e-30, "height": 0, "kind": "mark", "vector": True, "format": "svg", "transparency": "none"}


def bad_artwork(**fields: Any) -> Callable[[], None]:
    return lambda: Artwork.objects.filter(name="bad.svg").update(**fields) and None


def bad_piece() -> Any:
    return Piece.objects.filter(fits__placement__destination__name="Bad site")


def rendition() -> Any:
    """That of the bad fit."""
    from fitzle.apps.pieces.opening import open_fit

    fit = Fit.objects.get(placement__destination__name="Bad site")
    opened = open_fit(fit.piece.workspace, fit)
    assert opened.rendition
    return opened.rendition.pk


HARMS: dict[str, Callable[[], Any]] = {
    "facts that are gone": bad_artwork(facts=None),
    "facts without a height": bad_artwork(facts={"width": 3}),
    "facts that round to nothing": bad_artwork(facts=FLAT),
    "a hash that is none": bad_artwork(likeness="not hex"),
    "a prepared file of nothing": bad_artwork(prepared={}),
    "earlier files of nothing": bad_artwork(earlier=[{}]),
    "a piece of nothing": lambda: bad_piece().update(document={}),
    "a piece that is a list": lambda: bad_piece().update(document=[1]),
    "a sheet of nothing": lambda: Placement.objects.filter(destination__name="Bad site").update(sheet={}),
    "a file of nothing": lambda: Rendition.objects.filter(pk=rendition()).update(files=[{}]),
    "an outcome of nothing": lambda: Rendition.objects.filter(pk=rendition()).update(outcome={"kind": "odd"}),
    "findings of nothing": lambda: Judgement.objects.filter(rendition=rendition()).update(findings=[{}]),
}


@pytest.mark.parametrize("harm", HARMS)
def test_one_bad_item_fails_alone(harm: str, place: Any, bring: Bring, signed_in: Any) -> None:
    good, bad = place(name="Good place"), place(name="Bad place", destination="Bad site")
    bring("good.png", saved(disc(), "PNG"), str(good.pk))
    bring("bad.svg", svg(), str(bad.pk))
    assert wall_proofs(signed_in, "juno")["Bad place"]["state"] == "fits"
    HARMS[harm]()
    wall = signed_in.get("/api/workspaces/juno/wall")
    assert wall.status_code == 200, wall.content
    proofs = [proof for shelf in wall.json()["shelves"] for proof in shelf["placements"]]
    assert {proof["name"]: proof["state"] for proof in proofs}["Good place"] == "fits"
    assert len(proofs) == 2
    other = next(proof for proof in proofs if proof["name"] != "Good place")
    assert other["state"] in ("empty", "working", "fits") or other["why"]
    artwork = {entry["name"]: entry for entry in signed_in.get("/api/workspaces/juno/artwork").json()}
    assert artwork["good.png"]["state"] == "ready"
    assert artwork["bad.svg"]["state"] == "ready" or artwork["bad.svg"]["message"]
    for page in ("deliveries", "deliveries/ready", "house-style"):
        assert signed_in.get(f"/api/workspaces/juno/{page}").status_code == 200, page
    delivered = deliver(signed_in, {})
    assert delivered.status_code == 201
    assert "Good place" in [file["placement_name"] for file in delivered.json()["files"]]
    again = bring("next.svg", svg('<rect width="90" height="40" fill="#1d3b4f"/>'), str(bad.pk))
    assert again["state"] == "ready", "what is bad does not stand in the way of anything new"
    if other["state"] == "failed" and harm != "a sheet of nothing":
        assert wall_proofs(signed_in, "juno")["Bad place"]["state"] == "fits", "other artwork takes its place"
