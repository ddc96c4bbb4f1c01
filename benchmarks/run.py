"""Measures and prints the table of figures; `--json` for one JSON object. No pass or fail."""

from __future__ import annotations

import argparse
import io
import json
import os
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np
from PIL import Image, ImageOps

from benchmarks.fit_once import HEIGHT, LIMIT, WIDTH
from benchmarks.fits import planned, sheet_of
from benchmarks.photo import FOLDER, large_photo

if TYPE_CHECKING:
    from benchmarks.workspace import OwnWorkspace

ROUNDS = 5
Row = dict[str, Any]


def row(name: str, ours: float, other: float | None, unit: str, asked: str, note: str = "") -> Row:
    """One line of the table."""
    ratio = round(ours / other, 3) if other else None
    return {"name": name, "ours": round(ours, 3), "alternative": None if other is None else round(other, 3),
            "unit": unit, "ratio": ratio, "asked": asked, "note": note}  # fmt: skip


def median_ms(work: Callable[[], object], rounds: int = 15) -> float:
    """Median milliseconds of a call, after one to warm up."""
    work()
    taken = []
    for _ in range(rounds):
        started = time.perf_counter()
        work()
        taken.append((time.perf_counter() - started) * 1000)
    return statistics.median(taken)


def fit_of_a_photo() -> list[Row]:
    """24 megapixels to 1280 x 720 under 300 KB, both ways in turn, each in a fresh process."""
    from fitzle.core.encode.ssimulacra2 import Reference

    photo, found = large_photo(), {"ours": [], "pillow": []}
    for _ in range(ROUNDS):
        for way, results in found.items():
            out = FOLDER / f"{way}.jpg"
            command = [sys.executable, "-m", "benchmarks.fit_once", way, str(photo), str(out)]
            results.append(json.loads(subprocess.run(command, check=True, capture_output=True).stdout))
    middle = {
        way: {key: statistics.median(entry[key] for entry in results) for key in results[0]}
        for way, results in found.items()
    }
    upright = ImageOps.fit(Image.open(photo), (WIDTH, HEIGHT), Image.Resampling.LANCZOS)
    reference = Reference(np.asarray(upright))
    score = {way: reference.score(np.asarray(Image.open(FOLDER / f"{way}.jpg"))) for way in found}
    size = {way: (FOLDER / f"{way}.jpg").stat().st_size for way in found}
    ours, other = middle["ours"], middle["pillow"]
    return [
        row("photo 24 MP to 1280x720 under 300 KB, time", ours["seconds"], other["seconds"], "s", "ratio <= 0.8"),
        row("  its SSIMULACRA2 against Pillow's own lossless Lanczos", score["ours"], score["pillow"], "", "ratio > 1",
            f"{size['ours']} and {size['pillow']} bytes"),
        row("  its memory above the modules", ours["grown_kb"] / 1000, other["grown_kb"] / 1000, "MB", "ratio <= 0.6"),
        row("  its peak memory, modules included", ours["peak_kb"] / 1000, other["peak_kb"] / 1000, "MB", ""),
    ]  # fmt: skip


def previews() -> list[Row]:
    """Proofs for the screen from the working copy, as the server makes them."""
    from demo.marks import MARKS

    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.artwork.working import WorkingSource, make_working_copy
    from fitzle.core.fit.proofs import proof_bytes
    from fitzle.core.piece.editing import new_piece

    art = read_artwork(large_photo().read_bytes(), "photo.jpg")
    copy = make_working_copy(art.source)
    assert copy is not None
    source = WorkingSource(*copy, art.facts.width, art.facts.height)
    banner, icon = sheet_of(1280, 720, formats=["png"]), sheet_of(32, 32, formats=["png"])
    plan = planned(new_piece("p", "a", "picture"), banner, {"a": art.facts}).plan
    rows = [row("preview of a photo, 900 px wide", median_ms(lambda: proof_bytes(plan, {"a": source}, 900)),
                median_ms(lambda: _pillow_preview(copy[0])), "ms", "< 60 ms")]  # fmt: skip
    mark = read_artwork(MARKS["wheel-badge.svg"].encode(), "badge.svg")
    small = planned(new_piece("p", "a", "mark"), icon, {"a": mark.facts}).plan
    rows.append(row("preview of an icon, 32 px", median_ms(lambda: proof_bytes(small, {"a": mark.source}, 32)), None,
                    "ms", "< 10 ms"))  # fmt: skip
    return rows


def _pillow_preview(data: bytes) -> bytes:
    picture = ImageOps.fit(Image.open(io.BytesIO(data)), (900, 506), Image.Resampling.LANCZOS)
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=88)
    return out.getvalue()


