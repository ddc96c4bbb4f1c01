"""Proofs over HTTP: scenes as data and pictures, sheets for clients, and links for a phone."""

import io
from typing import Any

import numpy as np
import pytest
from django.test import Client
from PIL import Image

from fitzle.apps.api import phone
from tests.apps.helpers import send, upload, wall_proofs
from tests.make import photo, saved

pytestmark = pytest.mark.django_db
KIND = {"kind": "video-thumbnail", "size": {"width": 320, "height": 180}, "formats": ["png"], "grounds": ["#ffffff"],
        "seen": [{"name": "list", "width": 168}], "max_bytes": None}  # fmt: skip


@pytest.fixture
def fit(signed_in: Any, place: Any, run: Any) -> str:
    entry = place(**KIND)
    upload(signed_in, "juno", "p.png", saved(photo(320, 180), "PNG"), str(entry.pk), run)
    return str(wall_proofs(signed_in, "juno")["Test place"]["fit"])


def _get(client: Any, fit: str, tail: str) -> Any:
    return client.get(f"/api/workspaces/juno/fits/{fit}/{tail}")


def test_the_scenes_of_its_kind_come_worked_out(signed_in: Any, fit: str) -> None:
    found = _get(signed_in, fit, "scenes").json()
    ids = [scene["id"] for scene in found["scenes"]]
    assert ids[0] == "video-list:light" and "page-0-0" in ids
    assert found["made"] and (found["width"], found["height"]) == (320, 180)
    seeds = {str(item["seed"]) for scene in found["scenes"] for item in scene["items"] if item["kind"] == "neighbour"}
    assert seeds == set(found["neighbours"])
    assert set(found["vision"]) == {"protan", "deutan", "tritan"}


def test_what_is_shown_is_the_very_file(signed_in: Any, fit: str) -> None:
    key = _get(signed_in, fit, "scenes").json()["shown"]
    answer = _get(signed_in, fit, f"shown?key={key}")
    assert answer["Content-Type"] == "image/png" and "immutable" in answer["Cache-Control"]
    with Image.open(io.BytesIO(answer.content)) as picture:
        assert np.asarray(picture.convert("RGB")).shape == (180, 320, 3)
    assert "no-store" in _get(signed_in, fit, "shown")["Cache-Control"]


@pytest.mark.parametrize("sight", ["usual", "deutan", "far"])
def test_a_scene_is_drawn_as_somebody_sees_it(signed_in: Any, fit: str, sight: str) -> None:
    answer = _get(signed_in, fit, f"scenes/page-0-0/picture?sight={sight}&scale=2")
    with Image.open(io.BytesIO(answer.content)) as picture:
        assert picture.width == 2 * (168 + 64)


@pytest.mark.parametrize(
    ("tail", "status"),
    [("scenes/nonsense/picture", 422), ("scenes/page-0-0/picture?sight=bee", 422), ("proof-sheet?kind=doc", 422),
     ("scenes/page-0-0/picture?scale=1e9", 200), ("proof-sheet?scenes=" + ",".join("x" * 2 for _ in range(99)), 422)],
)  # fmt: skip
def test_what_cannot_be_drawn_is_said(signed_in: Any, fit: str, tail: str, status: int) -> None:
    answer = _get(signed_in, fit, tail)
    assert answer.status_code == status
    if status == 422:
        assert answer.json()["message"]


@pytest.mark.parametrize(("kind", "begins"), [("pdf", b"%PDF"), ("png", b"\x89PNG")])
def test_a_proof_sheet_to_save(signed_in: Any, fit: str, kind: str, begins: bytes) -> None:
    answer = _get(signed_in, fit, f"proof-sheet?kind={kind}&scenes=page-0-0")
    assert answer.content.startswith(begins)
    assert f"proofs.{kind}" in answer["Content-Disposition"]


@pytest.fixture
def link(signed_in: Any, fit: str) -> str:
    """The token of a link for a phone."""
    made = send(signed_in, "post", f"workspaces/juno/fits/{fit}/phone-link").json()
    assert made["code"].startswith("<") and made["minutes"] == 30
    return str(made["address"].rsplit("/", 1)[1])


def test_a_link_shows_the_scenes_without_signing_in_and_nothing_else(link: str, fit: str) -> None:
    phone_client = Client()
    seen = phone_client.get(f"/api/seen/{link}")
    assert seen.status_code == 200 and seen.json()["scenes"]
    assert phone_client.get(f"/api/seen/{link}/shown?key={seen.json()['shown']}").content[:4] == b"\x89PNG"
    assert phone_client.get(f"/api/workspaces/juno/fits/{fit}").status_code == 401
    assert phone_client.get("/api/session").status_code == 401, "it signs nobody in"
    assert "juno" not in seen.content.decode().lower(), "nor does it say whose it is"


def test_a_link_ends_and_cannot_be_made_up(link: str, monkeypatch: pytest.MonkeyPatch) -> None:
    guessed = link[:-3] + ("aaa" if not link.endswith("aaa") else "bbb")
    for wrong in (guessed, "x", link.replace(":", ".", 1), link + "A"):
        assert Client().get(f"/api/seen/{wrong}").status_code == 404
    monkeypatch.setattr(phone, "LASTS_SECONDS", -1)
    ended = Client().get(f"/api/seen/{link}")
    assert ended.status_code == 404 and "has ended" in ended.json()["message"]


def test_a_link_to_what_was_taken_away_shows_nothing(signed_in: Any, link: str, fit: str) -> None:
    signed_in.delete(f"/api/workspaces/juno/fits/{fit}")
    assert Client().get(f"/api/seen/{link}").status_code == 404
