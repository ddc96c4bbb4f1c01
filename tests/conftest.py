"""Fixtures for the apps: people, workspaces, files in a folder of their own, tasks run at once."""

from __future__ import annotations

import contextlib
import io
import os
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import hypothesis
import pytest

# The same examples each time: what passed once passes again, and a failure can be looked at.
hypothesis.settings.register_profile("steady", derandomize=True, deadline=None)  # machines differ
hypothesis.settings.load_profile("steady")

REDIS_DATABASES = 64  # as the servers of `./test` are started


def redis_database(*, browser: bool = False) -> int:
    """The first of two databases of Redis that this process of the tests has for itself (queue, cache).

    Browser tests run beside the others and begin in the middle.
    """
    number = int(os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw"))
    half = REDIS_DATABASES // 2
    return number * 2 % half + (half if browser else 0)


@pytest.fixture(autouse=True)
def _own_files(
    request: pytest.FixtureRequest, tmp_path: Path, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> Iterator[None]:
    """Tests of the apps keep files in a folder of their own, run tasks at once and start with empty caches."""
    if "apps" not in Path(request.fspath).parts:
        yield
        return
    from django.core.cache import cache

    from fitzle.config.celery import app
    from fitzle.config.servers import cache_address

    settings.STORAGES = {
        **settings.STORAGES,
        "default": {**settings.STORAGES["default"], "OPTIONS": {"location": str(tmp_path / "files")}},
    }
    # Argon2 takes 100 MB and a tenth of a second on purpose, for each of two people in most tests.
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher", *settings.PASSWORD_HASHERS]
    location = cache_address(redis_database() + 1)
    settings.CACHES = {"default": {**settings.CACHES["default"], "LOCATION": location}}
    _draw_here(settings, monkeypatch)
    app.conf.task_always_eager = True
    app.conf.task_eager_propagates = True
    cache.clear()
    yield
    app.conf.task_always_eager = False


def _draw_here(settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    """What is asked of the drawing service goes through its application, in this process and without its bounds."""
    from fitzle.apps.drawing import client, service

    def answered(name: str, packed: bytes) -> client.Came:
        told: list[Any] = []
        environ = {"PATH_INFO": f"/{name}", "HTTP_X_FITZLE_DRAWING": service.token(), "wsgi.input": io.BytesIO(packed)}
        body = service.application(environ | {"CONTENT_LENGTH": str(len(packed))}, lambda *start: told.extend(start))
        return client.Came(int(told[0].split()[0]), dict(told[1]), b"".join(body))

    settings.DRAWING = "here"
    monkeypatch.setattr(client, "answer_of_the_service", answered)
    monkeypatch.setattr(client, "is_there", lambda: True)
    monkeypatch.setattr(service, "bounded_seconds", lambda _most: contextlib.nullcontext())
    monkeypatch.setattr(service, "close_old_connections", lambda: None)


@pytest.fixture
def make_person(db: None) -> Callable[..., Any]:
    """Makes a person with a workspace of their own: (user, workspace)."""
    from fitzle.apps.accounts.access import found_workspace
    from fitzle.apps.accounts.models import User

    def make(name: str = "juno") -> Any:
        user = User.objects.create_user(f"{name}@ottermoor.example", f"{name}-turns-the-wheel", name.title())
        house = {"colours": [{"name": "Green", "hex": "#17443c"}]}
        return user, found_workspace(name=f"{name.title()}'s", slug=name, owner=user, house_style=house)

    return make


@pytest.fixture
def juno(make_person: Callable[..., Any]) -> Any:
    """A person with a workspace."""
    return make_person("juno")


@pytest.fixture
def signed_in(juno: Any) -> Any:
    """Django's test client with Juno signed in."""
    from django.test import Client

    client = Client()
    client.force_login(juno[0], "django.contrib.auth.backends.ModelBackend")
    return client


@pytest.fixture
def run(django_capture_on_commit_callbacks: Any) -> Any:
    """`with run(execute=True):` runs what is queued inside of it, as after a commit."""
    return django_capture_on_commit_callbacks


@pytest.fixture
def bring(signed_in: Any, run: Any) -> Callable[..., Any]:
    """Brings a file in, has the workers read it, and gives its artwork."""
    from tests.apps.helpers import upload

    def brought(name: str, data: bytes, targets: str = "") -> Any:
        return upload(signed_in, "juno", name, data, targets, run)

    return brought


@pytest.fixture
def place(juno: Any) -> Callable[..., Any]:
    """Adds a destination with one placement and gives the placement; keys as in tests.make.sheet."""
    from fitzle.apps.destinations.shelves import add_destination
    from tests.make import sheet

    def add(**keys: Any) -> Any:
        destination = add_destination(juno[1], keys.pop("destination", "Test site"), [sheet(**keys)])
        return destination.placements.get()

    return add
