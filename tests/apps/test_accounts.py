"""An account of one's own: signing up, in two steps, a forgotten password, another address, sessions."""

import re
from datetime import timedelta
from pathlib import Path
from typing import Any
from urllib.parse import unquote

import pytest
from allauth.mfa.totp.internal.auth import hotp_value, yield_hotp_counters_from_time
from django.core.cache import cache
from django.test import Client as DjangosClient
from django.utils import timezone

from fitzle.apps.accounts.invitations import invite
from fitzle.apps.accounts.models import Invitation, User, Workspace
from fitzle.apps.mails.models import WaitingMail
from fitzle.apps.mails.sending import send_waiting
from tests.apps.helpers import account, send, sign_in

pytestmark = pytest.mark.django_db
NEW = {"email": "rowan@bells.example", "password": "a-bell-rings-twice", "business": "Bell foundry"}


def Client(**more: Any) -> DjangosClient:
    """Somebody on this machine, unless told otherwise."""
    return DjangosClient(**({"SERVER_NAME": "127.0.0.1"} | more))


@pytest.fixture
def signed_in(juno: Any) -> DjangosClient:
    client = Client()
    client.force_login(juno[0], "django.contrib.auth.backends.ModelBackend")
    return client


@pytest.fixture(autouse=True)
def mail_folder(settings: Any, tmp_path: Path) -> Path:
    settings.ALLOWED_HOSTS, settings.SIGN_UP = ["127.0.0.1"], "open"
    settings.EMAIL_BACKEND = "fitzle.apps.mails.backend.KeepingBackend"  # pytest-django's own keeps nothing
    settings.EMAIL_FILE_PATH = str(tmp_path / "mail")
    return tmp_path / "mail"


@pytest.fixture
def in_use(juno: Any) -> Any:
    """An installation where somebody is already."""
    return juno


def link_in(subject: str) -> str:
    """The path of the link in the newest mail with this subject."""
    mail = WaitingMail.objects.filter(subject=subject).latest("pk")
    found = re.search(r"http://127\.0\.0\.1(/\S+)", mail.body)
    assert found, mail.body
    return unquote(found.group(1))


def signed_up(**other: str) -> DjangosClient:
    client = Client()
    answer = account(client, "post", "auth/signup", NEW | other)
    assert answer.status_code == 200, answer.content
    return client


def test_somebody_signs_up_and_has_a_workspace(in_use: Any) -> None:
    client = signed_up()
    me = client.get("/api/session").json()
    assert me["workspaces"] == [{"name": "Bell foundry", "slug": "bell-foundry"}]
    assert (me["email"], me["confirmed"], me["invites"]) == ("rowan@bells.example", False, False)
    assert client.get("/api/workspaces/juno/wall").status_code == 404
    confirm = link_in("Welcome to Fitzle: confirm your mail address")
    assert account(client, "post", "auth/email/verify", {"key": confirm.rpartition("/")[2]}).status_code == 200
    assert client.get("/api/session").json()["confirmed"]


def test_an_account_without_a_name_has_a_workspace_too(in_use: Any) -> None:
    client = signed_up(business=" ")
    assert client.get("/api/session").json()["workspaces"] == [{"name": "My workspace", "slug": "my-workspace"}]


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"email": "juno@ottermoor.example"}, "There is an account with this mail address already"),
        ({"email": "JUNO@Ottermoor.example"}, "There is an account with this mail address already"),
        ({"email": "rowan"}, "valid email address"),
        ({"email": ""}, "Mail address is missing."),
        ({"password": ""}, "Password is missing."),
        ({"password": "short"}, "at least 12"),
        ({"password": "password1234"}, "too common"),
        ({"business": "x" * 121}, "at most 120"),
        ({"email": "a\0b@bells.example"}, "cannot be used"),
        ({"business": "\ud800"}, "cannot be used"),
        ({"email": ["a"]}, "valid email address"),
    ],
)  # fmt: skip
def test_what_cannot_be_signed_up_with_is_said(in_use: Any, given: dict[str, Any], said: str) -> None:
    answer = account(Client(), "post", "auth/signup", NEW | given)
    assert (answer.status_code, User.objects.count(), Workspace.objects.count()) == (400, 1, 1)
    assert said in answer.json()["message"]


@pytest.mark.parametrize("body", ["", "[]", "{", '"x"', "{}", '{"email": 5}', "[" * 5000])
def test_no_body_brings_it_down(body: str) -> None:
    for path in ("auth/signup", "auth/login", "auth/password/request", "auth/password/reset", "auth/2fa/authenticate"):
        answer = Client().post(f"/api/account/browser/v1/{path}", body, content_type="application/json")
        assert answer.status_code in (400, 401), (path, answer.content)
        assert answer.json()["message"]


