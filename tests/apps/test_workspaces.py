"""Workspaces of one's own: begun, renamed, left; never anybody else's."""

from typing import Any

import pytest
from django.test import Client

from fitzle.apps.accounts.models import Membership, Role, Workspace
from fitzle.apps.accounts.workspaces import MOST_OWNED
from tests.apps.helpers import send, upload, wall_proofs
from tests.make import svg

pytestmark = pytest.mark.django_db


def begun(client: Any, name: str = "Bell foundry") -> dict[str, str]:
    answer = send(client, "post", "workspaces", {"name": name})
    assert answer.status_code == 201, answer.content
    return answer.json()  # type: ignore[no-any-return]


def listed(client: Any) -> list[str]:
    return [one["slug"] for one in client.get("/api/session").json()["workspaces"]]


def test_a_new_workspace_is_empty_and_ones_own(signed_in: Any, run: Any) -> None:
    assert begun(signed_in, "  Bell foundry ") == {"name": "Bell foundry", "slug": "bell-foundry"}
    assert set(listed(signed_in)) == {"juno", "bell-foundry"}
    assert wall_proofs(signed_in, "bell-foundry") == {}
    upload(signed_in, "bell-foundry", "mark.svg", svg(), "", run)
    assert signed_in.get("/api/workspaces/juno/artwork").json() == []


def test_two_of_one_name_have_addresses_of_their_own(signed_in: Any) -> None:
    assert [begun(signed_in)["slug"] for _ in range(3)] == ["bell-foundry", "bell-foundry-2", "bell-foundry-3"]
    assert begun(signed_in, "鐘")["slug"] == "workspace"
    assert begun(signed_in, "Glocken für Räder")["slug"] == "glocken-fur-rader"


def test_another_name_keeps_the_address(signed_in: Any) -> None:
    begun(signed_in)
    answer = send(signed_in, "patch", "workspaces/bell-foundry", {"name": "Bells & more"})
    assert answer.json() == {"name": "Bells & more", "slug": "bell-foundry"}


@pytest.mark.parametrize("name", ["", "   ", "x" * 121, None])
def test_a_workspace_needs_a_name(signed_in: Any, name: Any) -> None:
    assert send(signed_in, "post", "workspaces", {"name": name}).status_code == 422
    assert send(signed_in, "patch", "workspaces/juno", {"name": name}).status_code == 422


def test_nobody_has_too_many(signed_in: Any, juno: Any) -> None:
    for number in range(MOST_OWNED - Membership.objects.filter(user=juno[0], role=Role.OWNER).count()):
        workspace = Workspace.objects.create(name=str(number), slug=f"other-{number}")
        Membership.objects.create(user=juno[0], workspace=workspace, role=Role.OWNER)
    refused = send(signed_in, "post", "workspaces", {"name": "One more"})
    assert refused.status_code == 422 and "at most 20" in refused.json()["message"]


def test_the_only_owner_stays_others_may_go(signed_in: Any, juno: Any, make_person: Any) -> None:
    refused = send(signed_in, "post", "workspaces/juno/leave")
    assert refused.status_code == 422 and "only owner" in refused.json()["message"]
    helper, _ = make_person("helper")
    Membership.objects.create(user=helper, workspace=juno[1], role=Role.MAKER)
    client = Client()
    client.force_login(helper, "django.contrib.auth.backends.ModelBackend")
    assert send(client, "patch", "workspaces/juno", {"name": "Mine"}).status_code == 403
    assert send(client, "post", "workspaces/juno/leave").status_code == 204
    assert client.get("/api/workspaces/juno/wall").status_code == 404


def test_strangers_neither_name_nor_leave_it(signed_in: Any, make_person: Any) -> None:
    mallory, _ = make_person("mallory")
    client = Client()
    assert send(client, "post", "workspaces", {"name": "Mine"}).status_code == 401
    client.force_login(mallory, "django.contrib.auth.backends.ModelBackend")
    assert send(client, "patch", "workspaces/juno", {"name": "Mine"}).status_code == 404
    assert send(client, "post", "workspaces/juno/leave").status_code == 404
