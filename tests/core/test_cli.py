"""The command line: answers, exit codes, messages."""

import json
import os
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from fitzle.cli import main
from fitzle.core.piece.editing import new_piece
from tests.make import disc, opened, photo, saved, svg

ROOT = Path(__file__).parents[2]
ENVIRONMENT = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
SPEC: dict[str, Any] = {
    "fitzle_spec": 1, "name": "Card", "size": {"width": 320, "height": 180}, "formats": ["jpeg", "png"],
    "max_bytes": 30_000, "transparency": "forbidden", "naming": "{subject}_{size}",
}  # fmt: skip


@pytest.fixture
def desk(tmp_path: Path) -> Path:
    """A folder with artwork and a spec sheet."""
    (tmp_path / "photo.jpg").write_bytes(saved(photo(), "JPEG"))
    (tmp_path / "mark.svg").write_bytes(svg())
    (tmp_path / "card.json").write_text(json.dumps(SPEC))
    return tmp_path


def run(desk: Path, capsys: pytest.CaptureFixture[str], *words: str) -> tuple[int, dict[str, Any]]:
    """A command with --json, its exit code and answer."""
    arguments = [str(desk / word) if (desk / word).exists() else word for word in words]
    code = main([*arguments, "--json"])
    return code, json.loads(capsys.readouterr().out)


