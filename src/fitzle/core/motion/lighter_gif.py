"""A GIF packed again by gifsicle (Debian's package of that name), called as a program with a time limit.

Its packing takes colours that are near where that makes runs longer; of photos that saves half of the bytes.
"""

from __future__ import annotations

import shutil
import subprocess

LONGEST_S = 40.0


def lighter_gif(data: bytes, lossiness: int) -> bytes:
    """The GIF packed with so much lossiness (0 to 200); as it was where gifsicle is missing, fails or gains nothing."""
    program = shutil.which("gifsicle")
    if program is None:
        return data
    command = [program, "-O3", f"--lossy={lossiness}", "--no-warnings", "--no-comments", "--no-names"]
    try:
        done = subprocess.run(command, input=data, capture_output=True, timeout=LONGEST_S, check=True)
    except (subprocess.SubprocessError, OSError):
        return data
    return done.stdout if 0 < len(done.stdout) < len(data) else data
