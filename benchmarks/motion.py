"""Moving files and watermarks, against the usual way: frames drawn and saved by Pillow."""

from __future__ import annotations

import io
import tempfile
import time
from collections.abc import Callable, Iterator
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image, ImageDraw, ImageFont

SHOWN = (800, 200)
FRAMES, PERIOD = 36, 3.0
STICKER, CLIP = (320, 320), (1280, 320)
RANDOM_PAIRS = 300


@cache
def _photo(size: tuple[int, int]) -> Image.Image:
    from demo.photos import PHOTOS
    from PIL import ImageOps

    from benchmarks.photo import sample_photo

    picture = Image.open(io.BytesIO(sample_photo(next(iter(PHOTOS))))).convert("RGB")
    return ImageOps.fit(picture, (size[0] + 80, size[1]), Image.Resampling.LANCZOS)


def header(number: int, count: int, *, pans: bool) -> Image.Image:
    """A header whose words slide in over a photo that stands still or goes by."""
    turn = number / count
    left = round(40 + 40 * np.sin(2 * np.pi * turn)) if pans else 40
    picture = _photo(SHOWN).crop((left, 0, left + SHOWN[0], SHOWN[1]))
    draw = ImageDraw.Draw(picture)
    draw.text(
        (-400 + min(1.0, turn * 3) * 460, 70), "Learn to true a wheel", font=ImageFont.load_default(48), fill="white"
    )
    draw.ellipse((650, 60 + 20 * np.sin(2 * np.pi * turn), 730, 140 + 20 * np.sin(2 * np.pi * turn)), fill="#b4541a")
    return picture


def _frames(make: Callable[[int, int], Image.Image]) -> Callable[[float], Iterator[Any]]:
    def drawn(fps: float) -> Iterator[Any]:
        count = max(2, round(PERIOD * fps))
        return (np.asarray(make(number, count).convert("RGBA")) for number in range(count))

    return drawn


def gif_bytes() -> tuple[int, int, float, float]:
    """GIF of 36 frames 800x200 under half of what Pillow has: our bytes, Pillow's, and the looks of both, over a still
    and a panning photo.
    """
    from fitzle.core.motion.files import Playing, moving_file
    from fitzle.core.motion.frames import delays
    from fitzle.core.motion.ladders import highest, settings_at
    from fitzle.core.motion.looking import looks_of
    from fitzle.core.motion.reel import Reel

    ours = theirs = 0
    looks: list[tuple[float, float]] = []
    for pans in (False, True):
        pictures = [header(number, FRAMES, pans=pans) for number in range(FRAMES)]
        reel = Reel((np.asarray(one.convert("RGBA")) for one in pictures), PERIOD)
        out, exact = io.BytesIO(), [10 * one for one in delays(PERIOD, FRAMES, 100)]  # Pillow would lose 0.1 s
        pictures[0].save(out, "GIF", save_all=True, append_images=pictures[1:], duration=exact, loop=0, optimize=True)
        usual = looks_of(out.getvalue(), reel, 100)
        theirs += len(out.getvalue())
        for position in range(highest("gif") + 1):
            data = moving_file("gif", reel, settings_at("gif", position, reel.fps), Playing())
            found = looks_of(data, reel, 100)
            if found.score >= usual.score or position == highest("gif"):
                ours += len(data)
                looks.append((found.score, usual.score))
                break
    return ours, theirs, min(one for one, _ in looks), min(other for _, other in looks)


def sticker() -> tuple[int, int, float]:
    """A sticker of 3 s with alpha as APNG under 500 KB: our bytes, Pillow's of the same frames, and the worst tenth."""
    from fitzle.core.motion.search import Asked, best_moving

    def make(number: int, count: int) -> Image.Image:
        mark = _badge().rotate(12 * np.sin(4 * np.pi * number / count), Image.Resampling.BICUBIC)
        return mark

    found = best_moving(_frames(make), PERIOD, STICKER[0] * STICKER[1], Asked(["apng"], 500_000))
    frames = [Image.fromarray(one) for one in _frames(make)(25)]
    out = io.BytesIO()
    frames[0].save(out, "PNG", save_all=True, append_images=frames[1:], duration=40, loop=0)
    assert found.choice.best and found.looks
    return len(found.choice.best.data), len(out.getvalue()), found.looks.worst