def test_the_first_person_of_an_empty_installation_owns_it(settings: Any) -> None:
    settings.SIGN_UP = "closed"
    assert Client().get("/api/entrance").json()["sign_up"] == "first"
    client = signed_up()
    assert client.get("/api/session").json()["invites"]
    assert Client().get("/api/entrance").json()["sign_up"] == "closed"
    second = account(Client(), "post", "auth/signup", NEW | {"email": "late@bells.example"})
    assert (second.status_code, second.json()["message"][:29]) == (400, "New people come in by invitat")


def test_an_invitation_lets_one_person_in(settings: Any, juno: Any) -> None:
    settings.SIGN_UP = "closed"
    User.objects.filter(pk=juno[0].pk).update(runs=True)
    owner = Client()
    owner.force_login(juno[0], "django.contrib.auth.backends.ModelBackend")
    secret = send(owner, "post", "invitations").json()["path"].partition("invitation=")[2]
    assert Client().get(f"/api/entrance?invitation={secret}").json()["invited"]
    signed_up(invitation=secret)
    again = account(Client(), "post", "auth/signup", NEW | {"email": "b@bells.example", "invitation": secret})
    assert (again.status_code, User.objects.count()) == (400, 2)
    assert "used already" in again.json()["message"]
    assert Invitation.objects.get().used_by == User.objects.get(email=NEW["email"])


def test_an_old_invitation_and_one_of_anybody_count_for_nothing(settings: Any, juno: Any, signed_in: Any) -> None:
    settings.SIGN_UP = "closed"
    assert send(signed_in, "post", "invitations").status_code == 403
    User.objects.update(runs=True)
    secret = invite(User.objects.get())
    Invitation.objects.update(made_at=timezone.now() - timedelta(days=15))
    assert account(Client(), "post", "auth/signup", NEW | {"invitation": secret}).status_code == 400


@pytest.mark.parametrize(
    ("chosen", "bind", "found"), [("", "127.0.0.1", "open"), ("", "0.0.0.0", "closed"), ("open", "0.0.0.0", "open")]
)
def test_who_may_sign_up(settings: Any, in_use: Any, chosen: str, bind: str, found: str) -> None:
    settings.SIGN_UP, settings.BIND = chosen, bind
    assert Client().get("/api/entrance").json()["sign_up"] == found


def test_an_address_that_is_only_claimed_runs_nothing(settings: Any, in_use: Any) -> None:
    settings.OPERATORS, settings.BIND = ["rowan@bells.example"], "0.0.0.0"
    client = signed_up()
    assert not client.get("/api/session").json()["runs"]
    account(client, "post", "auth/email/verify", {"key": link_in("Welcome to Fitzle: confirm your mail address")[9:]})
    assert client.get("/api/session").json()["runs"]


def test_floods_of_sign_ups_are_held_up(settings: Any, in_use: Any) -> None:
    settings.ACCOUNT_RATE_LIMITS = settings.ACCOUNT_RATE_LIMITS | {"signup": "3/m/ip"}
    cache.clear()
    codes = [account(Client(), "post", "auth/signup", NEW | {"email": f"n{i}@b.example"}).status_code for i in range(5)]
    assert codes == [200, 200, 200, 429, 429]
    other = Client(REMOTE_ADDR="198.51.100.7")
    assert account(other, "post", "auth/signup", NEW | {"email": "elsewhere@b.example"}).status_code == 200


def test_a_forgotten_password_is_set_anew_once(juno: Any, signed_in: Any) -> None:
    passer_by = Client()
    for address in (juno[0].email, "nobody@bells.example"):
        answer = account(passer_by, "post", "auth/password/request", {"email": address})
        assert (answer.status_code, answer.json()) == (200, {"status": 200}), "whoever asks learns nothing"
    assert WaitingMail.objects.get(to=["nobody@bells.example"]).subject.startswith("There is no account")
    key = link_in("A new password for Fitzle").removeprefix("/password/")
    weak = account(passer_by, "post", "auth/password/reset", {"key": key, "password": "short"})
    assert "at least 12" in weak.json()["message"]
    assert account(passer_by, "post", "auth/password/reset", {"key": key, "password": "quiet-wheels-run-true"})
    assert sign_in(Client(), juno[0].email, "quiet-wheels-run-true").status_code == 200
    assert sign_in(Client(), juno[0].email, "juno-turns-the-wheel").status_code == 400
    assert signed_in.get("/api/session").status_code == 401, "whoever was signed in with the old one is out"
    again = account(passer_by, "post", "auth/password/reset", {"key": key, "password": "another-one-for-me"})
    assert (again.status_code, again.json()["message"][:26]) == (400, "This link was used already")


