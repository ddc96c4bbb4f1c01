"""Every typeface with the same words in the same box: how large they get, and whether they read small."""

from __future__ import annotations

from fitzle.core.findings import Frozen
from fitzle.core.piece.parts import WordsPart
from fitzle.core.plan.words import placed_words
from fitzle.core.preflight.viewing import smallest_viewing
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.type.library import Family, offered_families
from fitzle.core.type.small import reads, small_figures
from fitzle.core.units import Size


class Typeface(Frozen):
    """A family with its figures for given words, where the picture is seen smallest (in px of the viewer's screen)."""

    family: str
    kind: str
    weights: tuple[int, ...]
    italics: tuple[int, ...]
    weight: int
    cap_height_px: float
    seen_x_height_px: float
    seen_stroke_px: float
    reads: bool


def typefaces_for(words: WordsPart, size: Size, sheet: SpecSheet) -> list[Typeface]:
    """All families that are offered, set as the part is."""
    viewing = smallest_viewing(sheet)
    share = viewing.width / size.width if viewing else 1.0
    density = viewing.density if viewing else 1.0
    return [_figures(words, family, size, share, density) for family in offered_families()]


def _figures(words: WordsPart, family: Family, size: Size, share: float, density: float) -> Typeface:
    face = family.face(words.weight, words.italic)
    layout = placed_words(words.model_copy(update={"family": family.name}), size).layout
    small = small_figures(face.files[0])
    em = layout.size_px * share
    return Typeface(
        family=family.name,
        kind=family.kind,
        weights=tuple(sorted(entry.weight for entry in family.faces if not entry.italic)),
        italics=tuple(sorted(entry.weight for entry in family.faces if entry.italic)),
        weight=face.weight,
        cap_height_px=round(layout.cap_height_px, 1),
        seen_x_height_px=round(small.x_height * em, 1),
        seen_stroke_px=round(small.stroke * em, 2),
        reads=reads(small, em, density),
    )
