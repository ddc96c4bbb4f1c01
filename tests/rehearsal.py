"""The rehearsal as a process of its own on a free port, with a token and a folder of its own."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, NamedTuple

import urllib3

from tests.ports import free_port

ROOT = Path(__file__).parents[1]
TOKEN = "a-token-of-the-tests"
LONGEST_S = 40.0


class Running(NamedTuple):
    """A rehearsal that runs."""

    address: str
    process: subprocess.Popen[bytes]

    def ask(self, path: str, method: str = "GET", **more: Any) -> urllib3.BaseHTTPResponse:
        """The answer to a request with the token."""
        headers = {"Authorization": f"Bearer {TOKEN}"} | more.pop("headers", {})
        return urllib3.request(method, f"{self.address}{path}", headers=headers, timeout=20, retries=False, **more)

    def goes_wrong(self, **fault: Any) -> None:
        """Sets a fault."""
        assert self.ask("/faults", "POST", json=fault).status == 201

    def calm(self) -> None:
        """Takes back all faults, and forgets what was uploaded."""
        self.ask("/faults", "DELETE")
        for place in self.ask("/places").json()["places"]:
            self.ask(f"/empty/{place['slug']}", "POST")


@contextmanager
def running_rehearsal(folder: Path) -> Iterator[Running]:
    """Starts one, and ends it."""
    port = free_port()
    env = os.environ | {
        "FITZLE_VAR": str(folder), "FITZLE_REHEARSAL_TOKEN": TOKEN, "PYTHONPATH": f"{ROOT}/src:{ROOT}",
    }  # fmt: skip
    env.pop("DJANGO_SETTINGS_MODULE", None)
    command = [
        sys.executable, "-m", "gunicorn", "fitzle.rehearsal.wsgi", "--bind", f"127.0.0.1:{port}", "--threads", "4",
        "--worker-class", "gthread", "--log-level", "error",
    ]  # fmt: skip
    process = subprocess.Popen(command, env=env, cwd=ROOT)
    try:
        until = time.monotonic() + LONGEST_S
        while time.monotonic() < until and process.poll() is None:
            with socket.socket() as tried:
                if tried.connect_ex(("127.0.0.1", port)) == 0:
                    break
            time.sleep(0.1)
        yield Running(f"http://127.0.0.1:{port}", process)
    finally:
        process.terminate()
        process.wait(timeout=15)
