"""Words as SVG outlines with their plate, shadow, glow and outline."""

from __future__ import annotations

from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.render.svg_defs import Defs, figure
from fitzle.core.render.words import GLOW_SIGMA, GLOW_SPREAD, outer_px, outline_colour, outline_px


def words_markup(part: PlacedWords, defs: Defs) -> str:
    """All of it, back to front, as skia draws it."""
    letters = part.layout.outline().svg()
    made = []
    if part.plate:
        opacity = f' fill-opacity="{figure(part.plate.opacity)}"' if part.plate.opacity < 1 else ""
        made.append(f'<path d="{part.plate.path.svg()}" fill="{part.plate.colour}"{opacity}/>')
    if part.shadow:
        made.append(_shadow(part, letters, defs))
    if part.glow:
        made.append(_glow(part, letters, defs))
    if part.outline or part.outline_only:
        made.append(_outline(part, letters, defs))
    if not part.outline_only:
        made.append(f'<path d="{letters}" fill="{part.colour}"/>')
    return "".join(made)


def _shadow(part: PlacedWords, letters: str, defs: Defs) -> str:
    assert part.shadow is not None
    height = part.layout.cap_height_px
    body = _silhouette(part, letters, 2 * outer_px(part), part.shadow.colour)
    if part.shadow.softness:
        blur = defs.blur(part.shadow.softness * height / 2, _reach(part, outer_px(part)))
        body = f'<g filter="url(#{blur})">{body}</g>'
    move = f"translate({figure(part.shadow.dx * height)} {figure(part.shadow.dy * height)})"
    return f'<g transform="{move}" opacity="{figure(part.shadow.opacity)}">{body}</g>'


def _glow(part: PlacedWords, letters: str, defs: Defs) -> str:
    assert part.glow is not None
    spread = part.glow.radius * part.layout.cap_height_px
    grown = GLOW_SPREAD * spread + outer_px(part)
    blur = defs.blur(GLOW_SIGMA * spread, _reach(part, grown))
    body = _silhouette(part, letters, 2 * grown, part.glow.colour)
    return f'<g opacity="{figure(part.glow.strength)}" filter="url(#{blur})">{body}</g>'


def _outline(part: PlacedWords, letters: str, defs: Defs) -> str:
    width, offset = outline_px(part)
    line = _grown(letters, 2 * (width + offset), outline_colour(part))
    if not part.outline_only and offset == 0:
        return line
    box = _reach(part, width + offset + 2)
    white = f'<rect x="{figure(box.x)}" y="{figure(box.y)}" width="{figure(box.width)}" height="{figure(box.height)}"'
    mask = defs.mask(f'{white} fill="#fff"/>{_grown(letters, 2 * offset, "#000")}', box)
    return f'<g mask="url(#{mask})">{line}</g>'


def _silhouette(part: PlacedWords, letters: str, stroke_px: float, colour: str) -> str:
    if part.outline_only:
        return f'<path d="{letters}" fill="none" stroke="{colour}" {_stroke(stroke_px)}/>'
    return _grown(letters, stroke_px, colour)


def _grown(letters: str, stroke_px: float, colour: str) -> str:
    """The letters grown by half of a stroke."""
    if stroke_px <= 0:
        return f'<path d="{letters}" fill="{colour}"/>'
    return f'<path d="{letters}" fill="{colour}" stroke="{colour}" {_stroke(stroke_px)}/>'


def _stroke(width_px: float) -> str:
    return f'stroke-width="{figure(width_px)}" stroke-linejoin="round" stroke-linecap="round"'


def _reach(part: PlacedWords, by: float) -> Rect:
    block = part.layout.block
    return Rect(block.x - by, block.y - by, block.width + 2 * by, block.height + 2 * by)
