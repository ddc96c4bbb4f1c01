"""Whether a place takes a file, in its own words. Pillow and the standard library only."""

from __future__ import annotations

import io
import json
import unicodedata
from collections.abc import Mapping
from xml.etree import ElementTree

from PIL import Image

from fitzle.rehearsal.places import Asked, Place

ICON_FILES = {
    "favicon.ico": "ICO", "icon.svg": "SVG", "touch-icon-180.png": "PNG", "icon-192.png": "PNG", "icon-512.png": "PNG",
    "icon-maskable-512.png": "PNG", "link-preview.png": "PNG", "site.webmanifest": "JSON", "icons.html": "HTML",
}  # fmt: skip


def refusals(place: Place, name: str, data: bytes, fields: Mapping[str, str]) -> list[str]:
    """Why a place does not take a file; nothing where it does."""
    said = [words for asked in place.fields if (words := _field(asked, fields.get(asked.name, "").strip()))]
    if place.heaviest and len(data) > place.heaviest:
        said.append(f"Your file weighs {len(data)} bytes. We take up to {place.heaviest}.")
    said += _icon(name, data) if place.icons else _picture(place, data)
    return said


def _picture(place: Place, data: bytes) -> list[str]:
    try:
        with Image.open(io.BytesIO(data)) as picture:
            picture.load()
            found, size, frames = picture.format or "", picture.size, getattr(picture, "n_frames", 1)
            lowest = picture.convert("RGBA").getextrema()[3][0]
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return ["We could not open this file."]
    said = []
    if found not in place.formats:
        said.append(f"This is {found}. Please send {' or '.join(place.formats)}.")
    if place.size and size != place.size:
        said.append(f"Wrong size: {size[0]} by {size[1]}. It has to be {place.size[0]} by {place.size[1]}.")
    if not place.size and not (place.least <= min(size) and max(size) <= place.most):
        said.append(f"Sides from {place.least} to {place.most} please, yours has {size[0]} by {size[1]}.")
    if place.square and size[0] != size[1]:
        said.append("It has to be square.")
    if frames > 1:
        said.append("Moving pictures are not shown here.")
    if place.alpha == "no" and lowest < 255:
        said.append("Parts of it are see-through. They would come out black.")
    if place.alpha == "must" and lowest == 255:
        said.append("It has a background. We need a cut-out picture.")
    return said


def _field(asked: Asked, value: str) -> str:
    if asked.required and not value:
        return f"{asked.label}: please fill this in."
    if asked.longest and len(value) > asked.longest:
        return f"{asked.label}: {len(value)} letters are too many, {asked.longest} fit."
    if asked.tag and value and not _is_emoji(value):
        return f"{asked.label}: we know no emoji called “{value}”."
    return ""


def _is_emoji(value: str) -> bool:
    """By Unicode's own names of characters, and by category where the characters themselves are sent."""
    plain = value.strip(":").replace("_", " ")
    if all(unicodedata.category(letter) in ("So", "Mn", "Cf", "Sk") for letter in plain):
        return True
    try:
        return unicodedata.category(unicodedata.lookup(plain.upper())) == "So"
    except KeyError:
        return _one_word_of_a_name(plain)


def _one_word_of_a_name(plain: str) -> bool:
    """Whether symbols of the emoji blocks have all these words in their names: `red heart` is a heavy black heart."""
    words = set(plain.upper().replace("-", " ").split()) - {"RED", "WITH", "OF", "THE", "AND"}
    blocks = (*range(0x2600, 0x27C0), *range(0x1F300, 0x1FAFF))
    return bool(words) and any(words & set(unicodedata.name(chr(code), "").split()) == words for code in blocks)


def _icon(name: str, data: bytes) -> list[str]:
    wanted = ICON_FILES.get(name)
    if wanted is None:
        return [f"A site has no use for “{name}”."]
    try:
        if wanted in ("PNG", "ICO"):
            with Image.open(io.BytesIO(data)) as picture:
                picture.load()
                return [] if picture.format == wanted else [f"“{name}” is {picture.format}."]
        if wanted == "SVG":
            root = ElementTree.fromstring(data)
            return [] if root.tag.endswith("svg") else [f"“{name}” is no drawing."]
        if wanted == "JSON":
            return [] if json.loads(data).get("icons") else [f"“{name}” names no icons."]
        return [] if b"<link" in data else [f"“{name}” has no lines for a page."]
    except (OSError, ValueError, SyntaxError, ElementTree.ParseError):
        return [f"“{name}” could not be read."]
