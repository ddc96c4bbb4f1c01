"""Clips and documents in the app: read, looked at frame by frame, stills and pages taken as artwork of their own."""

import io
import json
from typing import Any

import numpy as np
import pytest
from PIL import Image

from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.ladders import highest, settings_at
from fitzle.core.motion.reel import Reel
from tests.apps.helpers import Bring, send, wall_proofs
from tests.clips import clip, number_in, turned
from tests.core.test_footage import rounds
from tests.core.test_lottie import wheel
from tests.make import opened, photo, saved
from tests.pdf import pdf

pytestmark = pytest.mark.django_db
ARTWORK = "/api/workspaces/juno/artwork"


@pytest.fixture
def talk(bring: Bring) -> str:
    """A clip of two seconds, 25 frames a second, each with its number in it."""
    return str(bring("talk.mp4", clip())["id"])


def number_at(client: Any, artwork: str, seconds: float) -> int:
    answer = client.get(f"{ARTWORK}/{artwork}/frame?at={seconds}&width=400")
    return number_in(np.asarray(opened(answer.content).convert("RGBA")))


@pytest.mark.parametrize(
    ("name", "data", "fmt"),
    [
        ("talk.mp4", clip(), "mp4"),
        ("talk.mov", clip("mov"), "mov"),
        ("talk.webm", clip("webm", "libvpx-vp9"), "webm"),
    ],
)
def test_a_clip_comes_in_with_its_facts_and_a_picture(
    signed_in: Any, bring: Bring, name: str, data: bytes, fmt: str
) -> None:
    found = bring(name, data)
    facts = found["facts"]
    assert (found["state"], facts["kind"], facts["format"]) == ("ready", "clip", fmt)
    assert (facts["width"], facts["height"], facts["fps"]) == (256, 144, 25)
    assert facts["seconds"] == pytest.approx(2, abs=0.1)
    picture = signed_in.get(f"{ARTWORK}/{found['id']}/picture?width=200")
    assert opened(picture.content).size == (200, 112)


def test_the_filmstrip_has_a_picture_for_each_of_its_moments(signed_in: Any, talk: str) -> None:
    view = signed_in.get(f"{ARTWORK}/{talk}/stills").json()
    strip = opened(signed_in.get(f"{ARTWORK}/{talk}/strip").content)
    assert len(view["strip"]) == 40
    assert strip.size == (160 * 40, 90)
    assert view["strip"] == sorted(set(view["strip"]))


def test_stills_are_proposed_in_the_order_of_time(signed_in: Any, talk: str) -> None:
    found = signed_in.get(f"{ARTWORK}/{talk}/stills").json()["proposals"]
    moments = [one["seconds"] for one in found]
    assert moments
    assert moments == sorted(moments)


def test_every_frame_is_reached_by_steps(signed_in: Any, talk: str) -> None:
    at, seen = 0.0, []
    for _ in range(6):
        seen.append(number_at(signed_in, talk, at))
        at = signed_in.get(f"{ARTWORK}/{talk}/moment?at={at}&step=1").json()["seconds"]
    assert seen == [0, 1, 2, 3, 4, 5]
    assert signed_in.get(f"{ARTWORK}/{talk}/moment?at={at}&step=-1").json()["seconds"] == pytest.approx(at - 0.04)
    assert signed_in.get(f"{ARTWORK}/{talk}/moment?at=0&step=-1").json()["seconds"] == 0
    assert signed_in.get(f"{ARTWORK}/{talk}/moment?at=99&step=1").json()["seconds"] == pytest.approx(1.96)


def test_a_loop_becomes_a_moving_picture_that_shows_its_part(signed_in: Any, talk: str, run: Any) -> None:
    cut = {"begin": 0.4, "end": 1.2, "closing": "cut"}
    with run(execute=True):
        answer = send(signed_in, "post", f"workspaces/juno/artwork/{talk}/loops", cut)
    assert answer.status_code == 202 and answer.json()["name"] == "talk 0:00.40 to 0:01.20.webp"
    made = signed_in.get(f"{ARTWORK}/{answer.json()['id']}").json()
    assert (made["state"], made["facts"]["format"], made["facts"]["frames"]) == ("ready", "webp", 20)
    data = signed_in.get(f"{ARTWORK}/{made['id']}/original").getvalue()
    with Image.open(io.BytesIO(data)) as picture:
        shown = []
        for number in (0, 7, 19):
            picture.seek(number)
            shown.append(number_in(np.asarray(picture.convert("RGBA"))))
    assert shown == [10, 17, 29]
    assert made["plays"] and not signed_in.get(f"{ARTWORK}/{talk}").json()["plays"]
    playing = signed_in.get(f"{ARTWORK}/{made['id']}/playing")
    assert playing.content == data and "sandbox" in playing["Content-Security-Policy"]
    assert signed_in.get(f"{ARTWORK}/{talk}/playing").status_code == 404, "clips are watched where stills are taken"
    view = signed_in.get(f"{ARTWORK}/{talk}/stills").json()
    assert view["loops"] == [{"id": made["id"], "begin": 0.4, "end": 1.2}]


