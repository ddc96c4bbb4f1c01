"""fitzle.toml: read in plain words, built once, rewritten only where something changed, checked without a trace."""

from __future__ import annotations

import json
import shutil
from pathlib import Path
from typing import Any

import pytest

from fitzle.cli import main
from fitzle.core.build.document import Record, build_schema, read_build, read_record
from fitzle.core.errors import DocumentError
from tests.make import disc, opened, photo, saved, svg

ROOT = Path(__file__).parents[2]
EXAMPLE = ROOT / "docs" / "examples" / "ottermoor-pictures"
TWO = """
fitzle = 1
[places]
tab = "PNG 32 x 32 px under 10 KB"
[[picture]]
artwork = "mark.svg"
place = "tab"
file = "tab"
[[picture]]
artwork = "photo.jpg"
place = "JPEG 320 x 180 px under 60 KB"
file = "photo"
"""


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    (tmp_path / "mark.svg").write_bytes(svg())
    (tmp_path / "photo.jpg").write_bytes(saved(photo(), "JPEG"))
    (tmp_path / "fitzle.toml").write_text(TWO)
    return tmp_path


def run(capsys: pytest.CaptureFixture[str], *arguments: object) -> tuple[int, Any]:
    code = main([*map(str, arguments), "--json"])
    return code, json.loads(capsys.readouterr().out)


def stamps(folder: Path) -> dict[str, int]:
    return {str(one.relative_to(folder)): one.stat().st_mtime_ns for one in folder.rglob("*") if one.is_file()}


