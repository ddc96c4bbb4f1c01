"""Text as a name that is safe on every system."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Collection

LONGEST_STEM = 120  # characters; with folder and extension well below the 255 bytes of common file systems
_RESERVED = {"con", "prn", "aux", "nul", *(f"{port}{n}" for port in ("com", "lpt") for n in range(1, 10))}
_UNSAFE = re.compile(r'[\x00-\x1f\x7f<>:"/\\|?*#%&{}$!\'@+`=^;,~\[\]()]+')
_FORBIDDEN = re.compile(r'[\x00-\x1f\x7f<>:"/\\|?*]+')  # by one system or another
_SPLIT_LETTERS = {"ß": "ss", "æ": "ae", "ø": "o", "ł": "l", "đ": "d", "œ": "oe"}


def safe_stem(text: str, longest: int = LONGEST_STEM) -> str:
    """Text as a file name without extension: lower-case ASCII where possible, words joined by hyphens.

    At most `longest` bytes.
    """
    lowered = "".join(_SPLIT_LETTERS.get(letter, letter) for letter in text.lower())
    plain = unicodedata.normalize("NFKD", lowered)
    plain = "".join(letter for letter in plain if not unicodedata.combining(letter))
    plain = re.sub(r"[^\w\s.-]", "-", _UNSAFE.sub("-", plain))
    plain = re.sub(r"[\s-]+", "-", plain)
    plain = re.sub(r"-*([_.])-*", r"\1", plain).strip("-._ ")
    plain = plain.encode("utf-8")[:longest].decode("utf-8", "ignore").rstrip("-._ ") or "picture"
    return f"{plain}-file" if plain.split(".")[0] in _RESERVED else plain


def kept_name(name: str, longest: int = LONGEST_STEM) -> str:
    """A file name as somebody gave it, without what some system forbids; its stem at most `longest` bytes."""
    stem, dot, extension = _FORBIDDEN.sub("-", name).lstrip(".").rpartition(".")
    if not dot:
        stem, extension = extension, ""
    stem = stem.encode("utf-8")[:longest].decode("utf-8", "ignore").strip(" .") or "picture"
    stem = f"{stem}-file" if stem.lower().split(".")[0] in _RESERVED else stem
    return f"{stem}{dot}{extension[:12].strip()}" if extension.strip() else stem


def free_name(wanted: str, taken: Collection[str], joint: str = "-") -> str:
    """The name, or with -2, -3 … where it is taken."""
    number, candidate = 1, wanted
    while candidate in taken:
        number += 1
        candidate = f"{wanted}{joint}{number}"
    return candidate