def test_a_password_is_changed_by_who_knows_it(juno: Any, signed_in: Any) -> None:
    wrong = {"current_password": "guess", "new_password": "quiet-wheels-run-true"}
    assert "not your present" in account(signed_in, "post", "account/password/change", wrong).json()["message"]
    right = wrong | {"current_password": "juno-turns-the-wheel"}
    assert account(signed_in, "post", "account/password/change", right).status_code == 200
    assert signed_in.get("/api/session").status_code == 200, "who changed it stays"
    assert WaitingMail.objects.filter(subject="Your password was changed").exists()


def test_another_address_counts_once_it_is_confirmed(juno: Any, signed_in: Any, make_person: Any) -> None:
    taken = make_person("mallory")[0].email
    account(signed_in, "post", "account/email", {"email": taken})
    key = link_in("Confirm your mail address").removeprefix("/confirm/")
    assert account(signed_in, "post", "auth/email/verify", {"key": key}).status_code == 400
    assert signed_in.get("/api/session").json()["email"] == juno[0].email
    assert account(signed_in, "post", "account/email", {"email": "new@bells.example"}).status_code == 200
    assert signed_in.get("/api/session").json()["email"] == juno[0].email
    key = link_in("Confirm your mail address").removeprefix("/confirm/")
    assert account(Client(), "post", "auth/email/verify", {"key": key}).status_code in (200, 401)
    assert signed_in.get("/api/session").json()["email"] == "new@bells.example"
    assert sign_in(Client(), "new@bells.example", "juno-turns-the-wheel").status_code == 200
    assert sign_in(Client(), juno[0].email, "juno-turns-the-wheel").status_code == 400


def test_sessions_are_seen_and_ended(juno: Any) -> None:
    desk, telephone = Client(HTTP_USER_AGENT="desk"), Client(HTTP_USER_AGENT="telephone")
    for client in (desk, telephone):
        assert sign_in(client, juno[0].email, "juno-turns-the-wheel").status_code == 200
    seen = account(desk, "get", "auth/sessions").json()["data"]
    assert {(one["user_agent"], one["is_current"]) for one in seen} == {("desk", True), ("telephone", False)}
    other = next(one["id"] for one in seen if not one["is_current"])
    account(desk, "delete", "auth/sessions", {"sessions": [other]})
    assert (desk.get("/api/session").status_code, telephone.get("/api/session").status_code) == (200, 401)


def test_sessions_of_others_are_not_ended(juno: Any, signed_in: Any, make_person: Any) -> None:
    make_person("mallory")
    other = Client()
    sign_in(other, "mallory@ottermoor.example", "mallory-turns-the-wheel")
    [theirs] = account(other, "get", "auth/sessions").json()["data"]
    account(signed_in, "delete", "auth/sessions", {"sessions": [theirs["id"]]})
    assert other.get("/api/session").status_code == 200


def code_of(secret: str) -> str:
    return str(hotp_value(secret, next(iter(yield_hotp_counters_from_time())))).zfill(6)


def with_two_steps(juno: Any) -> tuple[DjangosClient, list[str]]:
    """Juno's client after switching two steps on, and the recovery codes."""
    client = Client()
    sign_in(client, juno[0].email, "juno-turns-the-wheel")
    offered = account(client, "get", "account/authenticators/totp")
    assert offered.status_code == 404 and offered.json()["meta"]["totp_svg"].startswith("<?xml")
    code = code_of(offered.json()["meta"]["secret"])
    assert account(client, "post", "account/authenticators/totp", {"code": code}).status_code == 401
    wrong = account(client, "post", "auth/reauthenticate", {"password": "guess"})
    assert (wrong.status_code, wrong.json()["message"]) == (400, "This is not your password. Try again.")
    account(client, "post", "auth/reauthenticate", {"password": "juno-turns-the-wheel"})
    assert account(client, "post", "account/authenticators/totp", {"code": code}).status_code == 200
    codes = account(client, "get", "account/authenticators/recovery-codes").json()["data"]["unused_codes"]
    cache.clear()  # a code counts once: the next one would be 30 s away
    return client, [offered.json()["meta"]["secret"], *codes]


