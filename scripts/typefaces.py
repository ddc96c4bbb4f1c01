"""Makes the typefaces for people's words: `@fontsource` packages to TTF files with an index and their licences.

    python scripts/typefaces.py FOLDER

Each package comes cut into files by script (latin, latin-ext, greek …). They stay apart: shaping takes for each cluster
of letters the first file that has it, so nothing needs to be merged. Reads `scripts/typefaces.json`.
"""

from __future__ import annotations

import json
import shutil
import sys
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

from fontTools.ttLib import TTFont

ROOT = Path(__file__).resolve().parents[1]
PACKAGES = ROOT / "web" / "node_modules" / "@fontsource"
SCRIPTS_FIRST = ("latin", "latin-ext")  # then the others in the package's own order


def converted(job: tuple[Path, Path]) -> None:
    """One WOFF2 file to TTF."""
    source, target = job
    font = TTFont(source)
    font.flavor = None
    font.save(target)


def files_of(package: Path, weight: int, style: str) -> list[Path]:
    """The WOFF2 files of a cut of a family, the ones with Latin letters first."""
    about = json.loads((package / "metadata.json").read_text())
    found = {path.name: path for path in (package / "files").glob(f"*-{weight}-{style}.woff2")}
    numbered = sorted(
        (name for name in found if name.split("-")[-3].isdigit()), key=lambda name: int(name.split("-")[-3])
    )
    subsets = sorted(about["subsets"], key=lambda name: SCRIPTS_FIRST.index(name) if name in SCRIPTS_FIRST else 9)
    named = [f"{package.name}-{subset}-{weight}-{style}.woff2" for subset in subsets]
    files = [found[name] for name in named if name in found] or [found[name] for name in numbered]
    if not files:
        raise SystemExit(f"{package.name} has no files of weight {weight} {style}")
    return files


def main(folder: Path) -> None:
    """Converts all families of the list into `folder`, which is replaced as a whole."""
    beside = folder.with_name(folder.name + ".new")
    shutil.rmtree(beside, ignore_errors=True)
    beside.mkdir(parents=True)
    jobs: list[tuple[Path, Path]] = []
    index: list[dict[str, Any]] = []
    for entry in json.loads((ROOT / "scripts" / "typefaces.json").read_text())["families"]:
        package = PACKAGES / entry["package"]
        about = json.loads((package / "metadata.json").read_text())
        cuts = []
        for weight, style in [(weight, "normal") for weight in entry["weights"]] + [
            (weight, "italic") for weight in entry.get("italics", [])
        ]:
            files = files_of(package, weight, style)
            jobs += [(path, beside / f"{path.stem}.ttf") for path in files]
            cuts.append(
                {"weight": weight, "italic": style == "italic", "files": [f"{path.stem}.ttf" for path in files]}
            )
        shutil.copy(package / "LICENSE", beside / f"{package.name}.LICENSE.txt")
        index.append({
            "family": about["family"], "kind": entry["kind"], "package": package.name, "cuts": cuts,
            "fallback": entry.get("fallback", False), "licence": about["license"]["type"],
        })  # fmt: skip
    with ProcessPoolExecutor() as pool:
        list(pool.map(converted, jobs, chunksize=8))
    (beside / "index.json").write_text(json.dumps({"families": index}, indent=1))
    shutil.rmtree(folder, ignore_errors=True)
    beside.rename(folder)


if __name__ == "__main__":
    main(Path(sys.argv[1]).resolve())
