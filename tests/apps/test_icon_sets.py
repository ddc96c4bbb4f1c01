"""An icon set as one rendition: made from a mark in one action, seen in scenes, named, moved and handed over whole."""

from __future__ import annotations

import io
import json
import zipfile
from typing import Any

import numpy as np
import pytest
from demo.marks import MARKS
from PIL import Image

from fitzle.apps.files.keeping import forget
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.pieces.models import Rendition
from tests.apps.helpers import content, send, upload, wall_proofs
from tests.core.judged import drawings
from tests.make import svg

pytestmark = pytest.mark.django_db
NAMES = [
    "favicon.ico", "icon.svg", "touch-icon-180.png", "icon-192.png", "icon-512.png", "icon-maskable-512.png",
    "link-preview.png", "site.webmanifest", "icons.html",
]  # fmt: skip


def made(client: Any, run: Any, data: bytes = MARKS["wheel-badge.svg"].encode(), name: str = "badge.svg") -> str:
    artwork = upload(client, "juno", name, data, run=run)
    with run(execute=True):
        answer = send(client, "post", f"workspaces/juno/artwork/{artwork['id']}/icons")
    assert answer.status_code == 200, answer.content
    return str(answer.json()["fit"])


def icons(client: Any, fit: str) -> Any:
    return client.get(f"/api/workspaces/juno/fits/{fit}/icons").json()


def test_one_action_makes_the_whole_set(signed_in: Any, run: Any) -> None:
    told = icons(signed_in, made(signed_in, run))
    assert told["made"] and [one["name"] for one in told["files"]] == NAMES
    assert all(one["use"] and one["bytes"] for one in told["files"])
    assert "/icon.svg" in told["lines"] and told["usual_title"] == "badge"
    proof = wall_proofs(signed_in, "juno")["Icon set"]
    assert proof["state"] in ("fits", "risky") and Rendition.objects.count() == 1


def test_asked_again_the_same_set_is_shown_and_another_mark_has_its_own(signed_in: Any, run: Any) -> None:
    first = made(signed_in, run)
    artwork = signed_in.get("/api/workspaces/juno/artwork").json()[0]["id"]
    assert send(signed_in, "post", f"workspaces/juno/artwork/{artwork}/icons").json()["fit"] == first
    second = made(signed_in, run, MARKS["ding.svg"].encode(), "ding.svg")
    assert second != first and {"Icon set", "Icon set 2"} <= wall_proofs(signed_in, "juno").keys()


def test_each_file_can_be_saved_and_all_in_one_zip(signed_in: Any, run: Any) -> None:
    fit = made(signed_in, run)
    base = f"/api/workspaces/juno/fits/{fit}/icons"
    with zipfile.ZipFile(io.BytesIO(content(signed_in.get(f"{base}/zip")))) as archive:
        assert archive.namelist() == NAMES and archive.testzip() is None
        for name in NAMES:
            answer = signed_in.get(f"{base}/{name}")
            assert content(answer) == archive.read(name) and "attachment" in answer["Content-Disposition"]
    assert signed_in.get(f"{base}/tab-16.png").status_code == 404, "what only shows people something is no file of it"


def test_name_and_folder_are_kept_with_the_set(signed_in: Any, run: Any) -> None:
    fit = made(signed_in, run)
    with run(execute=True):
        given = {"wish": {"path": "/pictures/", "title": "Ottermoor Cycle Works"}}
        assert send(signed_in, "put", f"workspaces/juno/fits/{fit}/wish", given).status_code == 200
    told = icons(signed_in, fit)
    assert 'href="/pictures/icon.svg"' in told["lines"] and told["path"] == "/pictures/"
    manifest = json.loads(content(signed_in.get(f"/api/workspaces/juno/fits/{fit}/icons/site.webmanifest")))
    assert (manifest["name"], manifest["short_name"]) == ("Ottermoor Cycle Works", "Ottermoor")
    refused = send(signed_in, "put", f"workspaces/juno/fits/{fit}/wish", {"wish": {"path": "/../etc"}})
    assert refused.status_code == 422 and icons(signed_in, fit)["path"] == "/pictures/"


def shown(client: Any, fit: str, scene: str) -> Image.Image:
    return Image.open(io.BytesIO(content(client.get(f"/api/workspaces/juno/fits/{fit}/shown?scene={scene}"))))


