"""A first run that is killed while the sample loads leaves nothing behind that the next one does not mend.

The rehearsal cannot start in it: Fitzle goes on without.
"""

import time
from pathlib import Path

from demo.sheets import FILLED as PLACES

from tests.killing.client import Client
from tests.killing.running import Running
from tests.ports import free_port

LATER_SECONDS = (1, 6)  # after the sample began to load, which takes longer
NO_PORT = "70000"  # the rehearsal cannot listen there
COMPOSED = {"Lesson thumbnail", "Page header"}


def test_a_first_run_killed_while_the_sample_loads_is_made_whole_by_the_next(tmp_path: Path) -> None:
    running = Running(tmp_path, free_port(), begin_only=True, FITZLE_REHEARSAL_PORT=NO_PORT)
    try:
        for seconds in LATER_SECONDS:
            wait_for_sample(running)
            time.sleep(seconds)
            assert loading(running), "killed while it loads, not after"
            running.kill_all()
            running.script = running.begin()
        running.kill_all()
        running.start()
        assert "no rehearsal; all else works" in (tmp_path / "start.log").read_text()
        client = Client(running.port, 1)
        client.sign_in()
        artwork = client.artwork()
        assert {one["name"] for one in artwork} >= set(PLACES), "and nothing twice"
        assert len(artwork) == len({one["name"] for one in artwork})
        assert {one["state"] for one in artwork} == {"ready"}
        filled = {place["name"] for place in client.proofs() if place.get("fit")}
        assert filled == {place for places in PLACES.values() for place in places} | COMPOSED
        checked = running.manage("check_files")
        assert checked.returncode == 0, checked.stdout + checked.stderr
    finally:
        running.stop()


def loading(running: Running) -> bool:
    return any("demo.load" in line for line in running.processes().values())


def wait_for_sample(running: Running) -> None:
    end = time.monotonic() + 120
    while not loading(running):
        assert time.monotonic() < end and running.script.poll() is None, (running.folder / "start.log").read_text()
        time.sleep(0.05)
