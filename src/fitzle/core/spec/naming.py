"""File names from the naming rule, safe on every system."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Collection

from fitzle.core.spec.tokens import USUAL_RULE, filled_rule
from fitzle.core.units import Size

LONGEST_STEM = 120  # characters; with folder and extension well below the 255 bytes of common file systems
EXTENSIONS = {"jpeg": "jpg", "lottie": "json", "apng": "png"}
_RESERVED = {"con", "prn", "aux", "nul", *(f"{port}{n}" for port in ("com", "lpt") for n in range(1, 10))}
_UNSAFE = re.compile(r'[\x00-\x1f\x7f<>:"/\\|?*#%&{}$!\'@+`=^;,~\[\]()]+')
_SPLIT_LETTERS = {"ß": "ss", "æ": "ae", "ø": "o", "ł": "l", "đ": "d", "œ": "oe"}


def safe_stem(text: str) -> str:
    """Text as a file name without extension: lower-case ASCII where possible, words joined by hyphens."""
    lowered = "".join(_SPLIT_LETTERS.get(letter, letter) for letter in text.lower())
    plain = unicodedata.normalize("NFKD", lowered)
    plain = "".join(letter for letter in plain if not unicodedata.combining(letter))
    plain = re.sub(r"[^\w\s.-]", "-", _UNSAFE.sub("-", plain))
    plain = re.sub(r"[\s-]+", "-", plain)
    plain = re.sub(r"-*([_.])-*", r"\1", plain).strip("-._ ")
    plain = plain.encode("utf-8")[:LONGEST_STEM].decode("utf-8", "ignore").rstrip("-._ ") or "picture"
    return f"{plain}-file" if plain.split(".")[0] in _RESERVED else plain


def file_name(
    rule: str, fmt: str, *, subject: str, placement: str, size: Size, date: str = "", version: str = ""
) -> str:
    """The name of a delivered file; `date` like 2026-11-24 and `version` like 3 come from the caller."""
    values = {
        "subject": safe_stem(subject),
        "placement": safe_stem(placement),
        "width": str(size.width),
        "height": str(size.height),
        "size": str(size),
        "date": date,
        "version": version,
    }
    return f"{safe_stem(filled_rule(rule, values))}.{EXTENSIONS.get(fmt, fmt)}"


def rule_for(own: str, house: str) -> str:
    """The naming rule of a place: its own where it states one, else that of the house, else the usual one."""
    return house if house and own == USUAL_RULE else own


def unused_name(name: str, used: Collection[str]) -> str:
    """The name, or with -2, -3 … before the extension when it is in use already (case does not count)."""
    taken = {entry.casefold() for entry in used}
    stem, dot, extension = name.rpartition(".")
    number, candidate = 1, name
    while candidate.casefold() in taken:
        number += 1
        candidate = f"{stem}-{number}{dot}{extension}"
    return candidate