def test_every_scene_shows_the_icon_that_is_taken_there(signed_in: Any, run: Any) -> None:
    fit = made(signed_in, run, drawings.star("#101820").encode(), "star.svg")
    scenes = signed_in.get(f"/api/workspaces/juno/fits/{fit}/scenes").json()
    ids = {one["id"] for one in scenes["scenes"]}
    assert scenes["each"] and {"tab-strip:light", "tab-strip:dark-2", "home-circle:light", "home-squircle:dark"} <= ids
    assert shown(signed_in, fit, "tab-strip:light").size == (16, 16)
    assert shown(signed_in, fit, "tab-strip:light-2").size == (32, 32)
    assert shown(signed_in, fit, "home-rounded:light").size == (180, 180)
    light, dark = (np.asarray(shown(signed_in, fit, f"tab-strip:{tone}").convert("RGBA")) for tone in ("light", "dark"))
    assert light[8, 8, :3].mean() < 60 and dark[8, 8, :3].mean() > 110
    picture = signed_in.get(f"/api/workspaces/juno/fits/{fit}/scenes/tab-strip:dark/picture?scale=1")
    drawn = np.asarray(Image.open(io.BytesIO(content(picture))))
    assert drawn[22, 136, :3].mean() > 110, "the scene that the server draws has the dark version too"
    assert signed_in.get(f"/api/workspaces/juno/fits/{fit}/shown?scene=nowhere").status_code == 422


def test_a_version_for_dark_stands_on_dark_tabs(signed_in: Any, run: Any) -> None:
    dark = upload(signed_in, "juno", "star-light.svg", drawings.star("#f4d06f").encode(), run=run)
    fit = made(signed_in, run, drawings.star("#101820").encode(), "star.svg")
    own = next(one for one in signed_in.get("/api/workspaces/juno/artwork").json() if one["name"] == "star.svg")
    with run(execute=True):
        joined = send(signed_in, "put", f"workspaces/juno/artwork/{own['id']}/version-of", {"artwork": dark["id"]})
        assert joined.status_code == 204, joined.content
    assert b"#f4d06f" in content(signed_in.get(f"/api/workspaces/juno/fits/{fit}/icons/icon.svg")).lower()


def test_what_there_is_to_say_of_the_set_is_a_finding(signed_in: Any, run: Any) -> None:
    fit = made(signed_in, run, MARKS["ottermoor-dark.svg"].encode(), "words.svg")
    found = signed_in.get(f"/api/workspaces/juno/fits/{fit}").json()["findings"]
    assert [one for one in found if one["rule"] == "smudge" and "16 px" in one["message"]]


def test_one_lost_icon_has_the_whole_set_made_anew(signed_in: Any, run: Any) -> None:
    fit = made(signed_in, run)
    rendition = Rendition.objects.get()
    lost = next(one for one in rendition.beside if one["name"] == "icon.svg")
    before = content(signed_in.get(f"/api/workspaces/juno/fits/{fit}/icons/icon.svg"))
    forget(Shelf.MADE, rendition.workspace_id, lost["sha256"])
    with run(execute=True):
        assert signed_in.get(f"/api/workspaces/juno/fits/{fit}/icons/icon.svg").status_code == 422
    assert content(signed_in.get(f"/api/workspaces/juno/fits/{fit}/icons/icon.svg")) == before


def test_a_place_for_one_picture_has_no_icons(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(name="Badge")
    upload(signed_in, "juno", "mark.svg", svg(), str(entry.pk), run)
    fit = wall_proofs(signed_in, "juno")["Badge"]["fit"]
    told = icons(signed_in, fit)
    assert not told["made"] and told["files"] == []
    assert signed_in.get(f"/api/workspaces/juno/fits/{fit}/icons/zip").status_code == 404


def test_a_set_leaves_with_its_workspace(signed_in: Any, run: Any) -> None:
    made(signed_in, run)
    with zipfile.ZipFile(io.BytesIO(content(signed_in.get("/api/workspaces/juno/export")))) as archive:
        document = json.loads(archive.read("workspace.json"))
    kinds = [place["sheet"]["kind"] for shelf in document["destinations"] for place in shelf["placements"]]
    assert "icon-set" in kinds
