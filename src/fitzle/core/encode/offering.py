"""What somebody may fix of each format."""

from __future__ import annotations

from collections.abc import Sequence

from fitzle.core.encode.registry import ENCODERS
from fitzle.core.encode.settings import AvifSettings, JpegSettings, PaletteSettings
from fitzle.core.findings import Frozen
from fitzle.core.formats import Format, label_of


class FormatOffer(Frozen):
    """A format with what of it can be fixed."""

    format: Format
    label: str
    quality: bool
    chroma: bool
    colours: bool


def offers(formats: Sequence[Format]) -> list[FormatOffer]:
    """For those of a sheet's formats that can be written, in its order."""
    return [_offer(fmt) for fmt in formats if fmt in ENCODERS]


def _offer(fmt: Format) -> FormatOffer:
    told = [line.settings(line.high) for line in ENCODERS[fmt].lines]
    palettes = any(isinstance(one, PaletteSettings) for one in told)
    return FormatOffer(
        format=fmt,
        label=label_of(fmt),
        quality=bool(told) and not palettes,
        chroma=any(isinstance(one, JpegSettings | AvifSettings) for one in told),
        colours=palettes,
    )
