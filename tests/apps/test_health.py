"""Machines can ask whether people can work, and what to look at."""

from pathlib import Path
from typing import Any

import pytest
from django.db import OperationalError
from django.test import Client

from fitzle.apps.jobs import health, queue
from fitzle.apps.jobs.models import Job

pytestmark = pytest.mark.django_db


def asked(kind: str = "ready") -> tuple[int, dict[str, Any]]:
    answer = Client().get(f"/health/{kind}")
    return answer.status_code, answer.json()


def test_all_is_well_and_nobody_needs_to_sign_in() -> None:
    assert asked("live") == (200, {"live": True})
    status, told = asked()
    assert (status, told["ready"], told["database"], told["storage"], told["trouble"]) == (200, True, True, True, [])
    assert told["disk_free_bytes"] > 0 and told["oldest_wait_seconds"] == 0


def test_without_a_database_nobody_can_work(monkeypatch: pytest.MonkeyPatch) -> None:
    def gone(*_: Any) -> None:
        raise OperationalError(2006, "gone")

    monkeypatch.setattr(health.connection, "cursor", gone)
    status, told = asked()
    assert (status, told["ready"], told["oldest_wait_seconds"]) == (503, False, None)
    assert told["trouble"] == ["The database does not answer."]


def test_a_disk_that_takes_no_file_is_told(settings: Any, tmp_path: Path) -> None:
    (tmp_path / "a-file").write_bytes(b"")
    settings.STORAGES = {
        **settings.STORAGES,
        "default": {**settings.STORAGES["default"], "OPTIONS": {"location": str(tmp_path / "a-file")}},
    }
    status, told = asked()
    assert status == 503 and "Files cannot be kept" in told["trouble"][0]


def test_a_queue_that_is_away_and_work_that_waits_are_told_but_stop_nobody(monkeypatch: pytest.MonkeyPatch) -> None:
    from datetime import timedelta
    from uuid import uuid4

    queue.make_later([uuid4()])
    Job.objects.update(due_at=Job.objects.get().due_at - timedelta(minutes=5))
    monkeypatch.setattr(health, "queue_answers", lambda: False)
    status, told = asked()
    assert (status, told["ready"]) == (200, True)
    assert [line.split(":")[0] for line in told["trouble"]] == ["The queue does not answer", "Work waits for long"]


def test_a_disk_that_is_nearly_full_is_told(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(health, "free_bytes", lambda: 10_000_000)
    assert asked()[1]["trouble"] == ["The disk is nearly full."]


def test_a_queue_that_nobody_serves_is_away(settings: Any, monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    from celery import Celery

    other = Celery("other", broker=f"redis+socket://{tmp_path}/none.sock", set_as_current=False)
    monkeypatch.setattr(health, "current_app", other)
    assert not health.queue_answers()


@pytest.mark.parametrize(
    ("free", "waits", "words"),
    [(10_000_000, 0.0, "disk of this server is nearly full"), (10**12, 500.0, "made late"), (10**12, 3.0, "")],
)
def test_the_wall_says_what_people_should_know(
    signed_in: Any, monkeypatch: pytest.MonkeyPatch, free: int, waits: float, words: str
) -> None:
    monkeypatch.setattr(health, "free_bytes", lambda: free)
    monkeypatch.setattr(health, "oldest_wait_seconds", lambda: waits)
    notice = signed_in.get("/api/workspaces/juno/wall").json()["notice"]
    assert words in notice and bool(words) == bool(notice)
