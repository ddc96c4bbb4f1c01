"""The sample's run: Wheel school, twelve lessons of one piece."""

from __future__ import annotations

from typing import Any

FIELDS: dict[str, Any] = {
    "title": {"part": "headline", "field": "text"},
    "lesson": {"part": "second-line", "field": "text", "counter": {"before": "Lesson "}},
    "guest": {"part": "guest", "field": "artwork"},
}
NAMING = "wheel-school-{row}-{title}"
LESSONS = (
    ("Mend a\nflat", "workbench"),
    ("Change\na tyre", "workbench"),
    ("Clean a\nchain", "workbench"),
    ("Fit a new\nchain", "dusk-ride"),
    ("Set up\nbrakes", "guest-rowan"),
    ("Replace the brake pads before they squeal", "guest-rowan"),
    ("Tune the\ngears", "workbench"),
    ("Wrap the\nbars", "dusk-ride"),
    ("Pack a\nhub", "guest-rowan"),
    ("Fit\npedals", "misty-street"),
    ("Lace a\nwheel", "workbench"),
    ("True a\nwheel", "workbench"),
)


def rows() -> list[dict[str, Any]]:
    """The rows as they are kept."""
    return [
        {"id": f"lesson-{number}", "cells": {"title": title, "guest": guest}}
        for number, (title, guest) in enumerate(LESSONS, 1)
    ]
