"""What the files of a run are called, before any of them is made."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import NamedTuple

from fitzle.core.errors import DocumentError
from fitzle.core.runs.names import collisions, listed, row_tokens
from fitzle.core.runs.rows import RunRow
from fitzle.core.spec.stems import safe_stem
from fitzle.core.spec.tokens import TOKENS, filled_rule, tokens_in
from fitzle.core.units import Size


class RunFile(NamedTuple):
    """One file of a run: its row, the number of its sheet, and its name without an ending."""

    row: RunRow
    place: int
    stem: str


def check_rule(rule: str, fields: Iterable[str]) -> None:
    """Raises DocumentError for a naming rule with a token that neither a place nor a field gives a value to."""
    known = [*TOKENS, "row", *fields]
    for token in tokens_in(rule):
        if token not in known:
            told = " ".join(f"{{{name}}}" for name in known)
            raise DocumentError(f"the name has an unknown {{{token}}}", expected=told)


def stem_for(rule: str, row: RunRow, tokens: Mapping[str, str], size: Size) -> str:
    """The name of a row's file in a place, without an ending."""
    sizes = {"width": str(size.width), "height": str(size.height), "size": str(size)}
    return safe_stem(filled_rule(rule, {**row_tokens(row.cells, row.number), **tokens, **sizes}))


def check_stems(files: Iterable[RunFile]) -> None:
    """Raises DocumentError where two files of a run would be one on some system."""
    by_key = {f"{file.row.line}/{file.place}": file for file in files}
    for group in collisions({key: file.stem for key, file in by_key.items()}):
        lines = sorted({by_key[key].row.line for key in group})
        what = f"lines {listed(lines)}" if len(lines) > 1 else f"two places of line {lines[0]}"
        raise DocumentError(
            f"the files of {what} would both be called {by_key[group[0]].stem!r}",
            advice="Put a field that differs, or {row} and {placement}, into the name.",
        )
