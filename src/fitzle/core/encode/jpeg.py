"""JPEG: several encoders compete under the limit, the best score wins (facts/encoding.md)."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.picture import Picture
from fitzle.core.encode.result import Attempt, Encoded, Search, best_of

HIGHEST_QUALITY = 95
LOWEST_QUALITY = 5
FULL_COLOUR_ENOUGH = 88  # from this quality on at full colour resolution nothing else can look better
SLOW_BELOW_SCORE = 72.0  # below that the slow encoder for very small files is worth its time


class _Encoder(NamedTuple):
    name: str
    encode: Callable[[Picture, int], bytes]


def encode_jpeg(picture: Picture, limit: int | None) -> Search:
    """The best-looking JPEG of at most `limit` bytes; alpha must have been flattened before."""
    tried: list[Attempt] = []
    picture.expect_scoring()
    full = _best_setting(_FULL_COLOUR, picture, limit, tried)
    if full and _quality(full) >= FULL_COLOUR_ENOUGH:
        return Search(_scored(full, picture), tried)
    halved = _best_setting(_HALF_COLOUR, picture, limit, tried)
    best = best_of([_scored(found, picture) for found in (full, halved) if found])
    if best is None or best.score < SLOW_BELOW_SCORE:
        slow = _best_setting(_SMALLEST, picture, limit, tried)
        best = best_of([found for found in (best, slow and _scored(slow, picture)) if found])
    return Search(best, tried)


def _best_setting(encoder: _Encoder, picture: Picture, limit: int | None, tried: list[Attempt]) -> Encoded | None:
    found, settings = largest_under(
        lambda quality: encoder.encode(picture, quality), limit, LOWEST_QUALITY, HIGHEST_QUALITY
    )
    tried += [Attempt("jpeg", f"{encoder.name}, quality {entry.position}", len(entry.data)) for entry in settings]
    return Encoded(found.data, "jpeg", f"{encoder.name}, quality {found.position}", 0.0) if found else None


def _quality(found: Encoded) -> int:
    return int(found.settings.rpartition(" ")[2])


def _scored(found: Encoded, picture: Picture) -> Encoded:
    return found._replace(score=picture.score(found.data))


def _full_colour(picture: Picture, quality: int) -> bytes:
    return bytes(
        picture.vips.extract_band(0, n=3).jpegsave_buffer(
            Q=quality, subsample_mode="off", optimize_coding=True, keep="none"
        )
    )


def _half_colour(picture: Picture, quality: int) -> bytes:
    import pyjpegli

    return bytes(pyjpegli.encode(picture.rgb, picture.width, picture.height, quality))


def _smallest(picture: Picture, quality: int) -> bytes:
    return bytes(
        picture.vips.extract_band(0, n=3).jpegsave_buffer(
            Q=quality,
            subsample_mode="on",
            optimize_coding=True,
            interlace=True,
            trellis_quant=True,
            overshoot_deringing=True,
            optimize_scans=True,
            quant_table=3,
            keep="none",
        )
    )


_FULL_COLOUR = _Encoder("4:4:4", _full_colour)
_HALF_COLOUR = _Encoder("4:2:0", _half_colour)
_SMALLEST = _Encoder("4:2:0 smallest", _smallest)
