"""`animate` as a person runs it: a piece, a clip, a moving picture; what is refused is said in words."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import av
import numpy as np
import pytest
from PIL import Image, ImageSequence

from fitzle.cli import main
from tests.clips import clip
from tests.core.test_following import GROUND, badge_on, there_and_back
from tests.core.test_footage import moving
from tests.make import photo, saved, svg

PIECE = {
    "fitzle_piece": 2, "subject": "Course header",
    "parts": [
        {"id": "ground", "role": "ground", "fill": {"kind": "solid", "colour": "#17443c"}},
        {"id": "mark", "role": "mark", "artwork": "mark.svg",
         "stands": {"anchor": "left", "dx": 0.12, "width": 0.7, "height": 0.7}},
        {"id": "headline", "role": "headline", "text": "True a wheel", "colour": "#f6e7b8",
         "stands": {"anchor": "right", "dx": 0.12, "width": 1.8, "height": 0.5}},
    ],
}  # fmt: skip


@pytest.fixture
def desk(tmp_path: Path) -> Path:
    for name, data in {
        "talk.mp4": clip(), "mark.svg": svg(), "header.json": json.dumps(PIECE).encode(),
        "old.gif": moving("GIF", [100, 300, 200]), "still.jpg": saved(photo(), "JPEG"),
        "note.txt": b"Wheels on Friday",
    }.items():  # fmt: skip
        (tmp_path / name).write_bytes(data)
    return tmp_path


def run(capsys: pytest.CaptureFixture[str], *words: object) -> tuple[int, Any]:
    code = main(["animate", *(str(word) for word in words), "--json"])
    return code, json.loads(capsys.readouterr().out)


def frames_of(path: str) -> list[np.ndarray]:
    with Image.open(path) as picture:
        return [np.asarray(frame.convert("RGBA")).astype(int) for frame in ImageSequence.Iterator(picture)]


def test_a_piece_moves_by_calculation_and_begins_with_everything_in(
    desk: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    spec = "GIF 320x80 under 200 KB"
    code, answer = run(capsys, desk / "header.json", "--spec", spec, "--out", desk / "out", "--lively", 0.8)
    assert code == 0 and answer["verdict"] in ("fits", "risky") and answer["format"] == "gif"
    assert answer["bytes"] == Path(answer["file"]).stat().st_size <= 200_000
    frames = frames_of(answer["file"])
    assert len(frames) > 10 and answer["frames"] == pytest.approx(answer["fps"] * answer["seconds"])
    still = np.asarray(Image.open(answer["still"]).convert("RGBA")).astype(int)
    assert still.shape == frames[0].shape and np.abs(still - frames[0]).mean() < 4, "the still is the first frame"
    fullest = max(np.abs(np.diff(frame[..., :3], axis=1)).sum() for frame in frames)
    assert np.abs(np.diff(frames[0][..., :3], axis=1)).sum() > 0.9 * fullest
    assert answer["quality"]["worst_tenth"] <= answer["quality"]["mean"] and answer["candidates"]


def test_a_piece_keeps_its_own_motion_and_its_period(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    own = json.loads(json.dumps(PIECE))
    own["parts"][0]["motion"] = {"period": 1.2}
    own["parts"][1]["motion"] = {"keep": {"how": "spin", "every": 1.2}}
    (desk / "own.json").write_text(json.dumps(own))
    _, answer = run(capsys, desk / "own.json", "--spec", "PNG or APNG 160x40", "--out", desk / "out")
    assert answer["format"] == "apng" and answer["seconds"] == pytest.approx(1.2)
    _, short = run(capsys, desk / "own.json", "--spec", str(_sheet(desk, max_seconds=0.8)), "--out", desk / "out")
    assert short["seconds"] == pytest.approx(0.8) and short["verdict"] != "refused"


def _sheet(desk: Path, **motion: Any) -> Path:
    path = desk / "place.json"
    path.write_text(json.dumps({
        "fitzle_spec": 1, "name": "Header", "size": {"width": 160, "height": 40},
        "formats": ["gif"], "motion": {"allowed": True, **motion},
    }))  # fmt: skip
    return path


@pytest.mark.parametrize("loop", ["cut", "smooth", "back"])
def test_a_part_of_a_clip_is_cropped_cut_and_closed(desk: Path, capsys: pytest.CaptureFixture[str], loop: str) -> None:
    words = ["--from", 0.2, "--to", 1.2, "--loop", loop, "--spec", "GIF 120x40 under 150 KB", "--out", desk / "out"]
    code, answer = run(capsys, desk / "talk.mp4", *words)
    assert code == 0 and answer["bytes"] <= 150_000
    assert answer["seconds"] == pytest.approx({"cut": 1.0, "smooth": 0.75, "back": 1.92}[loop], abs=0.05)
    assert {frame.shape for frame in frames_of(answer["file"])} == {(40, 120, 4)}


def farthest(path: str) -> float:
    """How far the orange px of a file come from the middle, in shares of its width; inf where they are lost."""
    found = 0.0
    for frame in frames_of(path):
        orange = (frame[..., 0] > 220) & (frame[..., 1] > 150) & (frame[..., 2] < 90)
        found = max(found, abs(np.nonzero(orange)[1].mean() / frame.shape[1] - 0.5) if orange.sum() > 60 else np.inf)
    return found


def test_the_focus_moves_with_its_subject(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """A badge that goes from side to side stays in a narrow place."""
    frames = [Image.fromarray(badge_on(GROUND, *there_and_back(number / 25))) for number in range(25)]
    frames[0].save(desk / "badge.webp", save_all=True, append_images=frames[1:], duration=80, quality=85)
    words = [desk / "badge.webp", "--spec", "WebP 160x240", "--focus", "0.5,0.5"]
    _, still = run(capsys, *words, "--out", desk / "still")
    code, moved = run(capsys, *words, "--follow", "subject", "--out", desk / "moved")
    assert code == 0 and farthest(moved["file"]) < 0.3
    assert farthest(still["file"]) > 0.4


def test_a_moving_picture_becomes_another(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = run(capsys, desk / "old.gif", "--spec", "WebP 80x60", "--out", desk / "out")
    assert code == 0 and answer["format"] == "webp" and answer["seconds"] == pytest.approx(0.6, abs=0.02)


def test_a_mark_becomes_a_sticker_that_is_drawn_and_one_of_frames(
    desk: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    for spec, fmt in (("Lottie 160x160", "lottie"), ("animated PNG 160x160 under 300 KB", "apng")):
        code, answer = run(capsys, desk / "mark.svg", "--spec", spec, "--out", desk / fmt)
        assert code == 0 and answer["format"] == fmt and answer["still"]
        assert main(["check", answer["file"], "--spec", spec, "--json"]) == 0
        told = json.loads(capsys.readouterr().out)
        assert told["verdict"] == "fits" or not [one for one in told["findings"] if one["severity"] == "refused"]


def test_a_drawn_animation_becomes_frames(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    _, drawn = run(capsys, desk / "mark.svg", "--spec", "Lottie 160x160", "--out", desk / "drawn")
    code, answer = run(capsys, drawn["file"], "--spec", "GIF 90x90 under 200 KB", "--out", desk / "frames")
    assert code == 0 and answer["seconds"] == pytest.approx(drawn["seconds"], abs=0.05)
    frames = frames_of(answer["file"])
    assert {frame.shape for frame in frames} == {(90, 90, 4)}
    assert max(np.abs(frame - frames[0]).mean() for frame in frames) > 1, "it moves"


@pytest.mark.parametrize(("spec", "kind"), [("MP4 160x80 under 60 KB", "h264"), ("WebM 160x80 under 60 KB", "vp9")])
def test_a_video_without_sound(desk: Path, capsys: pytest.CaptureFixture[str], spec: str, kind: str) -> None:
    code, answer = run(capsys, desk / "header.json", "--spec", spec, "--out", desk / "out")
    assert code == 0 and answer["bytes"] <= 60_000
    with av.open(answer["file"]) as container:
        assert not container.streams.audio
        stream = container.streams.video[0]
        assert (stream.codec_context.name, stream.width, stream.height) == (kind, 160, 80)
        assert sum(1 for _ in container.decode(video=0)) == answer["frames"]
    assert main(["check", answer["file"], "--spec", spec, "--json"]) == 0


def test_a_video_of_odd_size_is_not_made(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = run(capsys, desk / "header.json", "--spec", "MP4 161x80", "--out", desk / "out")
    assert code == 1 and any("even" in one["message"] for one in answer["findings"])


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["talk.mp4", "--from", 3, "--to", 4, "--spec", "GIF 80x40"], "lasts 2"),
        (["note.txt", "--spec", "GIF 80x40"], "nothing that can be played"),
        (["talk.mp4", "--spec", "JPEG 80x40"], "nothing moves"),
        (["gone.mp4", "--spec", "GIF 80x40"], "No such file"),
    ],
)
def test_what_cannot_be_is_told_in_words_and_nothing_is_written(
    desk: Path, capsys: pytest.CaptureFixture[str], words: list[Any], says: str
) -> None:
    code = main(["animate", str(desk / words[0]), *(str(word) for word in words[1:]), "--out", str(desk / "out")])
    told = capsys.readouterr()
    assert code == 2 and says in told.err + told.out
    assert not (desk / "out").exists()


def test_a_limit_that_no_moving_file_meets_says_what_was_tried(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    sheet = json.loads(_sheet(desk, required=True).read_text()) | {"max_bytes": 900}
    (desk / "tight.json").write_text(json.dumps(sheet))
    code, answer = run(capsys, desk / "talk.mp4", "--spec", desk / "tight.json", "--out", desk / "out")
    assert code == 1 and answer["verdict"] == "refused" and answer["file"] is None
    assert any("shorter" in one["message"] for one in answer["findings"])


def test_check_knows_how_long_any_moving_file_is(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    sheet = _sheet(desk, max_seconds=0.5)
    document = json.loads(sheet.read_text()) | {"formats": ["webp", "gif"], "size": {"width": 40, "height": 30}}
    sheet.write_text(json.dumps(document))
    (desk / "long.webp").write_bytes(moving("WEBP", [400, 400]))
    code = main(["check", str(desk / "long.webp"), "--spec", str(sheet), "--json"])
    answer = json.loads(capsys.readouterr().out)
    assert code == 1 and any("0.8 s" in one["message"] for one in answer["findings"])