def logo_bytes() -> list[Row]:
    """The sample's logo as a lossless PNG at 880 x 220."""
    from demo.marks import MARKS

    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.encode.png import lossless_png
    from fitzle.core.encode.raster import Raster
    from fitzle.core.piece.editing import new_piece
    from fitzle.core.render.painting import paint

    sheet = sheet_of(880, 220, formats=["png"])
    rows = []
    for name in ("ottermoor-dark.svg", "wheel-badge.svg", "ding.svg"):
        art = read_artwork(MARKS[name].encode(), name)
        plan = planned(new_piece("p", "a", "mark"), sheet, {"a": art.facts}).plan
        pixels = Raster(paint(plan, {"a": art.source})).pixels
        out = io.BytesIO()
        Image.fromarray(pixels).save(out, "PNG", optimize=True)
        rows.append(
            row(f"lossless PNG of {name}", len(lossless_png(Raster(pixels))), out.tell(), "bytes", "ratio <= 0.8")
        )
    return rows


def wall(space: OwnWorkspace) -> list[Row]:
    """First paint of all proofs on the wall of a workspace like the sample's, and of scenes, in headless Chromium."""
    from benchmarks.wall import first_paint_ms, proofs_ms

    scenes_ms, count = proofs_ms(space)
    return [
        row("wall, all proofs painted, warm", first_paint_ms(space), None, "ms", "< 1000 ms"),
        row(f"proofs screen, {count} scenes painted, warm", scenes_ms, None, "ms", "< 1000 ms"),
    ]


def changing(space: OwnWorkspace) -> list[Row]:
    """A change at the bench over HTTP, and a part that is dragged in the browser."""
    from benchmarks import composing
    from benchmarks.dragging import frames_a_second

    rows = [row("PATCH to plan, findings and 900 px proof", composing.patch_ms(space), None, "ms", "< 90 ms")]
    dragging, idle = frames_a_second(space)
    return [*rows, row("dragging a part in the browser, and nothing moving", dragging, idle, "frames/s", "60")]


def running() -> list[Row]:
    """What is measured where Fitzle is running, in a workspace of its own."""
    from benchmarks.wall import running_at
    from benchmarks.workspace import own_workspace

    address = running_at()
    if address is None:
        return [{"name": "wall, change and drag over HTTP", "note": "not measured: run ./start first"}]
    with own_workspace(address) as space:
        handed = delivering(space)
    with own_workspace(address) as space:
        rows = [*handed, *changing(space), *wall(space), *eight_people(space)]
    with own_workspace(address) as space:
        return [*rows, *large_workspace(space)]


def delivering(space: OwnWorkspace) -> list[Row]:
    """From pieces to a ZIP on the disk."""
    from benchmarks.delivering import delivered

    found = delivered(space)
    return [
        row(f"{found.files} files from pieces to a ZIP", found.seconds, found.pillow, "s", "< 12 s"),
        row("  memory of all workers at most", found.workers_mb, None, "MB", "< 600 MB"),
    ]


def moving() -> list[Row]:
    """Moving files and watermarks."""
    from benchmarks import motion, trimming

    ours, theirs, looks, usual = motion.gif_bytes()
    own, plain, worst = motion.sticker()
    took, weight, score, peak = motion.clip_search()
    marked, usually = motion.watermarks()
    drawn, framed, drawing, off = motion.lottie()
    filmed, as_gif = motion.video()
    seen, one = motion.watermarks_foreseen_ms()
    gauge = trimming.foreseen()
    return [
        row("first frame of a play", motion.first_play_ms(), None, "ms", "< 400 ms"),
        row("60 frames of 320x320 from parts", motion.drawn_s(), None, "s", "< 0.9 s"),
        row("GIF of 36 frames 800x200, equal looks", ours, theirs, "bytes", "ratio <= 0.75",
            f"looks {looks:.1f} against {usual:.1f}"),
        row("sticker of 3 s with alpha, APNG", own, plain, "bytes", "< 500000", f"worst tenth {worst}, asked 70"),
        row("clip as GIF 1280x320, 3 s, whole search", took, None, "s", "< 45 s",
            f"{weight} bytes, looks {score}, {peak:.0f} MB at most"),
        row("sticker of parts as Lottie, and as APNG by Pillow", drawn, framed, "bytes", "",
            f"written in {drawing:.0f} ms, {off:.2f} of 255 from our frames, asked 2"),
        row("panning header under 150 KB, MP4 and GIF", filmed, as_gif, "score", ""),
        row("100 pictures of 12 megapixels watermarked", marked, usually, "s", "< 40 s"),
        row("500 pictures foreseen after a change, one marked by Pillow", seen, one, "ms", ""),
        row(f"parts of a clip foreseen to within 25 %, of {gauge.of}", gauge.near, None, "", f"{gauge.of}",
            f"the worst {gauge.worst:.2f} times off, {gauge.ms:.0f} ms for one"),
        row("over their limit, of 300 random loops", motion.over_their_limit(), None, "", "0"),
    ]  # fmt: skip


