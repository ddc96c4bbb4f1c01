"""Somebody who works with Fitzle while it is being killed, and remembers what they were told is saved."""

from __future__ import annotations

import http.client
import json
import random
import uuid
from typing import Any, NamedTuple

from demo.load import SLUG

from fitzle.apps.accounts.sample import EMAIL, PASSWORD
from tests.clips import clip
from tests.make import disc, photo, saved, svg

SECONDS = 20
MOVING = {
    "fitzle_spec": 1, "name": "Killed header", "size": {"width": 320, "height": 90}, "formats": ["gif", "webp"],
    "max_bytes": 200_000, "motion": {"allowed": True, "max_seconds": 2}, "grounds": ["#ffffff"],
}  # fmt: skip


class Away(Exception):
    """No answer, or one that says that a server is away."""


class Answer(NamedTuple):
    """What came back."""

    status: int
    body: Any


class Client:
    """Talks to one address as the pages do; `brought` and `edits` are what the server said that it took."""

    def __init__(self, port: int, seed: int) -> None:
        self.port, self.random = port, random.Random(seed)
        self.cookies: dict[str, str] = {}
        self.brought: dict[str, str] = {}
        self.edits: dict[str, int] = {}
        self.prepared: dict[str, int] = {}
        self.answers: dict[int, int] = {}
        self.broken: list[str] = []

    def call(self, method: str, path: str, body: Any = None, kind: str = "application/json") -> Answer:
        """One request; raises Away."""
        data = body if isinstance(body, bytes) else json.dumps(body).encode() if body is not None else None
        headers = {"Cookie": "; ".join(f"{key}={value}" for key, value in self.cookies.items())}
        headers |= {"X-CSRFToken": self.cookies.get("fitzle_csrf", ""), "Content-Type": kind}
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=SECONDS)
        try:
            connection.request(method, path, data, headers)
            answer = connection.getresponse()
            content = answer.read()
        except (OSError, http.client.HTTPException) as error:
            raise Away(str(error)) from error
        finally:
            connection.close()
        self.answers[answer.status] = self.answers.get(answer.status, 0) + 1
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.partition(";")[0]
        if answer.status == 500:
            self.broken.append(f"{method} {path}: {content[:200]!r}")
        if answer.status >= 500:
            raise Away(f"{answer.status}: {content[:80]!r}")
        is_json = "json" in (answer.getheader("Content-Type") or "")
        return Answer(answer.status, json.loads(content) if is_json and content else content)

    def sign_in(self) -> None:
        """Begins a session, where none is open."""
        self.call("GET", "/")
        answer = self.call("POST", "/api/account/browser/v1/auth/login", {"email": EMAIL, "password": PASSWORD})
        assert answer.status in (200, 409), answer  # 409: it was open, and what came back of it was lost

    def at(self, path: str) -> str:
        """An address within the sample's workspace."""
        return f"/api/workspaces/{SLUG}/{path}"

    def proofs(self) -> list[dict[str, Any]]:
        """All places on the wall."""
        wall = self.call("GET", self.at("wall")).body
        return [proof for shelf in wall["shelves"] for proof in shelf["placements"]]

    def artwork(self) -> list[dict[str, Any]]:
        """All artwork; the list comes a page at a time."""
        found: list[dict[str, Any]] = []
        while True:
            answer = self.call("GET", self.at(f"artwork?count=200&start={len(found)}"))
            assert answer.status == 200, answer
            if not answer.body:
                return found
            found += answer.body

    def bring_in(self) -> None:
        """A mark, a photo or a clip, for all places that it suits or for none."""
        name, data = self.random.choice(
            [
                ("mark.svg", svg(f'<circle cx="50" cy="25" r="{self.random.uniform(5, 24):.3f}" fill="#1d3b4f"/>')),
                ("photo.jpg", saved(photo(900, 700, self.random.randrange(10**6)), "JPEG")),
                ("disc.png", saved(disc(300, margin=self.random.randrange(10, 90)), "PNG")),
                ("talk.mp4", clip()),
            ]
        )
        proofs = [proof for proof in self.proofs() if proof["name"] == "Course card"]
        targets = self.random.choice(["", str(proofs[0]["id"]) if proofs else ""])
        answer = self.upload("artwork", name, data, targets)
        if answer.status == 202:
            self.brought[answer.body[0]["id"]] = name

    def upload(self, path: str, name: str, data: bytes, targets: str = "") -> Answer:
        """One file, as a form of the pages sends it."""
        edge = uuid.uuid4().hex
        body = b"".join(
            (
                f'--{edge}\r\nContent-Disposition: form-data; name="targets"\r\n\r\n{targets}\r\n'.encode(),
                f'--{edge}\r\nContent-Disposition: form-data; name="files"; filename="{name}"\r\n'.encode(),
                b"Content-Type: application/octet-stream\r\n\r\n" + data + f"\r\n--{edge}--\r\n".encode(),
            )
        )
        return self.call("POST", self.at(path), body, f"multipart/form-data; boundary={edge}")

    def mark_pictures(self) -> None:
        """A mark in the corner of a few pictures."""
        marks = [one for one in self.artwork() if one["state"] == "ready" and one["facts"]["kind"] == "mark"]
        if not marks:
            return
        begun = self.call("POST", self.at("watermarks"), {"mark": self.random.choice(marks)["id"]})
        if begun.status != 201:
            return
        path = f"watermarks/{begun.body['id']}"
        for number in range(3):
            data = saved(photo(1600, 1200, self.random.randrange(10**6)), "JPEG")
            self.upload(f"{path}/pictures", f"{number}.jpg", data)
        self.call("POST", self.at(f"{path}/start"), {})

    def animate(self) -> None:
        """Parts that move in a place that takes it, calmer or livelier than before."""
        moving = next((proof for proof in self.proofs() if proof["name"] == MOVING["name"]), None)
        if moving is None:
            body = {"destination": "Course page", "name": MOVING["name"], "sheet": MOVING}
            self.call("POST", self.at("places"), body)
        elif not moving["fit"]:
            self.call("POST", self.at(f"placements/{moving['id']}/pieces"), {"starting_point": 1})
        else:
            lively = {"liveliness": round(self.random.random(), 3)}
            self.call("POST", self.at(f"fits/{moving['fit']}/motion"), lively)

    def watermarks(self) -> list[dict[str, Any]]:
        """All watermarks over pictures."""
        return list(self.call("GET", self.at("watermarks")).body)

    def edit(self) -> None:
        """A change of padding on some place that is filled."""
        filled = [proof for proof in self.proofs() if proof.get("fit")]
        if not filled:
            return
        path = self.at(f"fits/{self.random.choice(filled)['fit']}")
        fit = self.call("GET", path).body
        piece = fit["piece"]
        part = next((entry["id"] for entry in piece["document"]["parts"] if entry["role"] in ("mark", "picture")), None)
        if part is None:
            return
        value = {"value": self.random.randrange(0, 20), "unit": "%"}
        changes = [{"act": "set", "part": part, "field": "padding", "value": value}]
        answer = self.call("PATCH", path, {"revision": piece["revision"], "step": "padding", "changes": changes})
        if answer.status == 200:
            self.edits[piece["id"]] = max(self.edits.get(piece["id"], 0), answer.body["piece"]["revision"])

    def prepare(self) -> None:
        """A step for some artwork, sometimes a costly one."""
        listed = self.artwork()
        ready = [one for one in listed if one["state"] == "ready" and one["facts"]["kind"] != "clip"]
        if not ready:
            return
        path = self.at(f"artwork/{self.random.choice(ready)['id']}/preparation")
        found = self.call("GET", path)
        if found.status != 200:
            return
        step = self.random.choice([{"id": "a", "kind": "turn", "quarters": 1}, {"id": "b", "kind": "cut out"}])
        body = {"revision": found.body["revision"], "document": {"steps": [step]}, "step": "step"}
        answer = self.call("PUT", path, body)
        if answer.status == 200:
            self.prepared[path] = answer.body["revision"]

    def deliver(self) -> None:
        """All that fits."""
        self.call("POST", self.at("deliveries"), {})

    def handed_over(self) -> list[dict[str, Any]]:
        """All deliveries."""
        return list(self.call("GET", self.at("deliveries")).body)

    def do_something(self) -> None:
        """One of the things that people do."""
        self.random.choice(
            [
                self.bring_in,
                self.bring_in,
                self.edit,
                self.edit,
                self.edit,
                self.prepare,
                self.deliver,
                self.mark_pictures,
                self.animate,
                self.animate,
            ]
        )()
