"""Moving places in the application: parts that move, the file that is made, its still, and what may be seen of it."""

from __future__ import annotations

import io
import json
import zipfile
from typing import Any

import pytest
from PIL import Image

from fitzle.apps.pieces import making, progress
from fitzle.apps.pieces.making import made_bytes
from fitzle.apps.pieces.models import Fit
from fitzle.apps.pieces.opening import open_fit
from fitzle.core.encode.budget import Budget
from fitzle.core.preflight.file_facts import read_file_facts
from tests.apps.helpers import content, deliver, send, upload, wall_proofs
from tests.core.test_footage import moving as moving_picture
from tests.make import svg

pytestmark = pytest.mark.django_db
BASE = "/api/workspaces/juno"
MOTION = {"allowed": True, "max_seconds": 2.0}


@pytest.fixture
def places(signed_in: Any, place: Any, run: Any) -> Any:
    """A mark in a place where it may move and in one where it may not."""
    size = {"width": 120, "height": 60}
    made = [
        place(name="Header", naming="header", formats=["gif"], size=size, motion=MOTION),
        place(name="Still", naming="still", formats=["png"], size=size),
    ]
    upload(signed_in, "juno", "mark.svg", svg(), ",".join(str(one.pk) for one in made), run)
    return made


def fit_in(client: Any, name: str) -> Any:
    return client.get(f"{BASE}/fits/{wall_proofs(client, 'juno')[name]['fit']}").json()


def file_of(fit: Any) -> bytes:
    """The file that was made for a fit."""
    found = Fit.objects.select_related("piece__workspace").get(pk=fit["id"])
    opened = open_fit(found.piece.workspace, found)
    assert opened.record
    return made_bytes(found.piece.workspace, opened.record.files[0].sha256)


def let_move(client: Any, run: Any, fit: Any, liveliness: float | None) -> Any:
    with run(execute=True):
        return send(client, "post", f"workspaces/juno/fits/{fit['id']}/motion", {"liveliness": liveliness})


def test_a_piece_moves_where_it_may_and_its_stills_are_left_alone(signed_in: Any, places: Any, run: Any) -> None:
    still, header = fit_in(signed_in, "Still"), fit_in(signed_in, "Header")
    before = file_of(still)
    assert let_move(signed_in, run, header, 0.6).status_code == 200
    moved = fit_in(signed_in, "Header")
    assert moved["file"]["format"] == "gif" and moved["state"] in ("fits", "risky")
    with Image.open(io.BytesIO(file_of(moved))) as picture:
        assert picture.n_frames > 5 and picture.size == (120, 60)
    assert file_of(fit_in(signed_in, "Still")) == before
    proofs = wall_proofs(signed_in, "juno")
    assert proofs["Header"]["seconds"] > 0.5 and proofs["Header"]["file_key"] and proofs["Still"]["seconds"] is None
    told = signed_in.get(f"{BASE}/fits/{moved['id']}/motion").json()
    assert told["moves"] and told["period"] <= 2.0 and [track["name"] for track in told["tracks"]]
    assert not signed_in.get(f"{BASE}/fits/{still['id']}/motion").json()["allowed"]
    assert let_move(signed_in, run, moved, None).status_code == 200
    with Image.open(io.BytesIO(file_of(moved))) as picture:
        assert getattr(picture, "n_frames", 1) == 1
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/pieces/{moved['piece']['id']}/undo")
    assert signed_in.get(f"{BASE}/fits/{moved['id']}/motion").json()["moves"], "and it can be taken back"


