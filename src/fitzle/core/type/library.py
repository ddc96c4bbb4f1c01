"""The typefaces that ship with Fitzle: families with their faces (weight, upright or italic), made by the build."""

from __future__ import annotations

import json
import os
from functools import cache
from pathlib import Path
from typing import Literal, NamedTuple

from fitzle.core.errors import DocumentError, FitzleError

Kind = Literal["sturdy", "plain", "condensed", "rounded", "hand", "script", "slab", "serif", "display", "monospaced"]
USUAL_FAMILY = "Work Sans"
ITALIC_COSTS = 300  # in units of weight: an upright face of nearly the right weight is nearer than a wrong slant


class FontFace(NamedTuple):
    """One weight of a family; `files` are TTF files by script, Latin first."""

    weight: int
    italic: bool
    files: tuple[Path, ...]


class Family(NamedTuple):
    """A typeface with its faces; `fallback` ones only lend missing letters."""

    name: str
    kind: Kind
    licence: str
    fallback: bool
    faces: tuple[FontFace, ...]

    def face(self, weight: int, italic: bool = False) -> FontFace:
        """The nearest face there is."""
        return min(self.faces, key=lambda face: abs(face.weight - weight) + ITALIC_COSTS * (face.italic != italic))


def typefaces_folder() -> Path:
    """Where the build keeps the typefaces; FITZLE_TYPEFACES names another folder."""
    given = os.environ.get("FITZLE_TYPEFACES")
    return Path(given) if given else Path(__file__).resolve().parents[4] / "var" / "typefaces"


@cache
def families() -> dict[str, Family]:
    """All families by name; raises FitzleError where the build has not made them."""
    folder = typefaces_folder()
    try:
        index = json.loads((folder / "index.json").read_text())
    except OSError as error:
        raise FitzleError("the typefaces are not there yet", advice="Run ./start --setup once.") from error
    found = [
        Family(
            entry["family"],
            entry["kind"],
            entry["licence"],
            entry["fallback"],
            tuple(
                FontFace(face["weight"], face["italic"], tuple(folder / name for name in face["files"]))
                for face in entry["cuts"]
            ),
        )
        for entry in index["families"]
    ]
    return {family.name: family for family in found}


def offered_families() -> list[Family]:
    """The families that people choose from."""
    return [family for family in families().values() if not family.fallback]


def family_named(name: str) -> Family:
    """One family; raises DocumentError when there is none of this name."""
    found = families().get(name)
    if found is None:
        raise DocumentError(f"there is no typeface {name!r}", advice="Choose one of the list.")
    return found


def fallback_families() -> list[Family]:
    """The families that lend letters which the chosen one lacks, in order."""
    return [family for family in families().values() if family.fallback]
