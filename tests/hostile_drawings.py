"""Drawings and shapes that cost far more than they weigh, each with what is wrong with it as its name."""

import io
from collections.abc import Callable

from PIL import Image

from tests.make import svg

Made = tuple[str, bytes]
_SQUARE = '<rect width="100" height="50" fill="#17443c"/>'


def _nested(opening: Callable[[int], str], closing: str, depth: int, inner: str = _SQUARE) -> str:
    return "".join(opening(level) for level in range(depth)) + inner + closing * depth


def _chain(define: Callable[[int, str], str], depth: int) -> str:
    """Definitions each of which draws with the one before it."""
    return (
        "<defs>"
        + "".join(define(level, f"url(#d{level - 1})" if level else "#fff") for level in range(depth))
        + "</defs>"
    )


def _masks(depth: int) -> str:
    masks = "".join(f'<mask id="m{n}"><rect width="100" height="50" fill="#ddd"/></mask>' for n in range(depth))
    return f"<defs>{masks}</defs>" + _nested(lambda n: f'<g mask="url(#m{n})">', "</g>", depth)


def _masks_in_masks(depth: int) -> str:
    def mask(n: int) -> str:
        inner = f' mask="url(#m{n - 1})"' if n else ""
        return f'<mask id="m{n}"><rect width="100" height="50" fill="#ddd"{inner}/></mask>'

    return f'<defs>{"".join(map(mask, range(depth)))}</defs><g mask="url(#m{depth - 1})">{_SQUARE}</g>'


def _long_chain(kind: str, attribute: str, count: int, *, backwards: bool = False) -> str:
    """Definitions each of which refers to the one before it."""

    def one(n: int) -> str:
        inner = f'{attribute}="url(#m{n - 1})"' if n else 'fill="#fff"'
        size = 'width="9" height="9" patternUnits="userSpaceOnUse"' if kind == "pattern" else ""
        return f'<{kind} id="m{n}" {size}><rect width="9" height="9" {inner}/></{kind}>'

    numbers = range(count - 1, -1, -1) if backwards else range(count)
    return f'<defs>{"".join(map(one, numbers))}</defs><rect width="50" height="50" {attribute}="url(#m{count - 1})"/>'


def _filters(depth: int, steps: str) -> str:
    whole = 'x="-50%" y="-50%" width="200%" height="200%"'
    filters = "".join(f'<filter id="f{n}" {whole}>{steps}</filter>' for n in range(depth))
    return f"<defs>{filters}</defs>" + _nested(lambda n: f'<g filter="url(#f{n})">', "</g>", depth)


def _patterns(depth: int) -> str:
    def pattern(n: int, paint: str) -> str:
        size = 7 + n * 3
        inside = f'<rect width="{size}" height="{size / 2}" fill="{paint}"/><circle r="{size / 3}" fill="{paint}"/>'
        return f'<pattern id="d{n}" width="{size}" height="{size}" patternUnits="userSpaceOnUse">{inside}</pattern>'

    return _chain(pattern, depth) + f'<rect width="100" height="50" fill="url(#d{depth - 1})"/>'


def _uses(costly: str, levels: int = 4, width: int = 12) -> str:
    """A costly part drawn width^levels times."""
    groups = [f'<g id="u0">{costly}</g>']
    for level in range(1, levels):
        repeated = "".join(f'<use href="#u{level - 1}" x="{n * 0.1}"/>' for n in range(width))
        groups.append(f'<g id="u{level}">{repeated}</g>')
    return f"<defs>{''.join(groups)}</defs>" + "".join(f'<use href="#u{levels - 1}" y="{n}"/>' for n in range(width))


def _many(count: int, part: Callable[[int], str]) -> str:
    return "".join(map(part, range(count)))


_BLUR = '<filter id="b" x="-1" y="-1" width="3" height="3"><feGaussianBlur stdDeviation="9"/></filter>'
_MARKED = '<g opacity="0.5"><circle r="4"/><circle r="2" opacity=".5"/></g>'
_MARKER = f'<marker id="k" markerWidth="9" markerHeight="9">{_MARKED}</marker>'
_ZIGZAG = "M0 0" + "".join(f"L{n % 100} {n * 7 % 50}" for n in range(250_000))
_WAVES = "M0 25" + "".join(f"q.5 {9 if n % 2 else -9} 1 0" for n in range(100))


def _dashed(n: int) -> str:
    return f'<circle cx="50" cy="25" r="{20 + n / 9}" fill="none" stroke="#123" stroke-dasharray=".002 .001"/>'


def _clip(n: int) -> str:
    inner = f' clip-path="url(#c{n - 1})"' if n else ""
    return f'<clipPath id="c{n}"{inner}><circle cx="50" cy="25" r="{24 - n / 9}"/></clipPath>'


