"""JPEG: several encoders compete under the limit, the best score wins (facts/encoding.md)."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, NamedTuple

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.foreseeing import expectation
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Candidate, Encoded, Search, best_of
from fitzle.core.encode.settings import JpegSettings

HIGHEST_QUALITY = 95
LOWEST_QUALITY = 5
FULL_COLOUR_ENOUGH = 88  # from this quality on at full colour resolution nothing else can look better
SLOW_BELOW_SCORE = 72.0  # below that the slow encoder for very small files is worth its time


class _Encoder(NamedTuple):
    chroma: Literal["4:4:4", "4:2:0"]
    smallest: bool
    encode: Callable[[Raster, int], bytes]

    def settings(self, quality: int) -> JpegSettings:
        return JpegSettings(chroma=self.chroma, quality=quality, smallest=self.smallest)


class _Found(NamedTuple):
    data: bytes
    settings: JpegSettings


def search_jpeg(rendered: Rendered, limit: int | None, budget: Budget) -> Search:
    """The best-looking JPEG of at most `limit` bytes; alpha must have been flattened before."""
    raster, candidates = rendered.raster, list[Candidate]()
    raster.expect_score()
    full = _best_setting(_FULL_COLOUR, raster, limit, budget, candidates)
    if full and full.settings.quality >= FULL_COLOUR_ENOUGH:
        return _chosen(full, raster, candidates)
    raster.expect_comparing()
    halved = _best_setting(_HALF_COLOUR, raster, limit, budget, candidates)
    compared = [_compared(found, raster) for found in (full, halved) if found]
    best = best_of(compared)
    if (best is None or best.score < SLOW_BELOW_SCORE) and budget.allows():
        slow = _best_setting(_SMALLEST, raster, limit, budget, candidates)
        best = best_of([entry for entry in (best, slow and _compared(slow, raster)) if entry])
    if best is None:
        return Search(None, candidates)
    assert isinstance(best.settings, JpegSettings)
    return _chosen(_Found(best.data, best.settings), raster, candidates)


def _best_setting(
    encoder: _Encoder, raster: Raster, limit: int | None, budget: Budget, candidates: list[Candidate]
) -> _Found | None:
    expected = expectation(encoder.encode, raster, limit, LOWEST_QUALITY, HIGHEST_QUALITY)
    found, tried = largest_under(
        lambda quality: encoder.encode(raster, quality),
        limit,
        LOWEST_QUALITY,
        HIGHEST_QUALITY,
        expected=expected,
        budget=budget,
    )
    candidates += [Candidate("jpeg", encoder.settings(entry.position), len(entry.data)) for entry in tried]
    return _Found(found.data, encoder.settings(found.position)) if found else None


def _compared(found: _Found, raster: Raster) -> Encoded:
    return Encoded(found.data, "jpeg", found.settings, raster.compared_score(found.data))


def _chosen(found: _Found, raster: Raster, candidates: list[Candidate]) -> Search:
    """The file with its own score, in the list as well."""
    best = Encoded(found.data, "jpeg", found.settings, raster.score(found.data))
    return Search(best, [best.candidate if entry.settings == best.settings else entry for entry in candidates])


def _full_colour(raster: Raster, quality: int) -> bytes:
    return bytes(
        raster.vips.extract_band(0, n=3).jpegsave_buffer(
            Q=quality, subsample_mode="off", optimize_coding=True, keep="none"
        )
    )


def _half_colour(raster: Raster, quality: int) -> bytes:
    import pyjpegli

    return bytes(pyjpegli.encode(raster.rgb, raster.width, raster.height, quality))


def _smallest(raster: Raster, quality: int) -> bytes:
    return bytes(
        raster.vips.extract_band(0, n=3).jpegsave_buffer(
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


_FULL_COLOUR = _Encoder("4:4:4", False, _full_colour)
_HALF_COLOUR = _Encoder("4:2:0", False, _half_colour)
_SMALLEST = _Encoder("4:2:0", True, _smallest)
