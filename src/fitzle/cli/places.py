"""`sheet` and `learn`: places said in words, and read off a screenshot."""

from __future__ import annotations

import argparse
import json
from typing import Any

from fitzle.cli.files import bytes_of, written
from fitzle.cli.telling import ACCEPTED, REFUSED, WRONG, Answer


def learn(args: argparse.Namespace) -> Answer:
    """How a place shows a picture, read off a screenshot."""
    from fitzle.core.artwork.limits import DEFAULT_LIMITS
    from fitzle.core.learning.finding import learn
    from fitzle.core.learning.reading import read_pair

    picture, shot, reduced = read_pair(bytes_of(args.picture), bytes_of(args.screenshot), DEFAULT_LIMITS)
    found = learn(picture, shot, args.density).in_picture_of(reduced)
    if not found.found:
        relatives = [one.model_dump(mode="json") for one in found.relatives]
        return {"box": None, "message": found.message, "relatives": relatives}, REFUSED
    first, *others = (one.model_dump(mode="json") for one in found.found)
    relatives = [one.model_dump(mode="json") for one in found.relatives]
    return first | {"others": others, "relatives": relatives}, ACCEPTED


def sheet(args: argparse.Namespace) -> Answer:
    """A spec sheet from what an upload page says."""
    from fitzle.core.spec.words.reading import read_words

    found = read_words(args.words)
    sheet = found.sheet.model_dump(mode="json", exclude_defaults=True) if found.sheet else None
    if sheet and args.out:
        written(args.out.parent, args.out.name, json.dumps(sheet, ensure_ascii=False, indent=2).encode())
    answer = {
        "sheet": sheet,
        "understood": [one._asdict() for one in found.understood],
        "not_understood": [one._asdict() for one in found.not_understood],
        "assumed": list(found.assumed),
        "problems": [one.message for one in found.problems],
    }
    return answer if args.json else _sheet_for_people(answer), ACCEPTED if sheet else WRONG


def _sheet_for_people(answer: dict[str, Any]) -> dict[str, Any]:
    """Each key of the sheet in its own line, then what became of the words."""
    told = {key: value for key, value in (answer["sheet"] or {}).items() if key != "fitzle_spec"}
    for key in ("not_understood", "assumed", "problems"):
        if answer[key]:
            told[key] = [one["text"] if isinstance(one, dict) else one for one in answer[key]]
    return told
