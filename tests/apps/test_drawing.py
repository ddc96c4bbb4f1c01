"""The drawing service: bounded processes of its own, told in words where a drawing takes too long or too much."""

import os
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import pytest
from django.core.cache import cache
from django.db import OperationalError

from fitzle.apps.api.plain_errors import answer_for
from fitzle.apps.drawing import client
from fitzle.apps.drawing.calls import CALLS
from fitzle.apps.drawing.errors import DrawingBusy, DrawingFailed, DrawingTooHeavy
from fitzle.core.errors import LimitError
from fitzle.core.plan.screen import MAGNIFIED_LONG_SIDE_PX, MOST_PIXELS, screen_width
from tests.apps import hazards

ROOT = Path(__file__).parents[2]
SECONDS, MEGABYTES = 1.5, 400
over_the_wire, is_there = client.answer_of_the_service, client.is_there


@pytest.fixture(scope="module")
def start(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Callable[[], subprocess.Popen[bytes]]]:
    """Starts the service with two processes; it is ended with the tests."""
    folder = tmp_path_factory.mktemp("drawing")
    started = []

    def begin() -> subprocess.Popen[bytes]:
        limits = {"FITZLE_DRAWING_SECONDS": str(SECONDS), "FITZLE_DRAWING_BYTES": f"{MEGABYTES}000000"}
        command = ["gunicorn", "-c", "python:fitzle.config.drawing", "--bind", f"unix:{folder}/s", "--workers", "2"]
        server = subprocess.Popen(
            [sys.executable, "-m", *command, "tests.apps.hazards:application"], env=os.environ | limits, cwd=ROOT
        )
        started.append(server)
        for _ in range(200):
            if (folder / "s").exists() or server.poll() is not None:
                break
            time.sleep(0.1)
        return server

    begin.socket = f"unix:{folder}/s"
    begin()
    yield begin
    for server in started:
        server.terminate()
        server.wait(20)


