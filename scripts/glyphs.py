"""Makes the glyph library: `python scripts/glyphs.py FILE`, out of the npm package `@tabler/icons` (MIT).

Marks of real brands and projects are left out: all of their category, devices and games that are told by a brand's
name, currencies of the net, licences and standards with a registered sign.
"""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

PACKAGE = Path(__file__).resolve().parents[1] / "web" / "node_modules" / "@tabler" / "icons"
BRANDS = "Brand"
NAMED_AFTER_BRANDS = ("Devices", "Computers", "Games", "Media")
PLAYTHINGS = {"console", "game-console", "gaming"}  # outside the games: shapes of one maker's consoles and figures
NET_CURRENCIES = {"crypto", "cryptocurrency", "blockchain"}  # each is the mark of a project
REGISTERED = {"creative-commons", "bluetooth", "usb", "nfc", "markdown", "mcp"}  # signs of licences and standards
TOO_COMMON = 4  # letters; shorter words of brands are words of everybody


def brand_words(entries: dict[str, Any]) -> set[str]:
    """The names of brands, as they are in the names of their glyphs."""
    names = (entry["name"].removeprefix("brand-") for entry in entries.values() if entry["category"] == BRANDS)
    return {name.split("-")[0] for name in names if len(name.split("-")[0]) >= TOO_COMMON}


def is_of_a_brand(entry: dict[str, Any], brands: set[str]) -> bool:
    """Whether a glyph stands for a brand or for one of its products."""
    if entry["category"] == BRANDS or entry["name"].startswith("brand-"):
        return True
    tags = {str(tag).lower() for tag in entry["tags"]}
    if entry["category"] != "Games" and tags & PLAYTHINGS:
        return True
    if tags & NET_CURRENCIES or any(f"-{sign}-" in f"-{entry['name']}-" for sign in REGISTERED):
        return True
    words = {word for one in (entry["name"], *tags) for word in one.split("-")}
    return entry["category"] in NAMED_AFTER_BRANDS and bool(words & brands)


def library() -> list[dict[str, Any]]:
    """Each glyph with its words and its paths, outlined and, where there is one, filled."""
    entries = json.loads((PACKAGE / "icons.json").read_text())
    outlined, filled = (
        json.loads((PACKAGE / f"tabler-nodes-{style}.json").read_text()) for style in ("outline", "filled")
    )
    brands = brand_words(entries)
    return [
        {
            "name": name,
            "group": entry["category"],
            "words": [str(tag).lower() for tag in entry["tags"]],
            "outline": [path["d"] for _, path in outlined.get(name, [])],
            "filled": [path["d"] for _, path in filled.get(name, [])],
        }
        for name, entry in sorted(entries.items())
        if not is_of_a_brand(entry, brands)
    ]


if __name__ == "__main__":
    target = Path(sys.argv[1]).resolve()
    target.parent.mkdir(parents=True, exist_ok=True)
    target.write_text(json.dumps({"licence": (PACKAGE / "LICENSE").read_text(), "glyphs": library()}))
