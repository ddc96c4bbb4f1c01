"""Names of the files of a run: fields as tokens, and collisions found before anything is made."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable, Mapping

from fitzle.core.spec.stems import safe_stem

ROW_TOKEN = "row"


def row_tokens(cells: Mapping[str, str], number: int) -> dict[str, str]:
    """Tokens of a naming rule that a row gives values to: each field, and `row` (counted from 1)."""
    return {**{name: safe_stem(cell) if cell.strip() else "" for name, cell in cells.items()}, ROW_TOKEN: str(number)}


def collisions(names: Mapping[str, str]) -> list[list[str]]:
    """Groups of keys whose file names are one on some system: letters alike but for case or composition.

    Windows and macOS fold case, macOS composes letters, Windows drops dots and spaces at the end.
    """
    groups: dict[str, list[str]] = {}
    for key, name in names.items():
        groups.setdefault(_folded(name), []).append(key)
    return [group for group in groups.values() if len(group) > 1]


def _folded(name: str) -> str:
    return unicodedata.normalize("NFC", unicodedata.normalize("NFKD", name).casefold()).rstrip(". ")


def listed(numbers: Iterable[int]) -> str:
    """Line numbers in words: 3, 7 and 12."""
    told = [str(number) for number in numbers]
    return told[0] if len(told) == 1 else f"{', '.join(told[:-1])} and {told[-1]}"
