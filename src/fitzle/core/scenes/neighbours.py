"""Made-up pictures of others, drawn here: hills, tools, plain shapes in quiet colours. SVG, chosen by a number."""

from __future__ import annotations

from functools import lru_cache

_PALETTES = (
    ("#c9b79a", "#8f7b5c", "#f1e8d6"), ("#9db4b0", "#5f7d78", "#e3ecea"), ("#b8a3a0", "#7e6562", "#efe4e2"),
    ("#a8b39a", "#6d7b5c", "#e9eee0"), ("#a3acc0", "#656f88", "#e4e8f0"), ("#c4a98e", "#8a6a4a", "#f3e7d9"),
    ("#b3b3a6", "#76766a", "#ecece5"),
)  # fmt: skip


@lru_cache(maxsize=64)
def neighbour_svg(seed: int) -> str:
    """A picture that fills any box: it is stretched to cover it."""
    middle, dark, light = _PALETTES[seed % len(_PALETTES)]
    drawn = (_hills, _disc, _bars)[seed % 3](middle, dark, light, seed)
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 160 90" preserveAspectRatio="xMidYMid slice">'
        f'<rect x="-80" y="-80" width="320" height="250" fill="{light}"/>{drawn}</svg>'
    )


def _hills(middle: str, dark: str, _light: str, seed: int) -> str:
    rise = 8 + 5 * (seed % 4)
    return (
        f'<circle cx="{40 + 20 * (seed % 5)}" cy="28" r="11" fill="{middle}"/>'
        f'<path d="M-80 {62 - rise}Q0 {30 - rise} 60 60T240 44V170H-80Z" fill="{middle}"/>'
        f'<path d="M-80 74Q30 {50 + rise} 110 72T240 64V170H-80Z" fill="{dark}"/>'
    )


def _disc(middle: str, dark: str, _light: str, seed: int) -> str:
    reach = 24 + 3 * (seed % 4)
    inner = f'<circle cx="80" cy="45" r="{reach * 0.6}" fill="{middle}"/>'
    return f'<circle cx="80" cy="45" r="{reach}" fill="{dark}"/>{inner}'


def _bars(middle: str, dark: str, _light: str, seed: int) -> str:
    tall = 20 + 6 * (seed % 3)
    return (
        f'<rect x="44" y="{70 - tall}" width="18" height="{tall}" rx="3" fill="{middle}"/>'
        f'<rect x="71" y="{70 - tall * 1.5}" width="18" height="{tall * 1.5}" rx="3" fill="{dark}"/>'
        f'<rect x="98" y="{70 - tall * 0.8}" width="18" height="{tall * 0.8}" rx="3" fill="{middle}"/>'
        f'<rect x="36" y="70" width="88" height="4" fill="{dark}"/>'
    )
