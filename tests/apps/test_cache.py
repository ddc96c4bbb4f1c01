"""The cache holds plain values only, and Fitzle goes on without it and without the queue."""

import pickle
import re
import socket
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.core.cache import cache
from django.test import Client

from fitzle.apps.jobs.models import Job
from fitzle.config.cache import ForgivingClient, PlainSerializer
from tests.apps.helpers import Bring, send, wall_proofs
from tests.make import disc, saved

pytestmark = pytest.mark.django_db
PICKLES = re.compile(r"\b(import|from) (pickle|cPickle|dill|shelve|marshal)\b|allow_pickle\s*=\s*True|PickleSerializer")
SOURCES = Path(__file__).parents[2]


class Trap:
    """Says that it was run when somebody unpickles it."""

    ran = False

    def __reduce__(self) -> Any:
        return (setattr, (Trap, "ran", True))


@pytest.fixture(params=["closed", "hangs"])
def redis_away(request: Any, settings: Any, tmp_path: Path) -> Iterator[None]:
    """Redis does not answer: nobody listens, or somebody who says nothing."""
    path = tmp_path / "r.sock"
    silent = socket.socket(socket.AF_UNIX)
    if request.param == "hangs":
        silent.bind(str(path))
        silent.listen()
    settings.CACHES = {"default": {**settings.CACHES["default"], "LOCATION": f"unix://{path}?db=1"}}
    ForgivingClient.away_until = 0.0
    yield
    silent.close()
    ForgivingClient.away_until = 0.0


@pytest.mark.parametrize(
    "value", [b"", b"\x00\xff=", "text", 7, -1, 2.5, True, None, [1, "a"], {"a": [None, {"b": 1}]}]
)
def test_plain_values_come_back_as_they_were(value: Any) -> None:
    cache.set("value", value)
    found = cache.get("value")
    assert (found, type(found)) == (value, type(value))


def test_what_is_not_plain_is_refused() -> None:
    with pytest.raises(TypeError):
        PlainSerializer().dumps(Trap())


@pytest.mark.parametrize("planted", [pickle.dumps(Trap()), b"{not json", b"\xff\xfe", b"", b"{" + b"[" * 100_000])
def test_what_somebody_else_wrote_into_the_cache_is_neither_run_nor_shown(planted: bytes) -> None:
    client: Any = cache
    key = client.make_and_validate_key("planted")
    client._cache.get_client(key, write=True).set(key, planted)
    assert cache.get("planted", "nothing") == "nothing"
    assert not Trap.ran


def test_nothing_is_pickled_anywhere() -> None:
    found = [
        f"{path}: {line}"
        for folder in ("src", "demo", "scripts")
        for path in (SOURCES / folder).rglob("*.py")
        for line in path.read_text().splitlines()
        if re.search(
            r"\b(import|from) (pickle|cPickle|dill|shelve|marshal)\b|allow_pickle\s*=\s*True|PickleSerializer", line
        )
    ]
    assert not found


def test_celery_takes_json_only() -> None:
    from fitzle.config.celery import app

    assert set(app.conf.accept_content) == {"json"}
    assert app.conf.task_serializer == "json"


def test_people_sign_in_look_and_change_while_redis_is_away(
    redis_away: None, juno: Any, place: Any, bring: Bring
) -> None:
    client = Client()
    page = client.get("/")
    token = {"X-CSRFToken": page.cookies["fitzle_csrf"].value} if "fitzle_csrf" in page.cookies else {}
    body = {"email": juno[0].email, "password": "juno-turns-the-wheel"}
    answer = client.post("/api/account/browser/v1/auth/login", body, content_type="application/json", headers=token)
    assert answer.status_code == 200, answer.content
    entry = place()
    bring("disc.png", saved(disc(), "PNG"), str(entry.pk))
    proof = wall_proofs(client, "juno")["Test place"]
    assert proof["state"] == "fits"
    path = f"workspaces/juno/fits/{proof['fit']}"
    fit = send(client, "get", path).json()
    changes = [{"act": "set", "part": "mark", "field": "padding", "value": {"value": 3, "unit": "%"}}]
    changed = send(client, "patch", path, {"revision": fit["piece"]["revision"], "step": "padding", "changes": changes})
    assert changed.status_code == 200, changed.content
    picture = client.get(f"/api/workspaces/juno/fits/{proof['fit']}/proof?width=200")
    assert picture.status_code == 200 and picture.content
    assert not Job.objects.filter(owner__gt="").exists()
