"""Who may see what, signing in, and the headers that keep the pages safe."""

import re
from datetime import timedelta
from typing import Any

import pytest
from django.test import Client
from django.utils import timezone

from fitzle.apps.asking.models import Question
from fitzle.apps.destinations.models import Learning
from fitzle.apps.watermarking.models import Watermarking
from tests.apps.helpers import deliver, send, sign_in, upload, wall_proofs
from tests.make import sheet, svg

pytestmark = pytest.mark.django_db


def routes() -> list[tuple[str, str]]:
    """Each route below a workspace with each of its methods."""
    from fitzle.apps.api.root import api

    paths = api.get_openapi_schema(path_prefix="/api/")["paths"]
    found = [(method, path) for path, methods in paths.items() for method in methods if "{workspace}" in path]
    assert len(found) > 40
    return found


@pytest.fixture
def full_paths(signed_in: Any, place: Any, run: Any, juno: Any) -> dict[str, str]:
    """The ids of one real thing of each kind in Juno's workspace."""
    entry = place()
    learning = Learning.objects.create(workspace=juno[1], screenshot="0" * 64, name="x")
    artwork = upload(signed_in, "juno", "m.svg", svg(), str(entry.pk), run)
    fit = wall_proofs(signed_in, "juno")["Test place"]["fit"]
    piece = signed_in.get(f"/api/workspaces/juno/fits/{fit}").json()["piece"]["id"]
    ends = timezone.now() + timedelta(days=1)
    question = Question.objects.create(workspace=juno[1], piece_id=piece, placement=entry, token="x", ends_at=ends)
    delivery = deliver(signed_in, {}).json()
    run_path = f"workspaces/juno/pieces/{piece}/run"
    with run(execute=True):
        changes = [{"act": "name", "name": "shows", "target": {"part": "mark", "field": "artwork"}}]
        send(signed_in, "patch", run_path.removesuffix("/run"), {"revision": 1, "step": "x", "changes": changes})
        row = send(signed_in, "post", run_path).json()["rows"][0]["id"]
    watermark = Watermarking.objects.create(workspace=juno[1], mark_id=artwork["id"])
    picture = watermark.pictures.create(position=1, name="a.jpg", original="0" * 64, original_bytes=1)
    return {
        "artwork": artwork["id"], "fit": fit, "piece": piece, "delivery": delivery["id"],
        "file": delivery["files"][0]["id"], "name": "choose-ground", "placement": str(entry.pk), "number": "0",
        "learning": str(learning.pk), "destination": str(entry.destination_id), "part": "headline",
        "kind": "dark-version", "way": "undo", "revision": "1", "rule": "busy", "scene": "page-0-0",
        "question": str(question.pk), "row": row,
        "field": "shows", "watermark": str(watermark.pk), "picture": str(picture.pk),
    }  # fmt: skip