def test_a_ground_of_more_than_one_colour_can_be_let_turn(signed_in: Any, places: Any, run: Any) -> None:
    header = fit_in(signed_in, "Header")
    let_move(signed_in, run, header, 0.5)
    ground = next(part["id"] for part in fit_in(signed_in, "Header")["here"].values() if part["role"] == "ground")

    def change(field: str, value: Any) -> Any:
        now = fit_in(signed_in, "Header")
        changes = [{"act": "set", "part": ground, "field": field, "value": value}]
        body = {"revision": now["piece"]["revision"], "step": field, "changes": changes}
        with run(execute=True):
            assert send(signed_in, "patch", f"workspaces/juno/fits/{now['id']}", body).status_code == 200
        return signed_in.get(f"{BASE}/fits/{now['id']}/motion").json()

    stops = [{"at": 0, "colour": "#17443c"}, {"at": 1, "colour": "#f4d06f"}]
    told = change("fill", {"kind": "gradient", "stops": stops})
    own = next(track for track in told["tracks"] if track["ground"])
    assert own["choices"]["keepings"] == ["turn"] and own["motion"]["keep"] is None
    told = change("motion", {"period": told["period"], "keep": own["choices"]["keep"]})
    assert next(track for track in told["tracks"] if track["ground"])["motion"]["keep"]["how"] == "turn"


def test_the_loop_can_be_watched_before_its_file_is_made(signed_in: Any, places: Any, run: Any) -> None:
    header = fit_in(signed_in, "Header")
    let_move(signed_in, run, header, 0.9)
    answer = signed_in.get(f"{BASE}/fits/{header['id']}/motion/playing?width=480&key=abc")
    with Image.open(io.BytesIO(answer.content)) as picture:
        assert picture.format == "WEBP" and picture.n_frames >= 8 and picture.width <= 480
    assert "immutable" in answer["Cache-Control"]
    told = signed_in.get(f"{BASE}/fits/{header['id']}/motion").json()
    assert told["frames"] == pytest.approx(told["period"] * 12.5, abs=1)
    address = f"{BASE}/fits/{header['id']}/motion/frames?width=240&key=abc"
    with Image.open(io.BytesIO(signed_in.get(f"{address}&first=0&count=1").content)) as first:
        one = first.size
    with Image.open(io.BytesIO(signed_in.get(f"{address}&first={told['frames'] - 2}&count=8").content)) as last:
        assert last.size == (one[0], 2 * one[1]), "no frame after the last"
    refused = signed_in.get(f"{address}&first={told['frames']}&count=1")
    assert refused.status_code == 422 and "no such frames" in refused.json()["message"]


