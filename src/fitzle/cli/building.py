"""`build` and `init`: all pictures of a folder under version control."""

from __future__ import annotations

import argparse
import hashlib
import json
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of, written
from fitzle.cli.telling import ACCEPTED, REFUSED, Answer
from fitzle.core.build.document import NAME, RECORD, Build, BuiltTarget, Record, read_build, read_record
from fitzle.core.build.targets import Sources, Target
from fitzle.core.errors import DocumentError, FitzleError
from fitzle.core.handover.folder import keep_current, path_below, state_of

BAD = ("refused", "failed")


def build(args: argparse.Namespace) -> Answer:
    """Makes what changed since, or with `--check` says what would; the exit code says whether all is well."""
    path = args.file / NAME if args.file.is_dir() else args.file
    document, root = read_build(bytes_of(path), path.name), path.resolve().parent
    out = root / document.out
    before = _record(out)
    sources = Sources(document, root, bytes_of)
    targets = sources.targets()
    run = _Run(document, out, sources, check=args.check)
    told = [run.settle(target, before.targets.get(target.name)) for target in targets]
    gone = sorted(set(before.targets) - {target.name for target in targets})
    if not args.check:
        _write_record(out, run.record, before)
    answer = _answer(told, gone, str(document.out), check=args.check)
    return answer, _code(told, check=args.check, strict=args.strict)


def init(args: argparse.Namespace) -> Answer:
    """Writes a fitzle.toml from what lies in a folder; never over one that is there."""
    from fitzle.cli.beginning import begun

    target = args.folder / NAME
    if target.exists():
        raise DocumentError("there is one already", subject=str(target), advice="Change that one, or take it away.")
    text, found = begun(args.folder)
    written(args.folder, NAME, text.encode())
    return {"file": str(target), **found, "next": f"./fitzle build {target}"}, ACCEPTED


class _Run:
    """One run over all targets; what is costly is loaded once something has to be made."""

    def __init__(self, document: Build, out: Path, sources: Sources, *, check: bool) -> None:
        self._document, self._out, self._sources, self._check = document, out, sources, check
        self._artwork: dict[Path, Any] = {}
        self.record: dict[str, BuiltTarget] = {}

    def settle(self, target: Target, before: BuiltTarget | None) -> dict[str, Any]:
        """What became of a target: unchanged, new, changed, out of date (only looked at), refused or failed."""
        if before and before.key == target.key and self._there(before):
            self.record[target.name] = before
            return _told(target, "unchanged", before.verdict, before.findings, list(before.files))
        try:
            output = self._made(target)
            files = {name: hashlib.sha256(data).hexdigest() for name, data in output.files.items()}
            state = self._write(output.files) if output.files else "refused"
        except FitzleError as error:
            return _told(target, "failed", "failed", (error.message,), [])
        self.record[target.name] = BuiltTarget(
            key=target.key, verdict=output.verdict, findings=output.findings, files=files
        )
        return _told(target, state, output.verdict, output.findings, list(files))

    def _there(self, before: BuiltTarget) -> bool:
        """Whether its files lie where they were written, as they were; one that was refused has none."""
        states = (state_of(path_below(self._out, name), sha256) for name, sha256 in before.files.items())
        return all(state == "unchanged" for state in states)

    def _made(self, target: Target) -> Any:
        from fitzle.core.build.making import made_target

        return made_target(target, self._read, self._sources.bytes_of, self._document.house)

    def _read(self, path: Path) -> Any:
        from fitzle.cli.reading import read

        if path not in self._artwork:
            self._artwork[path] = read(bytes_of(path), path.name)
        return self._artwork[path]

    def _write(self, files: dict[str, bytes]) -> str:
        """Writes what has other bytes than what lies there; only says so where nothing is to be changed."""
        if self._check:
            states = {
                state_of(path_below(self._out, name), hashlib.sha256(data).hexdigest()) for name, data in files.items()
            }
            return "unchanged" if states == {"unchanged"} else "out of date"
        states = {keep_current(self._out, name, data) for name, data in files.items()}
        return "changed" if "changed" in states else "new" if "new" in states else "unchanged"


def _told(target: Target, state: str, verdict: str, findings: tuple[str, ...], files: list[str]) -> dict[str, Any]:
    return {"target": target.name, "state": state, "verdict": verdict, "files": files, "findings": list(findings)}


def _record(out: Path) -> Record:
    path = out / RECORD
    return read_record(path.read_bytes()) if path.is_file() else Record()


def _write_record(out: Path, targets: dict[str, BuiltTarget], before: Record) -> None:
    if targets == before.targets:
        return
    record = Record(targets={name: targets[name] for name in sorted(targets)})
    told = record.model_dump(mode="json", exclude_defaults=True)
    text = json.dumps({"fitzle_build": 1, **told}, indent=1, ensure_ascii=False) + "\n"
    keep_current(out, RECORD, text.encode())


def _answer(told: list[dict[str, Any]], gone: list[str], out: str, *, check: bool) -> dict[str, Any]:
    counts: dict[str, int] = {}
    for one in told:
        counts[one["state"]] = counts.get(one["state"], 0) + 1
    worth = [one for one in told if one["state"] != "unchanged" or one["verdict"] in ("risky", *BAD)]
    return {"out": out, "checked": check, "counts": counts, "targets": worth, "not_made_any_more": gone}


def _code(told: list[dict[str, Any]], *, check: bool, strict: bool) -> int:
    bad = any(one["verdict"] in BAD or (strict and one["verdict"] == "risky") for one in told)
    stale = check and any(one["state"] == "out of date" for one in told)
    return REFUSED if bad or stale else ACCEPTED
