"""Undo takes back one's own last step, and nobody else's."""

from collections.abc import Callable
from typing import Any

import pytest
from django.test import Client

from fitzle.apps.accounts.models import Membership, Role, User
from fitzle.apps.pieces.models import Piece
from tests.apps.helpers import mark_in_a_place, send

Change = Callable[[Client, str, Any], Any]


@pytest.fixture
def fit(signed_in: Client, place: Any, run: Any) -> dict[str, Any]:
    return mark_in_a_place(signed_in, place, run)


@pytest.fixture
def sela(juno: Any) -> Client:
    """A colleague of Juno's, signed in."""
    user = User.objects.create_user("sela@ottermoor.example", "sela-turns-the-wheel", "Sela Marsh")
    Membership.objects.create(user=user, workspace=juno[1], role=Role.MAKER)
    client = Client()
    client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    return client


@pytest.fixture
def change(fit: Any) -> Change:
    """Sets a field of the mark, on the newest revision."""

    def act(client: Client, field: str, value: Any, part: str = "mark", **more: Any) -> Any:
        revision = Piece.objects.get(pk=fit["piece"]["id"]).revision
        changes = [{"act": "set", "part": part, "field": field, "value": value}]
        body = {"revision": revision, "step": f"{field} {value}", "changes": changes, **more}
        return send(client, "patch", f"workspaces/juno/fits/{fit['id']}", body)

    return act


def walk(client: Client, fit: Any, way: str) -> Any:
    return send(client, "post", f"workspaces/juno/pieces/{fit['piece']['id']}/{way}")


def mark(fit: Any) -> dict[str, Any]:
    document = Piece.objects.get(pk=fit["piece"]["id"]).document
    return next(part for part in document["parts"] if part["id"] == "mark")  # type: ignore[no-any-return]


def test_undo_leaves_what_a_colleague_did_since(signed_in: Client, sela: Client, fit: Any, change: Change) -> None:
    change(signed_in, "tint", "#111111")
    change(sela, "centring", "weight")
    mine = walk(signed_in, fit, "undo").json()
    assert (mark(fit)["tint"], mark(fit)["centring"]) == (None, "weight")
    assert (mine["undo"], mine["redo"]) == (None, "tint #111111")
    hers = sela.get(f"/api/workspaces/juno/fits/{fit['id']}").json()["piece"]
    assert (hers["undo"], hers["redo"]) == ("centring weight", None)
    assert walk(signed_in, fit, "redo").json()["undo"] == "tint #111111"
    walk(sela, fit, "undo")
    assert (mark(fit)["tint"], mark(fit)["centring"]) == ("#111111", "box")


def test_where_a_colleague_s_change_stands_on_it_undo_says_so(
    signed_in: Client, sela: Client, fit: Any, change: Change
) -> None:
    change(signed_in, "tint", "#111111")
    change(sela, "tint", "#222222")
    refused = walk(signed_in, fit, "undo")
    assert refused.status_code == 422
    assert refused.json()["message"] == (
        '"tint #111111" cannot be taken back: Sela Marsh\'s change "tint #222222" stands on it. Change it by hand.'
    )
    assert mark(fit)["tint"] == "#222222"
    walk(sela, fit, "undo")
    assert walk(signed_in, fit, "undo").status_code == 200, "now nothing stands on it any more"
    assert mark(fit)["tint"] is None


def test_somebody_without_steps_of_their_own_takes_nothing_back(
    signed_in: Client, sela: Client, fit: Any, change: Change
) -> None:
    change(signed_in, "tint", "#111111")
    nothing = walk(sela, fit, "undo").json()
    assert (nothing["undo"], nothing["redo"], mark(fit)["tint"]) == (None, None, "#111111")


def test_one_walks_far_back_and_forth_among_others_steps(
    signed_in: Client, sela: Client, fit: Any, change: Change
) -> None:
    for number in range(4):
        change(signed_in, "tint", f"#11111{number}")
        change(sela, "name", f"Mark {number}", part="mark")
    for number in (2, 1, 0):
        walk(signed_in, fit, "undo")
        assert (mark(fit)["tint"], mark(fit)["name"]) == (f"#11111{number}", "Mark 3")
    for number in (1, 2, 3):
        walk(signed_in, fit, "redo")
        assert mark(fit)["tint"] == f"#11111{number}"
    walk(signed_in, fit, "undo")
    change(signed_in, "tint", "#999999")
    assert walk(signed_in, fit, "redo").json()["redo"] is None, "a new step ends what could be made again"
    assert mark(fit)["tint"] == "#999999"


def test_a_save_that_is_sent_again_is_made_once(signed_in: Client, fit: Any, change: Change) -> None:
    key = "1b7c3a52-2f64-4a0a-9a4e-0f3b6f1f0c11"
    first = change(signed_in, "tint", "#111111", key=key).json()
    again = change(signed_in, "tint", "#111111", key=key).json()
    assert again["piece"]["revision"] == first["piece"]["revision"]
    part = {"revision": again["piece"]["revision"], "role": "headline", "key": "2b7c3a52-2f64-4a0a-9a4e-0f3b6f1f0c11"}
    for _ in range(2):
        added = send(signed_in, "post", f"workspaces/juno/fits/{fit['id']}/parts", part)
    assert [entry["role"] for entry in added.json()["piece"]["document"]["parts"]].count("headline") == 1
