"""Takes: layers of their own, what differs in words, what calculation proposes, and what votes say."""

from typing import Any

import pytest

from fitzle.core.fit.comparing import differing
from fitzle.core.fit.proposing import probing, ranked
from fitzle.core.piece.changes import SetField, apply_changes, clashes, value_of
from fitzle.core.piece.document import Piece, layer_of, parts_in, with_take
from fitzle.core.piece.scoping import FieldValue, scoped
from fitzle.core.units import Size
from fitzle.core.votes import verdict
from tests.core.composed import HOUSE, artworks, mark, picture, piece, read_artworks, words
from tests.fits import decided_fit, request_for
from tests.make import sheet, solid

PLACE = sheet(size={"width": 640, "height": 360}, max_bytes=None, seen=[{"name": "list", "width": 320}])
AT = {"anchor": "left", "dx": 0.1, "width": 0.8, "height": 0.5}


def document(**more: Any) -> Piece:
    """A headline over a photo with a mark."""
    corner = {"anchor": "bottom-right", "dx": -0.05, "dy": -0.05, "width": 0.4, "height": 0.15}
    own = words("Ride", colour="#ffffff", stands=AT)
    made = piece(picture(), own, mark("ottermoor-light.svg", stands=corner), ground=solid("#17443c"))
    return Piece.model_validate({**made, **more})


def headline(own: Piece, placement: str = "here", take: str = "") -> Any:
    return next(part for part in parts_in(own, placement, take) if part.id == "w")


def changed(own: Piece, field: str, value: Any, **more: Any) -> Piece:
    return apply_changes(own, scoped(own, "here", [FieldValue(part="w", field=field, value=value)], **more))


def test_a_change_in_a_take_is_its_own_and_the_rest_is_shared() -> None:
    own = changed(with_take(document(), "b"), "text", "Walk", everywhere=True, take="b")
    assert (headline(own).text, headline(own, take="b").text) == ("Ride", "Walk")
    assert headline(own, "elsewhere", "b").text == "Walk", "wherever the take stands"
    shared = changed(own, "weight", 400, everywhere=True)
    assert headline(shared, take="b").weight == 400, "what is not changed follows the piece"


def test_only_here_in_a_take_changes_neither_the_piece_nor_the_take_elsewhere() -> None:
    own = changed(with_take(document(), "b"), "text", "Here", everywhere=False, take="b")
    assert headline(own, take="b").text == "Here"
    assert headline(own).text == headline(own, "elsewhere", "b").text == "Ride"
    assert own.adjustments.keys() == {layer_of("here", "b")}


def test_what_differs_in_the_place_does_not_hide_a_change_of_the_take() -> None:
    own = changed(document(), "text", "Adjusted", everywhere=False)
    taken = changed(with_take(own, "b"), "text", "Taken", everywhere=True, take="b")
    assert (headline(taken).text, headline(taken, take="b").text) == ("Adjusted", "Taken")
    again = changed(taken, "text", "Once more", everywhere=True, take="b")
    assert headline(again, take="b").text == "Once more"


def test_two_people_in_different_takes_do_not_clash() -> None:
    base = with_take(document(), "b")
    mine = [SetField(part="w", field="text", value="Mine", take="b")]
    theirs = apply_changes(base, [SetField(part="w", field="text", value="Theirs", take="c")])
    assert clashes(base, theirs, mine) == []
    same = apply_changes(base, [SetField(part="w", field="text", value="Theirs", take="b")])
    assert clashes(base, same, mine) == mine and value_of(same, mine[0]) == "Theirs"


def _decided(own: Piece, take: str = "") -> Any:
    return decided_fit(own, PLACE, read_artworks(), house=HOUSE, take=take)


