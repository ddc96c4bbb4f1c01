"""Places learnt by showing them: looked for by a worker, never of anybody else's workspace."""

import io
from typing import Any

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from PIL import Image

from fitzle.apps.destinations.learning import MOST_AT_ONCE, TOO_MUCH, end_unlearnt
from fitzle.apps.destinations.models import Learning
from tests.apps.helpers import send, upload, wall_proofs
from tests.learning_cases import Look, Maker, put

pytestmark = pytest.mark.django_db
LEARN = "/api/workspaces/juno/places/learn"


def png(picture: Image.Image) -> bytes:
    out = io.BytesIO()
    picture.save(out, "PNG")
    return out.getvalue()


@pytest.fixture(scope="module")
def shown() -> tuple[bytes, bytes]:
    make = Maker(6)
    picture = make.painted(600, 0.5)
    shot = Image.new("RGB", (900, 600), "#202428")
    put(make, shot, picture, (120, 80, 400, 160), Look("rounded", 12, ((0, 0, 0), 0.3)))
    return png(picture), png(shot)


def learnt(client: Any, run: Any, picture: bytes | None, shot: bytes, **more: Any) -> Any:
    files = {"screenshot": SimpleUploadedFile("shot.png", shot)}
    if picture is not None:
        files["picture"] = SimpleUploadedFile("Spring banner.png", picture)
    with run(execute=True):
        answer = client.post(LEARN, files | more)
    if answer.status_code != 202:
        return answer.json()
    return client.get(f"{LEARN}/{answer.json()['id']}").json()


def test_a_place_is_learnt_and_ends_in_a_sheet(signed_in: Any, run: Any, shown: tuple[bytes, bytes]) -> None:
    told = learnt(signed_in, run, *shown, density=2)
    assert (told["done"], told["progress"], told["message"]) == (True, 100, "")
    [place] = told["places"]
    sheet = place["shown"]["sheet"]
    assert not place["relative"] and place["learnt"]["sure"] > 0.7
    assert (sheet["name"], sheet["formats"], sheet["grounds"]) == ("Spring banner", ["png"], ["#202428"])
    assert sheet["seen"] == [{"name": "page", "width": 200, "density": 2.0}]
    assert sheet["mask"]["radius"] == pytest.approx(12 / 160, abs=0.01)
    assert sheet["veil"]["opacity"] == pytest.approx(0.3, abs=0.02)
    added = send(signed_in, "post", "workspaces/juno/places", {"destination": "Shop", "name": "Banner", "sheet": sheet})
    assert added.status_code == 201


def test_answers_change_the_sheet_and_keep_nothing(signed_in: Any, run: Any, shown: tuple[bytes, bytes]) -> None:
    told = learnt(signed_in, run, *shown)
    path = f"workspaces/juno/places/learn/{told['id']}/0"
    plain = send(signed_in, "post", path, {"veil": False, "cut": "none"}).json()["sheet"]
    assert plain.get("veil") is None and plain.get("mask") is None
    assert send(signed_in, "post", path, {"cut": "circle"}).json()["sheet"]["mask"] == {"shape": "circle"}
    assert send(signed_in, "post", path, {"cut": "star"}).status_code == 422
    assert send(signed_in, "post", path.removesuffix("0") + "7", {}).status_code == 404


def test_a_box_on_a_screenshot_alone_gives_ratio_size_and_grounds(
    signed_in: Any, run: Any, shown: tuple[bytes, bytes]
) -> None:
    told = learnt(signed_in, run, None, shown[1], x=117, y=84, width=408, height=152)
    [place] = told["places"]
    box, sheet = place["learnt"]["box"], place["shown"]["sheet"]
    assert box == {"x": 120, "y": 80, "width": 400, "height": 160}, "the drawn edges are made exact"
    assert (sheet["size"], sheet["grounds"]) == ({"width": 800, "height": 320}, ["#202428"])
    assert sheet["seen"][0]["width"] == 400


def test_what_is_not_there_is_said(signed_in: Any, run: Any, shown: tuple[bytes, bytes]) -> None:
    told = learnt(signed_in, run, shown[0], png(Image.new("RGB", (500, 400), "#ffffff")))
    assert (told["done"], told["places"]) == (True, [])
    assert told["message"].startswith("The picture is not in this screenshot.")


@pytest.mark.parametrize(
    ("picture", "shot", "more", "said"),
    [
        (b"no picture", None, {}, "not a picture that Fitzle knows"),
        (None, b"", {"width": 50, "height": 50}, "empty"),
        (None, None, {}, "neither a picture nor a box"),
        (None, None, {"width": 3, "height": 3}, "smaller than 8 px"),
        (None, None, {"x": 5000, "width": 60, "height": 60}, "smaller than 8 px"),
        (b"x", None, {"density": 7}, "density"),
        (b"x", None, {"density": "nan"}, "density"),
    ],
)
def test_bad_input_is_said_in_words(
    signed_in: Any, run: Any, shown: tuple[bytes, bytes], picture: Any, shot: Any, more: dict[str, Any], said: str
) -> None:
    told = learnt(signed_in, run, picture, shown[1] if shot is None else shot, **more)
    assert said in told["message"]


