"""Rows of a run: cells by field, counters, what is wrong with which cell, names that would collide, the command."""

import json
from pathlib import Path
from typing import Any

import pytest

from fitzle.core.errors import DocumentError, FitzleError
from fitzle.core.piece.changes import NameField, RemovePart, apply_changes, clashes, value_of
from fitzle.core.piece.document import FieldTarget, Piece, RowCounter, parts_in
from fitzle.core.runs.fields import columns_of, counted, matched, proposed_fields, value_of_cell
from fitzle.core.runs.names import collisions, listed
from fitzle.core.runs.rows import rows_of
from fitzle.core.runs.stems import check_rule
from fitzle.core.runs.table import table_of
from tests.make import photo, saved, svg

ARTWORKS = {"rowan": "rowan.png", "rowan.png": "rowan.png"}


def lesson(**fields: Any) -> Piece:
    """A thumbnail whose headline, guest, colour and badge rows may change."""
    usual: dict[str, Any] = {
        "title": {"part": "headline", "field": "text"},
        "guest": {"part": "guest", "field": "artwork"},
        "colour": {"part": "headline", "field": "colour"},
        "new": {"part": "badge", "field": "hidden"},
        "zoom": {"part": "guest", "field": "zoom"},
        "episode": {"part": "badge", "field": "text", "counter": {"before": "Lesson ", "digits": 2}},
    }
    stands = {"anchor": "top-left", "width": 0.8, "height": 0.3}
    return Piece.model_validate({
        "subject": "Wheel school",
        "parts": [
            {"id": "ground", "role": "ground", "fill": {"kind": "solid", "colour": "#17443c"}},
            {"id": "guest", "role": "picture", "artwork": "rowan.png", "stands": {**stands, "anchor": "right"}},
            {"id": "headline", "role": "headline", "text": "True a wheel", "stands": stands, "colour": "#ffffff"},
            {"id": "badge", "role": "badge", "text": "Lesson 1", "stands": {**stands, "anchor": "bottom-left"},
             "colour": "#ffffff"},
        ],
        "fields": fields or usual,
    })  # fmt: skip


@pytest.mark.parametrize(
    ("name", "kind"),
    [("title", "words"), ("guest", "picture"), ("colour", "colour"), ("new", "shown"), ("zoom", "number")],
)
def test_what_a_cell_holds_follows_from_its_field(name: str, kind: str) -> None:
    assert columns_of(lesson())[name].kind == kind


@pytest.mark.parametrize(
    ("name", "cell", "value"),
    [
        ("title", "  Two words ", "Two words"),
        ("guest", "Rowan", "rowan.png"),
        ("guest", "rowan.png", "rowan.png"),
        ("colour", "#F4D06F", "#f4d06f"),
        ("colour", "17443C", "#17443c"),
        ("colour", "Auto", "auto"),
        ("new", "yes", False),
        ("new", "No", True),
        ("zoom", "1,5", 1.5),
        ("zoom", "2", 2.0),
        ("title", "", None),
        ("episode", "", "Lesson 03"),
        ("episode", "Special", "Special"),
    ],
)
def test_a_cell_makes_a_value(name: str, cell: str, value: Any) -> None:
    assert value_of_cell(columns_of(lesson())[name], cell, 2, ARTWORKS) == value


@pytest.mark.parametrize(
    ("name", "cell", "said"),
    [
        ("guest", "Nobody", "no picture 'Nobody'"),
        ("colour", "reddish", "is no colour"),
        ("new", "perhaps", "Write yes or no"),
        ("zoom", "a lot", "no number"),
        ("guest", "x" * 200, "…"),
    ],
)
def test_what_a_cell_cannot_be_is_said(name: str, cell: str, said: str) -> None:
    with pytest.raises(FitzleError, match=said):
        value_of_cell(columns_of(lesson())[name], cell, 0, ARTWORKS)


def test_counters_count() -> None:
    assert [counted(RowCounter(before="No. ", start=10, step=5, after="!"), number) for number in (0, 1, 3)] == [
        "No. 10!", "No. 15!", "No. 25!",
    ]  # fmt: skip


def test_headings_are_matched_whatever_their_case_and_spaces() -> None:
    table = table_of([["Title", "GUEST ", "Notes"], ["x", "y", "z"]])
    found = matched(lesson(), table)
    assert found.columns == {"title": 0, "guest": 1} and found.left_over == ["Notes"]


