"""What happens can be seen: lines of JSON without anything personal, figures for machines, a page for who runs it."""

import io
import json
import logging
from collections.abc import Iterator
from typing import Any

import pytest
from django.test import Client
from prometheus_client.parser import text_string_to_metric_families

from fitzle.apps.jobs import health, queue
from fitzle.apps.watching import context
from tests.apps.helpers import Bring
from tests.make import svg

pytestmark = pytest.mark.django_db
TOKEN = "a-token-for-machines"


@pytest.fixture
def lines() -> Iterator[Any]:
    """What is logged, as it is written by the settings' own handler."""
    written = io.StringIO()
    own = next(entry for entry in logging.getLogger().handlers if type(entry) is logging.StreamHandler)
    before = own.setStream(written)
    yield lambda: [json.loads(line) for line in written.getvalue().splitlines()]
    if before:
        own.setStream(before)


def test_each_request_is_one_line_with_ids_and_nothing_personal(signed_in: Client, juno: Any, lines: Any) -> None:
    signed_in.get("/api/workspaces/juno/artwork?words=secret", headers={"X-Request-ID": "abc123"})
    [line] = [entry for entry in lines() if entry["from"] == "fitzle.access"]
    assert (line["request"], line["person"], line["workspace"]) == ("abc123", juno[0].pk, juno[1].pk)
    assert (line["method"], line["path"], line["status"]) == ("GET", "/api/workspaces/juno/artwork", 200)
    assert line["ms"] >= 0 and line["at"] and line["level"] == "INFO"
    assert "secret" not in json.dumps(line) and juno[0].email not in json.dumps(line)


def test_what_goes_wrong_inside_a_request_carries_its_id(lines: Any) -> None:
    context.begin(request="r1")
    context.note(person=7, workspace=None)
    try:
        raise ValueError("inside")
    except ValueError:
        logging.getLogger("fitzle.apps").exception("it failed")
    [line] = lines()
    assert (line["request"], line["person"], line["message"]) == ("r1", 7, "it failed")
    assert "ValueError: inside" in line["exc_info"] and "workspace" not in line


def test_who_is_not_asked_for_is_not_logged(lines: Any) -> None:
    Client().get("/health/live")
    assert not lines()


def test_figures_are_for_who_shows_the_token(settings: Any, signed_in: Client, bring: Bring) -> None:
    assert Client().get("/metrics").status_code == 404, "there is no token"
    settings.METRICS_TOKEN = TOKEN
    assert Client().get("/metrics").status_code == 401
    assert Client().get("/metrics", headers={"Authorization": "Bearer guessed"}).status_code == 401
    bring("mark.svg", svg())
    queue.read_later("1b7c3a52-2f64-4a0a-9a4e-0f3b6f1f0c11")
    answer = Client().get("/metrics", headers={"Authorization": f"Bearer {TOKEN}"})
    families = {family.name: family for family in text_string_to_metric_families(answer.content.decode())}
    jobs = {(s.labels["kind"], s.labels["state"]): s.value for s in families["fitzle_jobs"].samples}
    assert jobs["take_in_artwork", "waiting"] == 1 and jobs["make_fit_file", "running"] == 0
    kept = {sample.labels["shelf"]: sample.value for sample in families["fitzle_kept_bytes"].samples}
    assert kept["originals"] == len(svg())
    assert families["fitzle_disk_free_bytes"].samples[0].value > 0
    asked = [
        s for s in families["fitzle_requests"].samples if s.labels.get("route", "").endswith("<workspace>/artwork")
    ]
    assert {(sample.labels["method"], sample.labels["status"]) for sample in asked} >= {("POST", "202"), ("GET", "200")}


def test_who_runs_it_sees_how_it_is_doing(
    signed_in: Client, settings: Any, juno: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.OPERATORS = [juno[0].email]
    assert signed_in.get("/api/session").json()["runs"]
    queue.make_later(["1b7c3a52-2f64-4a0a-9a4e-0f3b6f1f0c11"])  # type: ignore[list-item]
    monkeypatch.setattr(health, "queue_answers", lambda: False)
    doing = signed_in.get("/api/doing").json()
    assert {part["name"]: part["answers"] for part in doing["parts"]}["Queue"] is False
    assert doing["trouble"] == ["The queue does not answer: files are made late."]
    assert {kind["kind"]: kind["waiting"] for kind in doing["jobs"]}["make_fit_file"] == 1
    assert [one["name"] for one in doing["workspaces"]] == ["Juno's"]


@pytest.mark.parametrize(
    ("more", "sees"),
    [
        ({}, True),
        ({"HTTPS": True}, False),
        ({"ALLOWED_HOSTS": ["fitzle.example", "testserver"]}, False),
        ({"HTTPS": True, "OPERATORS": ["juno@ottermoor.example"]}, True),
    ],
)
def test_nobody_else_does(signed_in: Client, settings: Any, more: dict[str, Any], sees: bool) -> None:
    settings.ALLOWED_HOSTS = ["127.0.0.1"]
    for name, value in more.items():
        setattr(settings, name, value)
    host = {"SERVER_NAME": settings.ALLOWED_HOSTS[0]}
    assert signed_in.get("/api/doing", **host).status_code == (200 if sees else 404)
    assert signed_in.get("/api/session", **host).json()["runs"] is sees
    assert Client().get("/api/doing", **host).status_code == 401
