"""Thirteen placements over eight made-up destinations, with figures of our own."""

from __future__ import annotations

from typing import Any

from fitzle.core.spec.sheet import SpecSheet

LIGHT, DARK = "#ffffff", "#17181a"
CARD_SEEN = [{"name": "course list", "width": 220, "density": 2}]

_SHELVES: dict[str, list[dict[str, Any]]] = {
    "Video channel": [
        {
            "name": "Lesson thumbnail", "kind": "video-thumbnail",
            "size": {"width": 1280, "height": 720}, "formats": ["jpeg", "png"],
            "max_bytes": 300_000, "transparency": "forbidden",
            "covered": [{"x": 0.82, "y": 0.86, "width": 0.18, "height": 0.14, "label": "running time"}],
            "seen": [{"name": "phone list", "width": 168, "density": 2}, {"name": "channel page", "width": 320}],
            "grounds": [LIGHT, DARK],
        },
        {
            "name": "Corner watermark", "kind": "corner-watermark",
            "size": {"width": 512, "height": 512}, "formats": ["png"],
            "max_bytes": 800_000, "transparency": "required",
            "seen": [{"name": "over the video", "width": 110, "density": 2}],
            "grounds": ["#2b3330"],
        },
    ],
    "Course page": [
        {
            "name": "Page header", "kind": "course-header",
            "size": {"width": 1704, "height": 433}, "formats": ["jpeg"], "max_bytes": 250_000,
            "transparency": "forbidden", "veil": {"colour": "#000000", "opacity": 0.35},
            "covered": [{"x": 0.05, "y": 0.3, "width": 0.5, "height": 0.4, "label": "course title"}],
            "seen": [{"name": "desktop", "width": 1704}, {"name": "phone", "width": 390, "density": 3}],
        },
        {
            "name": "Course card", "kind": "course-card",
            "size": {"width": 640, "height": 640}, "formats": ["jpeg", "webp"],
            "max_bytes": 150_000, "transparency": "forbidden", "cut": {"shape": "rounded", "radius": 0.06},
            "seen": CARD_SEEN,
        },
        {
            "name": "Moving header", "kind": "moving-course-header",
            "size": {"width": 1280, "height": 320}, "formats": ["webp", "gif"], "max_bytes": 1_000_000,
            "transparency": "forbidden",
            "motion": {"allowed": True, "required": True, "max_seconds": 8, "max_fps": 20, "loop": True},
            "seen": [{"name": "desktop", "width": 1280}],
        },
    ],
    "Website": [
        {
            "name": "Header logo", "kind": "header-logo",
            "size": {"width": 880, "height": 220}, "formats": ["png", "webp"],
            "max_bytes": 40_000, "transparency": "required", "seen": [{"name": "header", "width": 220, "density": 2}],
        },
        {
            "name": "Tab icon", "kind": "site-icon",
            "size": {"width": 32, "height": 32}, "formats": ["ico", "png"], "max_bytes": 30_000,
            "seen": [{"name": "browser tab", "width": 16, "density": 2}], "grounds": [LIGHT, "#dfe3e8"],
        },
        {
            "name": "Touch icon", "kind": "touch-icon",
            "size": {"width": 180, "height": 180}, "formats": ["png"], "max_bytes": 60_000,
            "transparency": "forbidden", "cut": {"shape": "rounded", "radius": 0.22},
            "seen": [{"name": "home screen", "width": 60, "density": 3}],
        },
    ],
    "Web shop": [
        {
            "name": "Wide banner", "kind": "wide-banner",
            "size": {"width": 2000, "height": 500}, "formats": ["jpeg"], "max_bytes": 9_000,
            "transparency": "forbidden", "seen": [{"name": "shop front", "width": 1280}],
        },
    ],
    "Office sign-in": [
        {
            "name": "Sign-in logo", "kind": "sign-in-logo",
            "size": {"width": 347, "height": 121}, "formats": ["png"], "max_bytes": 22_000,
            "transparency": "allowed", "seen": [{"name": "sign-in page", "width": 347}],
            "grounds": ["#ffffff", "#20262b"],
        },
    ],
    "Job records": [
        {
            "name": "Record glyph", "kind": "record-glyph-32",
            "size": {"width": 32, "height": 32}, "formats": ["png"], "max_bytes": 10_000,
            "transparency": "required", "seen": [{"name": "list of records", "width": 16, "density": 2}],
        },
    ],
    "Riders' chat": [
        {
            "name": "Sticker", "kind": "sticker",
            "size": {"min_width": 160, "min_height": 160, "max_width": 512, "max_height": 512, "aspect": "1:1",
                     "recommended": {"width": 296, "height": 296}},
            "formats": ["webp", "png"], "max_bytes": 380_000, "transparency": "required",
            "seen": [{"name": "chat", "width": 148, "density": 2}], "grounds": ["#efe9df", "#20262b"],
            "capacity": 60,
            "fields": [
                {"name": "label", "label": "Label", "required": True, "max_length": 30},
                {"name": "tag", "label": "Related emoji", "required": True},
                {"name": "description", "label": "Description for the blind", "max_length": 200},
            ],
        },
    ],
    "Round-view tour": [
        {
            "name": "Floor patch", "kind": "floor-patch",
            "size": {"width": 512, "height": 512}, "formats": ["png"], "max_bytes": 700_000,
            "transparency": "allowed", "cut": {"shape": "circle"}, "seen": [{"name": "underfoot", "width": 256}],
            "grounds": ["#e9e2d4"],
        },
    ],
}  # fmt: skip


def shelves() -> dict[str, list[SpecSheet]]:
    """Spec sheets by destination."""
    return {
        destination: [
            SpecSheet.model_validate({"fitzle_spec": 1, "destination": destination, **sheet}) for sheet in sheets
        ]
        for destination, sheets in _SHELVES.items()
    }


# Which artwork stands where at first; the course card and the moving header stay empty.
FILLED: dict[str, list[str]] = {
    "dusk-ride.jpg": [],
    "workbench.jpg": [],
    "misty-street.jpg": ["Wide banner"],
    "ottermoor-light.svg": ["Corner watermark", "Sign-in logo"],
    "ottermoor-dark.svg": ["Header logo"],
    "wheel-badge.svg": ["Tab icon", "Touch icon", "Floor patch"],
    "wheel-glyph.svg": ["Record glyph"],
    "ding.svg": ["Sticker"],
}
