"""The sample's composed piece: a lesson's picture with its title, a guest picture in a circle and the mark."""

from __future__ import annotations

from typing import Any

from demo.school import FIELDS


def lesson(artwork: dict[str, str], page_header: str) -> dict[str, Any]:
    """The piece's document; `artwork` are ids by file name.

    The page's header gets the picture alone: the page writes its own title over it.
    """
    return {
        "subject": "Wheel school",
        "fields": FIELDS,
        "parts": [
            {"id": "ground", "role": "ground"},
            {
                "id": "picture", "role": "picture", "artwork": artwork["dusk-ride.jpg"],
                "focal_point": {"x": 0.68, "y": 0.7},
            },
            {
                "id": "guest", "role": "picture", "artwork": artwork["workbench.jpg"], "name": "Guest wheel",
                "stands": {"anchor": "top-right", "dx": -0.07, "dy": 0.07, "width": 0.34, "height": 0.34},
                "focal_point": {"x": 0.37, "y": 0.5}, "zoom": 1.15,
                "die": {"shape": "circle", "border": {"width": 0.05, "colour": "#f6e7b8"}},
            },
            {
                "id": "headline", "role": "headline", "text": "True a\nwheel", "family": "Bricolage Grotesque",
                "weight": 800, "stands": {"anchor": "top-left", "dx": 0.07, "dy": 0.09, "width": 0.84, "height": 0.5},
            },
            {
                "id": "second-line", "role": "second line", "text": "Lesson 12", "family": "Work Sans", "weight": 800,
                "stands": {"anchor": "bottom-left", "dx": 0.07, "dy": -0.08, "width": 0.8, "height": 0.16},
            },
        ],
        "adjustments": {
            page_header: {
                "headline": {"hidden": True},
                "second-line": {"hidden": True},
                "guest": {"hidden": True},
            }
        },
    }  # fmt: skip
