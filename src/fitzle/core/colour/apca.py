"""Lightness contrast Lc of APCA: how strongly letters stand out from what is behind them, by their polarity.

Formula and constants: Somers, "APCA-W3", version 0.1.9 (0.98G-4g), as drafted for WCAG 3. It is shown beside the ratio
of WCAG 2.2, which overrates dark colours on black; rules go by that ratio.
"""

from __future__ import annotations

from fitzle.core.colour.srgb import Rgb

_WEIGHTS = (0.2126729, 0.7151522, 0.0721750)
_SCREEN_GAMMA = 2.4
_BLACK_FROM, _BLACK_POWER = 0.022, 1.414
_DARK_ON_LIGHT, _LIGHT_ON_DARK = (0.56, 0.57), (0.65, 0.62)  # powers of ground and letters
_SCALE, _OFFSET, _LEAST, _ALIKE = 1.14, 0.027, 0.1, 0.0005


def lightness_contrast(letters: Rgb, ground: Rgb) -> float:
    """Lc in hundredths: above 0 for dark letters on light, below for light on dark, 0 where hardly anything shows.

    About 45 is the least for large words, 60 for running ones, 75 for columns of text.
    """
    own, behind = _screen_luminance(letters), _screen_luminance(ground)
    if abs(behind - own) < _ALIKE:
        return 0.0
    ground_power, letter_power = _DARK_ON_LIGHT if behind > own else _LIGHT_ON_DARK
    found = (float(behind**ground_power - own**letter_power)) * _SCALE
    if abs(found) < _LEAST:
        return 0.0
    return 100 * (found - _OFFSET if found > 0 else found + _OFFSET)


def _screen_luminance(colour: Rgb) -> float:
    light: float = sum(weight * (level / 255) ** _SCREEN_GAMMA for weight, level in zip(_WEIGHTS, colour, strict=True))
    return light if light >= _BLACK_FROM else light + float((_BLACK_FROM - light) ** _BLACK_POWER)
