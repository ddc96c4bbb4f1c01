"""Which format and which file: the place's preferred format first, never over the limit, never a silent compromise."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from fitzle.core.encode.bmp import encode_bmp
from fitzle.core.encode.ico import encode_ico
from fitzle.core.encode.jpeg import encode_jpeg
from fitzle.core.encode.picture import Picture
from fitzle.core.encode.png import encode_png
from fitzle.core.encode.result import Attempt, Encoded, Search
from fitzle.core.encode.webp import encode_webp
from fitzle.core.findings import Finding
from fitzle.core.spec.sheet import Format, SpecSheet
from fitzle.core.units import words_for_bytes

GOOD_SCORE = 70.0  # SSIMULACRA2: below that a loss can be seen when looking for it
BAD_SCORE = 50.0  # below that it shows at once
USELESS_SCORE = 10.0  # below that ("very low quality" in the metric's own words) no file is better than this one

ENCODERS: dict[Format, Callable[[Picture, int | None], Search]] = {
    "png": encode_png,
    "jpeg": encode_jpeg,
    "webp": encode_webp,
    "bmp": encode_bmp,
    "ico": encode_ico,
}
OPAQUE_ONLY: frozenset[Format] = frozenset({"jpeg", "bmp"})


class Choice(NamedTuple):
    """The file, or None, with everything that was tried and what has to be said about it."""

    file: Encoded | None
    tried: list[Attempt]
    findings: list[Finding]


def best_file(picture: Picture, sheet: SpecSheet) -> Choice:
    """The best-looking file of the first preferred format that looks good; else the best of all formats."""
    formats = [fmt for fmt in sheet.formats if fmt in ENCODERS and (picture.opaque or fmt not in OPAQUE_ONLY)]
    if not formats:
        return Choice(None, [], [_no_format(sheet, picture)])
    tried: list[Attempt] = []
    best: Encoded | None = None
    for fmt in formats:
        found, attempts = ENCODERS[fmt](picture, sheet.max_bytes)
        tried += attempts
        if found and (best is None or found.score > best.score):
            best = found
        if best and best.score >= GOOD_SCORE:
            break
    if best and best.score < USELESS_SCORE:
        return Choice(None, tried, [_useless(best, tried, sheet)])
    return Choice(best, tried, _findings(best, tried, sheet))


def _findings(best: Encoded | None, tried: list[Attempt], sheet: SpecSheet) -> list[Finding]:
    if best is None:
        return [_over_limit(tried, sheet)]
    if best.score >= GOOD_SCORE:
        return []
    shows = "plainly shows" if best.score < BAD_SCORE else "can be seen"
    return [
        Finding(
            rule="quality",
            severity="risky" if best.score < BAD_SCORE else "note",
            message=f"Staying under {words_for_bytes(sheet.max_bytes or 0)} cost detail that {shows}: it looks"
            f" {best.score:.0f} of 100 ({best.settings}). A calmer picture or a plain ground would help.",
            measured=best.score,
            limit=BAD_SCORE if best.score < BAD_SCORE else GOOD_SCORE,
        )
    ]


def _over_limit(tried: list[Attempt], sheet: SpecSheet) -> Finding:
    if not tried:
        return Finding(rule="format", severity="refused", message="An ICO holds at most 256 x 256 px.", limit=256)
    least = min(tried, key=lambda attempt: attempt.bytes)
    kinds = sorted({attempt.format.upper() for attempt in tried})
    return Finding(
        rule="bytes",
        severity="refused",
        message=f"No file stays under {words_for_bytes(sheet.max_bytes or 0)}. {len(tried)} were tried as"
        f" {', '.join(kinds)}; the smallest has {words_for_bytes(least.bytes)} ({least.settings}). Fewer colours,"
        " a plain ground or less detail would help.",
        measured=least.bytes,
        limit=sheet.max_bytes,
    )


def too_heavy(kind: str, found: int, limit: int) -> Finding:
    """One file that could be made and weighs too much."""
    return Finding(
        rule="bytes",
        severity="refused",
        message=f"As {kind} it has {words_for_bytes(found)}, {words_for_bytes(found - limit)} too many. Photos"
        " weigh most in it: a mark, a shape or a plain ground instead would help.",
        measured=found,
        limit=limit,
    )


def _useless(best: Encoded, tried: list[Attempt], sheet: SpecSheet) -> Finding:
    smallest_lossless = min((attempt.bytes for attempt in tried if attempt.settings == "lossless"), default=None)
    needed = f" Lossless it has {words_for_bytes(smallest_lossless)}." if smallest_lossless else ""
    return Finding(
        rule="quality",
        severity="refused",
        message=f"Under {words_for_bytes(sheet.max_bytes or 0)} nothing recognisable is left: the best of {len(tried)}"
        f" tries looks {best.score:.0f} of 100.{needed} A calmer picture or a plain ground would help, or another"
        " format if the place takes one.",
        measured=best.score,
        limit=USELESS_SCORE,
    )


def _no_format(sheet: SpecSheet, picture: Picture) -> Finding:
    asked = ", ".join(sheet.formats)
    if any(fmt in ENCODERS for fmt in sheet.formats) and not picture.opaque:
        message = f"This place takes only {asked}, which cannot be transparent. Choose a ground."
    else:
        message = f"This place takes only {asked}, which Fitzle cannot write yet."
    return Finding(rule="format", severity="refused", message=message, measured=None, limit=asked)
