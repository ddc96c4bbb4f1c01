"""The build of the typefaces: what it makes of the packages, and what happens where it was not run."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from fitzle.core.errors import FitzleError
from fitzle.core.type import library

ROOT = Path(__file__).parents[2]


def test_the_list_names_only_packages_that_are_locked() -> None:
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text())["packages"]
    wanted = json.loads((ROOT / "scripts" / "typefaces.json").read_text())["families"]
    names = [entry["package"] for entry in wanted]
    assert len(names) == len(set(names)) >= 36
    for name in names:
        assert lock[f"node_modules/@fontsource/{name}"]["license"] in ("OFL-1.1", "Apache-2.0")


def test_a_cut_has_its_latin_file_first() -> None:
    for family in library.offered_families():
        for face in family.faces:
            assert "-latin-" in face.files[0].name and "-ext-" not in face.files[0].name


def test_the_build_makes_the_same_files_again(tmp_path: Path) -> None:
    wanted = json.loads((ROOT / "scripts" / "typefaces.json").read_text())["families"][:2]
    script = (ROOT / "scripts" / "typefaces.py").read_text()
    code = script.replace("Path(__file__).resolve().parents[1]", repr(ROOT).replace("PosixPath", "Path")).replace(
        '(ROOT / "scripts" / "typefaces.json").read_text()', repr(json.dumps({"families": wanted}))
    )
    (tmp_path / "build.py").write_text(code)
    subprocess.run([sys.executable, str(tmp_path / "build.py"), str(tmp_path / "faces")], check=True, timeout=120)
    index = json.loads((tmp_path / "faces" / "index.json").read_text())
    assert [entry["package"] for entry in index["families"]] == [entry["package"] for entry in wanted]
    built = library.typefaces_folder()
    for path in (tmp_path / "faces").glob("*.ttf"):
        assert path.stat().st_size == (built / path.name).stat().st_size


def test_without_the_build_the_message_says_what_to_do(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    monkeypatch.setenv("FITZLE_TYPEFACES", str(tmp_path))
    library.families.cache_clear()
    try:
        with pytest.raises(FitzleError, match="./start --setup"):
            library.families()
    finally:
        library.families.cache_clear()
