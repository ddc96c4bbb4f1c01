"""For each moving format its settings from the lightest to the best: what the search goes up and down."""

from __future__ import annotations

from fitzle.core.encode.settings import MovingSettings
from fitzle.core.formats import Format

# Colours, tolerance and lossiness of a GIF. Measured on pans, slides and flat drawings: tolerance costs the least up
# to 16 where pictures pan, packing freely halves what stands still, and fewer colours come last.
_GIF = (
    (8, 32, 200), (16, 32, 200), (16, 24, 150), (32, 24, 100), (32, 20, 80), (32, 16, 60), (64, 16, 60), (64, 16, 40),
    (64, 12, 20), (128, 12, 20), (256, 12, 20), (256, 8, 20), (256, 8, 10), (256, 8, 0), (256, 4, 0), (256, 0, 0),
)  # fmt: skip
_APNG = (8, 16, 24, 32, 48, 64, 96, 128, 192, 256, None)
_QUALITIES = (3, 6, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85, 90, 95)
_STEPS: dict[str, tuple[MovingSettings, ...]] = {
    "gif": tuple(
        MovingSettings(fps=1, colours=colours, tolerance=tolerance, lossiness=lossiness)
        for colours, tolerance, lossiness in _GIF
    ),
    "apng": tuple(MovingSettings(fps=1, colours=colours) for colours in _APNG),
    "webp": tuple(MovingSettings(fps=1, quality=quality) for quality in _QUALITIES),
    **{fmt: tuple(MovingSettings(fps=1, quality=quality) for quality in _QUALITIES) for fmt in ("avif", "mp4", "webm")},
}


def highest(fmt: Format) -> int:
    """The best position of a format's ladder; 0 is the lightest."""
    return len(_STEPS[fmt]) - 1


def settings_at(fmt: Format, position: int, fps: float) -> MovingSettings:
    """What a position stands for."""
    return _STEPS[fmt][position].model_copy(update={"fps": round(fps, 3)})
