"""Talking to the API as the pages do."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import TestCase

Bring = Callable[..., Any]  # name, bytes and what they fill: the artwork that was brought in


def send(client: Any, method: str, path: str, body: Any = None) -> Any:
    """A JSON request to /api/…"""
    call = getattr(client, method)
    return call(f"/api/{path}", json.dumps(body) if body is not None else "", content_type="application/json")


def upload(client: Any, slug: str, name: str, data: bytes, targets: str = "", run: Any = None) -> Any:
    """Uploads one file and runs what it queued; the answer's first artwork as it is afterwards."""
    with run(execute=True):
        answer = client.post(
            f"/api/workspaces/{slug}/artwork", {"files": [SimpleUploadedFile(name, data)], "targets": targets}
        )
    assert answer.status_code == 202, answer.content
    first = answer.json()[0]["id"]
    listed = client.get(f"/api/workspaces/{slug}/artwork").json()
    return next(entry for entry in listed if entry["id"] == first)


def wall_proofs(client: Any, slug: str) -> dict[str, Any]:
    """All proofs on the wall by the name of their placement."""
    wall = client.get(f"/api/workspaces/{slug}/wall").json()
    return {proof["name"]: proof for shelf in wall["shelves"] for proof in shelf["placements"]}


def mark_in_a_place(client: Any, place: Any, run: Any) -> dict[str, Any]:
    """A mark in one placement on a dark ground, as the bench gets it."""
    from tests.make import svg

    entry = place(grounds=["#17181a"])
    upload(client, "juno", "mark.svg", svg(), str(entry.pk), run)
    fit = wall_proofs(client, "juno")["Test place"]["fit"]
    return client.get(f"/api/workspaces/juno/fits/{fit}").json()  # type: ignore[no-any-return]


def account(client: Any, method: str, path: str, body: Any = None) -> Any:
    """A request about an account, as the pages make it."""
    return send(client, method, f"account/browser/v1/{path}", body)


def sign_in(client: Any, email: str, password: str) -> Any:
    """The answer to a mail address and a password."""
    return account(client, "post", "auth/login", {"email": email, "password": password})


def deliver(client: Any, body: Any = None, slug: str = "juno") -> Any:
    """The answer to a delivery, after the workers went through it."""
    with TestCase.captureOnCommitCallbacks(execute=True):
        return send(client, "post", f"workspaces/{slug}/deliveries", body or {})


def content(answer: Any) -> bytes:
    """The bytes of an answer, also of one that is sent piece by piece."""
    return b"".join(answer.streaming_content) if answer.streaming else bytes(answer.content)
