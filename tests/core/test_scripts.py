"""The scripts say plainly what is wrong before they change anything."""

import os
import socket
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.make import svg

ROOT = Path(__file__).parents[2]


@pytest.fixture
def taken_port() -> Iterator[int]:
    """A port on which somebody listens."""
    with socket.socket() as other:
        other.bind(("127.0.0.1", 0))
        other.listen()
        yield int(other.getsockname()[1])


def start(tmp_path: Path, *words: str, **environment: str) -> subprocess.CompletedProcess[str]:
    """./start with a data folder of its own."""
    variables = {**os.environ, "FITZLE_VAR": str(tmp_path / "var"), **environment}
    return subprocess.run(
        [str(ROOT / "start"), *words], env=variables, capture_output=True, text=True, timeout=60, check=False
    )


def test_a_taken_web_port_is_said_with_the_way_out(tmp_path: Path, taken_port: int) -> None:
    done = start(tmp_path, "--port", str(taken_port))
    assert done.returncode == 1
    assert f"port {taken_port} (web) is taken" in done.stderr
    assert "./start --port 8701" in done.stderr


def test_a_folder_for_sockets_that_is_not_ours_is_not_used(tmp_path: Path) -> None:
    """Whoever could write there could answer in the place of the database."""
    import hashlib

    (tmp_path / "tmp").mkdir()
    name = f"fitzle-{os.getuid()}-{hashlib.sha256(str(tmp_path / 'var').encode()).hexdigest()[:12]}"
    (tmp_path / "elsewhere").mkdir()
    (tmp_path / "tmp" / name).symlink_to(tmp_path / "elsewhere")
    done = start(tmp_path, "--setup", TMPDIR=str(tmp_path / "tmp"))
    assert done.returncode == 1
    assert "belongs to somebody else" in done.stderr


@pytest.mark.parametrize(
    ("words", "said"), [(["--prot", "1"], "unknown option --prot"), (["--port", "web"], "a number")]
)
def test_a_wrong_option_is_said(tmp_path: Path, words: list[str], said: str) -> None:
    done = start(tmp_path, *words)
    assert done.returncode == 1
    assert said in done.stderr


def test_help_names_every_environment_variable_that_start_reads(tmp_path: Path) -> None:
    import re

    text = (ROOT / "start").read_text() + (ROOT / "src/fitzle/config/settings.py").read_text()
    read = set(re.findall(r"(FITZLE_(?:PORT|VAR|WORKERS|HOSTS|HTTPS|UPLOAD_\w+))", text))
    said = start(tmp_path, "--help").stdout
    assert all(name in said for name in read)


def test_two_starts_from_one_folder_are_kept_apart(tmp_path: Path) -> None:
    import fcntl

    (tmp_path / "var").mkdir()
    with (tmp_path / "var" / "lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        done = start(tmp_path, "--setup")
    assert done.returncode == 1
    assert "already running" in done.stderr


def test_the_command_line_answers_from_any_folder(tmp_path: Path) -> None:
    (tmp_path / "mark.svg").write_bytes(svg())
    command = [str(ROOT / "fitzle"), "inspect", "mark.svg"]
    done = subprocess.run(command, cwd=tmp_path, capture_output=True, text=True, timeout=60, check=False)
    assert done.returncode == 0, done.stderr
    assert "mark" in done.stdout