def arranging() -> list[Row]:
    """A piece in places of other shapes, and for every row of a table."""
    from benchmarks import arranging as places
    from benchmarks import runs

    middle, most = places.middle_and_most(places.each_ms())
    ours, theirs = runs.files_a_second()
    return [
        row("arranged for another shape, median of 288", middle, None, "ms", "< 30 ms"),
        row("arranged for another shape, longest", most, None, "ms", "< 150 ms"),
        row("one piece in 24 places, arranged, planned, judged", places.two_dozen_s(), None, "s", "< 1.2 s"),
        row("files of a run, 1280x720, a second", ours, theirs, "", ">= 5"),
        row("a row of a run in a place, planned and judged", runs.judged_ms(), None, "ms", "< 80 ms"),
    ]


def building() -> list[Row]:
    """`./fitzle build` where nothing changed."""
    from benchmarks.delivering import OUTPUTS, build_unchanged_s

    return [row(f"build of {OUTPUTS} outputs, nothing changed", *build_unchanged_s(), "s", "< 1.5 s")]


def eight_people(space: OwnWorkspace) -> list[Row]:
    """Eight people at once for a minute, hostile drawings among their artwork."""
    from benchmarks import load

    found = load.eight_people(space, load.hostile_artwork(space))
    rows = []
    for kind, taken in found.kinds.items():
        note = f"{taken.count} of them, {taken.failed} failed"
        rows.append(row(f"eight people: {kind}, median", taken.median, None, "ms", "< 120 ms", note))
        rows.append(row("  95th percentile", taken.late, None, "ms", "< 400 ms"))
    return [*rows, row("  memory of the pages' process at most", found.web_mb, None, "MB", "< 400 MB")]


def large_workspace(space: OwnWorkspace) -> list[Row]:
    """A wall of 300 places and a library of 5,000 artworks."""
    from benchmarks import library
    from benchmarks.wall import SEEN_PAINTED, first_paint_ms

    wall_ms = library.wall_of_300_ms(space)
    painted = first_paint_ms(space, SEEN_PAINTED)
    shared = library.shared_files_ms(space)
    effect = library.effect_ms(space)
    library.fill_library(space)
    found = library.library_ms(space)
    return [
        row("wall of 300 places", wall_ms, None, "ms", "< 150 ms"),
        row("  what is in sight of it painted, warm", painted, None, "ms", "< 1200 ms"),
        row("  which of them one file serves", shared, None, "ms", ""),
        row("what another sheet does to 300 fits", effect, None, "ms", "< 1000 ms"),
        row("library of 5,000: first page", found["page"], None, "ms", "< 200 ms"),
        row("  a search for two words", found["search"], None, "ms", "< 150 ms"),
        row("  what is like an artwork", found["alike"], None, "ms", "< 50 ms"),
    ]


def eye() -> list[Row]:
    """All figures of the rules of the eye, of a composed piece and of an icon."""
    from benchmarks import composing, judging

    return [
        row("rules of the eye on a 1280x720 fit", composing.eye_ms(median_ms), None, "ms", "< 120 ms"),
        row("  on an icon of 32 px", composing.icon_eye_ms(median_ms), None, "ms", "< 20 ms"),
        row("a piece judged in 30 places", judging.places_ms(median_ms), None, "ms", "< 2000 ms"),
        row("12 scenes worked out and drawn by the server", judging.scenes_ms(median_ms), None, "ms", "< 1000 ms"),
        row("proof sheet of 8 scenes, PDF", judging.sheet_ms(median_ms), None, "ms", "< 3000 ms"),
    ]


def composed() -> list[Row]:
    """A composed piece: photo, gradient, outlined headline with a glow, mark and a picture in a circle."""
    from benchmarks import composing

    return [
        row("composed piece 1280x720, drawn", composing.render_ms(median_ms), composing.pillow_ms(median_ms), "ms",
            "< 45 ms, ratio <= 0.25"),
        row("  at 64x36", composing.render_ms(median_ms, 64, 36), None, "ms", "< 5 ms"),
        row("  changed: plan, colours, findings, 900 px proof", composing.change_ms(median_ms), None, "ms", ""),
        row("  in twelve placements at wall size", composing.twelve_places_ms(median_ms), None, "ms", "< 600 ms"),
        row("headline of 56 letters fitted to its box", composing.headline_ms(), None, "ms", "< 5 ms"),
        row("memory after 500 different renders", composing.memory_mb(), None, "MB", "< 350 MB"),
    ]  # fmt: skip


