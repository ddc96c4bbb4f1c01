"""A fitzle.toml from what lies in a folder: artwork named, sheets and pieces used, icons of the first mark."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of
from fitzle.core.errors import ArtworkError
from fitzle.core.spec.stems import free_name, safe_stem

PICTURES = (".svg", ".png", ".jpg", ".jpeg", ".webp")
MOST = 200  # of each kind: a folder with more is another one than people mean
SKIPPED = ("node_modules", "pictures")
PREVIEW = "JPEG or PNG 1200 x 630 px, max. 300 KB, no transparency"


def begun(folder: Path) -> tuple[str, dict[str, int]]:
    """The text of the document and what was found, counted; raises ArtworkError for a folder without pictures."""
    files = _files(folder)
    artwork = {name: path for path, name in _named(path for path in files if path.suffix.lower() in PICTURES)}
    documents = [(path, _key_of(path)) for path in files if path.suffix == ".json"]
    sheets = {name: path for path, name in _named(path for path, key in documents if key == "fitzle_spec")}
    pieces = [path for path, key in documents if key == "fitzle_piece"]
    if not artwork and not pieces:
        raise ArtworkError(
            "there is no picture in this folder", subject=str(folder), advice="Put a logo or a photo there."
        )
    mark = next((name for name, path in artwork.items() if path.suffix.lower() == ".svg"), None)
    lines = ["# What is made of this folder: ./fitzle build", "fitzle = 1", 'out = "pictures"', "", "[artwork]"]
    lines += [f"{_key(name)} = {_text(path.relative_to(folder))}" for name, path in artwork.items()]
    lines += ["", "[places]", "# a sheet, or what the upload page says"]
    lines += [f"{_key(name)} = {_text(path.relative_to(folder))}" for name, path in sheets.items()]
    lines.append(f"link-preview = {json.dumps(PREVIEW)}")
    targets = [(f"piece = {_text(piece.relative_to(folder))}", name) for piece in pieces for name in sheets]
    first = mark or next(iter(artwork), None)
    targets += [(f"artwork = {json.dumps(first)}", name) for name in sheets if first and not pieces]
    if first:
        targets.append((f"artwork = {json.dumps(first)}", "link-preview"))
    for source, place in targets:
        lines += ["", "[[picture]]", source, f"place = {json.dumps(place)}"]
    if mark:
        lines += ["", "[[icons]]", f"mark = {json.dumps(mark)}", 'folder = "icons"']
    found = {"artwork": len(artwork), "places": len(sheets) + 1, "pieces": len(pieces), "pictures": len(targets)}
    return "\n".join(lines) + "\n", found


def _files(folder: Path) -> list[Path]:
    """Files below a folder, without hidden ones and what is made."""
    if not folder.is_dir():
        raise ArtworkError("there is no such folder", subject=str(folder))
    found = []
    for path in sorted(folder.rglob("*")):
        inside = path.relative_to(folder).parts
        hidden = any(part.startswith(".") or part in SKIPPED for part in inside)
        if path.is_file() and not hidden:
            found.append(path)
    return found[: 3 * MOST]


def _named(paths: Any) -> list[tuple[Path, str]]:
    taken: set[str] = set()
    named = []
    for path in paths:
        name = free_name(safe_stem(path.stem), taken)
        taken.add(name)
        named.append((path, name))
    return named[:MOST]


def _key_of(path: Path) -> str:
    """Which document of ours a JSON file is; empty for any other."""
    try:
        data = json.loads(bytes_of(path))
    except (ValueError, OSError):
        return ""
    return next((key for key in ("fitzle_spec", "fitzle_piece") if isinstance(data, dict) and key in data), "")


def _text(path: Path) -> str:
    return json.dumps(path.as_posix(), ensure_ascii=False)


def _key(name: str) -> str:
    return name if re.fullmatch(r"[A-Za-z0-9_-]+", name) else json.dumps(name)
