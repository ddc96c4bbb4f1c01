"""Tokens for scripts: what they let do, where, until when; and the documented examples, run."""

from __future__ import annotations

import json
import re
import zipfile
from io import BytesIO
from pathlib import Path
from typing import Any

import pytest
from django.test import Client
from django.utils import timezone

from fitzle.apps.accounts.models import ApiToken
from tests.apps.helpers import send, upload, wall_proofs
from tests.make import svg

DOC = Path(__file__).parents[2] / "docs" / "api.md"


def made(client: Any, *scopes: str, name: str = "CI") -> dict[str, Any]:
    answer = send(client, "post", "workspaces/juno/tokens", {"name": name, "scopes": list(scopes)})
    assert answer.status_code == 201, answer.content
    return dict(answer.json())


def script(secret: str, **more: Any) -> Client:
    return Client(headers={"Authorization": f"Bearer {secret}"}, enforce_csrf_checks=True, **more)


@pytest.mark.django_db
def test_a_token_is_told_once_and_kept_as_a_hash(signed_in: Any) -> None:
    token = made(signed_in, "deliver")
    row = ApiToken.objects.get()
    assert token["secret"].startswith("fitzle_") and len(token["secret"]) > 40
    assert token["secret"] not in json.dumps(list(ApiToken.objects.values()), default=str)
    [listed] = signed_in.get("/api/workspaces/juno/tokens").json()
    assert "secret" not in listed and listed["begins"] == token["secret"][:12] and listed["used_at"] is None
    assert row.scopes == ["see", "deliver"], "looking is always in it"