def test_signing_in_takes_two_steps(juno: Any) -> None:
    from allauth.mfa.models import Authenticator

    _client, (secret, *codes) = with_two_steps(juno)
    kept = Authenticator.objects.get(type="totp").data["secret"]
    assert secret not in kept, "the database does not say it"
    telephone = Client()
    first = sign_in(telephone, juno[0].email, "juno-turns-the-wheel")
    assert first.status_code == 401 and any(flow.get("is_pending") for flow in first.json()["data"]["flows"])
    assert telephone.get("/api/session").status_code == 401, "not in yet"
    wrong = account(telephone, "post", "auth/2fa/authenticate", {"code": "000000"})
    assert (wrong.status_code, wrong.json()["message"][:22]) == (400, "This code is not right")
    assert account(telephone, "post", "auth/2fa/authenticate", {"code": code_of(secret)}).status_code == 200
    assert telephone.get("/api/session").status_code == 200
    lost = Client()
    sign_in(lost, juno[0].email, "juno-turns-the-wheel")
    assert account(lost, "post", "auth/2fa/authenticate", {"code": codes[0]}).status_code == 200
    again = Client()
    sign_in(again, juno[0].email, "juno-turns-the-wheel")
    assert account(again, "post", "auth/2fa/authenticate", {"code": codes[0]}).status_code == 400, "each counts once"


def test_a_secret_of_another_installation_makes_no_codes(juno: Any, settings: Any) -> None:
    with_two_steps(juno)
    settings.SECRET_KEY = "another secret of this installation"
    client = Client()
    sign_in(client, juno[0].email, "juno-turns-the-wheel")
    for empty in ("", "AAAAAAAA"):
        assert account(client, "post", "auth/2fa/authenticate", {"code": code_of(empty)}).status_code == 400


def test_codes_cannot_be_guessed_for_long(juno: Any) -> None:
    _client, (secret, *_codes) = with_two_steps(juno)
    guesser = Client()
    sign_in(guesser, juno[0].email, "juno-turns-the-wheel")
    said = [account(guesser, "post", "auth/2fa/authenticate", {"code": f"{n:06}"}).json()["message"] for n in range(8)]
    assert said[4].startswith("This code is not right") and said[5].startswith("Too many tries")
    assert account(guesser, "post", "auth/2fa/authenticate", {"code": code_of(secret)}).status_code == 400


def test_two_steps_want_a_confirmed_address_and_a_fresh_password(in_use: Any, settings: Any) -> None:
    client = signed_up()
    refused = account(client, "get", "account/authenticators/totp")
    assert refused.status_code == 409 and "Confirm your mail address" in refused.json()["message"]


def test_mails_wait_for_a_server_that_is_away(juno: Any, settings: Any, run: Any, mail_folder: Path) -> None:
    through, settings.MAIL_THROUGH = settings.MAIL_THROUGH, "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 9  # nobody listens at the port "discard"
    with run(execute=True):
        account(Client(), "post", "auth/password/request", {"email": juno[0].email})
    mail = WaitingMail.objects.get()
    assert mail.tries == 1 and "refused" in mail.trouble
    assert Client().get("/api/entrance").json()["mails_delayed"]
    settings.MAIL_THROUGH = through
    send_waiting(mail.pk)
    assert not Client().get("/api/entrance").json()["mails_delayed"]
    [read] = Client().get("/api/mails").json()
    assert (read["to"], read["subject"]) == (juno[0].email, "A new password for Fitzle")
    assert "/password/" in read["body"]


def test_a_mail_is_given_up_after_three_days(juno: Any, settings: Any) -> None:
    settings.MAIL_THROUGH = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 9
    account(Client(), "post", "auth/password/request", {"email": juno[0].email})
    WaitingMail.objects.update(wanted_at=timezone.now() - timedelta(days=4))
    send_waiting(WaitingMail.objects.get().pk)
    assert not WaitingMail.objects.exists()


@pytest.mark.parametrize(
    ("told", "bind", "through", "seen"),
    [
        ({}, "127.0.0.1", "files", 200),
        ({"HTTP_X_FORWARDED_FOR": "203.0.113.9"}, "127.0.0.1", "files", 404),
        ({}, "0.0.0.0", "files", 404),
        ({}, "127.0.0.1", "smtp", 404),
    ],
)
def test_mails_are_read_on_this_machine_only(
    settings: Any, told: dict[str, str], bind: str, through: str, seen: int
) -> None:
    settings.BIND = bind
    if through == "smtp":
        settings.MAIL_THROUGH = "django.core.mail.backends.smtp.EmailBackend"
    assert Client(REMOTE_ADDR="").get("/api/mails", **told).status_code == seen
    assert Client(REMOTE_ADDR="203.0.113.9").get("/api/mails").status_code == 404


def test_a_person_is_called_what_they_say(signed_in: Any) -> None:
    assert send(signed_in, "patch", "session", {"name": " Juno M. "}).json()["name"] == "Juno M."
    assert send(Client(), "patch", "session", {"name": "x"}).status_code == 401
