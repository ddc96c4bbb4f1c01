"""Writes DEPENDENCIES.md: every package of the lock files with its licence, as the packages themselves state it."""

from __future__ import annotations

import json
import re
from importlib import metadata
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
HEAD = """# What Fitzle stands on

Made by `python scripts/dependencies.py` from the installed packages. Debian's programs (MariaDB server and client
GPL-2.0, Redis BSD-3-Clause, nginx BSD-2-Clause, Chromium BSD-3-Clause for tests) are run as
programs of their own. `pyvips-binary` carries libvips and its libraries (LGPL-2.1 and compatible), `mysqlclient` links
MariaDB's connector (LGPL-2.1). The wheel of `av` carries FFmpeg with x264 and x265 (GPL-2.0 or later), that of
`pi-heif` libheif and libde265 (LGPL-3.0); `pillow-heif`, with x265, is used by the tests alone.
"""


def python_rows() -> list[tuple[str, str, str]]:
    """(name, version, licence) of each locked Python package."""
    names = re.findall(r"^([A-Za-z0-9_.-]+)==", (ROOT / "requirements-dev.txt").read_text(), re.M)
    return [(name, metadata.version(name), _licence(metadata.metadata(name))) for name in sorted(names)]


def _licence(about: metadata.PackageMetadata) -> str:
    stated = about.get("License-Expression")
    if stated:
        return stated
    classified = [entry.rpartition(":: ")[2] for entry in about.get_all("Classifier") or [] if "License ::" in entry]
    free_text = (about.get("License") or "").strip().splitlines()
    return ", ".join(classified) or (free_text[0][:60] if free_text else "see the package")


def node_rows() -> list[tuple[str, str, str]]:
    """(name, version, licence) of each locked npm package that ends up in the pages or builds them directly."""
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text())["packages"]
    wanted = {**lock[""]["dependencies"], **lock[""]["devDependencies"]}
    rows = []
    for name in sorted(wanted):
        entry = lock[f"node_modules/{name}"]
        rows.append((name, entry["version"], entry.get("license", "see the package")))
    return rows


def table(rows: list[tuple[str, str, str]]) -> str:
    """Rows as a Markdown table."""
    lines = ["| package | version | licence |", "|---|---|---|"]
    return "\n".join(lines + [f"| {name} | {version} | {licence} |" for name, version, licence in rows])


def opened_rows() -> list[tuple[str, str, str]]:
    """(name, version, licence) of the wheels that are only opened for the models in them."""
    names = re.findall(r"^([A-Za-z0-9_.-]+)==(\S+)", (ROOT / "requirements-models.txt").read_text(), re.M)
    return [(name, version, "MIT (the models in it: Apache-2.0)") for name, version in names]


if __name__ == "__main__":
    parts = [HEAD, "## Python", table(python_rows()), "## Opened for their models, not installed", table(opened_rows()),
             "## Front end", table(node_rows())]  # fmt: skip
    (ROOT / "DEPENDENCIES.md").write_text("\n\n".join(part.strip() for part in parts) + "\n")
