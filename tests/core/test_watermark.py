"""A mark in the corner of many pictures: where it stands, which version, what is kept, what fails alone."""

from __future__ import annotations

import io
import json
from pathlib import Path
from typing import Any

import av
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from fitzle.cli import main
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.errors import FitzleError
from fitzle.core.spec.naming import distinct_names
from fitzle.core.spec.stems import kept_name
from fitzle.core.units import Size
from fitzle.core.watermark.looking import foreseen, looked_at, shown_marked, small_marks
from fitzle.core.watermark.placing import Corner, Stamp, corner_box, drawn_marks
from fitzle.core.watermark.stamping import stamped
from tests.clips import clip, turned
from tests.core.test_footage import moving
from tests.make import disc, opened, photo, saved, svg

DARK, LIGHT = (svg(f'<rect x="10" y="10" width="80" height="30" fill="{fill}"/>') for fill in ("#101214", "#f5f5f5"))
MARKS = drawn_marks([read_artwork(DARK, "dark.svg"), read_artwork(LIGHT, "light.svg")])
CORNERS: list[Corner] = ["top left", "top right", "bottom left", "bottom right"]


@given(
    st.integers(1, 4000), st.integers(1, 4000), st.integers(1, 500), st.integers(1, 500), st.sampled_from(CORNERS),
    st.floats(0.01, 1), st.floats(0, 0.5),
)  # fmt: skip
def test_it_stands_inside_of_the_picture(
    width: int, height: int, mark_width: int, mark_height: int, corner: Corner, size: float, distance: float
) -> None:
    stamp = Stamp(corner=corner, size=size, distance=distance)
    box = corner_box(Size(width, height), Size(mark_width, mark_height), stamp)
    assert box.x >= 0 and box.y >= 0 and box.right <= width and box.bottom <= height
    assert min(box.width, box.height) >= 1


@pytest.mark.parametrize("corner", CORNERS)
@pytest.mark.parametrize("fmt", ["JPEG", "PNG", "WEBP", "AVIF"])
def test_only_its_corner_changes(corner: Corner, fmt: str) -> None:
    picture = Image.new("RGB", (400, 300), "#c8b890")
    done = stamped(saved(picture, fmt), "a", MARKS, Stamp(corner=corner, size=0.2, distance=0.05, opacity=1))
    shown = np.asarray(opened(done.data).convert("RGB")).astype(int)
    assert opened(done.data).format == fmt
    rows, columns = np.nonzero(np.abs(shown - np.array([200, 184, 144])).max(axis=2) > 60)
    assert columns.max() - columns.min() + 1 == pytest.approx(60, abs=2), "20 % of the short side"
    left, top = corner.endswith("left"), corner.startswith("top")
    assert (columns.min() if left else 399 - columns.max()) == pytest.approx(15, abs=1), "5 % of the short side"
    assert (rows.min() if top else 299 - rows.max()) == pytest.approx(15, abs=1)
    rest = shown[100:200] if not top else shown[150:250]
    assert np.abs(rest - np.array([200, 184, 144])).max() <= 6


@pytest.mark.parametrize(("ground", "version"), [("#ffffff", 0), ("#808080", 0), ("#141414", 1), ("#203040", 1)])
def test_the_version_is_the_one_that_shows(ground: str, version: int) -> None:
    done = stamped(saved(Image.new("RGB", (300, 200), ground), "PNG"), "a.png", MARKS, Stamp(opacity=1))
    assert done.version == version and done.contrast >= 3


def test_a_faint_mark_is_told_by_its_contrast() -> None:
    data = saved(Image.new("RGB", (300, 200), "#777777"), "PNG")
    full, faint = (stamped(data, "a.png", MARKS[:1], Stamp(opacity=opacity)).contrast for opacity in (1, 0.15))
    assert full > 3 > faint >= 1


def test_it_is_upright_and_nothing_private_is_kept_unless_asked() -> None:
    picture, out = photo(300, 200), io.BytesIO()
    details = picture.getexif()
    details[0x0112], details[0x010F] = 6, "A camera"
    picture.save(out, "JPEG", quality=90, exif=details)
    plain = opened(stamped(out.getvalue(), "a.jpg", MARKS, Stamp()).data)
    assert plain.size == (200, 300) and not dict(plain.getexif())
    kept = opened(stamped(out.getvalue(), "a.jpg", MARKS, Stamp(), keep_details=True).data)
    assert kept.size == (200, 300) and kept.getexif()[0x010F] == "A camera" and kept.getexif().get(0x0112, 1) == 1