@pytest.mark.parametrize(
    ("cut", "says"),
    [
        ({"begin": 1.5, "end": 0.5}, "no part from"), ({"begin": 0, "end": 9}, "lasts 2"),
        ({"begin": 0, "end": 2, "speed": 0.1}, "too long"), ({"begin": 0, "speed": 0}, None),
    ],
)  # fmt: skip
def test_a_loop_that_cannot_be_is_refused_in_words(
    signed_in: Any, talk: str, cut: dict[str, Any], says: str | None
) -> None:
    answer = send(signed_in, "post", f"workspaces/juno/artwork/{talk}/loops", cut)
    assert answer.status_code == 422
    assert says is None or says in answer.json()["message"]
    assert signed_in.get(f"{ARTWORK}/{talk}/stills").json()["loops"] == []


def test_stills_become_artwork_at_full_resolution_with_their_time(signed_in: Any, talk: str, run: Any) -> None:
    with run(execute=True):
        answer = send(signed_in, "post", f"workspaces/juno/artwork/{talk}/stills", {"moments": [0.4, 1.21]})
    assert answer.status_code == 202
    names = [entry["name"] for entry in answer.json()]
    assert names == ["talk at 0:00.40.png", "talk at 0:01.21.png"]
    stills = {entry["name"]: entry for entry in signed_in.get(ARTWORK).json()}
    facts = stills[names[1]]["facts"]
    assert (stills[names[1]]["state"], facts["format"], facts["width"]) == ("ready", "png", 256)
    data = signed_in.get(f"{ARTWORK}/{stills[names[1]]['id']}/original").getvalue()
    assert number_in(np.asarray(opened(data).convert("RGBA"))) == 30
    taken = signed_in.get(f"{ARTWORK}/{talk}/stills").json()["taken"]
    assert sorted(one["seconds"] for one in taken) == [0.4, 1.21]


def test_a_clip_that_is_dropped_on_a_place_fills_it_with_its_best_still(
    signed_in: Any, place: Any, bring: Bring
) -> None:
    entry = place()
    found = bring("talk.mp4", clip(), str(entry.pk))
    assert found["targets"] == []
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] != "empty"


def test_a_clip_itself_fills_no_place(signed_in: Any, place: Any, talk: str) -> None:
    body = {"artwork": talk, "placements": [str(place().pk)]}
    assert send(signed_in, "post", "workspaces/juno/fits", body).status_code == 404


def test_a_turned_clip_gives_upright_stills(signed_in: Any, bring: Bring) -> None:
    phone = bring("phone.mp4", turned(clip(), 1))
    assert (phone["facts"]["width"], phone["facts"]["height"]) == (144, 256)
    assert opened(signed_in.get(f"{ARTWORK}/{phone['id']}/frame?at=0&width=900").content).size == (144, 256)


def test_a_browser_gets_the_clip_in_the_pieces_that_it_asks_for(signed_in: Any, talk: str, bring: Bring) -> None:
    address, data = f"{ARTWORK}/{talk}/clip", clip()
    piece = signed_in.get(address, headers={"range": "bytes=10-19"})
    assert (piece.status_code, piece.content) == (206, signed_in.get(f"{ARTWORK}/{talk}/original").getvalue()[10:20])
    assert piece["Content-Range"] == f"bytes 10-19/{len(data)}"
    assert piece["Content-Type"] == "video/mp4"
    rest = signed_in.get(address, headers={"range": "bytes=100-"})
    assert len(rest.content) == len(data) - 100
    assert signed_in.get(address, headers={"range": f"bytes={len(data)}-"}).status_code == 416
    whole = signed_in.get(address)
    assert b"".join(whole.streaming_content) == signed_in.get(f"{ARTWORK}/{talk}/original").getvalue()


@pytest.mark.parametrize("path", ["stills", "strip", "moment?at=0", "frame?at=0", "clip"])
def test_what_is_no_clip_has_no_frames(signed_in: Any, bring: Bring, path: str) -> None:
    picture = bring("photo.png", saved(photo(80, 60), "PNG"))["id"]
    assert signed_in.get(f"{ARTWORK}/{picture}/{path}").status_code == 404


@pytest.mark.parametrize("moments", [[], [-1], [1e9], [0.1] * 41, ["soon"]])
def test_moments_that_make_no_sense_are_refused(signed_in: Any, talk: str, moments: list[Any]) -> None:
    answer = send(signed_in, "post", f"workspaces/juno/artwork/{talk}/stills", {"moments": moments})
    assert answer.status_code == 422


def test_a_damaged_clip_ends_as_a_message(bring: Bring) -> None:
    found = bring("cut.mp4", clip()[:2000])
    assert found["state"] == "failed"
    assert found["message"].startswith("cut.mp4: ")


