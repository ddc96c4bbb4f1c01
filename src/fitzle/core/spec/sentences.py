"""A spec sheet as people read it: each demand as a sentence with figures, and the sizes that a drawing of it shows."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from fitzle.core.formats import label_of
from fitzle.core.spec.sheet import AnyMask, CoveredZone, ExactSize, RangedSize, ShownWindow, SpecSheet, Veil, Viewing
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size, words_for_bytes

_ASKED = frozenset("size formats max_bytes transparency motion capacity fields naming".split())
TYPICAL = Size(1600, 1200)  # stands for artwork where the sheet leaves the shape open


class Sentence(NamedTuple):
    """What one key of the sheet demands or shows."""

    key: str
    text: str

    @property
    def asked(self) -> bool:
        """Whether the destination asks for it; the rest is how it is seen there."""
        return self.key in _ASKED


class Drawn(NamedTuple):
    """The size that is drawn, and the least and the most that are taken where the sheet has a range; in px."""

    size: Size
    least: Size | None
    most: Size | None


def sentences(sheet: SpecSheet) -> list[Sentence]:
    """All that the sheet says, in the order in which people ask for it; colours as hex codes, sizes in px."""
    return [
        *(Sentence("size", text) for text in _size(sheet.size)),
        Sentence("formats", f"{_joined([label_of(name) for name in sheet.formats], ', else ')}."),
        *_one("max_bytes", sheet.max_bytes and f"At most {_weight(sheet.max_bytes)}."),
        *_one("transparency", _TRANSPARENCY[sheet.transparency]),
        *(Sentence("motion", text) for text in _motion(sheet)),
        *_one("cut", _cut(sheet.mask)),
        *_one("veil", _veil(sheet.veil)),
        *(Sentence("covered", _covered(zone)) for zone in sheet.covered),
                *(Sentence("windows", _window(one)) for one in sheet.windows),
        *(Sentence("seen", _seen(one)) for one in sheet.seen),
        Sentence("grounds", f"Stands on {_joined(sheet.grounds, ', ', ' and ')}."),
        *_one("capacity", _capacity(sheet.capacity)),
        *(Sentence("fields", _field(one.label, one.max_length, one.required)) for one in sheet.fields),
        Sentence("naming", f"Files are called {sheet.naming}."),
    ]  # fmt: skip


def drawn(sheet: SpecSheet) -> Drawn:
    """The sizes that a drawing to scale shows."""
    size = delivered_size(sheet, _natural(sheet.size), vector=True)
    if isinstance(sheet.size, ExactSize):
        return Drawn(size, None, None)
    ratio = sheet.size.ratio or size.ratio
    least = _limit(sheet.size.min_width, sheet.size.min_height, ratio, larger=True)
    most = _limit(sheet.size.max_width, sheet.size.max_height, ratio, larger=False)
    return Drawn(size, least if least != size else None, most if most != size else None)


def _natural(size: ExactSize | RangedSize) -> Size:
    """Artwork of the shape that the limits have where they have one."""
    if isinstance(size, RangedSize):
        for width, height in ((size.max_width, size.max_height), (size.min_width, size.min_height)):
            if width and height:
                return Size(width, height)
    return TYPICAL


def _limit(width: int | None, height: int | None, ratio: float, *, larger: bool) -> Size | None:
    """Both limits as one size; where one is open it follows from the shape."""
    widths = [float(width)] if width else []
    widths += [height * ratio] if height else []
    if not widths:
        return None
    found = max(widths) if larger else min(widths)
    return Size(max(1, round(found)), max(1, round(found / ratio)))


_TRANSPARENCY = {"forbidden": "Without transparency.", "allowed": "", "required": "Transparent around the picture."}


def _veil(veil: Veil | None) -> str:
    return f"{veil.colour} at {_percent(veil.opacity)} lies over all of it." if veil else ""


def _weight(count: int) -> str:
    return words_for_bytes(count).replace(".0 ", " ")


def _seen(viewing: Viewing) -> str:
    name = "" if viewing.name == f"at {viewing.width} px" else f": {viewing.name}"
    return f"Seen {viewing.width} px wide{_on(viewing.density)}{name}."


def _window(window: ShownWindow) -> str:
    if window.width == window.height == 1:
        return f"{window.name} shows all of it."
    return f"{window.name} shows {_percent(window.width)} of its width, {_percent(window.height)} of its height."


def _capacity(count: int | None) -> str:
    return "" if count is None else "Takes one file." if count == 1 else f"Takes {count} files."


def _one(key: str, text: str | int | None) -> list[Sentence]:
    return [Sentence(key, str(text))] if text else []


def _size(size: ExactSize | RangedSize) -> Iterator[str]:
    if isinstance(size, ExactSize):
        yield f"Exactly {size.width} × {size.height} px."
        return
    if size.aspect:
        yield f"Shape {size.aspect}." if size.aspect != "1:1" else "Square, 1:1."
    both = (size.min_width, size.min_height), (size.max_width, size.max_height)
    exact = size.min_width == size.max_width or size.min_height == size.max_height
    if not exact and all(bool(width) == bool(height) for width, height in both):
        yield from (f"{word} {w} × {h} px." for word, (w, h) in zip(("At least", "At most"), both, strict=True) if w)
    else:
        yield from _side(size.min_width, size.max_width, "wide")
        yield from _side(size.min_height, size.max_height, "high")
    if size.recommended:
        yield f"Best at {size.recommended.width} × {size.recommended.height} px."


def _side(least: int | None, most: int | None, word: str) -> Iterator[str]:
    if least and most:
        yield f"Exactly {least} px {word}." if least == most else f"Between {least} and {most} px {word}."
    elif least or most:
        yield f"{'At least' if least else 'At most'} {least or most} px {word}."


def _motion(sheet: SpecSheet) -> Iterator[str]:
    motion = sheet.motion
    if not motion.allowed:
        return
    yield "Has to move." if motion.required else "May move."
    if motion.max_seconds:
        yield f"Plays at most {motion.max_seconds:g} s."
    if motion.max_fps:
        yield f"At most {motion.max_fps:g} frames a second."
    if motion.loop is not None:
        yield "Plays again and again." if motion.loop else "Plays once."


def _cut(mask: AnyMask | None) -> str:
    if mask is None:
        return ""
    if mask.shape == "circle":
        return "Shown in a circle."
    return f"Shown with corners rounded by {_percent(mask.radius)} of the short side."


def _covered(zone: CoveredZone) -> str:
    across = "left" if zone.x + zone.width / 2 < 0.4 else "right" if zone.x + zone.width / 2 > 0.6 else "in the middle"
    down = "top" if zone.y + zone.height / 2 < 0.4 else "bottom" if zone.y + zone.height / 2 > 0.6 else "half-way down"
    return f"{zone.label} covers {_percent(zone.width)} × {_percent(zone.height)}, {down}, {across}."


def _on(density: float) -> str:
    return f" at density {density:g}" if density != 1 else ""


def _field(label: str, letters: int | None, required: bool) -> str:
    most = f", at most {letters} letters" if letters else ""
    return f"Asks for: {label}{most}{', has to be filled' if required else ''}."


def _percent(share: float) -> str:
    return f"{share * 100:.3g} %"


def _joined(parts: tuple[str, ...] | list[str], between: str, last: str = "") -> str:
    if not last or len(parts) < 2:
        return between.join(parts)
    return f"{between.join(parts[:-1])}{last}{parts[-1]}"
