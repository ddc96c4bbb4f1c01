"""`python -m fitzle.cli`: a command in a process that hostile drawings may end."""

from __future__ import annotations

import gc
import os
import sys

from fitzle.cli import reading
from fitzle.cli.running import main
from fitzle.cli.telling import say_error
from fitzle.lost import run_in_a_child


def _say_lost(message: str) -> int:
    return say_error("--json" in sys.argv, message)


if __name__ == "__main__":
    gc.set_threshold(50_000)  # loading makes many objects that stay; looking for garbage among them takes a tenth
    reading.may_be_lost = True
    code = run_in_a_child(main, _say_lost, reading.DRAWING_SECONDS)
    sys.stdout.flush()
    sys.stderr.flush()
    os._exit(code)