def test_clear_pictures_stay_clear_and_the_mark_lies_over_nothing_too() -> None:
    done = opened(stamped(saved(disc(200), "PNG"), "a.png", MARKS, Stamp(size=0.3, opacity=0.5)).data)
    alpha = np.asarray(done.convert("RGBA"))[..., 3]
    assert alpha[2, 2] == 0 and 110 <= alpha[180, 170] <= 150


@pytest.mark.parametrize("fmt", ["GIF", "PNG", "WEBP"])
def test_each_frame_of_a_moving_picture_gets_it(fmt: str) -> None:
    done = stamped(moving(fmt, [200, 200, 200]), f"a.{fmt.lower()}", MARKS, Stamp(size=0.5, opacity=1))
    with Image.open(io.BytesIO(done.data)) as picture:
        assert getattr(picture, "n_frames", 1) >= 3
        for number in range(picture.n_frames):
            picture.seek(number)
            shown = np.asarray(picture.convert("RGB")).astype(int)
            corner, middle = shown[-8:, -12:], shown[12, 6]
            assert np.abs(corner - middle).max() > 40, "the mark is there"


def run(capsys: pytest.CaptureFixture[str], *words: object) -> tuple[int, Any]:
    code = main(["watermark", *(str(word) for word in words), "--json"])
    told = capsys.readouterr()
    return code, json.loads(told.out or told.err)


@pytest.fixture
def desk(tmp_path: Path) -> Path:
    (tmp_path / "mark.svg").write_bytes(DARK)
    (tmp_path / "light.svg").write_bytes(LIGHT)
    for folder, shade in (("a", "#ffffff"), ("b", "#101010")):
        (tmp_path / folder).mkdir()
        (tmp_path / folder / "wheel.jpg").write_bytes(saved(Image.new("RGB", (200, 120), shade), "JPEG"))
    (tmp_path / "a" / "broken.jpg").write_bytes(b"\xff\xd8\xff\xe0 no picture")
    return tmp_path