def test_further_pages_of_a_document_become_artwork(signed_in: Any, bring: Bring, run: Any) -> None:
    pages = [(100, 100, b"1 0 0 rg 20 20 60 60 re f"), (100, 80, b"0 0 1 rg 10 10 30 30 re f")]
    found = bring("slides.pdf", pdf(*pages))
    assert found["facts"]["pages"] == 2
    with run(execute=True):
        answer = send(signed_in, "post", f"workspaces/juno/artwork/{found['id']}/pages", {"pages": [2]})
    assert [entry["name"] for entry in answer.json()] == ["slides, page 2.pdf"]
    page = next(entry for entry in signed_in.get(ARTWORK).json() if entry["name"] == "slides, page 2.pdf")
    assert (page["state"], page["facts"]["colours"][0]["hex"], page["facts"]["pages"]) == ("ready", "#0000ff", 1)
    wrong = send(signed_in, "post", f"workspaces/juno/artwork/{found['id']}/pages", {"pages": [3]})
    assert (wrong.status_code, "no page 3" in wrong.json()["message"]) == (422, True)


def test_the_part_that_closes_best_is_found_near_the_one_that_was_chosen(signed_in: Any, bring: Bring) -> None:
    reel = Reel((np.asarray(frame.convert("RGBA")) for frame in rounds()), 4.0)
    data = moving_file("mp4", reel, settings_at("mp4", highest("mp4"), reel.fps), Playing())
    loops = f"{ARTWORK}/{bring('round.mp4', data)['id']}/loops/best"
    found = signed_in.get(f"{loops}?begin=0.2&end=1.4").json()
    assert found["end"] - found["begin"] == pytest.approx(1.2, abs=0.01)
    assert 1.1 <= found["begin"] <= 2.0, "inside of the shot in which it goes round"
    for wrong in ("begin=0&end=9", "begin=2&end=1", "begin=0&end=4"):
        refused = signed_in.get(f"{loops}?{wrong}")
        assert refused.status_code == 422 and refused.json()["message"]


def test_a_part_is_weighed_for_a_place_foreseen_and_made(signed_in: Any, bring: Bring) -> None:
    moves = {
        "fitzle_spec": 1, "name": "Moving header", "size": {"width": 120, "height": 40}, "formats": ["gif"],
        "max_bytes": 60_000, "motion": {"allowed": True},
    }  # fmt: skip
    still = {**moves, "name": "Cover", "formats": ["png"], "motion": {"allowed": False}}
    for sheet_ in (moves, still):
        send(signed_in, "post", "workspaces/juno/places", {"destination": "Course page", "name": "x", "sheet": sheet_})
    loops = f"{ARTWORK}/{bring('talk.mp4', clip())['id']}/loops"
    [place] = signed_in.get(f"{loops}/places").json()
    assert place["made"] == "120 × 40 px, GIF, 12.5 frames a second"
    asked = f"{loops}/weight?placement={place['id']}&begin=0.2&end=1.2"
    foreseen = signed_in.get(asked).json()
    assert foreseen["limit"] == 60_000 and not foreseen["measured"] and foreseen["words"].endswith("of 60 KB")
    made = signed_in.get(f"{asked}&make=true").json()
    assert made["measured"] and made["fits"] is (made["bytes"] <= 60_000)
    again = signed_in.get(asked).json()["bytes"]
    assert again == pytest.approx(made["bytes"], rel=0.01), "it learns from what was made"
    for wrong in ("begin=0&end=99", "begin=2&end=1"):
        refused = signed_in.get(f"{loops}/weight?placement={place['id']}&{wrong}")
        assert refused.status_code == 422 and refused.json()["message"]


def test_an_animation_takes_the_house_s_colours_and_can_be_taken_back(signed_in: Any, bring: Bring, run: Any) -> None:
    colours = [{"hex": "#0a2342", "name": "Night"}, {"hex": "#e04f1a", "name": "Ember"}]
    send(signed_in, "put", "workspaces/juno/house-style", {"colours": colours})
    drawn = bring("wheel.json", json.dumps(wheel()).encode())
    path = f"workspaces/juno/artwork/{drawn['id']}/colours"
    proposed = {one["hex"]: one["house"] for one in signed_in.get(f"/api/{path}").json()}
    assert proposed == {"#17443c": "#0a2342", "#b4541a": "#e04f1a"}
    with run(execute=True):
        assert send(signed_in, "post", path, {"colours": proposed}).status_code == 202
    now = signed_in.get(f"{ARTWORK}/{drawn['id']}").json()
    assert {one["hex"] for one in now["facts"]["colours"]} == {"#0a2342", "#e04f1a"} and len(now["earlier"]) == 1
    picture = opened(signed_in.get(f"{ARTWORK}/{drawn['id']}/picture?width=200").content).convert("RGBA")
    assert (10, 35, 66, 255) in {pixel for _, pixel in picture.getcolors(100_000)}
    for wrong, status in (({"#123456": "#ffffff"}, 422), ({"red": "#ffffff"}, 422), ({}, 422)):
        assert send(signed_in, "post", path, {"colours": wrong}).status_code == status
    assert signed_in.get(f"{ARTWORK}/{bring('a.png', saved(photo(60, 40), 'PNG'))['id']}/colours").status_code == 404
