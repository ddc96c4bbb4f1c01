"""Nobody blocks or fills Fitzle from outside: slow connections hold nothing up, bodies are taken from those who may."""

import contextlib
import http.client
import json
import os
import signal
import socket
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from tests.killing.client import Client
from tests.killing.running import Running
from tests.ports import free_port

LARGE = 300_000_000
LOGIN = "/api/account/browser/v1/auth/login"


@pytest.fixture(scope="module")
def running(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    found = Running(tmp_path_factory.mktemp("doors"), free_port())
    yield found
    found.stop()


def begun(running: Running, text: str) -> socket.socket:
    """A connection on which so much was sent."""
    connection = socket.create_connection(("127.0.0.1", running.port), timeout=30)
    connection.sendall(text.encode())
    return connection


def head_of(method: str, path: str, **headers: Any) -> str:
    more = [f"{key.replace('_', '-')}: {value}" for key, value in headers.items()]
    return "\r\n".join([f"{method} {path} HTTP/1.1", "Host: 127.0.0.1", *more]) + "\r\n"


def answer_on(connection: socket.socket) -> tuple[int, Any]:
    answer = http.client.HTTPResponse(connection)
    answer.begin()
    return answer.status, json.loads(answer.read() or b"null")


def test_slow_connections_hold_nobody_up(running: Running) -> None:
    dripping = [begun(running, "GET / HTTP/1.1\r\nHost: 127") for _ in range(60)]
    dripping += [begun(running, head_of("POST", LOGIN, Content_Length=900) + "\r\n{") for _ in range(60)]
    for _ in range(5):
        for connection in dripping:
            connection.sendall(b" ")
        assert running.answers(), "while 120 others send a byte now and then"
        time.sleep(0.3)
    for connection in dripping:
        connection.close()


def test_a_head_that_does_not_come_is_not_waited_for(running: Running) -> None:
    connection = begun(running, "GET / HTTP/1.1\r\nHost: 127")
    with contextlib.suppress(ConnectionResetError):
        assert connection.recv(100) == b"", "closed without a word: there is nobody to answer"


@pytest.mark.parametrize("path", ["/api/workspaces/ottermoor/artwork", "/api/workspaces/ottermoor/artwork/x/newer"])
def test_of_strangers_no_byte_is_taken(running: Running, path: str) -> None:
    before = spooled(running)
    connection = begun(
        running, head_of("POST", path, Content_Length=LARGE, Content_Type="multipart/form-data") + "\r\n"
    )
    status, said = answer_on(connection)
    assert (status, said["message"]) == (401, "Please sign in.")
    assert spooled(running) == before


def test_somebody_from_elsewhere_is_refused_before_a_byte_is_taken(running: Running) -> None:
    client = Client(running.port, 1)
    client.sign_in()
    cookies = "; ".join(f"{name}={value}" for name, value in client.cookies.items())
    head = head_of("POST", "/api/workspaces/elsewhere/artwork", Content_Length=LARGE, Cookie=cookies)
    status, said = answer_on(begun(running, head + "\r\n"))
    assert status == 403 and "may not bring files" in said["message"]


@pytest.mark.parametrize(
    ("method", "path", "count"),
    [
        ("POST", LOGIN, 20_000),
        ("PATCH", "/api/workspaces/ottermoor/fits/1b7c3a52-2f64-4a0a-9a4e-0f3b6f1f0c11", 3_000_000),
        ("POST", "/api/workspaces/ottermoor/artwork/from-web", 3_000_000),
        ("POST", "/", 3_000_000),
        ("POST", "/api/workspaces/ottermoor/artwork", 5_000_000_000),
    ],
)
def test_bodies_have_limits_by_what_they_are_for(running: Running, method: str, path: str, count: int) -> None:
    status, said = answer_on(begun(running, head_of(method, path, Content_Length=count) + "\r\n"))
    assert status in (401, 413)
    assert (status == 413) == ("too heavy" in said["message"])


def test_a_file_is_brought_in_by_those_who_may(running: Running) -> None:
    client = Client(running.port, 2)
    client.sign_in()
    while not client.brought:
        client.bring_in()


def test_what_starts_again_is_said_in_words(running: Running) -> None:
    for pid in [pid for pid, line in running.processes().items() if "fitzle.config.wsgi" in line]:
        os.kill(pid, signal.SIGKILL)
    connection = http.client.HTTPConnection("127.0.0.1", running.port, timeout=20)
    connection.request("GET", "/")
    page = connection.getresponse()
    assert page.status == 200 or (page.status == 503 and "looks again by itself" in page.read().decode())
    connection.close()
    connection.request("GET", "/api/session")
    answer = connection.getresponse()
    assert answer.status in (200, 401) or "just starting again" in json.loads(answer.read())["message"]
    while not running.answers():
        time.sleep(0.2)


def test_a_database_that_is_away_is_no_fault_and_no_full_disk(running: Running) -> None:
    client = Client(running.port, 3)
    client.sign_in()
    for pid in [pid for pid, line in running.processes().items() if line.startswith("mariadbd")]:
        os.kill(pid, signal.SIGKILL)
    asked = [("GET", "/"), ("GET", client.at("wall")), ("GET", "/api/session"), ("POST", client.at("artwork"))]
    told = set()
    for _ in range(400):
        answers = [answer_to(client, method, path) for method, path in asked]
        told |= set(answers)
        if told and all(status < 500 for status, _ in answers):
            break
    away = {words for status, words in told if status >= 500}
    assert {status for status, _ in told} <= {200, 422, 503}, told
    assert away and all("try again in a moment" in words for words in away), told


def answer_to(client: Client, method: str, path: str) -> tuple[int, str]:
    """Its status, and what it says where something is wrong."""
    headers = {"Cookie": "; ".join(f"{key}={value}" for key, value in client.cookies.items())}
    headers |= {"X-CSRFToken": client.cookies.get("fitzle_csrf", ""), "Content-Type": "multipart/form-data; boundary=x"}
    connection = http.client.HTTPConnection("127.0.0.1", client.port, timeout=20)
    connection.request(method, path, b"--x--\r\n" if method == "POST" else None, headers)
    answer = connection.getresponse()
    said = answer.read().decode()
    connection.close()
    return answer.status, said if answer.status >= 500 else ""


def spooled(running: Running) -> int:
    """Bytes of bodies on the disk."""
    return sum(path.stat().st_size for path in Path(running.folder, "front").rglob("*") if path.is_file())
