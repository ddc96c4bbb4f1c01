"""Eight people at once in a running Fitzle, hostile drawings among their artwork: how long each question takes."""

from __future__ import annotations

import http.client
import json
import os
import random
import statistics
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any, NamedTuple
from urllib.parse import quote

from benchmarks.workspace import OwnWorkspace

PEOPLE, SECONDS = 8, 60
THINKING_S = (0.1, 0.6)  # between two things that somebody does
SLOW = ("gradients everywhere", "clips in clips", "patterns in patterns", "words in many pieces")
HOSTILE_EVERY = 25  # so many of somebody's steps ask for a hostile drawing too


class Taken(NamedTuple):
    """Of one kind of question: how many there were, median and 95th percentile in ms, and how many failed."""

    count: int
    median: float
    late: float
    failed: int


class Load(NamedTuple):
    """What was found: each kind of question, and the most memory of the pages' processes in MB."""

    kinds: dict[str, Taken]
    web_mb: float


class Person:
    """Somebody with a session of their own; notes how long each answer took."""

    def __init__(self, space: OwnWorkspace, number: int, hostile: list[str]) -> None:
        self._space, self._hostile = space, hostile
        self._random = random.Random(number)
        self._host = space.address.removeprefix("http://")
        self._cookies: dict[str, str] = {}
        self.taken: dict[str, list[float]] = {}
        self.failed: dict[str, int] = {}
        self._ask("GET", "/")
        self._ask("POST", "/api/account/browser/v1/auth/login", {"email": space.email, "password": space.password})
        wall = self._json("GET", self._at("wall"))
        places = [place for shelf in wall["shelves"] for place in shelf["placements"]]
        self._fits = [place["fit"] for place in places if place.get("fit")]

    def work(self, until: float) -> None:
        """Does one thing after the other."""
        steps = [self._look_at_wall, self._open_fit, self._draw_proof, self._edit]
        number = 0
        while time.monotonic() < until:
            self._random.choice(steps)()
            number += 1
            if self._hostile and number % HOSTILE_EVERY == 0:
                width = self._random.randrange(300, 2400)
                self._ask("GET", self._at(f"artwork/{self._random.choice(self._hostile)}/picture?width={width}"))
            time.sleep(self._random.uniform(*THINKING_S))

    def median_ms(self, path: str, rounds: int = 9) -> float:
        """How long an answer takes, after one to warm up."""
        taken = []
        for _ in range(rounds + 1):
            began = time.perf_counter()
            status, said = self._ask("GET", self._at(quote(path, safe="?&=/")))
            taken.append((time.perf_counter() - began) * 1000)
            assert status == 200, said[:200]
        return statistics.median(taken[1:])

    def _look_at_wall(self) -> None:
        self._timed("wall", lambda: self._ask("GET", self._at("wall")))

    def _open_fit(self) -> None:
        self._timed("opening a fit", lambda: self._ask("GET", self._at(f"fits/{self._random.choice(self._fits)}")))

    def _draw_proof(self) -> None:
        fit, width = self._random.choice(self._fits), self._random.randrange(200, 1000)
        self._timed("proof at a new width", lambda: self._ask("GET", self._at(f"fits/{fit}/proof?width={width}")))

    def _edit(self) -> None:
        path = self._at(f"fits/{self._random.choice(self._fits)}")
        fit = self._json("GET", path)
        part = fit["parts"][-1]["part"] if fit["parts"] else "ground"
        change = {"act": "set", "part": part, "field": "name", "value": f"Part {self._random.random():.3f}"}
        body = {"revision": fit["piece"]["revision"], "step": "name it", "changes": [change], "proof_width": 900}
        self._timed("change with its proof", lambda: self._ask("PATCH", path, body), fine=(200, 409))

    def _timed(self, kind: str, ask: Callable[[], tuple[int, bytes]], fine: tuple[int, ...] = (200,)) -> None:
        began = time.perf_counter()
        status, _ = ask()
        self.taken.setdefault(kind, []).append((time.perf_counter() - began) * 1000)
        self.failed[kind] = self.failed.get(kind, 0) + (status not in fine)

    def _json(self, method: str, path: str) -> Any:
        return json.loads(self._ask(method, path)[1])

    def _at(self, path: str) -> str:
        return f"/api/workspaces/{self._space.slug}/{path}"

    def _ask(self, method: str, path: str, body: Any = None) -> tuple[int, bytes]:
        headers = {"Cookie": "; ".join(f"{name}={value}" for name, value in self._cookies.items())}
        headers |= {"X-CSRFToken": self._cookies.get("fitzle_csrf", ""), "Content-Type": "application/json"}
        connection = http.client.HTTPConnection(self._host, timeout=60)
        try:
            connection.request(method, path, json.dumps(body) if body is not None else None, headers)
            answer = connection.getresponse()
            data = answer.read()
        finally:
            connection.close()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self._cookies[key] = rest.partition(";")[0]
        return answer.status, data


def eight_people(space: OwnWorkspace, hostile: list[str]) -> Load:
    """Lets them work for a minute; `hostile` are ids of artwork that is asked for now and then."""
    people = [Person(space, number, hostile) for number in range(PEOPLE)]
    until, memory = time.monotonic() + SECONDS, _Memory()
    threads = [threading.Thread(target=person.work, args=(until,)) for person in people]
    for thread in threads:
        thread.start()
    while any(thread.is_alive() for thread in threads):
        memory.look()
        time.sleep(0.1)
    kinds = {}
    for kind in sorted({kind for person in people for kind in person.taken}):
        taken = [one for person in people for one in person.taken.get(kind, [])]
        failed = sum(person.failed.get(kind, 0) for person in people)
        kinds[kind] = Taken(len(taken), statistics.median(taken), statistics.quantiles(taken, n=20)[-1], failed)
    return Load(kinds, memory.most_mb)


def hostile_artwork(space: OwnWorkspace) -> list[str]:
    """Brings hostile drawings into the workspace; gives the ids of those that are taken and cost much to draw."""
    from tests.hostile_drawings import drawings

    from fitzle.apps.accounts.models import User, Workspace
    from fitzle.apps.artwork.intake import bring_in
    from fitzle.apps.jobs.queue import read_later

    workspace, owner = Workspace.objects.get(slug=space.slug), User.objects.get(email=space.email)
    taken = []
    for name, data in drawings():
        artwork = bring_in(workspace, owner, f"{name}.svg", [data], [])
        read_later(artwork.pk)  # read here and now: the measurements run tasks at once
        artwork.refresh_from_db()
        if artwork.state == "ready" and name in SLOW:
            taken.append(str(artwork.pk))
    return taken


class _Memory:
    """The most resident memory of the processes that serve the pages, by the socket that they listen on."""

    def __init__(self) -> None:
        self._mark, self.most_mb = f"{os.environ['FITZLE_SOCKETS']}/web.sock".encode(), 0.0

    def look(self) -> None:
        """Reads it now."""
        for process in Path("/proc").iterdir():
            try:
                if process.name.isdigit() and self._mark in (process / "cmdline").read_bytes():
                    pages = int((process / "statm").read_text().split()[1])
                    self.most_mb = max(self.most_mb, pages * 4096 / 1e6)
            except OSError:
                continue
