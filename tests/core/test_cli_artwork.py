"""The command line for artwork: inspect, still, cutout."""

import io
import json
import os
import subprocess
import sys
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from demo.people import GUEST, person, room, together
from PIL import Image

from fitzle.cli import main
from tests.clips import clip, number_in, sound_alone, turned
from tests.make import disc, opened, photo, saved, svg

REQUIRED = {
    "kind", "format", "width", "height", "vector", "trimmed", "transparency", "colours", "detail_px", "crisp_px",
    "faces", "backdrop_colour", "warnings",
}  # fmt: skip


@pytest.fixture
def desk(tmp_path: Path) -> Path:
    """A folder with a bit of everything."""
    files = {
        "logo.png": saved(disc(ground="#f2e6d0"), "PNG"), "clear.png": saved(disc(), "PNG"), "mark.svg": svg(),
        "photo.jpg": saved(photo(), "JPEG"), "talk.mp4": clip(), "phone.mp4": turned(clip(), 1),
        "song.m4a": sound_alone(),
    }  # fmt: skip
    for name, data in files.items():
        (tmp_path / name).write_bytes(data)
    return tmp_path


def run(capsys: pytest.CaptureFixture[str], *words: object) -> tuple[int, Any]:
    code = main([*(str(word) for word in words), "--json"])
    return code, json.loads(capsys.readouterr().out)


@pytest.mark.parametrize(
    ("name", "kind"), [("logo.png", "mark"), ("mark.svg", "mark"), ("photo.jpg", "picture"), ("talk.mp4", "clip")]
)
def test_inspect_answers_the_same_keys_for_everything(
    desk: Path, capsys: pytest.CaptureFixture[str], name: str, kind: str
) -> None:
    code, answer = run(capsys, "inspect", desk / name)
    assert code == 0 and answer["kind"] == kind
    assert answer.keys() >= REQUIRED
    assert {"seconds", "fps", "rotation", "has_alpha"} <= answer.keys()
    assert (answer["seconds"] is None) == (kind != "clip")


def test_inspect_is_a_card_for_people_too(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["inspect", str(desk / "phone.mp4")]) == 0
    card = capsys.readouterr().out
    assert "rotation       90" in card and "upright" in card


@pytest.mark.parametrize("ending", ["png", "jpg", "webp"])
def test_a_still_is_the_exact_frame_at_full_resolution(
    desk: Path, capsys: pytest.CaptureFixture[str], ending: str
) -> None:
    out = desk / "stills" / f"still.{ending}"
    code, answer = run(capsys, "still", desk / "talk.mp4", "--at", "1.01", "--out", out)
    assert (code, answer["seconds"], answer["width"], answer["height"]) == (0, 1.0, 256, 144)
    picture = opened(out.read_bytes())
    assert picture.size == (256, 144)
    assert number_in(np.asarray(picture.convert("RGBA"))) == 25


def test_a_still_of_a_turned_clip_is_upright(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    _, answer = run(capsys, "still", desk / "phone.mp4", "--at", "0", "--out", desk / "s.png")
    assert (answer["width"], answer["height"]) == (144, 256)


def test_a_cut_out_keeps_the_subject_and_says_how_sure_it_is(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = run(capsys, "cutout", desk / "logo.png", "--out", desk / "cut.png")
    assert (code, answer["method"]) == (0, "flat") and answer["confidence"] > 0.9
    cut = opened((desk / "cut.png").read_bytes())
    assert (cut.mode, cut.getpixel((2, 2))[3], cut.getpixel((100, 100))) == ("RGBA", 0, (29, 59, 79, 255))


def test_a_person_and_a_subject_in_a_box_are_cut_out(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    portrait = together(person(640, 480, GUEST), room(640, 480))
    (desk / "guest.jpg").write_bytes(saved(Image.fromarray(portrait).convert("RGB"), "JPEG", quality=92))
    code, answer = run(capsys, "cutout", desk / "guest.jpg", "--out", desk / "guest.png")
    assert (code, answer["method"], answer["width"]) == (0, "person", 640)
    box = "180,60,280,420"
    words = ["cutout", desk / "guest.jpg", "--out", desk / "o.png", "--method", "object", "--box", box]
    code, answer = run(capsys, *words)
    assert (code, answer["method"]) == (0, "object")
    assert opened((desk / "o.png").read_bytes()).getpixel((20, 20))[3] == 0


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (["still", "talk.mp4", "--at", "-1", "--out", "x.png"], "not a moment"),
        (["still", "talk.mp4", "--at", "nan", "--out", "x.png"], "not a moment"),
        (["still", "talk.mp4", "--at", "1", "--out", "x.tga"], "stands for no picture"),
        (["still", "song.m4a", "--at", "1", "--out", "x.png"], "song.m4a: there is no picture"),
        (["still", "photo.jpg", "--at", "1", "--out", "x.png"], "photo.jpg: this is a JPEG, not a clip"),
        (["cutout", "logo.png", "--out", "x.bmp"], "stands for no picture"),
        (["still", "nowhere.mp4", "--at", "1", "--out", "x.png"], "No such file"),
        (["cutout", "photo.jpg", "--out", "x.png"], "photo.jpg: there is neither a flat backdrop nor a person"),
        (["cutout", "clear.png", "--out", "x.png"], "transparent already"),
        (["cutout", "logo.png", "--out", "x.jpg"], "no transparency"),
        (["cutout", "logo.png", "--out", "x.png", "--tolerance", "-3"], "tolerance"),
        (["cutout", "talk.mp4", "--out", "x.png"], "MP4 video"),
        (["cutout", "photo.jpg", "--out", "x.png", "--method", "object"], "box around it"),
        (["cutout", "logo.png", "--out", "x.png", "--box", "1,2,3"], "not a box"),
        (["cutout", "logo.png", "--out", "x.png", "--box", "900,900,20,20"], "beside the picture"),
    ],
)
def test_what_cannot_be_done_is_said_and_nothing_is_written(
    desk: Path, capsys: pytest.CaptureFixture[str], words: list[str], said: str
) -> None:
    known = [str(desk / word) if "." in word and not word.replace(".", "").isdigit() else word for word in words]
    code, answer = run(capsys, *known)
    assert code == 2 and said in answer["error"]
    assert not list(desk.glob("x.*"))


def test_only_the_answer_is_said(desk: Path) -> None:
    """The face finder's library greets on standard error; scripts that read both would stumble over it."""
    (desk / "guest.png").write_bytes(saved(Image.fromarray(together(person(640, 480, GUEST), room(640, 480))), "PNG"))
    command = [sys.executable, "-m", "fitzle.cli", "inspect", str(desk / "guest.png"), "--json"]
    environment = {**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)}
    done = subprocess.run(command, check=True, capture_output=True, text=True, env=environment)
    assert done.stderr == ""
    assert len(json.loads(done.stdout)["faces"]) == 1


def test_a_file_that_is_there_is_replaced_whole(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    out = desk / "cut.png"
    out.write_bytes(b"old")
    run(capsys, "cutout", desk / "logo.png", "--out", out)
    assert Image.open(io.BytesIO(out.read_bytes())).size == (200, 200)
    assert not list(desk.glob(".fitzle-*"))
