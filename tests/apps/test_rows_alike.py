"""Rows that look made of one piece: words of one size, faces of one height with their eyes on one line."""

from typing import Any

import pytest

from fitzle.apps.artwork.models import Artwork
from fitzle.apps.pieces.row_fits import open_row
from fitzle.apps.pieces.saving import piece_of
from fitzle.core.runs.aligning import EYES
from tests.apps.helpers import send, upload
from tests.apps.run_table import Table, words_of
from tests.make import photo, saved

pytestmark = pytest.mark.django_db


def sizes(own: Table) -> Any:
    return own.client.get(f"/api/{own.path}/sizes").json()


def test_words_of_all_rows_get_one_size_and_their_own_again(table: Table) -> None:
    name = words_of(table)
    table.add(**{name: "Gears"})
    table.add(**{name: "Why the longest road of the season ends at a bridge"})
    part = next(one["part"] for one in table.read()["fields"] if one["name"] == name)
    own = next(one for one in sizes(table) if one["part"] == part)
    assert own["smallest"] < own["largest"] and not own["common"]
    assert own["row"] == table.read()["rows"][2]["id"], "the longest sets it"
    assert table.ask("put", f"/sizes/{part}", {"on": True}).status_code == 200
    one = next(one for one in sizes(table) if one["part"] == part)
    assert one["common"] and one["largest"] - one["smallest"] < 0.5
    assert one["largest"] == pytest.approx(own["smallest"], abs=0.5)
    table.ask("put", f"/sizes/{part}", {"on": False})
    assert next(one for one in sizes(table) if one["part"] == part) == own


def guest(client: Any, run: Any, name: str, seed: int, face: tuple[float, float, float]) -> None:
    """A picture of 1200 x 900 with a face: its middle in fractions, its height in px."""
    artwork = upload(client, "juno", name, saved(photo(1200, 900, seed), "JPEG"), "", run)
    x, y, size = face
    kept = Artwork.objects.get(pk=artwork["id"])
    box = {"x": x * 1200 - size / 2, "y": y * 900 - size / 2, "width": size, "height": size, "score": 0.95}
    kept.facts = {**kept.facts, "faces": [box]}
    kept.save()


@pytest.fixture
def guests(signed_in: Any, place: Any, run: Any) -> Table:
    card = place(name="Card", size={"width": 320, "height": 320}, transparency="forbidden")
    upload(signed_in, "juno", "Mara.jpg", saved(photo(), "JPEG"), str(card.pk), run)
    for number, face in enumerate([(0.5, 0.5, 240), (0.42, 0.45, 330), (0.6, 0.55, 280)]):
        guest(signed_in, run, f"guest-{number}.jpg", number + 20, face)
    wall = signed_in.get("/api/workspaces/juno/wall").json()
    fit = next(one["fit"] for shelf in wall["shelves"] for one in shelf["placements"] if one["fit"])
    own = signed_in.get(f"/api/workspaces/juno/fits/{fit}").json()["piece"]
    part = next(one["id"] for one in own["document"]["parts"] if one["role"] == "picture")
    changes = [{"act": "name", "name": "guest", "target": {"part": part, "field": "artwork"}}]
    send(signed_in, "patch", f"workspaces/juno/pieces/{own['id']}", {"revision": 1, "step": "x", "changes": changes})
    table = Table(signed_in, run, own["id"])
    table.ask("post")
    for number in range(3):
        table.add(guest=f"guest-{number}")
    return table


def framed(own: Table, juno: Any) -> list[tuple[float, float]]:
    """The height of the face and the line of its eyes in each row with a face, in parts of the frame."""
    found, run = [], own.read()
    for row in run["rows"][1:]:
        opened = open_row(juno[1], piece_of(juno[1], own.piece), row["id"], run["places"][0]["placement"])
        [picture] = opened.planned.plan.artworks
        [face] = opened.planned.facts[picture.artwork].faces
        window = picture.window
        line = (face.y + EYES * face.height - window.y) / window.height
        found.append((face.height / window.height, line))
    return found


def test_faces_of_different_framing_come_to_stand_alike(guests: Table, juno: Any) -> None:
    before = framed(guests, juno)
    assert max(height for height, _ in before) - min(height for height, _ in before) > 0.05
    answer = guests.ask("put", "/faces/guest", {"on": True}).json()
    assert (answer["aligned"], answer["without"]) == (3, 1)
    heights, lines = zip(*framed(guests, juno), strict=True)
    assert max(heights) - min(heights) < 0.01 and max(lines) - min(lines) < 0.03
    assert heights[0] == pytest.approx(answer["share"], abs=0.01)
    assert guests.read()["undo"] == "faces alike"
    guests.ask("put", "/faces/guest", {"on": False})
    assert framed(guests, juno) == before
    guests.ask("post", "/undo")
    guests.ask("post", "/undo")
    assert framed(guests, juno) == before and guests.read()["by_hand"] == {}


def test_pictures_without_a_face_are_left_and_said(guests: Table) -> None:
    for row in guests.read()["rows"][1:]:
        guests.cell(row["id"], "guest", "Mara")
    answer = guests.ask("put", "/faces/guest", {"on": True})
    assert answer.status_code == 422 and "has a face" in answer.json()["message"]


def test_all_guests_are_prepared_as_one_of_them_is(guests: Table, run: Any) -> None:
    rows = guests.read()["rows"]
    found = guests.read()["pictures"]
    model = found["guest-1"]["id"]
    assert "not prepared" in guests.ask("put", "/prepared/guest", {"row": rows[2]["id"]}).json()["message"]
    light = {"kind": "adjust", "id": "light", "brightness": 0.3}
    path = f"workspaces/juno/artwork/{model}/preparation"
    with run(execute=True):
        body = {"revision": 0, "document": {"steps": [light]}, "step": "lighter"}
        assert send(guests.client, "put", path, body).status_code == 200
    before = {one["row"]: one["key"] for one in guests.seen()}
    answer = guests.ask("put", "/prepared/guest", {"row": rows[2]["id"]}).json()
    assert answer == {"prepared": 3, "left": 0}
    for name in ("guest-0", "guest-2"):
        kept = Artwork.objects.get(pk=found[name]["id"])
        assert [step["kind"] for step in kept.preparation.document["steps"]] == ["adjust"]
    after = {one["row"]: one["key"] for one in guests.seen()}
    assert after[rows[1]["id"]] != before[rows[1]["id"]] and after[rows[2]["id"]] == before[rows[2]["id"]]
    assert guests.ask("put", "/prepared/guest", {"row": rows[2]["id"]}).json() == {"prepared": 0, "left": 3}
    assert guests.ask("put", "/prepared/guest", {"row": "nobody"}).status_code == 422
