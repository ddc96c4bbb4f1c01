"""Files from the web: fetched from a local stand-in with names of the test's own, and never from inside."""

import socket
import threading
import time
from collections.abc import Iterator
from contextlib import suppress
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

import pytest

from fitzle.apps.artwork import from_web
from fitzle.apps.artwork.from_web import Guard, fetched
from fitzle.core.errors import ArtworkError, LimitError
from tests.apps.helpers import send
from tests.make import disc, saved

PICTURE = saved(disc(), "PNG")
MOST = 200_000
INSIDE = "127.0.0.9"  # stands for a machine that must not be asked; nothing listens there


class StandIn(BaseHTTPRequestHandler):
    """A machine on the web with good and bad manners."""

    def do_GET(self) -> None:
        path = self.path.partition("?")[0]
        self.server.asked.append((self.headers["Host"], self.path))  # type: ignore[attr-defined]
        if path in REDIRECTS:
            self.send_response(302)
            self.send_header("Location", REDIRECTS[path].replace("PORT", str(self.server.server_address[1])))
            self.end_headers()
        elif path == "/slow.png":
            self._head(200, "image/png", {})
            for _ in range(100):
                self.wfile.write(b"x")
                self.wfile.flush()
                time.sleep(0.1)
        elif path == "/slow-head.png":
            for letter in "HTTP/1.0 200 OK\r\nX: " + "x" * 300:
                self.wfile.write(letter.encode())
                self.wfile.flush()
                time.sleep(0.1)
        elif path == "/endless.png":
            self._head(200, "image/png", {})
            for _ in range(40):
                self.wfile.write(bytes(10_000))
        elif path == "/heavy.png":
            self._head(200, "image/png", {"Content-Length": str(MOST + 1)})
        elif path == "/page":
            self._head(200, "text/html; charset=utf-8", {})
            self.wfile.write(b"<html>")
        elif path == "/short.png":
            self._head(200, "image/png", {"Content-Length": str(len(PICTURE))})
            self.wfile.write(PICTURE[:100])
        elif path == "/wheel.png":
            self._head(200, "image/png", {"Content-Length": str(len(PICTURE))})
            self.wfile.write(PICTURE)
        else:
            self._head(404 if path == "/missing.png" else 403, "text/plain", {})

    def _head(self, status: int, kind: str, more: dict[str, str]) -> None:
        self.send_response(status)
        for name, value in ({"Content-Type": kind} | more).items():
            self.send_header(name, value)
        self.end_headers()

    def log_message(self, *_: Any) -> None:
        """Says nothing."""


REDIRECTS = {
    "/moved.png": "/wheel.png",
    "/elsewhere.png": "http://pictures.example:PORT/wheel.png",
    "/inside.png": "http://inside.example:PORT/wheel.png",
    "/number.png": "http://127.0.0.9:PORT/wheel.png",
    "/file.png": "file:///etc/passwd",
    "/round.png": "/round.png",
    "/nowhere.png": "",
}


@pytest.fixture
def web() -> Iterator[Any]:
    """The stand-in on the loopback, which ends with the test."""
    server = ThreadingHTTPServer(("127.0.0.1", 0), StandIn)
    server.asked = []  # type: ignore[attr-defined]
    server.daemon_threads = True
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield server
    server.shutdown()
    server.server_close()


def numbers(host: str, _port: int) -> list[str]:
    known = {"pictures.example": ["127.0.0.1"], "inside.example": [INSIDE], "127.0.0.9": [INSIDE],
             "both.example": ["127.0.0.1", INSIDE], "empty.example": []}  # fmt: skip
    if host not in known:
        raise OSError("no such name")
    return known[host]


GUARD = Guard(numbers, lambda number: number == "127.0.0.1")


def fetch(web: Any, path: str, host: str = "pictures.example", guard: Guard = GUARD) -> bytes:
    return b"".join(fetched(f"http://{host}:{web.server_address[1]}{path}", MOST, guard))


@pytest.mark.parametrize("path", ["/wheel.png", "/wheel.png?size=2", "/moved.png", "/elsewhere.png"])
def test_a_file_is_fetched_also_where_it_was_moved(web: Any, path: str) -> None:
    assert fetch(web, path) == PICTURE
    host, asked = web.asked[0]
    assert (host, asked) == (f"pictures.example:{web.server_address[1]}", path)


@pytest.mark.parametrize(
    ("path", "words"),
    [
        ("/inside.png", "not on the public web"), ("/number.png", "not on the public web"),
        ("/file.png", "begins with file"), ("/round.png", "sends on and on"), ("/nowhere.png", "sends on and on"),
        ("/missing.png", "nothing at this address"), ("/forbidden.png", "not given out"),
        ("/page", "address of a page"), ("/heavy.png", "too heavy"), ("/endless.png", "too heavy"),
        ("/short.png", "does not answer"),
    ],
)  # fmt: skip
def test_bad_answers_are_told_what_is_wrong(web: Any, path: str, words: str) -> None:
    with pytest.raises(ArtworkError, match=words) as caught:
        fetch(web, path)
    assert caught.value.subject, "the message says which machine"
    assert all("inside" not in host for host, _ in web.asked), "what is inside was never asked"


