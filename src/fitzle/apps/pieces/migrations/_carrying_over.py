"""What the version before renditions kept, read for migration 0003 alone; frozen as it was then."""

from __future__ import annotations

import hashlib
import json
from typing import Any

from fitzle.core.encode.settings import (
    IconEntry,
    JpegSettings,
    Lossless,
    LossySettings,
    Outlines,
    PaletteSettings,
    Settings,
    Uncompressed,
)

ENGINE_BEFORE = "2"
_WHOLE = {"weight", "fitzle_piece"}  # the fields of a part that are whole numbers; all others were fractions
_FILLS_OF_ARTWORK = ("picture", "pattern")


def key_before(
    document: dict[str, Any], sheet: dict[str, Any], placement: str, house: list[str], contents: dict[str, str]
) -> str:
    """The hash that named the state of a fit: the piece as it was there, its artwork, the sheet, the engine."""
    parts = parts_there(document, placement)
    chosen = any(part.get("colour") == "auto" for part in parts)
    there = {"fitzle_piece": 1, "subject": document["subject"], "parts": parts}
    shown = dict.fromkeys(artworks_of(parts), "") | contents
    text = json.dumps([ENGINE_BEFORE, there, sheet, house if chosen else [], shown], sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()[:32]


def parts_there(document: dict[str, Any], placement: str) -> list[dict[str, Any]]:
    """The parts as they were in one placement."""
    differences = document.get("adjustments", {}).get(placement, {})
    return [{**part, **_fractions(differences.get(part["id"], {}))} for part in document["parts"]]


def artworks_of(parts: list[dict[str, Any]]) -> list[str]:
    """The artwork that parts show."""
    found = []
    for part in parts:
        fill = part.get("fill") or {}
        if "artwork" in part:
            found.append(part["artwork"])
        elif part["role"] == "ground" and fill.get("kind") in _FILLS_OF_ARTWORK:
            found.append(fill["artwork"])
    return found


def _fractions(value: Any, key: str = "") -> Any:
    """Whole numbers as the fractions that they were read as: `1` was kept and `1.0` hashed."""
    if isinstance(value, dict):
        return {name: _fractions(entry, name) for name, entry in value.items()}
    if isinstance(value, list):
        return [_fractions(entry, key) for entry in value]
    whole = isinstance(value, int) and not isinstance(value, bool) and key not in _WHOLE
    return float(value) if whole else value


def settings_from_words(fmt: str, words: str) -> Settings:
    """What an encoder was told, from the words in which it was kept."""
    quality = int(words.rpartition("quality ")[2].split(",")[0]) if "quality " in words else 0
    if fmt == "jpeg":
        return JpegSettings(chroma="4:4:4" if words.startswith("4:4:4") else "4:2:0", quality=quality, smallest="smallest" in words)
    if fmt == "ico":
        return IconEntry(packed="png" if words.startswith("PNG") else "uncompressed")
    if words.startswith("palette"):
        dither = float(words.rpartition("dither ")[2])
        return PaletteSettings(quality=quality, dither=dither, smoothed="smoothed" in words)
    if words.startswith("quality"):
        return LossySettings(quality=quality)
    plain: dict[str, Settings] = {"outlines": Outlines(), "uncompressed": Uncompressed()}
    return plain.get(words, Lossless())
