"""Runs something in a process that may be lost: hostile drawings end that one, and this one says so in words."""

from __future__ import annotations

import os
import signal
import sys
from collections.abc import Callable

INTERRUPTED = 130  # as shells have it
TOO_LONG = "this takes more than {seconds:g} seconds to draw. Make the drawing simpler, or use a bitmap of it."
TOO_MUCH = "this takes too much memory to read or draw. Make the drawing simpler or the picture smaller."


def run_in_a_child(run: Callable[[], int], say: Callable[[str], int], seconds: float) -> int:
    """The exit code of `run`, which is called in a child process; where that is ended, of `say`, with words."""
    child = os.fork()
    if child == 0:
        signal.signal(signal.SIGINT, signal.SIG_DFL)
        code = run()
        sys.stdout.flush()
        sys.stderr.flush()
        os._exit(code)  # everything is written; taking the large libraries down in order costs 0.2 s
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the child gets it as well
    _, status = os.waitpid(child, 0)
    if not os.WIFSIGNALED(status):
        return os.WEXITSTATUS(status)
    ended_by = os.WTERMSIG(status)
    if ended_by == signal.SIGINT:
        return INTERRUPTED
    return say(TOO_LONG.format(seconds=seconds) if ended_by == signal.SIGALRM else TOO_MUCH)