def artwork() -> list[Row]:
    """Bringing in and preparing artwork."""
    from benchmarks import artwork as own

    intake, mixed = own.alone("intake"), own.alone("mixed", rounds=1)
    ten, one = str(own.long_clip(600, (1920, 1080))), str(own.long_clip(60, (1280, 720)))
    return [
        row("intake of a 24 MP JPEG, all of it", intake["seconds"], None, "s", "< 1.5 s"),
        row("  until it can be shown", intake["first_seconds"], None, "s", "< 0.5 s"),
        row("  its memory above the modules", intake["grown_kb"] / 1000, None, "MB", "< 250 MB"),
        row("a worker's memory after 200 intakes against after 50", (mixed["held_kb"] + mixed["grown_kb"]) / 1000,
            mixed["held_kb"] / 1000, "MB", "ratio <= 1.15"),
        row("filmstrip of 10 minutes of 1080p", own.alone("clip", ten, "strip")["seconds"], None, "s", "< 2 s"),
        row("exact still of it", own.alone("clip", ten, "still")["seconds"], None, "s", "< 0.8 s"),
        row("twelve proposals of 60 s of 720p", own.alone("clip", one, "proposals")["seconds"], None, "s", "< 6 s"),
        row("flat cut-out at 1280x960", own.cut_ms(median_ms, "flat") / 1000, None, "s", "< 0.6 s"),
        row("person cut out at 1280x960", own.cut_ms(median_ms, "person") / 1000, None, "s", "< 1.5 s"),
        *coverage_errors(),
        row("search of the glyphs, the slowest of three", own.glyph_ms(median_ms), None, "ms", "< 50 ms"),
    ]  # fmt: skip


def coverage_errors() -> list[Row]:
    """How far cut-out logos are from their known coverage, the worst of each quality."""
    from benchmarks.artwork import coverage_error

    rows = []
    for quality in (None, 75, 40):
        error, name = coverage_error(quality)
        kept = f"JPEG {quality}" if quality else "unharmed"
        rows.append(row(f"  error of coverage x1000, {kept}", error, None, "", "<= 2.5", f"worst: {name} logo"))
    return rows


def command_line() -> list[Row]:
    """Starting the command line."""
    root = Path(__file__).resolve().parents[1]
    environment = {**os.environ, "PYTHONPATH": str(root / "src")}

    def start() -> None:
        command = [sys.executable, "-m", "fitzle.cli", "--help"]
        subprocess.run(command, check=True, capture_output=True, env=environment)

    return [row("./fitzle --help", median_ms(start, 7) / 1000, None, "s", "< 0.7 s"), *whole_fit()]


def whole_fit() -> list[Row]:
    """The whole process of `./fitzle fit` of the large photo against that of a plain script, imports and all."""
    root, photo = Path(__file__).resolve().parents[1], str(large_photo())
    spec = FOLDER / "bench.fitzle-spec.json"
    sheet = sheet_of(WIDTH, HEIGHT, formats=["jpeg"], max_bytes=LIMIT, transparency="forbidden")
    spec.write_text(sheet.model_dump_json(exclude_defaults=True))
    ways = {
        "ours": [str(root / "fitzle"), "fit", photo, "--spec", str(spec)],
        "plain": [sys.executable, "-m", "benchmarks.plain_script", photo],
    }
    taken: dict[str, list[float]] = {way: [] for way in ways}
    for _ in range(ROUNDS + 1):  # the first one fills the caches of the machine
        for way, command in ways.items():
            out = ["--out", str(FOLDER)] if way == "ours" else [str(FOLDER / "plain.jpg")]
            started = time.perf_counter()
            subprocess.run([*command, *out], check=True, capture_output=True, cwd=root)
            taken[way].append(time.perf_counter() - started)
    ours, plain = (statistics.median(taken[way][1:]) for way in ways)
    return [row("./fitzle fit of the photo, whole process", ours, plain, "s", "ratio <= 1.2")]