def test_the_example_is_built_whole_and_then_left_alone(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    copy = tmp_path / "pictures-of-ottermoor"
    shutil.copytree(EXAMPLE, copy)
    code, told = run(capsys, "build", copy)
    assert (code, told["counts"]) == (0, {"new": 5}), told
    made = stamps(copy / "pictures")
    assert {"site/header.png", "chat/ding.webp", "site/icons/site.webmanifest", "fitzle-build.json"} <= made.keys()
    assert opened((copy / "pictures/site/header.png").read_bytes()).size == (880, 220)
    code, told = run(capsys, "build", copy / "fitzle.toml")
    assert (code, told["counts"], stamps(copy / "pictures")) == (0, {"unchanged": 5}, made)
    assert run(capsys, "build", "--check", "--strict", copy)[0] == 0


def test_what_changed_is_written_and_nothing_else(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    run(capsys, "build", folder)
    before = stamps(folder / "pictures")
    (folder / "mark.svg").write_bytes(svg('<circle cx="50" cy="25" r="20" fill="#b4541a"/>'))
    code, told = run(capsys, "build", "--check", folder)
    assert code == 1 and [(one["target"], one["state"]) for one in told["targets"]] == [("tab", "out of date")]
    assert stamps(folder / "pictures") == before, "looking changes nothing"
    code, told = run(capsys, "build", folder)
    assert code == 0 and told["counts"] == {"changed": 1, "unchanged": 1}
    after = stamps(folder / "pictures")
    assert {name for name in after if after[name] != before[name]} == {"tab.png", "fitzle-build.json"}


def test_a_file_that_was_lost_or_changed_by_hand_is_made_again(
    folder: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    run(capsys, "build", folder)
    whole = (folder / "pictures/tab.png").read_bytes()
    for harm in (lambda path: path.unlink(), lambda path: path.write_bytes(b"x")):
        harm(folder / "pictures/tab.png")
        assert run(capsys, "build", "--check", folder)[0] == 1
        assert run(capsys, "build", folder)[0] == 0
        assert (folder / "pictures/tab.png").read_bytes() == whole


def test_words_mean_the_same_as_long_as_they_read_the_same(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    run(capsys, "build", folder)
    said = TWO.replace("PNG 32 x 32 px under 10 KB", "a PNG of 32x32 pixels, max. 10 KB").replace("tab =", "icon =")
    (folder / "fitzle.toml").write_text(said.replace('place = "tab"', 'place = "icon"'))
    assert run(capsys, "build", "--check", folder)[1]["counts"] == {"unchanged": 2}
    code, told = run(capsys, "build", folder)
    assert code == 0 and set(told["counts"]) == {"unchanged"}


def test_what_would_be_refused_is_not_written_and_ends_with_1(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    run(capsys, "build", folder)
    (folder / "fitzle.toml").write_text(TWO.replace("under 60 KB", "under 1 KB"))
    code, told = run(capsys, "build", folder)
    assert code == 1 and [(one["target"], one["state"]) for one in told["targets"]] == [("photo", "refused")]
    assert any(finding.startswith("refused:") for finding in told["targets"][0]["findings"])
    assert (folder / "pictures/photo.jpg").is_file(), "what was there before stays"
    assert run(capsys, "build", "--check", folder)[0] == 1, "and it is said again"


def test_risky_counts_where_it_is_asked_for_unless_it_is_accepted(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "faint.png").write_bytes(saved(disc(400, "#f4f4f4"), "PNG"))
    text = 'fitzle = 1\n[[picture]]\nartwork = "faint.png"\nplace = "PNG 200 x 200 px, transparent"\nfile = "faint"\n'
    (tmp_path / "fitzle.toml").write_text(text)
    code, told = run(capsys, "build", tmp_path)
    assert code == 0 and told["targets"][0]["verdict"] == "risky"
    assert (
        run(capsys, "build", "--check", "--strict", tmp_path)[0] == 1
        and run(capsys, "build", "--check", tmp_path)[0] == 0
    )
    (tmp_path / "fitzle.toml").write_text(f'{text}accept = ["contrast", "edge", "clearance"]\n')
    assert run(capsys, "build", "--strict", tmp_path)[0] == 0


def test_one_broken_file_does_not_stop_the_others(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (folder / "photo.jpg").write_bytes(b"\xff\xd8\xff no photo")
    code, told = run(capsys, "build", folder)
    assert code == 1 and {one["target"]: one["state"] for one in told["targets"]} == {"photo": "failed", "tab": "new"}
    assert "photo.jpg" in told["targets"][1]["findings"][0]


def test_a_target_that_is_gone_is_named_and_its_file_left(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    run(capsys, "build", folder)
    (folder / "fitzle.toml").write_text(TWO[: TWO.rindex("[[picture]]")])
    code, told = run(capsys, "build", folder)
    assert code == 0 and told["not_made_any_more"] == ["photo"] and (folder / "pictures/photo.jpg").is_file()


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "fitzle = 1"),
        ("fitzle = 2", "version 2"),
        ("fitzle = ", "no valid TOML"),
        ('fitzle = 1\nout = "../x"', "below the folder"),
        ('fitzle = 1\n[[picture]]\nplace = "x"', "name one of them"),
        ('fitzle = 1\n[[picture]]\nartwork = "a"\npiece = "b"\nplace = "x"', "name one of them"),
        ('fitzle = 1\n[[picture]]\nartwork = "a"\nplace = "x"\nfile = "/etc/x"', "below the folder"),
        ("fitzle = 1\npictures = 3", "pictures"),
    ],
)
def test_a_document_that_cannot_be_used_is_said_in_words(text: str, said: str) -> None:
    with pytest.raises(DocumentError) as error:
        read_build(text.encode())
    assert said in error.value.message and "fitzle.toml" in error.value.message


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (('"mark.svg"', '"../../etc/passwd"'), "outside of the folder"),
        (('file = "photo"', 'file = "tab"'), "two targets would write"),
        (('"mark.svg"', '"nothing.svg"'), "nothing.svg"),
        (('"PNG 32 x 32 px under 10 KB"', '"sheets/none.json"'), "none.json"),
        (('"PNG 32 x 32 px under 10 KB"', '"blue and round"'), ""),
    ],
)
def test_what_cannot_be_built_is_said_before_anything_is_written(
    folder: Path, capsys: pytest.CaptureFixture[str], change: tuple[str, str], said: str
) -> None:
    (folder / "fitzle.toml").write_text(TWO.replace(*change))
    assert main(["build", str(folder)]) == 2 and said in capsys.readouterr().err
    assert not (folder / "pictures").exists()


def test_a_damaged_record_has_all_made_anew(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    run(capsys, "build", folder)
    before = (folder / "pictures/tab.png").stat().st_mtime_ns
    (folder / "pictures/fitzle-build.json").write_text("{broken")
    assert run(capsys, "build", folder)[1]["counts"] == {"unchanged": 2}
    assert (folder / "pictures/tab.png").stat().st_mtime_ns == before, "the same bytes are not written again"
    assert read_record(b"[]") == Record()


def test_a_piece_with_rows_is_built_too(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / "mark.svg").write_bytes(svg())
    piece = {
        "fitzle_piece": 2, "subject": "Lesson",
        "parts": [{"id": "ground", "role": "ground", "fill": {"kind": "solid", "colour": "#f6e7b8"}},
                  {"id": "mark", "role": "mark", "artwork": "mark.svg"}],
    }  # fmt: skip
    (tmp_path / "lesson.json").write_text(json.dumps(piece))
    text = 'fitzle = 1\n[[picture]]\npiece = "lesson.json"\nplace = "PNG 200 x 120 px"\n'
    (tmp_path / "fitzle.toml").write_text(text)
    code, told = run(capsys, "build", tmp_path)
    assert code == 0 and told["targets"][0]["files"] == ["png-200-x-120-px/lesson.png"]
    (tmp_path / "mark.svg").write_bytes(svg('<circle cx="50" cy="25" r="20" fill="#b4541a"/>'))
    assert run(capsys, "build", tmp_path)[1]["counts"] == {"changed": 1}, "what a piece shows counts too"


def test_artwork_that_a_row_names_is_read_and_counts(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / "mark.svg").write_bytes(svg())
    (tmp_path / "guest.svg").write_bytes(svg('<circle cx="50" cy="25" r="20" fill="#b4541a"/>'))
    parts = [{"id": "ground", "role": "ground"}, {"id": "mark", "role": "mark", "artwork": "mark.svg"}]
    fields = {"guest": {"part": "mark", "field": "artwork"}}
    piece = {"fitzle_piece": 2, "subject": "Guest", "parts": parts, "fields": fields}
    (tmp_path / "guest.json").write_text(json.dumps(piece))
    text = 'fitzle = 1\n[[picture]]\npiece = "guest.json"\nplace = "PNG 200 x 120 px"\nfile = "guest"\n'
    (tmp_path / "fitzle.toml").write_text(f'{text}row = {{guest = "guest.svg"}}\n')
    assert run(capsys, "build", tmp_path)[0] == 0
    middle = opened((tmp_path / "pictures/guest.png").read_bytes()).convert("RGB").getpixel((100, 60))
    assert middle == (0xB4, 0x54, 0x1A)
    (tmp_path / "guest.svg").write_bytes(svg('<circle cx="50" cy="25" r="20" fill="#17443c"/>'))
    assert run(capsys, "build", "--check", tmp_path)[0] == 1


RUN = """fitzle = 1
[[run]]
piece = "school/lesson.json"
table = "school/rows.csv"
pictures = "school/guests"
places = ["PNG 200x120", "PNG 90x90"]
folder = "lessons"
name = "{title}_{width}"
"""


@pytest.fixture
def school(tmp_path: Path) -> Path:
    (tmp_path / "school/guests").mkdir(parents=True)
    for name, colour in (("rowan", "#b4541a"), ("ida", "#17443c")):
        drawing = svg(f'<circle cx="50" cy="25" r="20" fill="{colour}"/>')
        (tmp_path / f"school/guests/{name}.svg").write_bytes(drawing)
    fields = {"guest": {"part": "mark", "field": "artwork"}, "title": {"part": "headline", "field": "text"}}
    parts = [
        {"id": "ground", "role": "ground"},
        {"id": "mark", "role": "mark", "artwork": "guests/ida.svg"},
        {"id": "headline", "role": "headline", "text": "x", "stands": {"anchor": "bottom", "width": 1, "height": 0.3}},
    ]
    piece = {"fitzle_piece": 2, "subject": "Lesson", "parts": parts, "fields": fields}
    (tmp_path / "school/lesson.json").write_text(json.dumps(piece))
    (tmp_path / "school/rows.csv").write_text("Title;Guest\nOne;Rowan\nTwo;ida.svg\n")
    (tmp_path / "fitzle.toml").write_text(RUN)
    return tmp_path


def test_a_run_is_built_and_only_rows_that_changed_are_made_anew(
    school: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    _, told = run(capsys, "build", school)
    assert sorted(one["target"] for one in told["targets"]) == [
        "lessons/one_200", "lessons/one_90", "lessons/two_200", "lessons/two_90",
    ]  # fmt: skip
    assert told["counts"] == {"new": 4}
    assert run(capsys, "build", school)[1]["counts"] == {"unchanged": 4}
    (school / "school/rows.csv").write_text("Title;Guest\nOne;Rowan\nTwo;Rowan\n")
    assert run(capsys, "build", school)[1]["counts"] == {"changed": 2, "unchanged": 2}


@pytest.mark.parametrize(
    ("table", "said"),
    [
        ("Title;Guest\nOne;Nobody\n", "rows.csv: line 2: there is no picture 'Nobody'"),
        ("Title\nOne\nONE\n", "lines 2 and 3"),
        ("Price\n3\n", "no heading is that of a field"),
    ],
)
def test_a_run_that_cannot_be_made_whole_is_said(
    school: Path, capsys: pytest.CaptureFixture[str], table: str, said: str
) -> None:
    (school / "school/rows.csv").write_text(table)
    code, told = run(capsys, "build", school)
    assert code == 2 and said in told["error"]


def test_init_writes_one_that_builds_and_never_over_another(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    (tmp_path / "art").mkdir()
    (tmp_path / "art" / "My mark.svg").write_bytes(svg())
    shutil.copy(EXAMPLE / "places" / "header-logo.json", tmp_path / "header.json")
    code, told = run(capsys, "init", tmp_path)
    assert code == 0 and (told["artwork"], told["places"], told["pictures"]) == (1, 2, 2)
    assert run(capsys, "build", tmp_path)[0] == 0
    assert main(["init", str(tmp_path)]) == 2 and "there is one already" in capsys.readouterr().err
    (tmp_path / "empty").mkdir()
    assert main(["init", str(tmp_path / "empty")]) == 2 and "no picture" in capsys.readouterr().err


def test_patterns_name_several_files(folder: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    for name in ("a", "b"):
        (folder / f"logo-{name}.svg").write_bytes(svg())
    code, told = run(capsys, "fit", folder / "logo-*.svg", "--spec", "PNG 64 x 64 px", "--out", tmp_path / "out")
    assert code == 0 and [Path(one["file"]).name for one in told["files"]] == ["logo-a_64x64.png", "logo-b_64x64.png"]
    code, told = run(capsys, "check", tmp_path / "out" / "*.png", "--spec", "PNG 64 x 64 px")
    assert code == 0 and len(told["files"]) == 2
    code, told = run(capsys, "icons", folder / "logo-*.svg", "--out", tmp_path / "icons")
    assert code == 0 and (tmp_path / "icons" / "logo-a" / "icon.svg").is_file()
    assert main(["fit", str(folder / "none-*.svg"), "--spec", "PNG 9x9", "--out", str(tmp_path)]) == 2
    assert "nothing fits this pattern" in capsys.readouterr().err


def test_the_documented_schema_is_the_generated_one() -> None:
    assert json.loads((ROOT / "docs" / "fitzle-toml.schema.json").read_text()) == build_schema()
