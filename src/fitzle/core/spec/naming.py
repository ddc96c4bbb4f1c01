"""File names from the naming rule, safe on every system."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator, Mapping

from fitzle.core.formats import format_named
from fitzle.core.spec.stems import safe_stem
from fitzle.core.spec.tokens import USUAL_RULE, filled_rule
from fitzle.core.units import Size


def file_name(
    rule: str,
    fmt: str,
    *,
    subject: str,
    placement: str,
    size: Size,
    date: str = "",
    version: str = "",
    more: Mapping[str, str] | None = None,
) -> str:
    """The name of a delivered file; `date` like 2026-11-24 and `version` like 3 come from the caller, and so do the
    values of `more` tokens.
    """
    values = {
        **(more or {}),
        "subject": safe_stem(subject),
        "placement": safe_stem(placement),
        "width": str(size.width),
        "height": str(size.height),
        "size": str(size),
        "date": date,
        "version": version,
    }
    return f"{safe_stem(filled_rule(rule, values))}.{format_named(fmt).extension}"


def rule_for(own: str, house: str) -> str:
    """The naming rule of a place: its own where it states one, else that of the house, else the usual one."""
    return house if house and own == USUAL_RULE else own


def unused_name(name: str, used: Collection[str]) -> str:
    """The name, or with -2, -3 … before the extension when it is in use already (case does not count)."""
    stem, dot, extension = name.rpartition(".")
    return _unused(stem, f"{dot}{extension}", used)


def distinct_names(names: Iterable[str]) -> Iterator[str]:
    """The names; one whose stem an earlier one has gets -2, -3 …, so that the endings of all may still change."""
    taken: list[str] = []
    for name in names:
        stem, dot, extension = name.rpartition(".")
        own = _unused(stem or extension, "", taken)
        taken.append(own)
        yield f"{own}{dot}{extension}" if stem else own


def _unused(stem: str, ending: str, used: Collection[str]) -> str:
    taken = {entry.casefold() for entry in used}
    number, candidate = 1, f"{stem}{ending}"
    while candidate.casefold() in taken:
        number += 1
        candidate = f"{stem}-{number}{ending}"
    return candidate