@pytest.mark.parametrize(
    ("values", "said"),
    [
        ({}, []),
        ({"w": {"colour": "#f4d06f"}}, ["Headline #f4d06f instead of #ffffff"]),
        ({"w": {"stands": {**AT, "height": 0.25}}}, ["Headline 41 px lower"]),
        ({"w": {"plate": {"colour": "#111111"}}}, ["Headline on a plate of #111111"]),
        ({"w": {"family": "Lora"}}, ["Headline in Lora instead of Oswald"]),
        ({"p": {"hidden": True}}, ["without the picture"]),
        ({"ground": {"fill": solid("#b4541a")}}, ["ground #b4541a instead of #17443c"]),
        ({"w": {"text": "Walk"}}, ["Headline says “Walk”"]),
    ],
)
def test_only_what_differs_is_named(values: dict[str, Any], said: list[str]) -> None:
    own = document(takes={"b": values})
    found = differing(_decided(own), _decided(own, "b"))
    figures = [one for one in found if ("contrast" not in one and "Headline" in one) or one in said]
    for one in said:
        head = one.split(" px")[0].rsplit(" ", 1)[0] if " px" in one else one
        assert any(entry.startswith(head) for entry in found), found
    assert bool(figures) is bool(said)


def test_proposals_really_differ_and_the_best_comes_first() -> None:
    request = request_for(document(), PLACE, read_artworks(), house=HOUSE)
    found = ranked(request, artworks()[1], Size(640, 360), ["Work Sans", "Lora"])
    assert {"beside", "words", "mark"} <= {one.proposal.id for one in found}
    otherwise = [one for one in found if one.proposal.id.startswith("arranged-")]
    assert len({one.proposal.words for one in otherwise}) == len(otherwise) >= 3, "three that place parts otherwise"
    assert all(one.proposal.here for one in otherwise)
    assert all(one.differs >= 0.04 and one.proposal.words for one in found)
    assert [one.risky for one in found] == sorted(one.risky for one in found)
    probe = probing(request, found[0].proposal)
    assert probe.take and probe.piece.parts != ()


def test_what_stands_beside_is_not_proposed_again() -> None:
    request = request_for(document(), PLACE, read_artworks(), house=HOUSE)
    sources = artworks()[1]
    first = ranked(request, sources, Size(640, 360))
    from fitzle.core.fit.deciding import decide, plan_fit

    made = decide(plan_fit(probing(request, first[0].proposal)), sources)
    again = ranked(request, sources, Size(640, 360), beside=[(made, sources)])
    assert first[0].proposal.id not in {one.proposal.id for one in again}


@pytest.mark.parametrize(
    "bare", [piece(words("Ride", colour="#111111")), piece(picture()), piece(ground=solid("#ffffff"))]
)
def test_a_piece_of_one_thing_has_few_proposals_and_no_crash(bare: dict[str, Any]) -> None:
    request = request_for(bare, PLACE, read_artworks(), house=HOUSE)
    found = ranked(request, artworks()[1], Size(640, 360))
    assert {one.proposal.id for one in found} <= {"colours", "typeface"}


@pytest.mark.parametrize(
    ("votes", "leader", "chance", "said"),
    [
        ({"A": 0, "B": 0}, None, 1.0, "Nobody has answered yet."),
        ({"A": 3, "B": 3}, None, 1.0, "No one is ahead after 6 answers."),
        ({"A": 1, "B": 0}, "A", 1.0, "could well be chance"),
        ({"A": 5, "B": 15}, "B", 0.0414, "hardly chance"),  # twice the tail of 15 to 20 of 20
        ({"A": 6, "B": 14}, "B", 0.1153, "could well be chance"),
        ({"A": 12, "B": 2, "C": 1}, "A", 3 * 0.0003, "hardly chance"),
        ({"A": 3, "B": 2, "C": 2}, "A", 1.0, "could well be chance"),
    ],
)
def test_what_votes_say(votes: dict[str, int], leader: str | None, chance: float, said: str) -> None:
    found = verdict(votes)
    assert found.leader == leader and said in found.words
    assert found.chance == pytest.approx(chance, abs=1e-3)
