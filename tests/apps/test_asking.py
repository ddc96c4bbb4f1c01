"""A link that asks people: one answer each, nothing of the workspace, and no way to guess it."""

from datetime import timedelta
from typing import Any

import pytest
from django.core.cache import cache
from django.test import Client
from django.utils import timezone

from fitzle.apps.asking.models import Question, Vote
from tests.apps.helpers import mark_in_a_place, send

pytestmark = pytest.mark.django_db


@pytest.fixture(autouse=True)
def _nobody_asked_before() -> None:
    cache.clear()


@pytest.fixture
def fit(signed_in: Any, place: Any, run: Any) -> str:
    """A fit with two takes."""
    found = mark_in_a_place(signed_in, place, run)
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/fits/{found['id']}/takes", {})
    return str(found["id"])


@pytest.fixture
def token(signed_in: Any, fit: str) -> str:
    answer = send(signed_in, "post", f"workspaces/juno/fits/{fit}/questions", {"scene": "page-0-0"})
    assert answer.status_code == 201, answer.content
    return str(answer.json()["address"].rsplit("/", 1)[1])


def results(client: Any, fit: str) -> Any:
    return client.get(f"/api/workspaces/juno/fits/{fit}/questions").json()[0]


def answered(person: Client, token: str, which: int = 0, why: str = "") -> Any:
    option = person.get(f"/api/ask/{token}").json()["options"][which]
    return send(person, "post", f"ask/{token}", {"option": option, "why": why})


def test_people_answer_once_and_the_result_says_whether_it_is_chance(signed_in: Any, fit: str, token: str) -> None:
    first = sorted(Client().get(f"/api/ask/{token}").json()["options"])[0]
    for number in range(7):
        person = Client()
        person.get(f"/api/ask/{token}")
        body = {"option": first, "why": "it is <b>clearer</b>" if not number else ""}
        assert send(person, "post", f"ask/{token}", body).json()["answered"]
    found = results(signed_in, fit)
    assert sorted(one["votes"] for one in found["answers"]) == [0, 7]
    assert "hardly chance" in found["verdict"]
    assert [one["why"] for one in found["answers"] if one["why"]] == [["it is <b>clearer</b>"]], "kept as words"


def test_a_second_answer_of_the_same_person_is_refused(token: str) -> None:
    person = Client()
    assert answered(person, token).status_code == 200
    again = answered(person, token, 1)
    assert again.status_code == 422 and "already" in again.json()["message"]
    assert person.get(f"/api/ask/{token}").json()["answered"] and Vote.objects.count() == 1


def test_who_keeps_no_cookie_or_made_one_up_cannot_answer(token: str) -> None:
    option = Client().get(f"/api/ask/{token}").json()["options"][0]
    for cookie in ("", "made-up", "abc:def:ghi"):
        person = Client()
        person.cookies["fitzle_voter"] = cookie
        refused = send(person, "post", f"ask/{token}", {"option": option})
        assert refused.status_code == 422 and "cookies" in refused.json()["message"]
    assert not Vote.objects.exists()


def test_a_link_shows_pictures_in_an_order_of_its_own_and_nothing_of_the_workspace(token: str, fit: str) -> None:
    orders, people = set(), [Client() for _ in range(12)]
    for person in people:
        shown = person.get(f"/api/ask/{token}")
        orders.add(tuple(shown.json()["options"]))
        assert set(shown.json()) == {"options", "answered", "longest_why"}
        assert "juno" not in shown.content.decode().lower() and fit not in shown.content.decode()
    assert len(orders) == 2, "none stands first for everybody"
    person = people[0]
    assert person.get(f"/api/ask/{token}").json()["options"] == list(person.get(f"/api/ask/{token}").json()["options"])
    picture = person.get(f"/api/ask/{token}/{next(iter(orders))[0]}/picture")
    assert picture.content.startswith(b"\x89PNG")
    assert person.get(f"/api/workspaces/juno/fits/{fit}").status_code == 401


