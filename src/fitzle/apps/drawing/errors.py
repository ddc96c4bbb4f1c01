"""What can go wrong when something is asked of the drawing service, in words."""

from __future__ import annotations

from fitzle.core.errors import FitzleError

BUSY = "Fitzle draws for many people at the moment. This goes on by itself; nothing is lost."


class DrawingTooHeavy(FitzleError):
    """A drawing that took more time or memory than one may have."""

    def __init__(self, problem: str = "this takes too long or too much memory to draw", **more: str) -> None:
        advice = "Make the drawing simpler (fewer masks, filters and patterns inside each other), or use a bitmap."
        super().__init__(problem, **{"advice": advice, **more})


class SavedTooHeavy(DrawingTooHeavy):
    """A change is saved, as this revision, but what it makes cannot be shown."""

    def __init__(self, revision: int) -> None:
        super().__init__("your change is saved, but it takes too long or too much memory to draw")
        self.revision = revision


class DrawingBusy(Exception):
    """No drawing process had time, or the service is just starting; asking once more helps."""

    def __init__(self) -> None:
        super().__init__(BUSY)


class DrawingFailed(Exception):
    """A fault of our own inside the service; it stands in the service's log."""
