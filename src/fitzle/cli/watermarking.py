"""`watermark`: a mark in the corner of many pictures."""

from __future__ import annotations

import argparse
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of, written
from fitzle.cli.reading import read
from fitzle.cli.several import expanded
from fitzle.cli.telling import ACCEPTED, REFUSED, Answer
from fitzle.core.errors import FitzleError, ValueOutOfRange

AT_ONCE = 2
MOST_FILES = 500


def watermark(args: argparse.Namespace) -> Answer:
    """The pictures with the mark, in another folder; one that cannot be read does not stop the others."""
    from fitzle.core.documents import validated
    from fitzle.core.spec.naming import distinct_names
    from fitzle.core.watermark.placing import LEAST_SEEN, Stamp, drawn_marks

    paths = expanded(args.files)
    _check(paths, args.out)
    corner = args.corner.replace("-", " ")
    asked = {"corner": corner, "size": args.size, "distance": args.distance, "opacity": args.opacity}
    stamp = validated(Stamp, asked, subject="the options", noun="watermark")
    marks = drawn_marks([read(bytes_of(path), path.name) for path in (args.mark, *args.or_)])
    names = list(distinct_names(path.name for path in paths))
    with ThreadPoolExecutor(AT_ONCE) as pool:
        done = list(pool.map(lambda one: _one(one[0], one[1], marks, stamp, args), zip(paths, names, strict=True)))
    made = [one for one in done if "problem" not in one]
    failed = [one for one in done if "problem" in one]
    weakest = min(made, key=lambda one: float(one["contrast"]), default=None)
    answer = {
        "folder": str(args.out),
        "made": len(made),
        "failed": len(failed),
        "hardly_seen": sum(one["contrast"] < LEAST_SEEN for one in made),
        "weakest": {"file": weakest["file"], "contrast": weakest["contrast"]} if weakest else None,
    }
    if args.json:
        answer["pictures"] = done
    elif failed:
        answer["not_made"] = "; ".join(one["problem"] for one in failed)
    return answer, REFUSED if failed else ACCEPTED


def _check(paths: list[Path], out: Path) -> None:
    if len(paths) > MOST_FILES:
        raise ValueOutOfRange(
            "these are too many files at once", expected=f"at most {MOST_FILES}", actual=str(len(paths))
        )
    beside = [path for path in paths if path.resolve().parent == out.resolve()]
    if beside:
        raise ValueOutOfRange(
            f"{out} is where {beside[0].name} itself lies", advice="Name another folder: originals are never touched."
        )


def _one(path: Path, name: str, marks: Any, stamp: Any, args: argparse.Namespace) -> dict[str, Any]:
    from fitzle.core.watermark.stamping import stamped

    try:
        done = stamped(bytes_of(path), path.name, marks, stamp, keep_details=args.keep_details)
        file = written(args.out, f"{Path(name).stem}.{done.extension}", done.data)
    except FitzleError as error:
        return {"original": str(path), "problem": error.message}
    except OSError as error:
        return {"original": str(path), "problem": f"{error.filename or path}: {error.strerror or error}."}
    version = (args.mark, *args.or_)[done.version].name
    return {
        "original": str(path), "file": str(file), "bytes": len(done.data), "mark": version, "contrast": done.contrast,
    }  # fmt: skip