def test_what_is_voted_on_does_not_change_with_the_piece(signed_in: Any, fit: str, token: str, run: Any) -> None:
    person = Client()
    options = person.get(f"/api/ask/{token}").json()["options"]
    before = [person.get(f"/api/ask/{token}/{one}/picture").content for one in options]
    now = signed_in.get(f"/api/workspaces/juno/fits/{fit}").json()
    values = [{"part": "mark", "field": "tint", "value": "#f4d06f"}]
    body = {"revision": now["piece"]["revision"], "step": "x", "values": values, "everywhere": True}
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/fits/{fit}", body)
    assert [person.get(f"/api/ask/{token}/{one}/picture").content for one in options] == before


@pytest.mark.parametrize("how", ["ended", "expired", "workspace deleted"])
def test_a_link_that_ended_opens_nothing(signed_in: Any, fit: str, token: str, juno: Any, how: str) -> None:
    person = Client()
    option = person.get(f"/api/ask/{token}").json()["options"][0]
    question = Question.objects.get()
    if how == "ended":
        ended = send(signed_in, "delete", f"workspaces/juno/questions/{question.pk}")
        assert ended.status_code == 200 and not ended.json()["open"]
    elif how == "expired":
        Question.objects.update(ends_at=timezone.now() - timedelta(seconds=1))
    else:
        juno[1].leaving_at = timezone.now()
        juno[1].save()
    for answer in (
        person.get(f"/api/ask/{token}"),
        person.get(f"/api/ask/{token}/{option}/picture"),
        send(person, "post", f"ask/{token}", {"option": option}),
    ):
        assert answer.status_code == 404 and "ended" in answer.json()["message"]
    assert not Vote.objects.exists()


def test_guessing_is_throttled(token: str) -> None:
    """However many tries: after those that an office could need there is no answer for a while."""
    guesser = Client(REMOTE_ADDR="203.0.113.9")
    codes = [guesser.get(f"/api/ask/{number:032d}").status_code for number in range(1_000)]
    assert codes.count(404) <= 120 and codes.count(429) == 1_000 - codes.count(404)
    said = guesser.get(f"/api/ask/{token}")
    assert said.status_code == 429 and "Wait a little" in said.json()["message"]
    assert Client(REMOTE_ADDR="203.0.113.10").get(f"/api/ask/{token}").status_code == 200, "others are let in"


def test_one_address_cannot_answer_without_end(token: str) -> None:
    codes = []
    for _ in range(25):
        person = Client(REMOTE_ADDR="203.0.113.20")
        codes.append(answered(person, token).status_code)
    assert codes.count(200) == 20 and codes[-1] == 429


@pytest.mark.parametrize(
    ("body", "status"),
    [({"option": "nonsense"}, 404), ({"option": ""}, 404), ({}, 422), ({"option": "x" * 99}, 422)],
)
def test_answers_that_are_none(token: str, body: dict[str, str], status: int) -> None:
    person = Client()
    person.get(f"/api/ask/{token}")
    assert send(person, "post", f"ask/{token}", body).status_code == status


@pytest.mark.parametrize(
    "body", [{"scene": "nonsense"}, {"scene": "page-0-0", "days": 0}, {"scene": "page-0-0", "days": 99}]
)
def test_questions_that_are_none(signed_in: Any, fit: str, body: dict[str, Any]) -> None:
    assert send(signed_in, "post", f"workspaces/juno/fits/{fit}/questions", body).status_code == 422


def test_one_take_alone_is_no_question(signed_in: Any, place: Any, run: Any) -> None:
    fit = mark_in_a_place(signed_in, place, run)["id"]
    refused = send(signed_in, "post", f"workspaces/juno/fits/{fit}/questions", {"scene": "page-0-0"})
    assert refused.status_code == 422 and "Make another take" in refused.json()["message"]