def test_an_enormous_screenshot_is_said_in_words(signed_in: Any, run: Any, shown: tuple[bytes, bytes]) -> None:
    long = png(Image.fromarray(np.zeros((20_100, 30, 3), np.uint8)))
    assert "20,000 px" in learnt(signed_in, run, shown[0], long)["message"]


def test_a_picture_that_is_there_twice_is_offered_twice(signed_in: Any, run: Any) -> None:
    make = Maker(8)
    picture, shot = make.painted(600, 0.5), Image.new("RGB", (1000, 700), "#f2efe6")
    for box in ((40, 40, 420, 210), (520, 380, 300, 150)):
        put(make, shot, picture.resize((600, 300)), box, Look())
    told = learnt(signed_in, run, png(picture.resize((600, 300))), png(shot))
    assert sorted(round(place["learnt"]["box"]["width"]) for place in told["places"]) == [300, 420]


def test_a_worker_that_ends_leaves_words(signed_in: Any, run: Any, shown: tuple[bytes, bytes], juno: Any) -> None:
    left = Learning.objects.create(workspace=juno[1], screenshot="0" * 64, name="x")
    end_unlearnt(str(left.pk))
    assert signed_in.get(f"{LEARN}/{left.pk}").json()["message"] == TOO_MUCH


def test_nobody_has_a_hundred_looked_through_at_once(
    signed_in: Any, run: Any, shown: tuple[bytes, bytes], juno: Any
) -> None:
    for _ in range(MOST_AT_ONCE):
        Learning.objects.create(workspace=juno[1], screenshot="0" * 64, name="x")
    assert "Wait for one of them" in learnt(signed_in, run, *shown)["message"]


def test_others_see_nothing_of_it(signed_in: Any, run: Any, shown: tuple[bytes, bytes], make_person: Any) -> None:
    told = learnt(signed_in, run, *shown)
    stranger = Client()
    stranger.force_login(make_person("mallory")[0], "django.contrib.auth.backends.ModelBackend")
    for path in (f"{LEARN}/{told['id']}", f"/api/workspaces/mallory/places/learn/{told['id']}"):
        assert stranger.get(path).status_code == 404


def test_a_place_that_was_shown_is_seen_in_its_screenshot(
    signed_in: Any, run: Any, place: Any, shown: tuple[bytes, bytes]
) -> None:
    told = learnt(signed_in, run, *shown, density=2)
    sheet = told["places"][0]["shown"]["sheet"]
    body = {"destination": "Shop", "name": "Banner", "sheet": sheet, "learning": told["id"], "found": 0}
    added = send(signed_in, "post", "workspaces/juno/places", body).json()
    upload(signed_in, "juno", "p.png", shown[0], added["id"], run)
    fit = wall_proofs(signed_in, "juno")["Banner"]["fit"]
    found = signed_in.get(f"/api/workspaces/juno/fits/{fit}/scenes").json()
    scene = found["scenes"][0]
    assert (scene["id"], scene["density"]) == ("shot", 2)
    own = signed_in.get(f"/api/workspaces/juno/fits/{fit}/shot?key={found['shot']}")
    assert own["Content-Type"] == "image/png" and "immutable" in own["Cache-Control"]
    assert Image.open(io.BytesIO(own.content)).size == (scene["width"] * 2, scene["height"] * 2)
    address = send(signed_in, "post", f"workspaces/juno/fits/{fit}/phone-link", {}).json()["address"]
    assert Client().get(f"/api/seen/{address.rpartition('/')[2]}/shot").content == own.content
    upload(signed_in, "juno", "p.png", shown[0], str(place(name="In words").pk), run)
    other = wall_proofs(signed_in, "juno")["In words"]["fit"]
    answer = signed_in.get(f"/api/workspaces/juno/fits/{other}/shot")
    assert answer.status_code == 404 and "screenshot" in answer.json()["message"]
    clip = next(item for item in scene["items"] if item["kind"] == "picture")["clip"]
    box = told["places"][0]["learnt"]["box"]
    assert (clip["width"], clip["height"]) == pytest.approx((box["width"] / 2, box["height"] / 2), abs=0.01)
    drawn = signed_in.get(f"/api/workspaces/juno/fits/{fit}/scenes/shot/picture?scale=2")
    with Image.open(io.BytesIO(drawn.content)) as picture, Image.open(io.BytesIO(shown[1])) as shot:
        left, top = box["x"] - clip["x"] * 2, box["y"] - clip["y"] * 2
        corner = round(left), round(top)
        there = shot.convert("RGB").crop((*corner, corner[0] + picture.width, corner[1] + picture.height))
        apart = np.abs(np.asarray(there, dtype=int) - np.asarray(picture.convert("RGB"), dtype=int))
    assert apart.mean() < 8, "the same picture in the same place looks as it did"


def test_a_screenshot_of_others_is_nobodys_scene(
    signed_in: Any, run: Any, shown: tuple[bytes, bytes], make_person: Any
) -> None:
    told = learnt(signed_in, run, *shown)
    sheet = told["places"][0]["shown"]["sheet"]
    stranger = Client()
    stranger.force_login(make_person("mallory")[0], "django.contrib.auth.backends.ModelBackend")
    body = {"name": "Banner", "sheet": sheet, "learning": told["id"], "found": 0}
    assert send(stranger, "post", "workspaces/mallory/places", body).status_code == 404
