"""The whole of Fitzle as a person gets it: web server, worker, sample workspace, and headless Chromium."""

from __future__ import annotations

import fcntl
import os
import shutil
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any, NamedTuple

import pytest

from tests.browser.person import Person, start_browser
from tests.conftest import redis_database
from tests.ports import free_port
from tests.rehearsal import TOKEN, running_rehearsal

ROOT = Path(__file__).resolve().parents[2]
ENDING_S = 90  # these machines stall for many seconds at times
DATABASE = "test_browser_" + os.environ.get("PYTEST_XDIST_WORKER", "gw0")
SAMPLE = "test_browser_sample"  # made by the first process that comes, for all


def connected() -> Any:
    """The database server."""
    import MySQLdb

    socket_, password = os.environ["FITZLE_SOCKETS"] + "/db.sock", os.environ["FITZLE_DB_PASSWORD"]
    return MySQLdb.connect(unix_socket=socket_, user="fitzle", password=password)


def fresh_database(name: str) -> None:
    """An empty database of our own."""
    with connected() as connection:
        connection.cursor().execute(f"DROP DATABASE IF EXISTS {name}")
        connection.cursor().execute(f"CREATE DATABASE {name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")


def tables(cursor: Any, database: str) -> list[str]:
    """The names of all tables."""
    cursor.execute(f"SHOW TABLES IN {database}")
    return [name for (name,) in cursor.fetchall()]


def take_rows_of_the_sample() -> None:
    """Gives all tables what the sample has at first."""
    with connected() as connection:
        cursor = connection.cursor()
        cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        for table in tables(cursor, SAMPLE):
            cursor.execute(f"DELETE FROM {DATABASE}.{table}")
            cursor.execute(f"INSERT INTO {DATABASE}.{table} SELECT * FROM {SAMPLE}.{table}")
        connection.commit()


def manage(folder: Path, database: str, *command: str) -> None:
    """Runs one command of Fitzle's with this folder and database."""
    subprocess.run([sys.executable, *command], check=True, env=surroundings(folder, database), cwd=ROOT, timeout=180)


def surroundings(folder: Path, database: str) -> dict[str, str]:
    """The environment of a Fitzle of this process."""
    own = {
        "FITZLE_VAR": str(folder),
        "FITZLE_DB_NAME": database,
        "FITZLE_REDIS_DATABASE": str(redis_database(browser=True)),
    }
    return {**os.environ, **own}


def drawing_socket() -> str:
    """Where the drawing service of this process listens; its name must stay short."""
    return f"{os.environ['FITZLE_SOCKETS']}/drawing-{DATABASE}.sock"


def made_sample(shared: Path) -> Path:
    """The folder with the files of the sample workspace; whoever comes first makes it and its database."""
    folder, done = shared / "sample", shared / "sample.done"
    with (shared / "sample.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not done.exists():
            folder.mkdir()
            fresh_database(SAMPLE)
            manage(folder, SAMPLE, "manage.py", "migrate", "-v0")
            manage(folder, SAMPLE, "-m", "demo.load")
            done.touch()
    return folder


class Running(NamedTuple):
    """A running Fitzle: its address, the process that keeps its workers, what its servers said, its rehearsal."""

    address: str
    worker: int
    log: Path
    rehearsal: str


@pytest.fixture(scope="session")
def fitzle(running: Running) -> str:
    """The address of a running Fitzle with the sample workspace."""
    return running.address


@pytest.fixture(scope="session")
def running(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    """A running Fitzle with the sample workspace and its rehearsal; ends with the tests."""
    with running_rehearsal(tmp_path_factory.mktemp("rehearsal")) as rehearsal:
        yield from _running(tmp_path_factory, rehearsal.address)


def _running(tmp_path_factory: pytest.TempPathFactory, rehearsal: str) -> Iterator[Running]:
    folder = tmp_path_factory.mktemp("fitzle")
    fresh_database(DATABASE)
    manage(folder, DATABASE, "manage.py", "migrate", "-v0")
    manage(folder, DATABASE, "manage.py", "collectstatic", "--noinput", "-v0")
    base = tmp_path_factory.getbasetemp()
    shutil.copytree(
        made_sample(base.parent if "PYTEST_XDIST_WORKER" in os.environ else base), folder, dirs_exist_ok=True
    )
    take_rows_of_the_sample()
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
    drawing = ["gunicorn", "-c", "python:fitzle.config.drawing", "--bind", f"unix:{drawing_socket()}"]
    drawing.append("fitzle.config.drawing_wsgi")
    rehearsed = {"FITZLE_REHEARSAL": rehearsal, "FITZLE_REHEARSAL_TOKEN": TOKEN}
    drawn_there = {"FITZLE_DRAWING": f"unix:{drawing_socket()}", **rehearsed}
    servers = [
        subprocess.Popen(
            [sys.executable, "-m", *command],
            env=surroundings(folder, DATABASE) | more,
            cwd=ROOT,
            stdout=log,
            stderr=log,
        )
        for command, more in ((web, drawn_there), (worker, rehearsed), (drawing, {}))
    ]
    address = f"http://127.0.0.1:{port}"
    try:
        _wait_for(address, folder / "servers.log")
        yield Running(address, servers[1].pid, folder / "servers.log", rehearsal)
    finally:
        print((folder / "servers.log").read_text()[-3000:])
        for server in servers:
            server.terminate()
        for server in servers:
            server.wait(timeout=ENDING_S)


def _wait_for(address: str, log: Path) -> None:
    for _ in range(150):
        try:
            urllib.request.urlopen(address, timeout=2).close()
            return
        except OSError:
            time.sleep(0.2)
    raise AssertionError(f"the web server did not answer: {log.read_text()[-2000:]}")


@pytest.fixture(scope="module", autouse=True)
def _as_at_first(running: Running) -> None:
    """The tests of a file find the sample workspace as it is at first, whatever ran before."""
    take_rows_of_the_sample()


@pytest.fixture(scope="session")
def _driver() -> Iterator[Any]:
    driver = start_browser()
    yield driver
    driver.quit()


@pytest.fixture
def visitor(running: Running, _driver: Any, request: pytest.FixtureRequest) -> Iterator[Person]:
    """A person before signing in, in a clean browser; the console must stay free of errors."""
    said = running.log.stat().st_size
    _driver.get(f"{running.address}/api/session")  # of the same origin, and quickly there
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


@pytest.fixture(scope="module")
def _cookies() -> list[Any]:
    """Those of the first who signed in among the tests of a file, for the others."""
    return []


@pytest.fixture
def person(visitor: Person, _cookies: list[Any]) -> Person:
    """Juno, signed in and looking at the wall."""
    for cookie in _cookies:
        visitor.driver.add_cookie(cookie)
    visitor.go("/")
    visitor.wait(lambda: "places," in visitor.text() or "Password" in visitor.text(), "the wall, or the way to it")
    if "places," not in visitor.text():
        visitor.sign_in()
        _cookies[:] = visitor.driver.get_cookies()
    return visitor


@pytest.hookimpl(hookwrapper=True)
def pytest_runtest_makereport(item: pytest.Item) -> Iterator[None]:
    """Lets the fixture know whether the test failed, so that it can keep a picture."""
    outcome: Any = yield
    report = outcome.get_result()
    setattr(item, f"rep_{report.when}", report)
