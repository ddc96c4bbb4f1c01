"""Tries to sign in are bounded for an account at an address, and for an address; nobody is locked out by others."""

from datetime import timedelta
from typing import Any

import pytest
from axes.models import AccessAttempt
from django.test import Client, RequestFactory
from django.utils import timezone

from fitzle.apps.accounts.addresses import MOST_FAILURES, client_address

pytestmark = pytest.mark.django_db
ATTACKER, OWNER = "203.0.113.9", "198.51.100.7"


def tried(email: str, password: str, address: str, **headers: str) -> int:
    body = {"email": email, "password": password}
    path = "/api/account/browser/v1/auth/login"
    answer = Client(REMOTE_ADDR=address).post(path, body, content_type="application/json", headers=headers)
    return int(answer.status_code)


@pytest.mark.parametrize(
    ("proxies", "remote", "told", "found"),
    [
        ([], "203.0.113.9", "10.1.1.1", "203.0.113.9"),
        ([], "203.0.113.9", None, "203.0.113.9"),
        (["10.0.0.0/8"], "10.0.0.2", "203.0.113.9", "203.0.113.9"),
        (["10.0.0.0/8"], "10.0.0.2", "198.51.100.7, 203.0.113.9", "203.0.113.9"),
        (["10.0.0.0/8"], "10.0.0.2", "203.0.113.9, 10.0.0.3", "203.0.113.9"),
        (["10.0.0.0/8"], "10.0.0.2", None, "10.0.0.2"),
        (["10.0.0.0/8"], "203.0.113.9", "198.51.100.7", "203.0.113.9"),
        (["::1"], "::1", "2001:db8::7", "2001:db8::7"),
        (["10.0.0.2"], "10.0.0.2", "203.0.113.9, nonsense", "203.0.113.9"),
        ([], "", "203.0.113.9, 198.51.100.7", "198.51.100.7"),
        (["198.51.100.7"], "", "203.0.113.9, 198.51.100.7", "203.0.113.9"),
        ([], "", None, "127.0.0.1"),
    ],
)  # fmt: skip
def test_where_a_request_comes_from(settings: Any, proxies: list[str], remote: str, told: str, found: str) -> None:
    settings.PROXIES = proxies
    headers = {"HTTP_X_FORWARDED_FOR": told} if told else {}
    assert client_address(RequestFactory().get("/", REMOTE_ADDR=remote, **headers)) == found


def test_a_stranger_s_tries_do_not_lock_the_owner_out(juno: Any) -> None:
    for _ in range(12):
        last = tried(juno[0].email, "guess", ATTACKER)
    assert last == 429
    assert tried(juno[0].email, "juno-turns-the-wheel", OWNER) == 200


def test_pauses_grow_and_end(juno: Any) -> None:
    def later(seconds: float) -> None:
        AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(seconds=seconds))

    assert [tried(juno[0].email, "guess", OWNER) for _ in range(6)] == [400] * 5 + [429]
    for pause in (5, 10, 20, 40):
        later(pause - 2)
        assert tried(juno[0].email, "juno-turns-the-wheel", OWNER) == 429, "not even with the right password"
        later(pause + 1)
        assert tried(juno[0].email, "guess", OWNER) == 400
    AccessAttempt.objects.update(failures_since_start=40)
    later(880)
    assert tried(juno[0].email, "guess", OWNER) == 429
    later(901)
    assert tried(juno[0].email, "juno-turns-the-wheel", OWNER) == 200
    assert [tried(juno[0].email, "guess", OWNER) for _ in range(4)] == [400] * 4, "it counts from none again"


def test_another_address_in_a_header_changes_nothing(juno: Any) -> None:
    answers = [
        tried(juno[0].email, "guess", ATTACKER, **{"X-Forwarded-For": f"192.0.2.{number}"}) for number in range(12)
    ]
    assert answers[-1] == 429


def test_one_address_that_tries_many_accounts_has_to_wait(juno: Any) -> None:
    answers = [tried(f"person-{number}@ottermoor.example", "guess", ATTACKER) for number in range(60)]
    assert answers[:MOST_FAILURES] == [400] * MOST_FAILURES
    assert set(answers[MOST_FAILURES:]) == {429}
    assert tried(juno[0].email, "juno-turns-the-wheel", ATTACKER) == 429, "nor may it sign in"
    assert tried(juno[0].email, "juno-turns-the-wheel", OWNER) == 200
    AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(minutes=16))
    assert tried(juno[0].email, "juno-turns-the-wheel", ATTACKER) == 200, "a quarter of an hour later"
