"""Standard emoji by name (Unicode CLDR short names), for fields that take one as a tag."""

from __future__ import annotations

import unicodedata
from functools import cache
from typing import NamedTuple

MOST_FOUND = 24


class Emoji(NamedTuple):
    """One emoji: its characters and its standard name in English, like `bicycle`."""

    text: str
    name: str


@cache
def all_emoji() -> dict[str, Emoji]:
    """All that are recommended for general use, without skin tones, by name."""
    import emoji  # loads a large table

    full = emoji.STATUS["fully_qualified"]
    known = ((text, str(told["en"])) for text, told in emoji.EMOJI_DATA.items() if told["status"] == full)
    plain = {text: _plain(name) for text, name in known if "skin_tone" not in name}
    return {name: Emoji(text, name) for text, name in plain.items()}


def emoji_named(text: str) -> Emoji | None:
    """The one with this name, or that is written so; None for anything else."""
    wanted = _plain(text)
    found = all_emoji().get(wanted)
    return found or next((one for one in all_emoji().values() if one.text in (text.strip(), f"{text.strip()}️")), None)


def find_emoji(words: str, most: int = MOST_FOUND) -> list[Emoji]:
    """Those whose names begin with or hold the words, the nearest first."""
    wanted = _plain(words)
    if not wanted:
        return []
    held = [one for name, one in all_emoji().items() if wanted in name]
    return sorted(held, key=lambda one: (_distance(one.name, wanted), len(one.name), one.name))[:most]


def _distance(name: str, wanted: str) -> int:
    if name == wanted:
        return 0
    return 1 if name.startswith(wanted) else 2 if f" {wanted}" in f" {name}" else 3


def _plain(name: str) -> str:
    letters = unicodedata.normalize("NFKC", name).strip().strip(":").replace("_", " ").replace("’", "'")
    return " ".join(letters.casefold().split())
