"""Answers and errors as people and programs read them, and the exit codes."""

from __future__ import annotations

import json
import os
import sys
from typing import Any

ACCEPTED, REFUSED, WRONG = 0, 1, 2  # exit codes
Answer = tuple[dict[str, Any], int]


def say(text: str) -> None:
    """Prints an answer, also into a pipe that is closed already."""
    try:
        print(text, flush=True)
    except BrokenPipeError:  # whoever read has enough, as `head` has; Python would complain once more at its end
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())


def plain_findings(findings: list[Any]) -> list[dict[str, Any]]:
    """Findings as plain data."""
    return [finding.model_dump(mode="json") for finding in findings]


def table(answer: dict[str, Any]) -> str:
    """The answer for people: figures first, then each finding in its own line."""
    if "targets" in answer:
        return _built(answer)
    if "files" in answer:
        return "\n\n".join(table(one) for one in answer["files"])
    lines = []
    for key, value in answer.items():
        if key in ("findings", "demands", "edge_colours", "not_known"):
            continue
        lines.append(f"{key.replace('_', ' '):<14} {_cell(value)}")
    for demand in answer.get("demands", []):
        lines.append(f"  {demand['state']:<8} {demand['asked']:<28} {demand['measured']}")
    for finding in answer.get("findings", []):
        lines.append(f"{finding['severity']}: {finding['message']}")
    if answer.get("not_known"):
        lines.append(f"cannot be known of a finished file: {', '.join(answer['not_known'])} (./fitzle --explain RULE)")
    return "\n".join(lines)


def _built(answer: dict[str, Any]) -> str:
    """What became of all targets: those worth a line, then how many of each."""
    lines = []
    for one in answer["targets"]:
        lines.append(
            f"{one['state']:<12} {one['target']}" + (f"  ({one['verdict']})" if one["verdict"] != "fits" else "")
        )
        lines += [f"    {finding}" for finding in one["findings"]]
    lines += [f"not made any more, left where it is: {name}" for name in answer["not_made_any_more"]]
    counts = ", ".join(f"{count} {state}" for state, count in answer["counts"].items())
    return "\n".join([*lines, f"{answer['out']}: {counts or 'nothing to make'}"])


def _cell(value: Any) -> str:
    if isinstance(value, dict):
        return ", ".join(f"{key} {_cell(entry)}" for key, entry in value.items())
    if isinstance(value, list | tuple):
        return "; ".join(_cell(entry) for entry in value) or "none"
    return "none" if value is None else f"{value:g}" if isinstance(value, float) else str(value)


def say_error(as_json: bool, message: str) -> int:
    """Prints an error for people, and for programs where they asked for it; the exit code."""
    if as_json:
        print(json.dumps({"error": message}, ensure_ascii=False))
    print(f"fitzle: {message}", file=sys.stderr)
    return WRONG
