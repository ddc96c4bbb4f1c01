"""Values without sense get an answer in words and in JSON, and leave nothing behind that breaks a page."""

import html
import json
from typing import Any
from urllib.parse import quote

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import OperationalError
from django.test import Client

from fitzle.apps.pieces.models import Piece
from tests.apps.helpers import Bring, deliver, send, upload, wall_proofs
from tests.make import svg

pytestmark = pytest.mark.django_db
HERE = "/api/workspaces/juno"
# As they stand in JSON.
ODD = (
    "NaN", "-Infinity", "1e300", "-1e300", "1e-300", '"\\ud800"', '"\\u0000"', f'"{"x" * 1_000_000}"', "[]", "{}",
    "null", "true", str(2**70), '"<b>"', '"\\u202e"', '"' + "m" * 290 + '@ottermoor.example"', "[" * 100 + "]" * 100,
)  # fmt: skip
SET = '{"revision":1,"step":"x","changes":[{"act":"set","part":"mark","field":%s}]}'
FIELDS = (
    '"padding","value":{"value":ODD,"unit":"%"}', '"opacity","value":ODD', 'ODD,"value":1',
    '"artwork","value":ODD', '"name","value":ODD', '"rotation","value":ODD',
)  # fmt: skip
CROP = '{"revision":0,"document":{"steps":[{"id":"a","kind":"crop","x":ODD,"y":0,"width":1,"height":1}]},"step":"x"}'
BODIES = (
    ("patch", "/fits/FIT", '{"revision":1,"step":ODD,"changes":[]}'),
    ("patch", "/fits/FIT", '{"revision":ODD,"step":"x","changes":[]}'),
    ("patch", "/fits/FIT", SET.replace('"mark"', "ODD") % '"opacity","value":1'),
    *(("patch", "/fits/FIT", SET % field) for field in FIELDS),
    ("post", "/fits/FIT/parts", '{"revision":1,"role":ODD}'),
    ("patch", "/artwork/ART", '{"name":ODD}'),
    ("patch", "/artwork/ART", '{"tags":[ODD]}'),
    ("post", "/artwork/from-web", '{"address":ODD}'),
    ("post", "/artwork/from-web", '{"address":"https://pictures.example/a.png","targets":[ODD]}'),
    ("put", "/house-style", '{"colours":[{"name":ODD,"hex":"#123456"}]}'),
    ("put", "/house-style", '{"colours":[{"name":"a","hex":ODD}]}'),
    ("post", "/fits", '{"artwork":ODD,"placements":["suited"]}'),
    ("post", "/fits", '{"artwork":"ART","placements":[ODD]}'),
    ("post", "/deliveries", '{"fits":[ODD]}'),
    ("post", "/deliveries", '{"fits":ODD}'),
    ("post", "/glyphs", '{"name":ODD}'),
    ("put", "/artwork/ART/preparation", '{"revision":ODD,"document":{"steps":[]},"step":"x"}'),
    ("put", "/artwork/ART/preparation", '{"revision":0,"document":{"steps":[]},"step":ODD}'),
    ("put", "/artwork/ART/preparation", CROP),
)
QUERIES = (
    "/harmonies?colour=ODD", "/fits/FIT/proof?width=ODD", "/fits/FIT/proof?width=90&only=ODD",
    "/artwork/ART/picture?width=ODD", "/typefaces/sample?family=Anton&text=ODD", "/typefaces/sample?family=ODD&text=a",
    "/fits/FIT/contrasts?part=mark&colours=ODD", "/fits/FIT/contrasts?part=ODD&colours=fff",
)  # fmt: skip


@pytest.fixture
def filled(signed_in: Any, place: Any, run: Any) -> dict[str, str]:
    """The ids of a fit and of its artwork."""
    artwork = upload(signed_in, "juno", "m.svg", svg(), str(place().pk), run)
    return {"FIT": wall_proofs(signed_in, "juno")["Test place"]["fit"], "ART": artwork["id"]}


def test_odd_values_are_answered_in_words_and_leave_every_page_whole(signed_in: Any, filled: dict[str, str]) -> None:
    signed_in.raise_request_exception = False
    wrong = []

    def noted(answer: Any, *what: str) -> None:
        if answer.status_code >= 500 or (answer.status_code >= 400 and not answer.json()["message"]):
            wrong.append((*what, answer.status_code))

    def named(text: str) -> str:
        return text.replace("FIT", filled["FIT"]).replace("ART", filled["ART"])

    for odd in ODD:
        for method, path, body in BODIES:
            data = named(body).replace("ODD", odd).encode()
            answer = getattr(signed_in, method)(HERE + named(path), data, content_type="application/json")
            noted(answer, method, path, body, odd[:20])
        plain = json.loads(odd) if odd.startswith('"') else odd
        for path in QUERIES:
            address = named(path).replace("ODD", quote(plain[:3000], errors="replace"))
            noted(signed_in.get(HERE + address), path, odd[:20])
    assert not wrong
    for page in ("wall", "artwork", "deliveries", "house-style", f"fits/{filled['FIT']}"):
        assert signed_in.get(f"{HERE}/{page}").status_code == 200, page