def test_who_waits_for_a_moving_file_is_told_what_is_being_done(
    signed_in: Any, places: Any, run: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    header, seen = fit_in(signed_in, "Header"), list[str]()
    monkeypatch.setattr(making, "teller", lambda _workspace, _key, _budget: seen.append)
    let_move(signed_in, run, header, 0.5)
    assert any("Drawing" in words for words in seen) and any("frames a second" in words for words in seen)
    assert fit_in(signed_in, "Header")["making"] == "", "it is made"
    workspace = Fit.objects.get(pk=header["id"]).piece.workspace_id
    progress.teller(workspace, "another", Budget())("Comparing")
    assert progress.told(workspace, "another") == "Comparing" and progress.told(workspace + 1, "another") == ""


def test_who_has_waited_enough_gets_the_best_so_far(signed_in: Any, places: Any, run: Any) -> None:
    header = fit_in(signed_in, "Header")
    found = Fit.objects.select_related("piece__workspace").get(pk=header["id"])
    workspace, budget = found.piece.workspace, Budget()
    tell = progress.teller(workspace.pk, open_fit(workspace, found).file_key, budget)
    tell("Drawing 40 frames")
    assert budget.allows()
    assert send(signed_in, "post", f"workspaces/juno/fits/{header['id']}/enough").status_code == 200
    tell("Comparing 3 ways")
    assert not budget.allows() and budget.ended_early
    again = Budget()
    progress.teller(workspace.pk, open_fit(workspace, found).file_key, again)("Drawing")
    assert again.allows(), "the next search of it is not ended by what was said of this one"


def test_a_place_for_stills_says_that_it_takes_no_motion(signed_in: Any, places: Any, run: Any) -> None:
    answer = let_move(signed_in, run, fit_in(signed_in, "Still"), 0.5)
    assert answer.status_code == 422 and "takes no moving picture" in answer.json()["message"]


def test_a_moving_picture_that_was_brought_in_moves_in_a_moving_place(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(name="Banner", formats=["webp"], size={"width": 40, "height": 30}, motion={"allowed": True})
    upload(signed_in, "juno", "old.gif", moving_picture("GIF", [100, 300, 200]), str(entry.pk), run)
    fit = fit_in(signed_in, "Banner")
    with Image.open(io.BytesIO(file_of(fit))) as picture:
        assert picture.format == "WEBP" and picture.n_frames >= 3


def test_its_still_goes_with_it_and_its_candidates_can_be_looked_at(signed_in: Any, places: Any, run: Any) -> None:
    header = fit_in(signed_in, "Header")
    let_move(signed_in, run, header, 0.6)
    table = signed_in.get(f"{BASE}/fits/{header['id']}/candidates").json()
    one = next(row for row in table["candidates"] if row["chosen"])
    assert "frames a second" in one["words"]
    query = {"format": one["format"], "settings": json.dumps(one["settings"])}
    for part in ("picture", "errors"):
        assert signed_in.get(f"{BASE}/fits/{header['id']}/candidates/{part}", query)["Content-Type"] == "image/png"
    assert signed_in.get(f"{BASE}/fits/{header['id']}/candidates/look", query).json()["score"] > 50
    tried = signed_in.get(f"{BASE}/fits/{header['id']}/candidates/try", {"format": "gif", "colours": 8})
    assert tried.status_code == 422 and "moving file" in tried.json()["message"]
    handing = {"replacing": "rule", "also": ["png"]}
    send(signed_in, "put", f"workspaces/juno/places/{places[0].pk}/handing", handing)
    ready = signed_in.get(f"{BASE}/deliveries/ready").json()["fits"]
    own = next(fit for fit in ready if fit["fit"] == header["id"])
    assert [file["name"] for file in own["files"]] == ["header.gif", "header.png"]
    assert any("still" in variant["words"] for variant in own["variants"])
    deliver(signed_in, {"fits": [header["id"]]})
    newest = signed_in.get(f"{BASE}/deliveries").json()[0]
    with zipfile.ZipFile(io.BytesIO(content(signed_in.get(f"{BASE}/deliveries/{newest['id']}/zip")))) as archive:
        names = {name.rsplit("/", 1)[-1] for name in archive.namelist()}
    assert {"header.gif", "header.png"} <= names
    given = next(file for file in newest["files"] if file["name"] == "header.gif")
    for query, fmt in (("", "PNG"), ("?playing=true", "GIF")):
        picture = signed_in.get(f"{BASE}/deliveries/files/{given['id']}/picture{query}")
        with Image.open(io.BytesIO(picture.content)) as opened:
            assert opened.format == fmt, "nothing plays by itself"


@pytest.mark.parametrize(("fmt", "ending"), [("lottie", "json"), ("mp4", "mp4"), ("webm", "webm")])
def test_a_place_of_animations_or_videos(signed_in: Any, place: Any, run: Any, fmt: str, ending: str) -> None:
    size = {"width": 120, "height": 60}
    entry = place(name="Loop", naming="loop", formats=[fmt], size=size, motion=MOTION | {"required": True})
    upload(signed_in, "juno", "mark.svg", svg(), str(entry.pk), run)
    fit = fit_in(signed_in, "Loop")
    assert fit["state"] == "refused" and "Let its parts move" in str(fit["findings"])
    let_move(signed_in, run, fit, 0.6)
    moved = fit_in(signed_in, "Loop")
    assert moved["file"]["format"] == fmt and moved["state"] in ("fits", "risky"), moved["findings"]
    facts = read_file_facts(file_of(moved))
    assert (facts.format, facts.size, facts.frames > 5) == (fmt, (120, 60), True)
    ready = signed_in.get(f"{BASE}/deliveries/ready").json()["fits"]
    assert [file["name"] for file in ready[0]["files"]] == [f"loop.{ending}"]
    table = signed_in.get(f"{BASE}/fits/{moved['id']}/candidates").json()
    one = next(row for row in table["candidates"] if row["chosen"])
    query = {"format": one["format"], "settings": json.dumps(one["settings"])}
    for part in ("picture", "errors"):
        assert signed_in.get(f"{BASE}/fits/{moved['id']}/candidates/{part}", query)["Content-Type"] == "image/png"