@cache
def _badge() -> Image.Image:
    from demo.marks import MARKS

    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.artwork.straight import straight
    from fitzle.core.geometry.rect import Rect
    from fitzle.core.units import Size

    source = read_artwork(MARKS["wheel-badge.svg"].encode(), "badge.svg").source
    drawn = source.pixels(Rect(0, 0, source.width, source.height), Size(260, round(260 * source.height / source.width)))
    picture = Image.new("RGBA", STICKER)
    picture.paste(Image.fromarray(straight(drawn)), (30, 30))
    return picture


def drawn_s() -> float:
    """60 frames of 320x320 drawn from parts, in seconds."""
    from benchmarks.moving_piece import decided_piece
    from fitzle.core.fit.moving import loop_of

    decided, sources = decided_piece()
    loop = loop_of(decided, sources)
    began = time.perf_counter()
    for _ in loop.frames(60 / loop.period):
        pass
    return time.perf_counter() - began


def first_play_ms() -> float:
    """Until the first frame of a play of a new piece is there."""
    from benchmarks.moving_piece import decided_piece
    from fitzle.core.fit.moving import loop_of

    began = time.perf_counter()
    decided, sources = decided_piece()
    loop_of(decided, sources).picture(0.0, 320)
    return (time.perf_counter() - began) * 1000


def clip_search() -> tuple[float, int, float, float]:
    """A clip of 3 s as a moving banner of 1280x320, GIF under 1 MB: seconds, bytes, score and MB at most."""
    import resource

    from demo.clips import lesson_clip

    from fitzle.core.fit.animating import of_clip
    from fitzle.core.motion.footage import Cut
    from fitzle.core.spec.sheet import SpecSheet

    sheet = SpecSheet.model_validate({
        "fitzle_spec": 1, "name": "Banner", "size": {"width": CLIP[0], "height": CLIP[1]}, "formats": ["gif"],
        "max_bytes": 1_000_000, "motion": {"allowed": True},
    })  # fmt: skip
    data = lesson_clip()
    began = time.perf_counter()
    made = of_clip(data, "lesson.mp4", sheet, Cut(1.2, 4.2), "banner").made
    took = time.perf_counter() - began
    assert made.encoded
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000
    return took, len(made.encoded.data), made.encoded.score, peak


def lottie() -> tuple[int, int, float, float]:
    """The sticker of parts drawn as Lottie: its bytes, Pillow's APNG of the same frames, ms to write it, and how far
    its frames are from ours, of 255 on average.
    """
    from benchmarks.moving_piece import decided_piece
    from fitzle.core.artwork.lottie_player import LottiePlayer
    from fitzle.core.fit.moving import loop_of
    from fitzle.core.motion.lottie.writing import lottie_file
    from fitzle.core.units import Size

    decided, sources = decided_piece()
    loop = loop_of(decided, sources)
    assert loop.motion
    began = time.perf_counter()
    written = lottie_file(loop.plan, loop.motion, loop.sources, begin=loop.begin, fps=25)
    took = (time.perf_counter() - began) * 1000
    player = LottiePlayer(written.data, Size(320, 320))
    frames = list(loop.frames(25))
    off = [np.abs(_on_white(player.at(at / 25)) - _on_white(frame)).mean() for at, frame in enumerate(frames)]
    out, pictures = io.BytesIO(), [Image.fromarray(one) for one in frames]
    pictures[0].save(out, "PNG", save_all=True, append_images=pictures[1:], duration=40, loop=0)
    return len(written.data), len(out.getvalue()), took, float(np.mean(off))


def _on_white(pixels: Any) -> Any:
    share = pixels[..., 3:].astype(np.float32) / 255
    return pixels[..., :3] * share + 255 * (1 - share)


def video() -> tuple[float, float]:
    """The panning header under 150 KB: the score of our MP4, and of our GIF under the same limit."""
    from fitzle.core.motion.search import Asked, best_moving

    scores = []
    for fmt in ("mp4", "gif"):
        draw = _frames(lambda number, count: header(number, count, pans=True))
        asked = Asked([fmt], 150_000, max_fps=12.5)  # type: ignore[list-item]
        found = best_moving(draw, PERIOD, SHOWN[0] * SHOWN[1], asked)
        scores.append(found.choice.best.score if found.choice.best else 0.0)
    return scores[0], scores[1]


