"""How the files of one place are handed over, remembered with the place."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator

from fitzle.core.findings import Frozen
from fitzle.core.formats import Format, format_named
from fitzle.core.handover.names import Replacing
from fitzle.core.spec.sheet import SpecSheet

Variant = Literal["dark", "light", "svg", "png"]
WORDS: dict[Variant, str] = {
    "dark": "for dark pages", "light": "for light pages", "svg": "as a vector (SVG)", "png": "as a bitmap (PNG)",
}  # fmt: skip
STILL_WORDS = "as a still picture (PNG), for where nothing may move"
_GROUNDS: dict[str, str] = {"dark": "#17181a", "light": "#ffffff"}


def _each_once(variants: tuple[Variant, ...]) -> tuple[Variant, ...]:
    return tuple(dict.fromkeys(variants))


class Handing(Frozen):
    """What a file that replaces another one is called, and which variants go with it."""

    replacing: Replacing = "rule"
    also: Annotated[tuple[Variant, ...], AfterValidator(_each_once)] = ()


USUAL = Handing()


def variants_of(handing: Handing, own_format: Format) -> list[Variant]:
    """The variants that are another file than the one itself."""
    return [one for one in handing.also if one != own_format]


def offered_variants(own_format: Format, *, of_a_set: bool) -> list[Variant]:
    """The variants that may go with a file; none with a set, whose files have names of their own."""
    return [] if of_a_set else [one for one in WORDS if one != own_format]


def words_of(variant: Variant, *, moving: bool = False) -> str:
    """A variant in words; of a file that moves a bitmap is its still, of the same size, for where nothing may move."""
    return STILL_WORDS if moving and variant == "png" else WORDS[variant]


def variant_sheet(sheet: SpecSheet, variant: Variant) -> SpecSheet:
    """The sheet that a variant is made for."""
    if variant in _GROUNDS:
        return sheet.model_copy(update={"grounds": (_GROUNDS[variant],)})
    limit = None if format_named(variant).vector else sheet.max_bytes
    return sheet.model_copy(update={"formats": (variant,), "max_bytes": limit})