@pytest.fixture(autouse=True)
def _asked_there(start: Any, settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    settings.DRAWING, settings.DRAWING_SECONDS = start.socket, SECONDS
    monkeypatch.setattr(client, "answer_of_the_service", over_the_wire)
    monkeypatch.setattr(client, "is_there", is_there)


def test_what_is_drawn_comes_back_whole() -> None:
    drawn = hazards.draw_well.ask("", "grün 🚲")
    assert (drawn.data.decode(), drawn.media_type) == ("grün 🚲", "text/plain")
    assert int(drawn.key) not in (0, os.getpid()), "another process"


@pytest.mark.parametrize("call", [hazards.loop_for_ever, hazards.hold_the_interpreter])
def test_what_does_not_end_is_ended_and_told(call: Any) -> None:
    began = time.monotonic()
    with pytest.raises(DrawingTooHeavy, match="too long or too much memory"):
        call.ask("")
    assert SECONDS * 0.9 < time.monotonic() - began < SECONDS + 4
    assert hazards.draw_well.ask("", "next").data == b"next"


@pytest.mark.parametrize("call", [hazards.take_memory, hazards.take_memory_in_a_library])
def test_memory_is_bounded_inside_libraries_too(call: Any) -> None:
    assert call.ask("", 50_000_000) == 50_000_000
    with pytest.raises(DrawingTooHeavy):
        call.ask("", 1_000_000_000)
    assert hazards.draw_well.ask("", "next").data == b"next"


def test_a_crash_is_told_and_not_tried_again_for_a_while(monkeypatch: pytest.MonkeyPatch) -> None:
    with pytest.raises(DrawingTooHeavy):
        hazards.crash.ask("state")
    asked: list[str] = []

    def noted(name: str, packed: bytes) -> client.Came:
        asked.append(name)
        return over_the_wire(name, packed)

    monkeypatch.setattr(client, "answer_of_the_service", noted)
    with pytest.raises(DrawingTooHeavy):
        hazards.crash.ask("state")
    assert not asked, "retries would occupy the processes"
    with pytest.raises(DrawingTooHeavy):
        hazards.crash.ask("another state")
    assert asked, "what has changed since is tried"


def test_a_process_that_something_else_ended_is_no_verdict(tmp_path: Path) -> None:
    assert hazards.crash_once.ask("", str(tmp_path)) == "drawn"


def test_errors_are_raised_as_they_were() -> None:
    with pytest.raises(LimitError) as refused:
        hazards.refuse.ask("")
    assert refused.value.message == "a.svg: this is too wide (expected 1, found 2). Make it smaller."
    with pytest.raises(DrawingFailed, match="ours"):
        hazards.fail.ask("")


def test_a_database_that_is_away_from_the_service_is_no_fault_of_ours() -> None:
    """It was answered with 500."""
    with pytest.raises(OperationalError) as away:
        hazards.lose_the_database.ask("")
    assert answer_for(away.value).status_code == 503


def test_equal_questions_are_drawn_once() -> None:
    with ThreadPoolExecutor(5) as pool:
        began = time.monotonic()
        assert list(pool.map(lambda _: hazards.wait.ask("", 0.5, 1), range(5))) == [1] * 5
    assert time.monotonic() - began < 1.2, "one after the other on two processes takes 1.5 s"


def test_those_who_find_no_place_are_told_to_come_again(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(client, "WAITS_SECONDS", 0.2)
    monkeypatch.setattr(client, "_places", client.BoundedSemaphore(1))
    with ThreadPoolExecutor(2) as pool:
        first = pool.submit(hazards.wait.ask, "", 1.0, 2)
        time.sleep(0.2)
        with pytest.raises(DrawingBusy):
            hazards.wait.ask("", 1.0, 3)
        assert first.result() == 2


def test_a_service_that_is_started_again_is_waited_for(start: Any, settings: Any) -> None:
    for server in [one for one in [start()] if one.poll() is None]:  # takes the socket over
        server.kill()
        server.wait()
    with ThreadPoolExecutor(1) as pool:
        asked = pool.submit(hazards.draw_well.ask, "", "patient")
        start()
        try:
            assert asked.result().data == b"patient"
        except DrawingBusy:  # a slow machine: told to come again, never a wrong verdict
            assert hazards.draw_well.ask("", "patient").data == b"patient"


def test_strangers_are_not_drawn_for(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(client, "token", lambda: "guessed")
    with pytest.raises(DrawingFailed, match="403"):
        hazards.draw_well.ask("", "x")


def test_no_pickles_travel() -> None:
    assert len(CALLS) > 10
    assert not any("pickle" in text for text in _sources())


def _sources() -> list[str]:
    return [path.read_text() for path in (ROOT / "src/fitzle/apps/drawing").glob("*.py")]


def test_what_is_too_heavy_is_not_drawn_larger_either() -> None:
    with pytest.raises(DrawingTooHeavy):
        hazards.draw_wide.ask("", 500)
    began = time.monotonic()
    with pytest.raises(DrawingTooHeavy):
        hazards.draw_wide.ask("", 501)
    assert time.monotonic() - began < SECONDS / 2, "known without drawing"
    assert hazards.draw_wide.ask("", 499) == 499
    with pytest.raises(DrawingTooHeavy):
        hazards.draw_wide.ask("changed", 500)


@pytest.mark.parametrize(
    ("size", "asked", "drawn"),
    [
        ((1200, 630), 2400, 1200),
        ((1200, 630), 300, 300),
        ((32, 32), 2400, MAGNIFIED_LONG_SIDE_PX),
        ((40, 5000), 2400, 40),
        ((4096, 4096), 2400, 2400),
        ((1, 65_000), 2400, 1),
        ((65_000, 1), 2400, 2400),
    ],
)
def test_nothing_is_drawn_larger_than_it_can_be_seen(size: tuple[int, int], asked: int, drawn: int) -> None:
    width = screen_width(*size, asked)
    assert width == drawn
    assert width * max(1, round(width * size[1] / size[0])) <= max(MOST_PIXELS, size[0] * size[1])


@pytest.fixture(autouse=True)
def _forgotten() -> None:
    cache.clear()
