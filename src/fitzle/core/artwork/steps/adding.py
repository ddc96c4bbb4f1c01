"""How a step is when somebody adds it, before they change it."""

from __future__ import annotations

from fitzle.core.artwork.steps.document import (
    Adjust,
    AnyStep,
    CleanEdge,
    Crop,
    CutOut,
    Mirror,
    Recolour,
    RedEyes,
    Straighten,
    Trace,
    Trim,
    Turn,
    Window,
)

NEW = "new"  # until it gets an id of its own

FIRST_STEPS: tuple[AnyStep, ...] = (
    Crop(id=NEW, window=Window(x=0, y=0, width=1, height=1)),
    Trim(id=NEW),
    Turn(id=NEW),
    Mirror(id=NEW),
    Straighten(id=NEW, degrees=0),
    Adjust(id=NEW),
    RedEyes(id=NEW),
    CutOut(id=NEW),
    CleanEdge(id=NEW),
    Recolour(id=NEW),
    Trace(id=NEW),
)