def watermarks_foreseen_ms() -> tuple[float, float]:
    """After one change of a mark: 500 pictures foreseen again, in ms, and 1 of 12 megapixels marked by Pillow."""
    from fitzle.core.watermark.looking import foreseen, looked_at, small_marks
    from fitzle.core.watermark.placing import Stamp

    photo = _photo((4000, 3000)).resize((4000, 3000))
    out = io.BytesIO()
    photo.save(out, "JPEG", quality=90)
    look, marks = looked_at(out.getvalue(), "a.jpg"), small_marks([np.asarray(_badge())])
    began = time.perf_counter()
    for number in range(500):
        foreseen(look, marks, Stamp(size=0.1 + number / 5000))
    ours = (time.perf_counter() - began) * 1000
    began = time.perf_counter()
    whole = Image.open(out).convert("RGBA")
    whole.alpha_composite(_badge().resize((360, 360)), (3600, 2600))
    whole.convert("RGB").save(io.BytesIO(), "JPEG", quality=90)
    return ours, (time.perf_counter() - began) * 1000


def over_their_limit() -> int:
    """Of 300 random loops and limits, how many files are over."""
    from fitzle.core.encode.budget import Budget
    from fitzle.core.formats import MOVING
    from fitzle.core.motion.search import Asked, best_moving

    rng = np.random.default_rng(20261130)
    over = 0
    for number in range(RANDOM_PAIRS):
        width, height = (int(side) for side in rng.integers(16, 120, 2))
        limit, shade = int(rng.integers(300, 40_000)), rng.integers(0, 255, (6, 3))

        def draw(fps: float, size: Any = (width, height), shades: Any = shade) -> Iterator[Any]:
            count = max(2, round(0.4 * fps))
            for step in range(count):
                picture = Image.new("RGBA", size, tuple(int(one) for one in shades[0]))
                pen = ImageDraw.Draw(picture)
                for part in range(1, 6):
                    x = (size[0] * part / 5 + size[0] * step / count) % size[0]
                    pen.ellipse(
                        (x - 6, size[1] / 2 - 6, x + 6, size[1] / 2 + 6), fill=tuple(int(one) for one in shades[part])
                    )
                yield np.asarray(picture)

        asked = Asked([MOVING[number % len(MOVING)]], limit, max_fps=12.5)
        best = best_moving(draw, 0.4, width * height, asked, Budget(3)).choice.best
        over += bool(best and len(best.data) > limit)
    return over


def watermarks() -> tuple[float, float]:
    """100 pictures of 12 megapixels with a mark, in seconds, and Pillow's way on two threads."""
    from concurrent.futures import ThreadPoolExecutor

    from demo.marks import MARKS

    from fitzle.cli import main

    photo = _photo((4000, 3000)).resize((4000, 3000))
    with tempfile.TemporaryDirectory() as desk:
        folder = Path(desk)
        photo.save(folder / "0.jpg", quality=90)
        for number in range(1, 100):
            (folder / f"{number}.jpg").hardlink_to(folder / "0.jpg")
        (folder / "mark.svg").write_text(MARKS["ottermoor-light.svg"])
        began = time.perf_counter()
        with open("/dev/null", "w") as nowhere:
            import contextlib

            with contextlib.redirect_stdout(nowhere):
                main(["watermark", str(folder / "mark.svg"), str(folder / "*.jpg"), "--out", str(folder / "out")])
        ours = time.perf_counter() - began
        mark = _badge().resize((360, 360))

        def usual(number: int) -> None:
            with Image.open(folder / f"{number}.jpg") as picture:
                whole = picture.convert("RGBA")
                whole.alpha_composite(mark, (3600, 2600))
                whole.convert("RGB").save(folder / f"out-{number}.jpg", quality=90, optimize=True)

        began = time.perf_counter()
        with ThreadPoolExecutor(2) as pool:
            list(pool.map(usual, range(100)))
        return ours, time.perf_counter() - began
