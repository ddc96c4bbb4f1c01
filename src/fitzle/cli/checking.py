"""`check`: would these files be accepted?"""

from __future__ import annotations

import argparse
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of
from fitzle.cli.reading import spec_of
from fitzle.cli.several import expanded
from fitzle.cli.telling import ACCEPTED, REFUSED, Answer, plain_findings


def check(args: argparse.Namespace) -> Answer:
    """One file is answered as before; several are also compared with each other."""
    sheet, files = spec_of(args.spec), {str(path): path for path in expanded(args.files)}
    series = _series(files, sheet) if len(files) > 1 else {}
    answers = [_checked(path, sheet, series.get(name, ())) for name, path in files.items()]
    code = REFUSED if any(answer["verdict"] == "refused" for answer in answers) else ACCEPTED
    return (answers[0] if len(answers) == 1 else {"files": answers}), code


def _checked(path: Path, sheet: Any, series: tuple[Any, ...]) -> dict[str, Any]:
    from fitzle.core.fit.finished import NOT_KNOWN, judge_finished

    facts, judgement = judge_finished(bytes_of(path), path.name, sheet, series)
    return {
        "file": str(path), "width": facts.width, "height": facts.height, "format": facts.format,
        "bytes": facts.bytes, "verdict": judgement.verdict,
        "quality": {"metric": "ssimulacra2", "score": None},
        "demands": [
            {"rule": d.rule, "asked": d.asked, "measured": d.measured, "state": d.state} for d in judgement.demands
        ],
        "findings": plain_findings(judgement.findings),
        "not_known": NOT_KNOWN,
    }  # fmt: skip


def _series(files: dict[str, Path], sheet: Any) -> dict[str, tuple[Any, ...]]:
    from fitzle.core.preflight.seeing import finished_pixels
    from fitzle.core.preflight.series import twins_among

    pictures = {name: finished_pixels(bytes_of(path)) for name, path in files.items()}
    return twins_among({name: pixels for name, pixels in pictures.items() if pixels is not None}, sheet)
