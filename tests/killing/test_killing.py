"""Kill -9 of worker, child, broker, database, web and all at once, while somebody works.

FITZLE_KILLING_SECONDS says for how long (20); FITZLE_KILLING_SEED begins elsewhere.
"""

import contextlib
import os
import random
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from tests.killing.client import Away, Client
from tests.killing.running import Running
from tests.ports import free_port

SECONDS = float(os.environ.get("FITZLE_KILLING_SECONDS", "20"))
SEED = int(os.environ.get("FITZLE_KILLING_SEED", "1"))
SETTLED_SECONDS = 150


@pytest.fixture
def running(tmp_path: Path) -> Iterator[Running]:
    found = Running(tmp_path, free_port())
    yield found
    found.stop()


def test_nothing_is_stuck_and_nothing_lost(running: Running) -> None:
    client, told = Client(running.port, SEED), list[str]()
    until(60, client.sign_in)
    end = time.monotonic() + SECONDS
    worker = threading.Thread(target=work, args=(client, end))
    worker.start()
    chance = random.Random(SEED)
    while time.monotonic() < end:
        time.sleep(chance.uniform(0.2, 5))
        told.append(running.kill_something(chance))
    worker.join()
    did = len(client.brought), len(client.edits), len(client.prepared)
    print("\n".join(told), client.answers, did, client.broken, sep="\n")
    assert not client.broken, client.broken
    until(60, client.sign_in)
    left = settle(client)
    assert not left, left
    artwork = {entry["id"]: entry for entry in client.artwork()}
    assert not {key: name for key, name in client.brought.items() if key not in artwork}, "brought in and gone"
    assert {artwork[key]["state"] for key in client.brought} <= {"ready"}, "ended without a reason"
    files = [file for delivery in client.handed_over() for file in delivery["files"]]
    assert {file["state"] for file in files} <= {"done", "failed"}
    assert not [file["message"] for file in files if file["state"] == "failed" and "lost" not in file["message"]]
    marked = [one for one in client.watermarks() if one["state"] == "done"]
    assert all(one["made"] + one["failed"] == one["pictures"] for one in marked)
    checked = running.manage("check_files")
    assert checked.returncode == 0, checked.stdout + checked.stderr
    revisions = running.manage("shell", "-v0", "-c", REVISIONS)
    known = dict(line.split() for line in revisions.stdout.splitlines())
    assert not {key: at for key, at in client.edits.items() if int(known.get(key, 0)) < at}, "saved and gone"


REVISIONS = "from fitzle.apps.pieces.models import Piece\nfor p in Piece.objects.all(): print(p.pk, p.revision)"


def work(client: Client, end: float) -> None:
    """Does one thing after the other, signed out or not, until the end."""
    while time.monotonic() < end:
        try:
            client.do_something()
        except (Away, KeyError, TypeError):  # the last two: an answer that says that nobody is signed in
            time.sleep(0.3)
            with contextlib.suppress(Away):
                client.sign_in()


def settle(client: Client) -> dict[str, Any]:
    """What is still not done after a while."""
    end = time.monotonic() + SETTLED_SECONDS
    while True:
        left = unfinished(client)
        if not left or time.monotonic() > end:
            return left
        time.sleep(0.5)


def unfinished(client: Client) -> dict[str, Any]:
    """What waits or works, by what it is."""
    artwork = client.artwork()
    return {
        **{one["id"]: one["state"] for one in artwork if one["state"] in ("queued", "reading") or one["targets"]},
        **{one["id"]: "preparing" for one in artwork if one["being_prepared"]},
        **{one["name"]: one["state"] for one in client.proofs() if one["state"] in ("working", "failed")},
        **{one["id"]: one["state"] for one in client.handed_over() if one["state"] in ("waiting", "running")},
        **{one["id"]: one["state"] for one in client.watermarks() if one["state"] in ("waiting", "running")},
    }


def until(seconds: float, step: Any) -> None:
    """Tries a step until it succeeds."""
    end = time.monotonic() + seconds
    while True:
        try:
            step()
            return
        except Away:
            if time.monotonic() > end:
                raise
            time.sleep(0.3)
