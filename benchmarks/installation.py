"""A Fitzle of its own, filled, killed and kept: how long a backup takes, and how long nobody can work after kill -9."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path
from typing import NamedTuple

from tests.killing.running import Running
from tests.ports import free_port

BACKUP_BYTES, FILE_BYTES = 2_000_000_000, 20_000_000
FILL = f"""
import os
from fitzle.apps.accounts.models import Workspace
from fitzle.apps.files.keeping import keep_by_content
from fitzle.apps.files.shelves import Shelf
workspace = Workspace.objects.get()
for _ in range({BACKUP_BYTES // FILE_BYTES}):
    keep_by_content(Shelf.ORIGINALS, workspace.pk, [os.urandom({FILE_BYTES})])
"""


class Installation(NamedTuple):
    """Seconds of a backup of 2 GB, of writing as many bytes plainly, and from kill -9 of everything to the pages."""

    backup_s: float
    plain_s: float
    restart_s: float


def installation() -> Installation:
    """Measured in a folder of its own, which goes afterwards."""
    with tempfile.TemporaryDirectory() as folder:
        var = Path(folder) / "var"
        var.mkdir()
        running = Running(var, free_port())
        try:
            running.kill_all()
            restart = running.start()
            filled = running.manage("shell", "-v0", "-c", FILL)
            assert filled.returncode == 0, filled.stderr
            began = time.perf_counter()
            kept = running.manage("backup", folder)
            backup = time.perf_counter() - began
            assert kept.returncode == 0, kept.stderr
            return Installation(backup, _plain_s(Path(folder)), restart)
        finally:
            running.stop()


def _plain_s(folder: Path) -> float:
    """What the disk takes for as many bytes."""
    data = next(path for path in (folder / "var" / "files").rglob("*") if path.is_file()).read_bytes()[:FILE_BYTES]
    data = data.ljust(FILE_BYTES, b"\0")
    began = time.perf_counter()
    with (folder / "plain").open("wb") as out:
        for _ in range(BACKUP_BYTES // FILE_BYTES):
            out.write(data)
    return time.perf_counter() - began