def test_inspect_tells_what_it_is(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = run(desk, capsys, "inspect", "mark.svg")
    assert code == 0
    assert (answer["kind"], answer["vector"], answer["transparency"]) == ("mark", True, "edges")
    assert answer["colours"][0]["hex"] == "#1d3b4f"
    assert {"x", "y", "width", "height"} == set(answer["trimmed"])


def test_fit_writes_a_file_that_is_accepted(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    out = str(desk / "out")
    code, answer = run(desk, capsys, "fit", "photo.jpg", "--spec", "card.json", "--out", out, "--subject", "Évening 1")
    assert (code, answer["verdict"], answer["format"]) == (0, "fits", "jpeg")
    assert Path(answer["file"]).name == "evening-1_320x180.jpg"
    assert Path(answer["file"]).stat().st_size == answer["bytes"] <= 30_000
    assert answer["quality"]["metric"] == "ssimulacra2"
    code, answer = run(desk, capsys, "check", answer["file"], "--spec", "card.json")
    assert (code, answer["verdict"]) == (0, "fits")
    assert list((desk / "out").iterdir()) == [desk / "out" / "evening-1_320x180.jpg"]


def test_the_options_of_fit_are_followed(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    options = ["--mode", "whole", "--padding", "20px", "--ground", "#102030", "--tint", "#ffffff", "--centring", "box"]
    _, answer = run(desk, capsys, "fit", "mark.svg", "--spec", "card.json", "--out", str(desk / "o"), *options)
    picture = opened(Path(answer["file"]).read_bytes()).convert("RGB")
    assert picture.getpixel((2, 2)) == pytest.approx((16, 32, 48), abs=4)
    assert min(picture.getpixel((160, 90))) > 250
    assert min(picture.getpixel((160, 22))) > 200
    assert max(picture.getpixel((160, 17))) < 60


def test_a_limit_that_cannot_be_met_gives_no_file_and_exit_1(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (desk / "tiny.json").write_text(json.dumps({**SPEC, "max_bytes": 200}))
    code, answer = run(desk, capsys, "fit", "photo.jpg", "--spec", "tiny.json", "--out", str(desk / "out"))
    assert (code, answer["file"], answer["verdict"]) == (1, None, "refused")
    assert answer["findings"][0]["rule"] == "bytes"
    assert not (desk / "out").exists()


def test_check_refuses_with_exit_1_and_figures(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (desk / "wrong.jpg").write_bytes(saved(disc(200), "PNG"))
    code, answer = run(desk, capsys, "check", "wrong.jpg", "--spec", "card.json")
    assert (code, answer["verdict"], answer["format"]) == (1, "refused", "png")
    assert {finding["rule"] for finding in answer["findings"]} == {"size", "transparency"}


@pytest.mark.parametrize(
    "words",
    [
        ["inspect", "nowhere.png"], ["inspect", "card.json"], ["fit", "photo.jpg", "--spec", "mark.svg", "--out", "o"],
        ["fit", "photo.jpg", "--spec", "card.json", "--out", "o", "--focus", "left"],
        ["fit", "photo.jpg", "--spec", "card.json", "--out", "o", "--focus", "3,0"],
        ["fit", "photo.jpg", "--spec", "card.json", "--out", "o", "--padding", "wide"],
        ["fit", "photo.jpg", "--spec", "card.json", "--out", "o", "--ground", "white-ish"],
        ["check", "photo.jpg", "--spec", "nowhere.json"], ["inspect", "."],
    ],
)  # fmt: skip
def test_a_wrong_call_is_exit_2_with_a_message(
    desk: Path, capsys: pytest.CaptureFixture[str], words: list[str]
) -> None:
    code, answer = run(desk, capsys, *words)
    assert code == 2
    assert answer["error"].strip()
    assert "Traceback" not in answer["error"]


def test_a_piece_file_is_rendered_with_the_artwork_beside_it(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    piece = new_piece("from-file", "mark.svg", "mark")
    (desk / "piece.json").write_text(piece.model_dump_json())
    code, answer = run(desk, capsys, "render", "piece.json", "--spec", "card.json", "--out", str(desk / "out"))
    assert code == 0
    assert Path(answer["file"]).name == "from-file_320x180.png", "nothing is lost in it, and it is light enough"


def test_people_get_a_table(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["check", str(desk / "photo.jpg"), "--spec", str(desk / "card.json")]) == 1
    said = capsys.readouterr().out
    assert "refused" in said
    assert "It is 640 × 400 px; this place takes 320 × 180 px." in said


def test_the_core_starts_without_heavy_libraries_and_without_django() -> None:
    script = (
        "import sys, fitzle.cli; sys.exit(bool({'numpy', 'cv2', 'skia', 'pyvips', 'django', 'PIL'} & set(sys.modules)))"
    )
    assert subprocess.run([sys.executable, "-c", script], check=False, env=ENVIRONMENT).returncode == 0
    whole = "import sys, fitzle.core.fit.making; sys.exit('django' in sys.modules or 'celery' in sys.modules)"
    assert subprocess.run([sys.executable, "-c", whole], check=False, env=ENVIRONMENT).returncode == 0


def test_a_large_hostile_batch_stays_small(desk: Path) -> None:
    """A 90-megapixel PNG and a cut-off one: one process, below 600 MB, the good file still done."""
    from PIL import Image

    (desk / "big.png").write_bytes(saved(Image.new("RGB", (10_000, 9_000), "#446688"), "PNG"))
    script = """
import sys
from pathlib import Path
from fitzle.cli import main
codes = [main(["inspect", path, "--json"]) for path in sys.argv[1:]]
status = Path("/proc/self/status").read_text()
peak = int(next(line for line in status.splitlines() if line.startswith("VmHWM")).split()[1])
print(codes, peak)
sys.exit(peak > 600_000 or codes != [0, 2, 0])
"""
    (desk / "cut.png").write_bytes((desk / "big.png").read_bytes()[:5000])
    files = [str(desk / name) for name in ("big.png", "cut.png", "mark.svg")]
    done = subprocess.run([sys.executable, "-c", script, *files], check=False, env=ENVIRONMENT, capture_output=True)
    assert done.returncode == 0, (done.stdout[-300:], done.stderr[-600:])


def test_a_reader_that_has_enough_ends_it_quietly(desk: Path) -> None:
    """As `./fitzle inspect photo.jpg | head -0` does."""
    command = [sys.executable, "-m", "fitzle.cli", "inspect", str(desk / "photo.jpg")]
    read, write = os.pipe()
    os.close(read)
    with os.fdopen(write, "wb") as gone:
        ended = subprocess.run(command, stdout=gone, stderr=subprocess.PIPE, env=ENVIRONMENT, timeout=60, check=False)
    assert (ended.returncode, ended.stderr) == (0, b"")


def test_px_of_bitmaps_are_printed_whole(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["inspect", str(desk / "photo.jpg")]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert any(line.split() == ["width", str(photo().width)] for line in lines), lines


def test_the_files_that_were_tried_are_told(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = run(desk, capsys, "fit", "photo.jpg", "--spec", "card.json", "--out", str(desk / "out"))
    assert code == 0 and answer["bytes"] in {one["bytes"] for one in answer["candidates"]}
    assert all(one["words"] and one["seconds"] >= 0 and one["settings"]["kind"] for one in answer["candidates"])
    fixed = ["--format", "jpeg", "--quality", "20", "--chroma", "4:2:0"]
    _, answer = run(desk, capsys, "fit", "photo.jpg", "--spec", "card.json", "--out", str(desk / "out"), *fixed)
    told = {(one["settings"]["quality"], one["settings"]["chroma"]) for one in answer["candidates"]}
    assert answer["format"] == "jpeg" and told == {(20, "4:2:0")}


def test_a_mark_becomes_the_icons_of_a_site(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = run(
        desk, capsys, "icons", "mark.svg", "--out", str(desk / "set"), "--path", "/static", "--ground", "#f6e7b8"
    )
    assert code == 0 and answer["ground"] == "#f6e7b8" and answer["safe_reach"] <= 0.4
    assert sorted(answer["written"]) == sorted(entry.name for entry in (desk / "set").iterdir())
    assert '"/static/icon-192.png"' in (desk / "set" / "site.webmanifest").read_text()
    for wrong in (["--ground", "nonsense"], ["--path", "a b"], ["--dark", "nowhere.svg"]):
        code, answer = run(desk, capsys, "icons", "mark.svg", "--out", str(desk / "set"), *wrong)
        assert code == 2 and answer["error"]