@pytest.mark.parametrize("field", ["email", "password"])
@pytest.mark.parametrize("odd", ODD)
def test_signing_in_with_odd_values_is_refused_in_words(field: str, odd: str) -> None:
    client = Client(raise_request_exception=False)
    given = {"email": '"a@b.example"', "password": '"x"', field: odd}
    body = f'{{"email":{given["email"]},"password":{given["password"]}}}'
    answer = client.post("/api/account/browser/v1/auth/login", body.encode(), content_type="application/json")
    assert answer.status_code == 400 and answer.json()["message"]


def test_too_many_files_and_a_very_long_name_are_taken_or_refused_in_words(signed_in: Any, run: Any) -> None:
    files = [SimpleUploadedFile(f"{number}.svg", svg()) for number in range(51)]
    answer = signed_in.post(f"{HERE}/artwork", {"files": files, "targets": ""})
    assert answer.status_code == 413 and "too many files" in answer.json()["message"]
    assert upload(signed_in, "juno", "n" * 3000 + ".svg", svg(), "", run)["state"] == "ready"


def test_artwork_of_another_workspace_is_refused_and_nothing_is_saved(
    signed_in: Any, filled: dict[str, str], make_person: Any, run: Any
) -> None:
    mallory = make_person("mallory")[0]
    client = Client()
    client.force_login(mallory, "django.contrib.auth.backends.ModelBackend")
    foreign = upload(client, "mallory", "own.svg", svg(), "", run)["id"]
    changes = [{"act": "set", "part": "mark", "field": "artwork", "value": foreign}]
    fit = send(signed_in, "get", f"workspaces/juno/fits/{filled['FIT']}").json()
    body = {"revision": fit["piece"]["revision"], "step": "x", "changes": changes}
    for path in (f"fits/{filled['FIT']}", f"pieces/{fit['piece']['id']}"):
        answer = send(signed_in, "patch", f"workspaces/juno/{path}", body)
        assert answer.status_code == 422 and "not in this workspace" in answer.json()["message"]
    assert Piece.objects.get(workspace__slug="juno").revision == fit["piece"]["revision"]
    assert wall_proofs(signed_in, "juno")["Test place"]["fit"] == filled["FIT"]


def test_a_delivery_takes_each_fit_once_and_not_thousands(signed_in: Any, filled: dict[str, str], bring: Bring) -> None:
    once = deliver(signed_in, {"fits": [filled["FIT"]] * 40})
    assert len(once.json()["files"]) == 1
    assert deliver(signed_in, {"fits": [filled["FIT"]] * 5000}).status_code == 422


@pytest.mark.parametrize(
    ("error", "status", "words"),
    [
        (OperationalError(2006, "gone"), 503, "database does not answer"),
        (OperationalError(1021, "Disk full"), 507, "disk of this server is full"),
        (OperationalError(1054, "Unknown column"), 500, "on our side"),
        (OSError(28, "No space left on device"), 507, "disk of this server is full"),
        (OSError(5, "Input/output error"), 500, "on our side"),
        (ZeroDivisionError(), 500, "on our side"),
    ],
)
def test_our_own_faults_are_told_in_json(
    signed_in: Any, monkeypatch: pytest.MonkeyPatch, error: Exception, status: int, words: str
) -> None:
    def broken(*_: Any) -> None:
        raise error

    monkeypatch.setattr("fitzle.apps.api.wall.fits_on_wall", broken)
    answer = signed_in.get(f"{HERE}/wall")
    assert answer.status_code == status and words in answer.json()["message"]


@pytest.mark.parametrize(("path", "kind"), [(f"{HERE}/wall", "application/json"), ("/", "text/html; charset=utf-8")])
def test_a_fault_around_the_pages_is_told_too(
    signed_in: Any, monkeypatch: pytest.MonkeyPatch, path: str, kind: str
) -> None:
    def away(*_: Any) -> None:
        raise OperationalError(2002, "Can't connect")

    monkeypatch.setattr("django.contrib.sessions.middleware.SessionMiddleware.process_request", away)
    signed_in.raise_request_exception = False
    answer = signed_in.get(path)
    assert (answer.status_code, answer.headers["Content-Type"]) == (503, kind)
    assert "database does not answer" in html.unescape(answer.content.decode())
