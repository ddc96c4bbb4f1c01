"""A small stroked alphabet for the sample's marks: each letter in a box of height 1, as SVG path data."""

from __future__ import annotations

# letter: (advance width, path data with coordinates in [0, width] x [0, 1])
_LETTERS: dict[str, tuple[float, str]] = {
    "O": (0.96, "M0.48 0A0.48 0.5 0 1 0 0.48 1A0.48 0.5 0 1 0 0.48 0Z"),
    "T": (0.74, "M0 0H0.74M0.37 0V1"),
    "E": (0.6, "M0.6 0H0V1H0.6M0 0.5H0.5"),
    "R": (0.66, "M0 1V0H0.34A0.28 0.28 0 0 1 0.34 0.56H0M0.34 0.56L0.66 1"),
    "M": (0.9, "M0 1V0L0.45 0.62L0.9 0V1"),
    "C": (0.82, "M0.82 0.16A0.48 0.5 0 1 0 0.82 0.84"),
    "Y": (0.74, "M0 0L0.37 0.5L0.74 0M0.37 0.5V1"),
    "L": (0.56, "M0 0V1H0.56"),
    "W": (1.06, "M0 0L0.27 1L0.53 0.25L0.79 1L1.06 0"),
    "K": (0.66, "M0 0V1M0.66 0L0 0.58M0.24 0.38L0.66 1"),
    "S": (0.6, "M0.56 0.14C0.44 -0.06 0.04 -0.04 0.04 0.26C0.04 0.56 0.6 0.44 0.6 0.74C0.6 1.05 0.14 1.06 0 0.84"),
    "D": (0.78, "M0 0H0.3A0.48 0.5 0 0 1 0.3 1H0Z"),
    "I": (0.0, "M0 0V1"),
    "N": (0.74, "M0 1V0L0.74 1V0"),
    "G": (0.88, "M0.82 0.16A0.48 0.5 0 1 0 0.86 0.6H0.52"),
    "!": (0.0, "M0 0V0.66M0 0.98V1"),
    " ": (0.4, ""),
}


def word_width(text: str, height: float, spacing: float) -> float:
    """Width of a word from the first stroke's middle to the last one's."""
    return sum(_LETTERS[letter][0] * height for letter in text) + spacing * (len(text) - 1)


def stroked_word(text: str, x: float, y: float, height: float, stroke: float, colour: str, spacing: float) -> str:
    """An SVG group of the word with its top left stroke middle at (x, y)."""
    parts = []
    for letter in text:
        width, data = _LETTERS[letter]
        if data:
            parts.append(f'<path transform="translate({x:.2f} {y:.2f}) scale({height})" d="{data}"/>')
        x += width * height + spacing
    return (
        f'<g fill="none" stroke="{colour}" stroke-width="{stroke / height:.4f}" stroke-linecap="round"'
        f' stroke-linejoin="round">{"".join(parts)}</g>'
    )