def test_many_at_once_keep_apart_and_one_that_fails_fails_alone(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    before = {path: path.read_bytes() for path in desk.rglob("*.jpg")}
    words = [desk / "mark.svg", desk / "*" / "*.jpg", "--or", desk / "light.svg", "--out", desk / "out"]
    code, answer = run(capsys, *words, "--corner", "top-left", "--size", "20%")
    assert code == 1 and (answer["made"], answer["failed"], answer["hardly_seen"]) == (2, 1, 0)
    assert sorted(path.name for path in (desk / "out").iterdir()) == ["wheel-2.jpg", "wheel.jpg"]
    marks = {one["mark"] for one in answer["pictures"] if "mark" in one}
    assert marks == {"mark.svg", "light.svg"} and answer["weakest"]["contrast"] >= 3
    [problem] = [one["problem"] for one in answer["pictures"] if "problem" in one]
    assert problem.startswith("broken.jpg")
    assert before == {path: path.read_bytes() for path in before}, "originals are never touched"


@pytest.mark.parametrize(
    ("options", "says"),
    [(["--out", "a"], "originals are never touched"), (["--out", "o", "--size", "300%"], "size")],
)
def test_what_cannot_be_is_told_before_anything_is_made(
    desk: Path, capsys: pytest.CaptureFixture[str], options: list[str], says: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(desk)
    code = main(["watermark", "mark.svg", "a/wheel.jpg", *options])
    assert code == 2 and says in capsys.readouterr().err
    assert not (desk / "o").exists()


def test_a_clip_keeps_its_times_and_gets_it_in_every_frame() -> None:
    stamps = [0, 40, 80, 200, 400, 440, 480]
    done = stamped(clip(stamps_ms=stamps), "talk.mp4", MARKS, Stamp(corner="top right", size=0.4, opacity=1))
    assert done.extension == "mp4"
    with av.open(io.BytesIO(done.data)) as container:
        frames = list(container.decode(video=0))
        assert (frames[0].width, frames[0].height) == (256, 144)
        assert [round(float(frame.time) * 1000) for frame in frames] == pytest.approx(stamps, abs=2)
        ink = 10 if done.version == 0 else 245
        for frame in frames:
            corner = frame.to_ndarray(format="gray")[8:20, 220:245].astype(int)
            assert np.abs(corner - ink).mean() < 40


def test_the_sound_of_a_clip_is_kept_and_a_turned_one_stands_upright() -> None:
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as container:
        video: Any = container.add_stream("libx264", rate=10)
        video.width, video.height, video.pix_fmt = 64, 48, "yuv420p"
        audio: Any = container.add_stream("aac", rate=44_100)
        for _ in range(10):
            container.mux(video.encode(av.VideoFrame.from_ndarray(np.full((48, 64, 3), 90, np.uint8), format="rgb24")))
        samples = av.AudioFrame.from_ndarray(np.zeros((1, 44_100), np.float32), format="fltp", layout="mono")
        samples.sample_rate = 44_100
        container.mux(audio.encode(samples))
        container.mux([*video.encode(None), *audio.encode(None)])
    with av.open(io.BytesIO(stamped(out.getvalue(), "a.mp4", MARKS, Stamp()).data)) as container:
        assert len(container.streams.audio) == 1 and container.streams.audio[0].codec_context.name == "aac"
        assert sum(1 for _ in container.decode(audio=0)) > 30
    with av.open(io.BytesIO(stamped(turned(clip(), 1), "a.mp4", MARKS, Stamp()).data)) as container:
        frame = next(container.decode(video=0))
        assert (frame.width, frame.height) == (144, 256) and not frame.rotation


PICTURES = [
    ("JPEG", photo(900, 600)),
    ("PNG", Image.new("RGB", (640, 480), "#777777")),
    ("WEBP", Image.new("RGB", (300, 1200), "#20262c")),
    ("PNG", Image.new("RGBA", (200, 200), (240, 240, 240, 255))),
]


@pytest.mark.parametrize(("fmt", "picture"), PICTURES)
@pytest.mark.parametrize("corner", CORNERS)
def test_what_is_foreseen_of_a_small_look_is_what_the_file_gets(fmt: str, picture: Image.Image, corner: Corner) -> None:
    stamp, data = Stamp(corner=corner, size=0.2), saved(picture, fmt)
    look, done = looked_at(data, "a"), stamped(data, "a", MARKS, stamp)
    told = foreseen(look, small_marks(MARKS), stamp)
    assert look.size == picture.size and max(look.pixels.shape[:2]) <= 96 and not look.clip
    assert told.version == done.version
    assert told.contrast == pytest.approx(done.contrast, rel=0.12)


def test_a_look_is_upright_and_a_proof_shows_the_mark_in_its_corner() -> None:
    look = looked_at(turned(clip(), 1), "a.mp4", 200)
    assert look.clip and look.size.height > look.size.width and max(look.pixels.shape[:2]) == 200
    plain = looked_at(saved(Image.new("RGB", (400, 300), "#ffffff"), "PNG"), "a.png", 200)
    shown, mark = shown_marked(plain, MARKS, Stamp(corner="top left", size=0.4, opacity=1))
    assert mark.version == 0 and mark.contrast > 10 and shown.shape == (150, 200, 4)
    assert (shown[:75, :100, :3] < 60).any() and (shown[75:, 100:, :3] == 255).all()


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (svg(), "cannot be laid"),
        (b"x" * 400, "not a picture|cannot be read|no picture"),
        (saved(photo(64, 64), "JPEG")[:700], "damaged|cut off|broken"),
    ],
)
def test_what_cannot_be_marked_is_said_with_its_name(data: bytes, words: str) -> None:
    with pytest.raises(FitzleError, match=rf"a\.jpg.*({words})"):
        looked_at(data, "a.jpg")


def test_files_of_one_stem_get_numbers_whatever_their_endings_become() -> None:
    assert list(distinct_names(["a.mov", "a.mp4", "A.jpg", "b", "B", "c.jpg"])) == [
        "a.mov", "a-2.mp4", "A-3.jpg", "b", "B-2", "c.jpg"
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("name", "kept"),
    [("Köln am Rhein (3).JPG", "Köln am Rhein (3).JPG"), ("../etc/passwd", "-etc-passwd"), ('a:b"c?.png', "a-b-c-.png"),
     ("con.png", "con-file.png"), ("...", "picture"), ("a" * 300 + ".jpeg", "a" * 120 + ".jpeg"), ("x\x00y", "x-y")],
)  # fmt: skip
def test_a_name_is_kept_but_for_what_a_system_forbids(name: str, kept: str) -> None:
    assert kept_name(name) == kept


def test_letters_on_a_shape_are_seen_where_the_shape_is_not() -> None:
    badge = svg(
        '<rect width="100" height="50" fill="#b5521b"/><rect x="10" y="15" width="80" height="20" fill="#ffffff"/>'
    )
    marks = drawn_marks([read_artwork(badge, "badge.svg")])
    like_its_shape = saved(Image.new("RGB", (400, 300), "#b5521b"), "PNG")
    assert stamped(like_its_shape, "a.png", marks, Stamp(opacity=1)).contrast > 4
    plain = drawn_marks([read_artwork(svg('<rect width="100" height="50" fill="#b5521b"/>'), "plain.svg")])
    assert stamped(like_its_shape, "a.png", plain, Stamp(opacity=1)).contrast < 1.1
