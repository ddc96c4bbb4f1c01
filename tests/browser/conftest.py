"""The whole of Fitzle as a person gets it: web server, worker, sample workspace, and headless Chromium."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any, NamedTuple

import pytest

from tests.browser.person import Person, start_browser

ROOT = Path(__file__).resolve().parents[2]
DATABASE = "test_browser"


def free_port() -> int:
    """A port that nobody uses now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def fresh_database() -> None:
    """An empty database of our own."""
    import MySQLdb

    connection = MySQLdb.connect(
        host="127.0.0.1",
        port=int(os.environ["FITZLE_DB_PORT"]),
        user="fitzle",
        password=os.environ["FITZLE_DB_PASSWORD"],
    )
    cursor = connection.cursor()
    cursor.execute(f"DROP DATABASE IF EXISTS {DATABASE}")
    cursor.execute(f"CREATE DATABASE {DATABASE} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
    connection.close()


class Running(NamedTuple):
    """A running Fitzle: its address, the process that keeps its workers, and what its servers said."""

    address: str
    worker: int
    log: Path


@pytest.fixture(scope="session")
def fitzle(running: Running) -> str:
    """The address of a running Fitzle with the sample workspace."""
    return running.address


@pytest.fixture(scope="session")
def running(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    """A running Fitzle with the sample workspace; ends with the tests."""
    folder = tmp_path_factory.mktemp("fitzle")
    environment = {**os.environ, "FITZLE_VAR": str(folder), "FITZLE_DB_NAME": DATABASE}
    fresh_database()

    def run(*command: str) -> None:
        subprocess.run([sys.executable, *command], check=True, env=environment, cwd=ROOT, timeout=120)

    run("manage.py", "migrate", "-v0")
    run("manage.py", "collectstatic", "--noinput", "-v0")
    run("-m", "demo.load")
    port = free_port()
    log = (folder / "servers.log").open("wb")
    web = ["gunicorn", "fitzle.config.wsgi", "--bind", f"127.0.0.1:{port}", "--threads", "8"]
    worker = [
        "celery",
        "-A",
        "fitzle.config.celery",
        "worker",
        "-Q",
        "intake,files",
        "--concurrency",
        "2",
        "--loglevel",
        "INFO",
    ]
    servers = [
        subprocess.Popen([sys.executable, "-m", *command], env=environment, cwd=ROOT, stdout=log, stderr=log)
        for command in (web, worker)
    ]
    address = f"http://127.0.0.1:{port}"
    try:
        _wait_for(address, folder / "servers.log")
        yield Running(address, servers[1].pid, folder / "servers.log")
    finally:
        print((folder / "servers.log").read_text()[-3000:])
        for server in servers:
            server.terminate()
        for server in servers:
            server.wait(timeout=15)


def _wait_for(address: str, log: Path) -> None:
    for _ in range(150):
        try:
            urllib.request.urlopen(address, timeout=2).close()
            return
        except OSError:
            time.sleep(0.2)
    raise AssertionError(f"the web server did not answer: {log.read_text()[-2000:]}")


@pytest.fixture(scope="session")
def _driver() -> Iterator[Any]:
    driver = start_browser()
    yield driver
    driver.quit()


@pytest.fixture
def visitor(running: Running, _driver: Any, request: pytest.FixtureRequest) -> Iterator[Person]:
    """A person before signing in, in a clean browser; the console must stay free of errors."""
    said = running.log.stat().st_size
    _driver.get(running.address)
    _driver.delete_all_cookies()
    _driver.execute_script("localStorage.clear()")
    person = Person(_driver, running.address)
    person.clear_log()
    yield person
    report = getattr(request.node, "rep_call", None)
    if report and report.failed:
        folder = ROOT / "var" / "failed"
        folder.mkdir(parents=True, exist_ok=True)
        _driver.save_screenshot(str(folder / f"{request.node.name}.png"))
    else:
        complaints = person.complaints()
        assert complaints == [], running.log.read_bytes()[said:].decode(errors="replace")[-6000:]


@pytest.fixture
def person(visitor: Person) -> Person:
    """Juno, signed in and looking at the wall."""
    visitor.sign_in()
    return visitor


@pytest.hookimpl(hookwrapper=True)
def pytest_runtest_makereport(item: pytest.Item) -> Iterator[None]:
    """Lets the fixture know whether the test failed, so that it can keep a picture."""
    outcome: Any = yield
    report = outcome.get_result()
    setattr(item, f"rep_{report.when}", report)
