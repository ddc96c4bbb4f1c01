"""What a file is called when it replaces another one."""

from __future__ import annotations

from typing import Literal

Replacing = Literal["rule", "same", "version"]


def replacement_name(name: str, replacing: Replacing, version: int, before: str = "") -> str:
    """The name by how a place wants replacements called; `name` is that of the naming rule.

    `same` keeps the name that the place has already, with the ending of the new format; `version` adds a token to the
    name, from the second file on.
    """
    stem, dot, ending = name.rpartition(".")
    if replacing == "same" and before:
        return f"{before.rpartition('.')[0]}{dot}{ending}"
    if replacing == "version" and version > 1 and not stem.endswith(f"v{version}"):
        return f"{stem}-v{version}{dot}{ending}"
    return name