def _see_through(n: int) -> str:
    return f'<circle cx="{n % 100}" cy="{n % 50}" r="40" opacity="0.1"/>'


def drawings() -> list[Made]:
    """SVG files, by what is wrong with them."""
    bodies = {
        "90 nested masks": _masks(90),
        "30 nested masks": _masks(30),
        "masks in masks": _masks_in_masks(60),
        "nested see-through groups": _nested(lambda _: '<g opacity="0.99">', "</g>", 90),
        "nested blends": _nested(lambda _: '<g style="mix-blend-mode:multiply">', "</g>", 90),
        "nested blurs": _filters(40, '<feGaussianBlur stdDeviation="20"/>'),
        "a long filter": _filters(1, '<feGaussianBlur stdDeviation="30"/>' * 99),
        "thick morphology": _filters(6, '<feMorphology operator="dilate" radius="40"/>'),
        "patterns in patterns": _patterns(12),
        "a pattern of nothing": '<pattern id="p" width="0.001" height="0.001" patternUnits="userSpaceOnUse">'
        '<rect width="1" height="1" fill="red"/></pattern><rect width="100" height="50" fill="url(#p)"/>',
        "dashes of nothing": f'<path d="{_WAVES}" fill="none" stroke="#000" stroke-dasharray="0.00001"/>',
        "many fine dashes": _many(80, _dashed),
        "dashes in a style": '<style>path{stroke-dasharray:0.00002 0.00001;stroke:#000;fill:none}</style>'
        f'<path d="{_WAVES}"/>',
        "250,000 path points": f'<path d="{_ZIGZAG}" fill="#17443c" fill-rule="evenodd"/>',
        "250,000 points with a thick stroke": f'<path d="{_ZIGZAG}" fill="none" stroke="#17443c" stroke-width="3"/>',
        "600 KB of words": f'<text y="20" font-size="3">{"wheels and words " * 36_000}</text>',
        "words in many pieces": "<text>"
        + _many(20_000, lambda n: f'<tspan x="{n % 90}" y="{n % 45}">w</tspan>')
        + "</text>",
        "blurs drawn again and again": _BLUR + _uses('<rect width="90" height="40" filter="url(#b)"/>'),
        "masks drawn again and again": '<mask id="m"><rect width="100" height="50" fill="#eee"/></mask>'
        + _uses(f'<g mask="url(#m)">{_SQUARE}</g>'),
        "markers everywhere": _MARKER
        + f'<path d="M0 0{_many(20_000, lambda n: f"L{n % 100} {n % 50}")}" fill="none" marker-mid="url(#k)"/>',
        "a see-through class": "<style>.a{opacity:.9}</style>" + _nested(lambda _: '<g class="a">', "</g>", 90),
        "clips in clips": _many(90, _clip) + f'<g clip-path="url(#c89)">{_SQUARE}</g>',
        "40,000 see-through circles": _many(40_000, _see_through),
        "a chain of masks": _long_chain("mask", "mask", 400),
        "a chain of clips": _long_chain("clipPath", "clip-path", 500),
        "a chain of patterns": _long_chain("pattern", "fill", 150),
        "a chain told backwards": _long_chain("mask", "mask", 550, backwards=True),
        "gradients everywhere": '<radialGradient id="g"><stop stop-color="red"/><stop offset="1"/></radialGradient>'
        + _many(3_000, lambda n: f'<rect x="{n % 10}" width="99" height="50" fill="url(#g)" opacity=".5"/>'),
    }  # fmt: skip
    made = [(name, svg(body)) for name, body in bodies.items()]
    shapes = [
        ("nearly nothing wide", svg(more='width="1e-30"')),
        ("0.0004 px", svg(view="0 0 0.0004 0.0004")),
        ("as long as can be", svg(view="0 0 1000 1", more='width="20000"')),
        ("far away", svg('<rect x="1e8" width="1e8" height="1e8"/>', view="1e8 1e8 2 1")),
        ("a huge box", svg('<rect width="1e30" height="1e30" stroke="#000" stroke-width="1e20"/>')),
    ]
    return made + shapes


def bitmaps() -> list[Made]:
    """Bitmaps of unusual shapes and depths."""
    found = []
    for name, mode, size, fmt in [
        ("one bit, 9000 px", "1", (9000, 9000), "PNG"),
        ("a hair 40 x 5000", "RGB", (40, 5000), "PNG"),
        ("a line 1 x 60000", "L", (1, 60_000), "PNG"),
        ("a line 60000 x 1", "RGBA", (60_000, 1), "PNG"),
        ("sixteen bits", "I;16", (6000, 6000), "PNG"),
    ]:
        out = io.BytesIO()
        Image.new(mode, size).save(out, fmt)
        found.append((name, out.getvalue()))
    return found