OF_THINGS = ("post /fits", "post /shared-files", "post /watermarks")  # their bodies name what only Juno has
NO_PLACE = "00000000-0000-4000-8000-000000000000"
BODIES: dict[str, Any] = {
    "post /places/learn/{learning}/{number}": {},
    "patch /destinations/{destination}": {"name": "x"},
    "post /places/{placement}/effect": {"sheet": sheet().model_dump(mode="json")},
    "patch /artwork/{artwork}": {"name": "x"},
    "put /fits/{fit}/wish": {"wish": {"format": "png"}},
    "patch /fits/{fit}": {"revision": 1, "step": "x", "changes": []},
    "patch /pieces/{piece}": {"revision": 1, "step": "x", "changes": []},
    "post /fits": {"artwork": "{artwork}", "placements": ["suited"]},
    "post /deliveries": {},
    "post /watermarks": {"mark": NO_PLACE},
    "patch /watermarks/{watermark}": {},
    "post /watermarks/{watermark}/start": {},
    "post /fits/{fit}/motion": {},
    "put /fits/{fit}/composed": {"on": True},
    "put /deliveries/files/{file}/live": {"live": True},
    "post /tokens": {"name": "CI", "scopes": []},
    "put /destinations/{destination}/connection": {"address": "https://a.example", "folder": "x"},
    "put /places/{placement}/handing": {"replacing": "same"},
    "put /fits/{fit}/fields": {"values": {}},
    "patch ": {"name": "x"},
    "post /places/read": {"words": "9 x 9 px"},
    "post /fits/{fit}/takes": {},
    "post /fits/{fit}/choose": {},
    "post /fits/{fit}/elsewhere": {"placements": [NO_PLACE]},
    "post /fits/{fit}/questions": {"scene": "page-0-0"},
    "put /fits/{fit}/muted/{rule}": {"reason": "meant so"},
    "post /shared-files": {"places": [NO_PLACE], "leader": NO_PLACE},
    "post /places/look": {"sheet": {}},
    "post /places": {"destination": "x", "name": "x", "sheet": sheet().model_dump(mode="json")},
    "patch /places/{placement}": {"name": "x"},
    "post /fits/{fit}/parts": {"revision": 1, "role": "headline"},
    "post /placements/{placement}/pieces": {"starting_point": 0},
    "put /artwork/{artwork}/preparation": {"revision": 0, "document": {"steps": []}, "step": "x"},
    "patch /pieces/{piece}/run": {"changes": [], "step": "x"},
    "post /pieces/{piece}/run/paste": {"rows": [], "fields": [], "text": ""},
    "put /pieces/{piece}/run/naming": {"rule": ""},
    "post /pieces/{piece}/run/files": {},
    "put /pieces/{piece}/run/sizes/{part}": {"on": False},
    "put /pieces/{piece}/run/faces/{field}": {"on": False},
    "put /pieces/{piece}/run/prepared/{field}": {"row": "r"},
    "post /pieces/{piece}/run/deliveries": {},
    "post /glyphs": {"name": "bike"},
    "put /house-style": {"colours": []},
    "post /artwork/{artwork}/stills": {"moments": [0]},
    "post /artwork/{artwork}/colours": {"colours": {"#17443c": "#ffffff"}},
    "post /artwork/{artwork}/loops": {"begin": 0, "end": 1},
    "post /artwork/from-web": {"address": "https://pictures.example/a.png"},
    "put /artwork/{artwork}/version-of": {"artwork": None},
    "post /artwork/{artwork}/pages": {"pages": [1]},
    "post /artwork/{artwork}/preparation/proposals/{kind}": {"step": "a"},
}


LOSSLESS = "?format=png&settings=%7B%22kind%22%3A%22lossless%22%7D"
QUERIES = {
    "/fits/{fit}/candidates/picture": LOSSLESS,
    "/fits/{fit}/candidates/errors": LOSSLESS,
    "/fits/{fit}/candidates/look": LOSSLESS,
    "/fits/{fit}/candidates/try": "?format=png",
    "/fits/{fit}/prepared/{part}": "?step=clean%20edge",
    "/pieces/{piece}/run/seen": "?rows=r",
    "/harmonies": "?colour=%2317443c",
    "/artwork/{artwork}/moment": "?at=0",
    "/artwork/{artwork}/loops/best": "?begin=0&end=1",
    "/artwork/{artwork}/loops/weight": f"?begin=0&end=1&placement={NO_PLACE}",
    "/artwork/{artwork}/frame": "?at=0",
    "/fits/{fit}/contrasts": "?part=mark&colours=fff",
    "/typefaces/sample": "?family=Anton&text=x",
    "/typefaces/file": "?family=Anton",
}


def test_a_stranger_gets_404_on_every_route_and_a_passer_by_401(full_paths: dict[str, str], make_person: Any) -> None:
    stranger = Client()
    stranger.force_login(make_person("mallory")[0], "django.contrib.auth.backends.ModelBackend")
    wrong = [answer for route in routes() for answer in _wrong_answers(stranger, full_paths, *route)]
    assert not wrong


def _wrong_answers(stranger: Client, full_paths: dict[str, str], method: str, path: str) -> list[tuple[str, str, int]]:
    """What a route tells somebody with Juno's workspace, or her ids in a workspace of their own, if not 404 or 401."""
    wrong = []
    tail = path.split("{workspace}")[1]
    body = BODIES.get(f"{method} {tail}")
    if body and "artwork" in body:
        body = {**body, "artwork": full_paths["artwork"]}
    tail += QUERIES.get(tail, "")
    filled = re.sub(r"{(\w+)}", lambda found: full_paths[found[1]], tail)
    for client, slug, expected in (
        (stranger, "juno", {404}),
        (stranger, "mallory", {404} if "{" in tail or f"{method} {tail}" in OF_THINGS else {200, 201, 202, 204, 422}),
        (Client(), "juno", {401}),
    ):
        answer = _call(client, method, f"/api/workspaces/{slug}{filled}", body)
        if answer.status_code not in expected:
            wrong.append((method, answer.request["PATH_INFO"], answer.status_code))
    return wrong