@pytest.mark.django_db
def test_scopes_bound_what_a_script_may_do(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(name="Head")
    upload(signed_in, "juno", "mark.svg", svg(), str(entry.pk), run)
    fit = wall_proofs(signed_in, "juno")["Head"]["fit"]
    looks, changes, delivers = (
        script(made(signed_in, *scopes)["secret"]) for scopes in ((), ("change",), ("deliver",))
    )
    for client in (looks, changes, delivers):
        assert client.get("/api/workspaces/juno/wall").status_code == 200
    tag = {"name": "another"}
    artwork = signed_in.get("/api/workspaces/juno/artwork").json()[0]["id"]
    told = [send(client, "patch", f"workspaces/juno/artwork/{artwork}", tag) for client in (looks, changes, delivers)]
    assert [answer.status_code for answer in told] == [403, 200, 403] and "token" in told[0].json()["message"]
    told = [
        send(client, "post", "workspaces/juno/deliveries", {"fits": [fit]}) for client in (looks, changes, delivers)
    ]
    assert [answer.status_code for answer in told] == [403, 403, 201]


@pytest.mark.django_db
def test_a_token_works_in_its_own_workspace_and_runs_nothing(signed_in: Any, make_person: Any, juno: Any) -> None:
    other = make_person("bea")
    from fitzle.apps.accounts.models import Membership

    Membership.objects.create(user=juno[0], workspace=other[1], role="owner")
    client = script(made(signed_in, "change", "deliver")["secret"])
    assert client.get("/api/workspaces/juno/wall").status_code == 200
    assert signed_in.get("/api/workspaces/bea/wall").status_code == 200, "the person may"
    for path in ("workspaces/bea/wall", "workspaces/bea/deliveries", "workspaces/bea/tokens", "workspaces/bea/emoji"):
        assert client.get(f"/api/{path}").status_code in (401, 404), path
    assert client.get("/api/workspaces/juno/export").status_code == 403, "that is for whoever runs it"
    assert send(client, "post", "workspaces/juno/leaving").status_code == 403
    assert send(client, "post", "workspaces", {"name": "mine"}).status_code in (401, 403)
    assert client.get("/api/doing").status_code in (401, 404)
    assert send(client, "post", "workspaces/juno/tokens", {"name": "more", "scopes": []}).status_code == 403


@pytest.mark.django_db
def test_a_revoked_token_is_refused_from_its_next_request_on(signed_in: Any) -> None:
    token = made(signed_in, "change")
    client = script(token["secret"])
    assert client.get("/api/workspaces/juno/wall").status_code == 200
    assert ApiToken.objects.get().used_at > timezone.now() - timezone.timedelta(minutes=1)
    assert send(signed_in, "delete", f"workspaces/juno/tokens/{token['id']}").status_code == 204
    answer = client.get("/api/workspaces/juno/wall")
    assert answer.status_code == 401 and "revoked" in answer.json()["message"]
    assert signed_in.get("/api/workspaces/juno/tokens").json() == []


@pytest.mark.django_db
@pytest.mark.parametrize("secret", ["", "fitzle_", "fitzle_" + "x" * 43, "x" * 5000, "fitzle_\u00e9"])
def test_what_is_no_token_is_refused(signed_in: Any, secret: str) -> None:
    made(signed_in, "change")
    client = Client(headers={"Authorization": f"Bearer {secret}"})
    assert client.get("/api/workspaces/juno/wall").status_code == 401


@pytest.mark.django_db
def test_a_token_ends_with_its_persons_membership(signed_in: Any, juno: Any) -> None:
    from fitzle.apps.accounts.models import Membership

    client = script(made(signed_in, "change")["secret"])
    Membership.objects.filter(user=juno[0]).update(role="viewer")
    assert send(client, "post", "workspaces/juno/deliveries", {}).status_code == 403
    Membership.objects.filter(user=juno[0]).delete()
    assert client.get("/api/workspaces/juno/wall").status_code == 404


@pytest.mark.django_db
def test_others_tokens_are_seen_and_ended_by_owners_only(signed_in: Any, juno: Any, make_person: Any) -> None:
    from fitzle.apps.accounts.models import Membership

    token = made(signed_in)
    bea = make_person("bea")
    Membership.objects.create(user=bea[0], workspace=juno[1], role="maker")
    theirs = Client()
    theirs.force_login(bea[0], "django.contrib.auth.backends.ModelBackend")
    assert theirs.get("/api/workspaces/juno/tokens").json() == []
    assert send(theirs, "delete", f"workspaces/juno/tokens/{token['id']}").status_code == 404
    own = send(theirs, "post", "workspaces/juno/tokens", {"name": "bea's", "scopes": []}).json()
    assert len(signed_in.get("/api/workspaces/juno/tokens").json()) == 2
    assert send(signed_in, "delete", f"workspaces/juno/tokens/{own['id']}").status_code == 204


@pytest.mark.django_db
def test_the_front_lets_uploads_with_a_token_through(signed_in: Any) -> None:
    asked = {"X-Original-Method": "POST", "X-Original-URI": "/api/workspaces/juno/artwork"}
    looks, changes = made(signed_in)["secret"], made(signed_in, "change")["secret"]
    doors = [
        Client().get("/api/door", headers=asked | {"Authorization": f"Bearer {one}"}) for one in (looks, changes, "x")
    ]
    assert [answer.status_code for answer in doors] == [403, 204, 401]


@pytest.mark.django_db
def test_the_api_is_published(client: Any) -> None:
    document = client.get("/api/openapi.json").json()
    assert document["info"]["title"] == "Fitzle"
    assert "/api/workspaces/{workspace}/deliveries" in document["paths"]
    assert "/api/door" not in document["paths"]


@pytest.mark.django_db(transaction=True)
def test_the_documented_examples_work(
    live_server: Any, signed_in: Any, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.CELERY_TASK_ALWAYS_EAGER = True
    monkeypatch.setenv("FITZLE", f"{live_server.url}/api/workspaces/juno")
    monkeypatch.setenv("FITZLE_TOKEN", made(signed_in, "change", "deliver")["secret"])
    blocks = re.findall(r"```python\n(.*?)```", DOC.read_text(), re.DOTALL)
    assert len(blocks) == 6
    found: dict[str, Any] = {}
    exec("\n".join(blocks), found)
    assert found["state"] == "fits"
    with zipfile.ZipFile(BytesIO(found["archive"])) as archive:
        assert archive.namelist() == ["script-shop/dot_320x180.png", "delivery.json"]
    with zipfile.ZipFile(BytesIO(found["files"])) as archive:
        assert archive.namelist() == ["script-shop/dot_320x180-2.png", "delivery.json"]
