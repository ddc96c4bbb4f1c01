"""Figures of bringing in and preparing artwork: intake, clips, cut-outs, glyphs, a worker's memory."""

from __future__ import annotations

import io
import json
import os
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np

from benchmarks.photo import FOLDER, large_photo

ROOT = Path(__file__).resolve().parents[1]
ROUNDS = 3
ENCODED_SECONDS = 60
Measure = Callable[[Callable[[], object], int], float]


def alone(what: str, *more: str, rounds: int = ROUNDS) -> dict[str, float]:
    """One measurement in a fresh process with a worker's allocator settings, the best of a few by its time."""
    allocator = dict(entry.split("=") for entry in os.environ.get("WORKER_MEMORY", "").split())
    environment = {**os.environ, **allocator, "PYTHONPATH": f"{ROOT / 'src'}:{ROOT}"}
    command = [sys.executable, "-m", "benchmarks.artwork", what, *more]
    found = [
        json.loads(subprocess.run(command, check=True, capture_output=True, env=environment).stdout)
        for _ in range(rounds)
    ]
    return min(found, key=lambda entry: entry["seconds"])


def long_clip(seconds: int, size: tuple[int, int]) -> Path:
    """A made-up clip of this length at 25 frames a second, kept beside the other inputs.

    A minute at most is encoded; a longer one is that minute again and again, as packets.
    """
    path = FOLDER / f"clip-{seconds}-{size[0]}.mp4"
    if path.exists():
        return path
    if seconds > ENCODED_SECONDS:
        return _repeated(long_clip(ENCODED_SECONDS, size), path, seconds // ENCODED_SECONDS)
    path.parent.mkdir(parents=True, exist_ok=True)
    grounds = _grounds(size)
    with _written(path) as container:
        stream: Any = container.add_stream("libx264", rate=25)
        stream.width, stream.height, stream.pix_fmt, stream.gop_size = *size, "yuv420p", 50
        stream.options = {"preset": "ultrafast", "crf": "28"}
        for number in range(seconds * 25):
            scene = grounds[number // 250 % len(grounds)]
            picture = np.roll(scene, number % 250, axis=1)
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
            frame.pts, frame.time_base = number, Fraction(1, 25)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
    return path


def _repeated(minute: Path, path: Path, times: int) -> Path:
    with _written(path) as container, av.open(str(minute)) as source:
        given = source.streams.video[0]
        stream = container.add_stream_from_template(given)
        packets = [packet for packet in source.demux(given) if packet.dts is not None]
        length = max(packet.pts for packet in packets) + packets[-1].duration
        data = [(bytes(packet), packet.pts, packet.dts, packet.is_keyframe) for packet in packets]
        for turn in range(times):
            for body, pts, dts, key in data:
                packet = av.Packet(body)
                packet.pts, packet.dts = pts + turn * length, dts + turn * length
                packet.time_base, packet.is_keyframe, packet.stream = given.time_base, key, stream
                container.mux(packet)
    return path


@contextmanager
def _written(path: Path) -> Iterator[Any]:
    """A container that has its name only once it is whole."""
    with av.open(f"{path}.new", "w", format="mp4") as container:
        yield container
    Path(f"{path}.new").rename(path)


def _grounds(size: tuple[int, int]) -> list[np.ndarray]:
    from PIL import Image

    found = []
    for seed in range(6):
        coarse = np.random.default_rng(seed).integers(0, 255, (18, 32, 3), dtype=np.uint8)
        found.append(np.asarray(Image.fromarray(coarse).resize(size, Image.Resampling.BICUBIC)))
    return found


def _intake() -> dict[str, float]:
    """What a worker does with a photo of 24 megapixels, from its bytes to the card."""
    from fitzle.core.artwork.likeness import likeness, small_picture
    from fitzle.core.artwork.reading import read_and_judge
    from fitzle.core.artwork.working import make_working_copy

    small = FOLDER / "warm.jpg"
    if not small.exists():
        from PIL import Image

        Image.open(large_photo()).resize((300, 200)).save(small)
    read_and_judge(small.read_bytes(), "warm.jpg")
    data, before, shown = large_photo().read_bytes(), peak_kb(), []

    def show(source: Any) -> None:
        make_working_copy(source)
        shown.append(time.perf_counter())

    started = time.perf_counter()
    likeness(small_picture(read_and_judge(data, "photo.jpg", opened=show).source))
    taken = time.perf_counter() - started
    return {"seconds": taken, "grown_kb": peak_kb() - before, "first_seconds": shown[0] - started}


def _clip(path: str, what: str) -> dict[str, float]:
    from fitzle.core.artwork.clips.filmstrip import filmstrip
    from fitzle.core.artwork.clips.frames import frame_at, still_of
    from fitzle.core.artwork.clips.opening import opened_clip
    from fitzle.core.artwork.clips.probing import probe
    from fitzle.core.artwork.clips.proposing import proposed_stills

    with open(path, "rb") as file, opened_clip(file) as clip:
        seconds = probe(clip).seconds
        started = time.perf_counter()
        if what == "strip":
            filmstrip(clip, seconds)
        elif what == "still":
            still_of(clip, frame_at(clip, seconds * 0.61))
        else:
            proposed_stills(clip, seconds)
        return {"seconds": time.perf_counter() - started, "grown_kb": 0}


def _mixed() -> dict[str, float]:
    """The resident memory of a worker after 50 and after 200 intakes of all kinds."""
    from demo.marks import MARKS
    from demo.photos import all_photos

    from fitzle.core.artwork.reading import read_and_judge
    from fitzle.core.artwork.working import make_working_copy

    files = {**all_photos(), **{name: text.encode() for name, text in MARKS.items()}}
    files["photo.jpg"] = large_photo().read_bytes()
    held, started = [], time.perf_counter()
    for number in range(200):
        name = list(files)[number % len(files)]
        make_working_copy(read_and_judge(files[name], name).source)
        if number + 1 in (50, 200):
            held.append(resident_kb())
    return {"seconds": time.perf_counter() - started, "grown_kb": held[1] - held[0], "held_kb": held[0]}


def peak_kb() -> float:
    """The most resident memory of this process so far."""
    return _status("VmHWM")


def resident_kb() -> float:
    """The resident memory of this process."""
    return _status("VmRSS")


def _status(key: str) -> float:
    lines = Path("/proc/self/status").read_text().splitlines()
    return float(next(line for line in lines if line.startswith(key)).split()[1])


def cut_ms(measure: Measure, kind: str) -> float:
    """A cut-out at 1280 x 960: a logo on a flat backdrop, or a person in a room."""
    from demo.people import GUEST, person, room, together
    from PIL import Image, ImageDraw

    from fitzle.core.artwork.cutout.cutting import cut_out

    if kind == "person":
        picture = together(person(1280, 960, GUEST), room(1280, 960))
    else:
        drawn = Image.new("RGB", (1280, 960), "#f0ece4")
        ImageDraw.Draw(drawn).ellipse((300, 200, 980, 760), fill="#17443c", outline="#b4541a", width=30)
        out = io.BytesIO()
        drawn.save(out, "JPEG", quality=75)
        picture = np.asarray(Image.open(out).convert("RGBA"))
    return measure(lambda: cut_out(picture), 5)


def coverage_error(quality: int | None) -> tuple[float, str]:
    """The largest mean error of coverage, times 1000, among the made logos at a JPEG's quality, and which it is."""
    from tests.core.test_cutout import LOGOS, logo, on_backdrop

    from fitzle.core.artwork.cutout.cutting import cut_out

    def error(name: str) -> float:
        cut = cut_out(on_backdrop(name, quality)).pixels
        return float(np.abs(cut[..., 3] / 255 - logo(LOGOS[name][0])[1]).mean() * 1000)

    return max((error(name), name) for name in LOGOS)


def glyph_ms(measure: Measure) -> float:
    """The slowest of a few searches."""
    from fitzle.core.artwork.glyphs import find_glyphs

    return max(measure(lambda words=words: find_glyphs(words, "outline"), 9) for words in ("bike", "arrow left", "a"))


if __name__ == "__main__":
    jobs: dict[str, Callable[..., dict[str, float]]] = {"intake": _intake, "clip": _clip, "mixed": _mixed}
    print(json.dumps(jobs[sys.argv[1]](*sys.argv[2:])))