def _call(client: Client, method: str, path: str, body: Any) -> Any:
    from django.core.files.uploadedfile import SimpleUploadedFile

    def file(name: str, data: bytes) -> Any:
        return SimpleUploadedFile(name, data)

    uploads: dict[str, dict[str, Any]] = {
        "/run/table": {"file": file("a.csv", b"shows\nx\n")},
        "/newer": {"file": file("a.svg", svg())},
        "/learn": {"screenshot": file("a.svg", svg()), "width": 9, "height": 9},
        "/from-files": {"files": [file("a.svg", svg())]},
        "/pictures": {"files": [file("a.jpg", b"x")]},
        "/artwork": {"files": [file("a.svg", svg())], "targets": ""},
    }
    form = next((form for tail, form in uploads.items() if path.endswith(tail)), None)
    if form and method == "post":
        return client.post(path, form)
    return send(client, method, path.removeprefix("/api/"), body)


def test_a_viewer_may_look_but_not_change(juno: Any, make_person: Any) -> None:
    from fitzle.apps.accounts.models import Membership, Role

    viewer = make_person("vera")[0]
    Membership.objects.create(user=viewer, workspace=juno[1], role=Role.VIEWER)
    client = Client()
    client.force_login(viewer, "django.contrib.auth.backends.ModelBackend")
    assert client.get("/api/workspaces/juno/wall").status_code == 200
    refused = deliver(client, {})
    assert refused.status_code == 403
    assert "Ask its owner" in refused.json()["message"]


def test_signing_in_and_out(juno: Any) -> None:
    client = Client()
    assert client.get("/api/session").status_code == 401
    wrong = sign_in(client, juno[0].email, "nope")
    assert (wrong.status_code, "Try again" in wrong.json()["message"]) == (400, True)
    right = sign_in(client, "JUNO@ottermoor.example ", "juno-turns-the-wheel")
    assert right.status_code == 200
    assert client.get("/api/session").json()["workspaces"] == [{"name": "Juno's", "slug": "juno"}]
    assert client.get("/api/workspaces/juno/wall").status_code == 200
    assert send(client, "delete", "session").status_code == 204
    assert client.get("/api/workspaces/juno/wall").status_code == 401


def test_failures_are_throttled_even_for_the_right_password(juno: Any) -> None:
    client = Client()
    for _ in range(8):
        sign_in(client, juno[0].email, "nope")
    answer = sign_in(client, juno[0].email, "juno-turns-the-wheel")
    assert answer.status_code == 429


def test_passwords_are_hashed_with_argon2(juno: Any, settings: Any) -> None:
    settings.PASSWORD_HASHERS = settings.PASSWORD_HASHERS[1:]  # without the quick one that the other tests use
    juno[0].set_password("a wheel that runs true")
    assert juno[0].password.startswith("argon2$argon2id$")


def test_changes_need_the_csrf_token(juno: Any) -> None:
    client = Client(enforce_csrf_checks=True)
    client.force_login(juno[0], "django.contrib.auth.backends.ModelBackend")
    assert deliver(client, {}).status_code == 403
    other = Client(enforce_csrf_checks=True)
    assert sign_in(other, juno[0].email, "x").status_code == 403


def test_the_page_has_a_policy_with_its_own_nonce(client: Any) -> None:
    answer = client.get("/")
    policy = answer["Content-Security-Policy"]
    nonce = re.search(r"'nonce-([^']+)'", policy)
    assert nonce is not None
    assert f'nonce="{nonce[1]}"' in answer.content.decode()
    assert "default-src 'none'" in policy
    assert "unsafe-eval" not in policy
    assert answer["X-Frame-Options"] == "DENY"
    assert answer.cookies["fitzle_csrf"]["samesite"] == "Lax"


def test_a_made_up_address_is_told_in_words(signed_in: Any) -> None:
    answer = signed_in.get("/api/workspaces/juno/fits/00000000-0000-0000-0000-000000000000")
    assert (answer.status_code, answer.json()["message"]) == (404, "There is no such fit.")
