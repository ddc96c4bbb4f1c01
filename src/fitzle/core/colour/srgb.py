"""sRGB: hex codes and the transfer function of IEC 61966-2-1."""

from __future__ import annotations

import re
from typing import Annotated, NamedTuple

import numpy as np
from numpy.typing import NDArray
from pydantic import AfterValidator

_HEX = re.compile(r"^#?([0-9a-fA-F]{3}|[0-9a-fA-F]{6})$")

# IEC 61966-2-1, equation 5 and 6
_KNEE = 0.04045
_LINEAR_SLOPE = 12.92
_OFFSET = 0.055
_GAMMA = 2.4


class Rgb(NamedTuple):
    """Red, green and blue, 0 to 255."""

    red: int
    green: int
    blue: int


def parse_hex(text: str) -> Rgb:
    """`#1d3b4f` or `#abc` as Rgb; raises ValueError for anything else."""
    found = _HEX.match(text.strip())
    if not found:
        raise ValueError(f"{text!r} is not a colour; write it as #1d3b4f")
    digits = found[1]
    if len(digits) == 3:
        digits = "".join(digit * 2 for digit in digits)
    return Rgb(int(digits[0:2], 16), int(digits[2:4], 16), int(digits[4:6], 16))


def to_hex(colour: Rgb) -> str:
    """Rgb as `#1d3b4f`, always in lower case."""
    return f"#{colour.red:02x}{colour.green:02x}{colour.blue:02x}"


def normal_hex(text: str) -> str:
    """Any accepted spelling of a colour as `#1d3b4f`."""
    return to_hex(parse_hex(text))


HexColour = Annotated[str, AfterValidator(normal_hex)]


def linear(values: NDArray[np.uint8] | NDArray[np.float64]) -> NDArray[np.float64]:
    """sRGB values 0 to 255 of any shape as linear light 0 to 1."""
    return LINEAR_OF_BYTES[values] if values.dtype == np.uint8 else _linear(values)


def _linear(values: NDArray[np.uint8] | NDArray[np.float64]) -> NDArray[np.float64]:
    scaled = np.asarray(values, dtype=np.float64) / 255.0
    curved = ((scaled + _OFFSET) / (1 + _OFFSET)) ** _GAMMA
    return np.where(scaled <= _KNEE, scaled / _LINEAR_SLOPE, curved)


LINEAR_OF_BYTES = _linear(np.arange(256, dtype=np.float64))  # a sixth of the time of working each one out


def encoded(light: NDArray[np.float64]) -> NDArray[np.float64]:
    """Linear light 0 to 1 of any shape as sRGB values 0 to 255, not rounded."""
    curved = (1 + _OFFSET) * np.maximum(light, 0.0) ** (1 / _GAMMA) - _OFFSET
    return np.where(light <= _KNEE / _LINEAR_SLOPE, light * _LINEAR_SLOPE, curved) * 255


def over(top: Rgb, opacity: float, bottom: Rgb) -> Rgb:
    """`top` at an opacity of 0 to 1 painted over an opaque colour, mixed as browsers do (in sRGB)."""
    mixed = [round(t * opacity + b * (1 - opacity)) for t, b in zip(top, bottom, strict=True)]
    return Rgb(*mixed)