@pytest.mark.parametrize(
    ("host", "words"),
    [("inside.example", "not on the public web"), ("both.example", "not on the public web"),
     ("empty.example", "not on the public web"), ("unknown.example", "no such machine")],
)  # fmt: skip
def test_names_that_lead_inside_or_nowhere_are_not_asked(web: Any, host: str, words: str) -> None:
    with pytest.raises(ArtworkError, match=words):
        fetch(web, "/wheel.png", host)
    assert web.asked == []


def test_a_name_is_resolved_once_for_each_request(web: Any) -> None:
    """Another answer of the name server after the check changes nothing: the connection goes to the number checked."""
    answers = [["127.0.0.1"], [INSIDE]]
    guard = Guard(lambda _host, _port: answers.pop(0), GUARD.allowed)
    assert fetch(web, "/wheel.png", guard=guard) == PICTURE
    assert answers == [[INSIDE]]


@pytest.mark.parametrize("path", ["/slow.png", "/slow-head.png"])
def test_a_slow_machine_is_left(web: Any, path: str) -> None:
    began = time.monotonic()
    with pytest.raises(LimitError, match="longer than 0.5 seconds"):
        fetch(web, path, guard=GUARD._replace(whole_seconds=0.5))
    assert time.monotonic() - began < 5


def test_a_machine_that_drips_its_handshake_is_left() -> None:
    """Each byte comes in time; only all of them together never come."""
    with socket.create_server(("127.0.0.1", 0)) as server:

        def drip() -> None:
            connection, _ = server.accept()
            with connection, suppress(OSError):
                for _ in range(100):
                    connection.sendall(b"\x16")
                    time.sleep(0.1)

        threading.Thread(target=drip, daemon=True).start()
        address = f"https://pictures.example:{server.getsockname()[1]}/wheel.png"
        began = time.monotonic()
        with pytest.raises(ArtworkError):
            list(fetched(address, MOST, GUARD._replace(whole_seconds=0.5)))
        assert time.monotonic() - began < 5


def test_other_ports_are_asked_only_where_a_setting_says_so(web: Any) -> None:
    with pytest.raises(ArtworkError, match=f"port {web.server_address[1]} is not asked"):
        fetch(web, "/wheel.png", guard=GUARD._replace(ports=frozenset({80, 443})))
    assert fetch(web, "/wheel.png", guard=GUARD._replace(ports=frozenset({web.server_address[1]}))) == PICTURE
    assert from_web.WEB.ports == {80, 443}


def test_with_the_system_s_names_nothing_local_is_asked(web: Any) -> None:
    for host in ("127.0.0.1", "[::1]", "[::ffff:127.0.0.1]", "2130706433.example"):
        with pytest.raises(ArtworkError, match="public web|no such machine"):
            b"".join(
                fetched(f"http://{host}:{web.server_address[1]}/wheel.png", MOST, from_web.WEB._replace(ports=None))
            )
    assert web.asked == []


@pytest.mark.django_db
def test_a_picture_from_the_web_becomes_artwork(
    signed_in: Any, web: Any, place: Any, monkeypatch: pytest.MonkeyPatch, run: Any
) -> None:
    monkeypatch.setattr("fitzle.apps.artwork.intake.fetched", lambda text, most: fetched(text, most, GUARD))
    address = f"http://pictures.example:{web.server_address[1]}/wheel.png"
    target = place(name="Header")
    with run(execute=True):
        answer = send(
            signed_in, "post", "workspaces/juno/artwork/from-web", {"address": address, "targets": [str(target.pk)]}
        )
    assert answer.status_code == 202, answer.content
    [found] = signed_in.get("/api/workspaces/juno/artwork").json()
    assert (found["name"], found["state"], found["bytes"]) == ("wheel.png", "ready", len(PICTURE))
    assert found["used_in"] == ["Test site, Header"]
    assert signed_in.get(f"/api/workspaces/juno/artwork/{found['id']}/original").getvalue() == PICTURE


@pytest.mark.django_db
@pytest.mark.parametrize("address", ["http://127.0.0.1/a.png", "http://169.254.169.254/latest/meta-data/"])
def test_an_address_inside_ends_as_a_message(signed_in: Any, run: Any, address: str) -> None:
    with run(execute=True):
        send(signed_in, "post", "workspaces/juno/artwork/from-web", {"address": address})
    [found] = signed_in.get("/api/workspaces/juno/artwork").json()
    assert found["state"] == "failed"
    assert "not on the public web" in found["message"]


@pytest.mark.django_db
def test_what_is_no_address_is_refused_at_once(signed_in: Any, make_person: Any) -> None:
    answer = send(signed_in, "post", "workspaces/juno/artwork/from-web", {"address": "file:///etc/passwd"})
    assert answer.status_code == 422
    assert "begins with file:" in answer.json()["message"]
    make_person("noor")
    answer = send(signed_in, "post", "workspaces/noor/artwork/from-web", {"address": "https://pictures.example/a.png"})
    assert answer.status_code == 404
