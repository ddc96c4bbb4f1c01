"""Commands that take several files, also as patterns that the shell did not fill in."""

from __future__ import annotations

import glob
from collections.abc import Callable, Iterable
from pathlib import Path

from fitzle.cli.telling import ACCEPTED, Answer
from fitzle.core.errors import ArtworkError


def expanded(paths: Iterable[Path]) -> list[Path]:
    """The files that are named, each once; raises ArtworkError for a pattern that nothing fits."""
    found: dict[Path, None] = {}
    for path in paths:
        if path.exists() or not glob.has_magic(str(path)):
            found[path] = None
            continue
        fitting = sorted(glob.glob(str(path), recursive=True))
        if not fitting:
            raise ArtworkError("nothing fits this pattern", subject=str(path))
        found.update(dict.fromkeys(Path(one) for one in fitting if Path(one).is_file()))
    return list(found)


def together(paths: Iterable[Path], run: Callable[[Path], Answer]) -> Answer:
    """One answer for one file as ever; for several a list of them, and the worst exit code."""
    answers = [run(path) for path in expanded(paths)]
    if len(answers) == 1:
        return answers[0]
    return {"files": [answer for answer, _ in answers]}, max((code for _, code in answers), default=ACCEPTED)
