"""`icons`: all icon files of a site."""

from __future__ import annotations

import argparse
from pathlib import Path

from fitzle.cli.files import bytes_of, written
from fitzle.cli.reading import read
from fitzle.cli.several import expanded, together
from fitzle.cli.telling import ACCEPTED, Answer, plain_findings
from fitzle.core.errors import ValueOutOfRange


def _colour(text: str) -> str:
    from fitzle.core.colour.srgb import parse_hex, to_hex

    try:
        return to_hex(parse_hex(text))
    except ValueError as error:
        raise ValueOutOfRange("this is no colour", expected="one like #1d3b4f", actual=repr(text)) from error


def icons(args: argparse.Namespace) -> Answer:
    """All icon files of a site from each mark; of several each gets a folder of its own."""
    marks = expanded(args.mark)
    return together(marks, lambda mark: _icons_of(mark, args.out / mark.stem if len(marks) > 1 else args.out, args))


def _icons_of(path: Path, out: Path, args: argparse.Namespace) -> Answer:
    from fitzle.core.icons.making import make_icon_set

    mark = read(bytes_of(path), path.name)
    dark = read(bytes_of(args.dark), args.dark.name) if args.dark else None
    ground = _colour(args.ground) if args.ground else None
    name = args.name or path.stem.replace("-", " ").replace("_", " ")
    found = make_icon_set(mark, name, dark, ground, args.path)
    for file, data in found.files.items():
        written(out, file, data)
    answer = {
        "folder": str(out),
        "written": list(found.files),
        "ground": found.ground,
        "simpler_at": list(found.simpler_at),
        "dark_version": found.dark,
        "safe_reach": round(found.safe_reach, 4),
        "findings": plain_findings(list(found.findings)),
    }
    return answer, ACCEPTED
