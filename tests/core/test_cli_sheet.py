"""The command line takes places in words: `sheet`, and `--spec` of `fit` and `check`."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from fitzle.cli import main
from tests.core.test_cli import ENVIRONMENT, ROOT, desk, run

__all__ = ["desk"]


def test_a_sheet_is_made_of_words_and_says_where_from(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    words = "Logo: at least 150 x 150 px, PNG, splendid"
    code, answer = run(desk, capsys, "sheet", words, "--out", str(desk / "made.json"))
    assert code == 0
    assert answer["sheet"]["size"] == {"min_width": 150, "min_height": 150}
    assert [(one["key"], one["value"], words[one["start"] : one["end"]]) for one in answer["understood"]] == [
        ("name", "logo", "Logo"),
        ("size", {"min_width": 150, "min_height": 150}, "at least 150 x 150 px"),
        ("formats", "png", "PNG"),
    ]
    assert [one["text"] for one in answer["not_understood"]] == ["splendid"]
    assert json.loads((desk / "made.json").read_text()) == answer["sheet"]
    code, answer = run(desk, capsys, "fit", "mark.svg", "--spec", "made.json", "--out", str(desk))
    assert (code, answer["verdict"]) == (0, "fits")


@pytest.mark.parametrize("words", ["a nice PNG", "square, 100 x 200 px", ""])
def test_words_that_are_no_place_end_with_2(desk: Path, capsys: pytest.CaptureFixture[str], words: str) -> None:
    code, answer = run(desk, capsys, "sheet", words, "--out", str(desk / "made.json"))
    assert (code, answer["sheet"]) == (2, None)
    assert answer["problems"] and not (desk / "made.json").exists()


def test_people_read_a_table(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["sheet", "PNG 512x512 under 200 KB, shiny"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert "max bytes      200000" in lines and "not understood shiny" in lines


def test_fit_and_check_take_words(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    spec = "PNG 512x512 under 200 KB"
    code, answer = run(desk, capsys, "fit", "mark.svg", "--spec", spec, "--out", str(desk / "out"))
    assert (code, answer["width"], answer["format"], answer["verdict"]) == (0, 512, "png", "fits")
    code, answer = run(desk, capsys, "check", answer["file"], "--spec", spec)
    assert (code, answer["verdict"]) == (0, "fits")
    code, answer = run(desk, capsys, "check", str(desk / "mark.svg"), "--spec", spec)
    assert (code, answer["verdict"]) == (1, "refused")


@pytest.mark.parametrize(("spec", "told"), [("gone.json", "gone.json"), ("a nice PNG", "no size in these words")])
def test_a_spec_that_is_neither_is_told(desk: Path, spec: str, told: str) -> None:
    command = [sys.executable, "-m", "fitzle.cli", "fit", str(desk / "mark.svg"), "--spec", spec, "--out", str(desk)]
    ended = subprocess.run(command, capture_output=True, text=True, env=ENVIRONMENT, cwd=ROOT, check=False)
    assert ended.returncode == 2
    assert told in ended.stderr and "Traceback" not in ended.stderr
