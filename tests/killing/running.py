"""A Fitzle of its own, started by its script, whose processes can be found and killed."""

from __future__ import annotations

import contextlib
import hashlib
import os
import random
import signal
import subprocess
import time
from pathlib import Path

ROOT = Path(__file__).parents[2]
SERVERS = ("mariadbd", "redis-server", "gunicorn", "celery", "nginx")
READY_SECONDS = 300
KILLED_SECONDS = 60  # until what was killed is gone


class Running:
    """Starts ./start with a data folder and a port, and finds the processes that belong to it."""

    def __init__(self, folder: Path, port: int, *, begin_only: bool = False, **environment: str) -> None:
        self.folder, self.port = folder, port
        self.environment = {
            **os.environ, "FITZLE_VAR": str(folder), "FITZLE_REVIVALS": "1000", "FITZLE_REVIVAL_PAUSE": "0.5",
            **environment,
        }  # fmt: skip
        self.script = self.begin()
        if not begin_only:
            self._wait()

    def start(self) -> float:
        """Starts everything; seconds until the pages answer."""
        began = time.monotonic()
        self.script = self.begin()
        self._wait()
        return time.monotonic() - began

    def begin(self) -> subprocess.Popen[bytes]:
        """Runs the script and waits for nothing."""
        with (self.folder / "start.log").open("ab") as log:
            command = [str(ROOT / "start"), "--port", str(self.port)]
            return subprocess.Popen(command, env=self.environment, stdout=log, stderr=log, start_new_session=True)

    def _wait(self) -> None:
        began = time.monotonic()
        while not self.answers():
            if self.script.poll() is not None or time.monotonic() - began > READY_SECONDS:
                raise AssertionError((self.folder / "start.log").read_text()[-2000:])
            time.sleep(0.1)

    def answers(self) -> bool:
        """Whether the pages can be had."""
        import http.client

        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=5)
        try:
            connection.request("GET", "/")
            return connection.getresponse().status == 200
        except (OSError, http.client.HTTPException):
            return False
        finally:
            connection.close()

    def processes(self) -> dict[int, str]:
        """All processes with this data folder, by their command lines; Redis writes over its environment."""
        found, mark = {}, f"FITZLE_VAR={self.folder}".encode()
        sockets = hashlib.sha256(str(self.folder).encode()).hexdigest()[:12].encode()
        for entry in Path("/proc").iterdir():
            if not entry.name.isdigit() or int(entry.name) == os.getpid():
                continue
            with contextlib.suppress(OSError):
                line = (entry / "cmdline").read_bytes()
                if sockets in line or mark in (entry / "environ").read_bytes().split(b"\0"):
                    found[int(entry.name)] = line.replace(b"\0", b" ").decode()
        return found

    def kill_something(self, chance: random.Random) -> str:
        """Kills one server process, a parent or a child, or all at once; says what."""
        if chance.random() < 0.15:
            self.kill_all()
            return f"everything, again after {self.start():.1f} s"
        servers = [(pid, line) for pid, line in self.processes().items() if any(name in line for name in SERVERS)]
        if not servers:
            return "nothing"
        kind = chance.choice([name for name in SERVERS if any(name in line for _, line in servers)])
        pid, line = chance.choice([entry for entry in servers if kind in entry[1]])
        with contextlib.suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
        return f"{kind} {pid} of {len(servers)}: {line[:40]}"

    def kill_all(self) -> None:
        """Kills the script and everything that it started, at once."""
        end = time.monotonic() + KILLED_SECONDS
        while found := self.processes():
            assert time.monotonic() < end, f"still there: {found}"
            for pid in found:
                with contextlib.suppress(ProcessLookupError):
                    os.kill(pid, signal.SIGKILL)
            time.sleep(0.05)
        self.script.wait(KILLED_SECONDS)

    def stop(self) -> None:
        """Ends it as a person does."""
        if self.script.poll() is None:
            self.script.terminate()
            with contextlib.suppress(subprocess.TimeoutExpired):
                self.script.wait(40)
        self.kill_all()

    def manage(self, *words: str) -> subprocess.CompletedProcess[str]:
        """One of Django's commands in it."""
        command = [str(ROOT / "manage"), *words]
        return subprocess.run(command, env=self.environment, capture_output=True, text=True, check=False, timeout=120)