def places() -> list[Row]:
    """Reading what an upload page says, the longest and the usual sentence of the table in the tests."""
    from fitzle.core.spec.words.reading import read_words

    table = Path(__file__).resolve().parents[1] / "tests" / "core" / "data" / "places-in-words.json"
    sentences = [words for words, *_ in json.loads(table.read_text())]
    usual = median_ms(lambda: [read_words(words) for words in sentences], 3) / len(sentences)
    longest = median_ms(lambda: read_words(max(sentences, key=len)))
    return [
        row("a place read from a sentence", usual, None, "ms", "< 5 ms"),
        row("  the longest of the table", longest, None, "ms", "< 5 ms"),
    ]


def learning() -> list[Row]:
    """A picture found in made screenshots, the widest ones among them."""
    from tests.learning_cases import made_case

    from benchmarks.learning import measured, seconds_of

    cases = [(made_case(number), False) for number in range(60, 84)]
    told = measured(cases)
    wide = seconds_of([case for case, _ in cases if case.shot.shape[1] >= 2500])
    note = f"found {told['found']}, box within {told['box within']}, zones {told['zones']}"
    return [
        row("a picture found in a screenshot, median", told["median seconds"], None, "s", "< 4 s", note),
        row("  in one of 2560 x 1440, the slowest", max(wide), None, "s", "< 15 s"),
    ]


def own_installation() -> list[Row]:
    """What needs a Fitzle that may be killed and filled."""
    from benchmarks.installation import installation

    found = installation()
    return [
        row("backup of 2 GB, against writing them plainly", found.backup_s, found.plain_s, "s", "< 60 s"),
        row("from kill -9 of everything to the pages", found.restart_s, None, "s", "< 15 s"),
    ]


def files_under_limits() -> list[Row]:
    """The search for the best file, against Pillow in the same run."""
    from benchmarks import encoding

    jpeg, webp = (encoding.bytes_at_equal_looks(fmt) for fmt in ("jpeg", "webp"))
    worse, pairs, lead = encoding.never_worse()
    rows = [
        row("bytes at equal looks of 80, JPEG", *jpeg, "bytes", "ratio <= 0.85"),
        row("  WebP", *webp, "bytes", "ratio <= 0.9"),
        row(f"worse than Pillow under the same limit, of {pairs}", worse, None, "", "0", f"leads by {lead:.1f} points"),
    ]
    for name, formats, share, asked in (
        ("JPEG", ("jpeg",), 0.6, "< 600 ms"),
        ("PNG", ("png",), 2.0, "< 1500 ms"),
        ("all of JPEG, PNG, WebP, AVIF", ("jpeg", "png", "webp", "avif"), 0.6, ""),
    ):
        ours, other, most = encoding.search_ms(median_ms, formats, share)
        rows.append(row(f"search at 1280x720, {name}", ours, other, "ms", asked, f"at most {most} whole encodes"))
    seconds, budget = encoding.large_png_s()
    rows.append(row("  PNG of 4096 px square", seconds, None, "s", f"< {budget:g} s"))
    return [*rows, row("over their limit, of 2,000 random pairs", encoding.over_the_limit(), None, "", "0")]


def main() -> None:
    """All measurements in turn."""
    parts = (
        command_line,
        fit_of_a_photo,
        previews,
        logo_bytes,
        files_under_limits,
        building,
        moving,
        arranging,
        composed,
        eye,
        places,
        learning,
        artwork,
        running,
        own_installation,
    )
    known = {part.__name__: part for part in parts}
    parser = argparse.ArgumentParser("bench", description="Figures of ours, and of an alternative in the same run.")
    parser.add_argument(
        "parts", nargs="*", metavar="PART", help=f"only these, all where none is named: {', '.join(known)}"
    )
    parser.add_argument("--json", action="store_true", help="one JSON object")
    asked = parser.parse_args()
    if unknown := [name for name in asked.parts if name not in known]:
        parser.error(f"no part is called {', '.join(unknown)}; parts: {', '.join(known)}")
    rows = [entry for name, part in known.items() if not asked.parts or name in asked.parts for entry in part()]
    if asked.json:
        print(json.dumps({"figures": rows}))
        return
    print(f"{'':58} {'ours':>10} {'other':>10} {'ratio':>7}  asked")
    for entry in rows:
        if "ours" not in entry:
            print(f"{entry['name']:58} {entry['note']}")
            continue
        other = "" if entry["alternative"] is None else f"{entry['alternative']:g}"
        ratio = "" if entry["ratio"] is None else f"{entry['ratio']:.2f}"
        figure = f"{entry['ours']:g}"
        print(
            f"{entry['name']:58} {figure:>10} {other:>10} {ratio:>7}  {entry['asked']} {entry['unit']} {entry['note']}"
        )


if __name__ == "__main__":
    main()
