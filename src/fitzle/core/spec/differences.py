"""What one sheet asks or shows that another did not, in words."""

from __future__ import annotations

from fitzle.core.spec.sentences import sentences
from fitzle.core.spec.sheet import SpecSheet

_CHANGES_NO_FILE = frozenset("naming fields capacity".split())


def differences(before: SpecSheet, after: SpecSheet) -> list[str]:
    """What a file or its judgement may change by, a sentence each, in the order of the sheet; none for other names."""
    then, now = _by_key(before), _by_key(after)
    found = []
    for key in dict.fromkeys([*now, *then]):
        gone = [text for text in then.get(key, []) if text not in now.get(key, [])]
        new = [text for text in now.get(key, []) if text not in then.get(key, [])]
        if gone or new:
            found.append(_said(gone, new))
    return found


def _said(gone: list[str], new: list[str]) -> str:
    was = " ".join(gone).removesuffix(".")
    if not new:
        return f"No longer: {was}."
    is_now = " ".join(new)
    return f"{is_now.removesuffix('.')} (was: {was})." if gone else is_now


def _by_key(sheet: SpecSheet) -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for one in sentences(sheet):
        if one.key not in _CHANGES_NO_FILE:
            found.setdefault(one.key, []).append(one.text)
    return found