def test_what_is_wrong_with_one_row_stops_no_other() -> None:
    table = table_of([["title", "guest", "zoom"], ["One", "Rowan", ""], ["Two", "Nobody", "much"], ["Three", "", "99"]])
    rows, problems = rows_of(lesson(), table, matched(lesson(), table), ARTWORKS)
    assert [row.row.values["title"] for row in rows] == ["One"]
    assert [(one.line, one.field) for one in problems] == [(3, "guest"), (3, "zoom"), (4, "")]
    last = table_of([["title", "guest"], ["One", "Nobody"], ["Two", "Rowan"]])
    [kept], _ = rows_of(lesson(), last, matched(lesson(), last), ARTWORKS)
    assert kept.number == 2 and kept.row.values["episode"] == "Lesson 02", "mending a row renames no other"
    assert "20" in problems[2].words, "what the part can take"
    shown = {part.id: part for part in parts_in(lesson(), None, row=rows[0].row)}
    assert shown["headline"].text == "One" and shown["badge"].text == "Lesson 01"  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("names", "groups"),
    [
        (["a", "b"], []),
        (["Wheel", "wheel"], [["0", "1"]]),
        (["caf\u00e9", "cafe\u0301", "cafe"], [["0", "1"]]),
        (["a.", "a", "b"], [["0", "1"]]),
        (["straße", "STRASSE"], [["0", "1"]]),
    ],
)
def test_names_that_are_one_on_some_system_are_found(names: list[str], groups: list[list[str]]) -> None:
    assert collisions({str(number): name for number, name in enumerate(names)}) == groups
    assert listed([3, 7, 12]) == "3, 7 and 12" and listed([3]) == "3"


def test_unknown_tokens_are_refused() -> None:
    check_rule("{title}_{row}_{width}", ["title"])
    with pytest.raises(DocumentError, match="unknown {price}"):
        check_rule("{price}", ["title"])


def test_what_a_series_changes_is_proposed() -> None:
    plain = lesson(**{"title": {"part": "headline", "field": "text"}})
    assert {name: (one.part, one.field) for name, one in proposed_fields(plain).items()} == {
        "picture": ("guest", "artwork"), "badge": ("badge", "text"),
    }  # fmt: skip


def test_fields_are_named_and_let_go_as_changes() -> None:
    plain = lesson(**{"title": {"part": "headline", "field": "text"}})
    target = FieldTarget(part="badge", field="text", counter=RowCounter(before="Lesson "))
    named = NameField(name="episode", target=target)
    after = apply_changes(plain, [named])
    assert after.fields["episode"] == target and value_of(plain, named) is None
    assert apply_changes(after, [NameField(name="episode", target=None)]) == plain
    other = apply_changes(plain, [NameField(name="episode", target=FieldTarget(part="headline", field="colour"))])
    assert clashes(plain, other, [named]) == [named] and not clashes(plain, after, [named])
    assert "episode" not in apply_changes(after, [RemovePart(part="badge")]).fields, "gone with its part"
    with pytest.raises(DocumentError, match="has no 'wobble'"):
        apply_changes(plain, [NameField(name="x", target=FieldTarget(part="badge", field="wobble"))])


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    (tmp_path / "rowan.png").write_bytes(saved(photo(320, 240), "PNG"))
    (tmp_path / "ida.svg").write_bytes(svg())
    document = lesson(
        title={"part": "headline", "field": "text"},
        guest={"part": "guest", "field": "artwork"},
        episode={"part": "badge", "field": "text", "counter": {"before": "Lesson "}},
    )
    (tmp_path / "school.json").write_text(document.model_dump_json())
    return tmp_path


def command(folder: Path, capsys: pytest.CaptureFixture[str], table: str, *more: str) -> tuple[int, dict[str, Any]]:
    from fitzle.cli.running import main

    (folder / "rows.csv").write_text(table)
    words = ["run", str(folder / "school.json"), str(folder / "rows.csv"), "--out", str(folder / "out"), "--json"]
    code = main([*words, "--spec", "JPEG 320x180 under 60 KB", *more])
    return code, json.loads(capsys.readouterr().out)


def test_the_command_makes_the_files_of_all_rows(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    table = "title;guest\nTrue a wheel;rowan\nFind the click;IDA\n"
    _, told = command(folder, capsys, table, "--spec", "PNG 200x200", "--name", "{title}_{width}")
    assert told["rows"] == 2 and told["problems"] == [] and told["left_over"] == []
    made = sorted(path.name for path in (folder / "out").iterdir())
    assert made == ["find-the-click_200.png", "find-the-click_320.jpg", "true-a-wheel_200.png", "true-a-wheel_320.jpg"]
    assert len({(folder / "out" / name).read_bytes() for name in made}) == 4, "each is another picture"


def test_a_row_that_cannot_be_made_is_told_and_the_rest_is_made(
    folder: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (folder / "broken.png").write_bytes(b"\x89PNG\r\n\x1a\nbroken")
    code, told = command(folder, capsys, "title,guest\nOne,rowan\nTwo,broken\nThree,nobody\n")
    assert code == 1
    assert [(one["line"], one["verdict"] == "failed") for one in told["files"]] == [(2, False), (3, True)]
    assert "broken.png" in told["files"][1]["message"] and told["problems"][0]["line"] == 4
    assert [path.name for path in (folder / "out").iterdir()] == ["wheel-school-1_320x180.jpg"]


@pytest.mark.parametrize(
    ("table", "more", "said"),
    [
        ("title\nWheel\nwheel\n", ["--name", "{title}"], "lines 2 and 3"),
        ("title\nWheel\n", ["--name", "{price}"], "unknown {price}"),
        ("price\n3\n", [], "no heading is that of a field"),
    ],
)
def test_what_cannot_be_is_said_before_anything_is_made(
    folder: Path, capsys: pytest.CaptureFixture[str], table: str, more: list[str], said: str
) -> None:
    code, told = command(folder, capsys, table, *more)
    assert code != 0 and said in told["error"]
    assert not (folder / "out").exists()
