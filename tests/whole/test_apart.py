"""Two web servers and two workers in separate folders, which share the database, the queue and a bucket alone."""

import os
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any, NamedTuple

import boto3
import pytest
from moto.server import ThreadedMotoServer

from tests.browser.conftest import ROOT, connected, fresh_database
from tests.killing.client import Away, Client
from tests.ports import free_port

DATABASE, REDIS_DATABASE, BUCKET = "test_apart", "40", "fitzle-files"
PATIENCE_S = 120


class Machine(NamedTuple):
    """One machine: its folder, its web server's client and its processes."""

    folder: Path
    client: Client
    web: subprocess.Popen[bytes]
    worker: subprocess.Popen[bytes]


@pytest.fixture
def bucket() -> Iterator[dict[str, str]]:
    """An empty bucket on loopback; what a machine must know of it."""
    server = ThreadedMotoServer(ip_address="127.0.0.1", port=free_port(), verbose=False)
    server.start()
    host, port = server.get_host_and_port()
    address, keys = f"http://{host}:{port}", {"aws_access_key_id": "made", "aws_secret_access_key": "up"}
    boto3.client("s3", endpoint_url=address, region_name="us-east-1", **keys).create_bucket(Bucket=BUCKET)
    yield {
        "FITZLE_BUCKET": BUCKET, "FITZLE_BUCKET_URL": address, "FITZLE_BUCKET_KEY": "made",
        "FITZLE_BUCKET_SECRET": "up", "FITZLE_DB_NAME": DATABASE, "FITZLE_REDIS_DATABASE": REDIS_DATABASE,
    }  # fmt: skip
    server.stop()


@pytest.fixture
def machines(tmp_path: Path, bucket: dict[str, str]) -> Iterator[list[Machine]]:
    fresh_database(DATABASE)
    found = list[Machine]()
    for number, name in enumerate(("a", "b")):
        folder = tmp_path / name
        folder.mkdir()
        own = {**os.environ, **bucket, "FITZLE_VAR": str(folder), "FITZLE_NODE": name, "FITZLE_DRAWING": ""}
        if number == 0:
            for command in (["manage.py", "migrate", "-v0"], ["-m", "demo.load"]):
                subprocess.run([sys.executable, *command], check=True, env=own, cwd=ROOT, timeout=300)
        port = free_port()
        web = ["gunicorn", "fitzle.config.wsgi", "--bind", f"127.0.0.1:{port}", "--threads", "4"]
        worker = ["celery", "-A", "fitzle.config.celery", "worker", "-Q", "intake,files", "--concurrency", "1"]
        started = [
            subprocess.Popen([sys.executable, "-m", *command], env=own, cwd=ROOT, stdout=log, stderr=log)
            for command, log in ((web, (folder / "web.log").open("wb")), (worker, (folder / "worker.log").open("wb")))
        ]
        found.append(Machine(folder, Client(port, number), *started))
    yield found
    for machine in found:
        for process in (machine.web, machine.worker):
            process.terminate()
    for machine in found:
        for process in (machine.web, machine.worker):
            process.wait(30)
    with connected() as connection:
        connection.cursor().execute(f"DROP DATABASE {DATABASE}")


def until(true: Any, what: str) -> None:
    end = time.monotonic() + PATIENCE_S
    while True:
        try:
            if true():
                return
        except Away:
            pass
        assert time.monotonic() < end, what
        time.sleep(0.3)


def states(client: Client) -> dict[str, str]:
    return {entry["id"]: entry["state"] for entry in client.call("GET", client.at("artwork")).body}


def test_what_one_machine_takes_the_other_makes_and_shows(machines: list[Machine]) -> None:
    one, other = machines
    for machine in machines:
        until(lambda machine=machine: machine.client.sign_in() or True, "it answers")
    while len(one.client.brought) < 4:
        one.client.bring_in()
    until(lambda: all(states(other.client).get(key) == "ready" for key in one.client.brought), "read on either machine")
    one.worker.terminate()
    one.worker.wait(30)
    while len(other.client.brought) < 2:
        other.client.bring_in()
    until(
        lambda: all(states(one.client).get(key) == "ready" for key in other.client.brought), "by the one that is left"
    )
    until(lambda: not [proof for proof in one.client.proofs() if proof["state"] == "working"], "all files are made")
    handed = other.client.call("POST", other.client.at("deliveries"), {}).body["id"]
    path = one.client.at(f"deliveries/{handed}")
    until(lambda: one.client.call("GET", path).body["state"] == "done", "all is handed over")
    delivery = one.client.call("GET", path).body
    for file in delivery["files"]:
        path = one.client.at(f"deliveries/files/{file['id']}")
        here, there = one.client.call("GET", path).body, other.client.call("GET", path).body
        assert len(here) == file["bytes"] and here == there
    for key, name in one.client.brought.items():
        whole = other.client.call("GET", other.client.at(f"artwork/{key}/original"))
        assert whole.status == 200, name
    for machine in machines:
        assert not (machine.folder / "files").exists(), "nothing is kept on the machines themselves"


def test_a_bucket_that_does_not_answer_is_said_in_words(machines: list[Machine], bucket: dict[str, str]) -> None:
    [one, _] = machines
    until(lambda: one.client.sign_in() or True, "it answers")
    gone = {
        **os.environ,
        **bucket,
        "FITZLE_VAR": str(one.folder),
        "FITZLE_BUCKET_URL": f"http://127.0.0.1:{free_port()}",
    }
    code = (
        "from fitzle.apps.files.keeping import keep; from fitzle.apps.files.shelves import Shelf\n"
        "from fitzle.core.errors import FitzleError\n"
        "try:\n keep(Shelf.WORKING, 1, 'x', b'x')\nexcept FitzleError as error:\n print(error.message)\n"
    )
    command = [sys.executable, "manage.py", "shell", "-v0", "-c", code]
    said = subprocess.run(command, env=gone, cwd=ROOT, capture_output=True, text=True, timeout=120, check=False)
    assert "the storage of files does not answer" in said.stdout.lower(), said.stderr[-500:]
