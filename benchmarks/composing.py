"""A composed piece: photo, gradient, outlined headline, glow, mark and a picture in a circle, ours and by Pillow."""

from __future__ import annotations

import io
import json
import os
import statistics
import subprocess
import sys
import time
import urllib.request
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from benchmarks.workspace import OwnWorkspace

WIDTH, HEIGHT = 1280, 720
HOUSE = ("#17443c", "#f4d06f", "#b4541a", "#f6e7b8")
HEADLINE = "How to true a wheel without a stand, in ten minutes flat"
RENDERS = 500
PAUSE_S = 0.6  # nobody makes changes back to back; the worker makes the last one's file meanwhile


def piece(family: str = "Anton", text: str = "True a wheel") -> dict[str, Any]:
    """The piece that is measured."""
    stops = [{"at": 0, "colour": "#17443c"}, {"at": 1, "colour": "#b4541a"}]
    border = {"width": 0.05, "colour": "#f6e7b8"}
    return {"subject": "bench", "parts": [
        {"id": "ground", "role": "ground", "fill": {"kind": "gradient", "stops": stops, "angle": 30}},
        {"id": "photo", "role": "picture", "artwork": "photo",
         "stands": {"anchor": "right", "width": 0.9, "height": 1}},
        {"id": "headline", "role": "headline", "text": text, "family": family,
         "stands": {"anchor": "top-left", "dx": 0.06, "dy": 0.08, "width": 1.1, "height": 0.55},
         "outline": {"width": 0.06, "colour": "#1c2324"}, "glow": {"radius": 0.4, "colour": "#f4d06f"}},
        {"id": "mark", "role": "mark", "artwork": "mark",
         "stands": {"anchor": "bottom-left", "dx": 0.06, "dy": -0.08, "width": 0.6, "height": 0.15}},
        {"id": "guest", "role": "picture", "artwork": "guest", "die": {"shape": "circle", "border": border},
         "stands": {"anchor": "bottom-right", "dx": -0.1, "dy": -0.15, "width": 0.45, "height": 0.45}},
    ]}  # fmt: skip


@cache
def artworks() -> tuple[dict[str, Any], dict[str, Any], dict[str, bytes]]:
    """Facts, preview sources and files of the artwork, as a web process has them."""
    from demo.marks import MARKS

    from benchmarks.photo import sample_photo
    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.artwork.remembering import CachedSource, PixelCache
    from fitzle.core.artwork.working import WorkingSource, make_working_copy

    files = {
        "photo": sample_photo("dusk-ride.jpg"),
        "guest": sample_photo("workbench.jpg"),
        "mark": MARKS["ottermoor-light.svg"].encode(),
    }
    cache_, facts, sources = PixelCache(), {}, {}
    for name, data in files.items():
        art = read_artwork(data, f"{name}.jpg")
        copy = make_working_copy(art.source)
        inner = WorkingSource(*copy, art.facts.width, art.facts.height) if copy else art.source
        facts[name], sources[name] = art.facts, CachedSource(name, inner, cache_)
    return facts, sources, files


def looked(width: int, height: int, data: dict[str, Any] | None = None) -> Any:
    """The piece, or another one, decided for a thumbnail of a size."""
    from benchmarks.fits import decided, sheet_of
    from fitzle.core.piece.document import Piece

    facts, sources, _ = artworks()
    seen = [{"name": "list", "width": 168}]
    sheet = sheet_of(width, height, formats=["jpeg"], seen=seen, transparency="forbidden")
    return decided(Piece.model_validate(data or piece()), sheet, facts, sources, HOUSE)


def render_ms(median_ms: Any, width: int = WIDTH, height: int = HEIGHT) -> float:
    """Drawing the planned piece at its size, warm."""
    from fitzle.core.render.painting import paint

    plan, sources = looked(width, height).plan, artworks()[1]
    return float(median_ms(lambda: paint(plan, sources)))


def pillow_ms(median_ms: Any) -> float:
    """The same composition by Pillow, with the photos scaled beforehand."""
    from PIL import Image, ImageDraw, ImageFilter, ImageFont, ImageOps

    _, _, files = artworks()
    font_file = next((Path(__file__).parents[1] / "var" / "typefaces").glob("anton-latin-400-normal.ttf"))
    plan = looked(WIDTH, HEIGHT).plan
    layout = plan.words[0].layout
    photo = ImageOps.fit(Image.open(io.BytesIO(files["photo"])), (648, 720), Image.Resampling.LANCZOS)
    guest = ImageOps.fit(Image.open(io.BytesIO(files["guest"])), (324, 324), Image.Resampling.LANCZOS)
    import pyvips

    mark = Image.fromarray(pyvips.Image.svgload_buffer(files["mark"], scale=0.8).numpy())
    font = ImageFont.truetype(str(font_file), round(layout.size_px))
    words, stroke = "\n".join(layout.lines), round(0.06 * layout.cap_height_px)

    def draw() -> Any:
        picture = Image.linear_gradient("L").rotate(60).resize((WIDTH, HEIGHT))
        picture = ImageOps.colorize(picture, "#17443c", "#b4541a").convert("RGBA")
        picture.paste(photo, (632, 0))
        light = Image.new("RGBA", picture.size)
        ImageDraw.Draw(light).text((50, 40), words, "#f4d06f", font, stroke_width=3 * stroke, stroke_fill="#f4d06f")
        picture.alpha_composite(light.filter(ImageFilter.GaussianBlur(22)))
        ImageDraw.Draw(picture).text((50, 40), words, "#ffffff", font, stroke_width=stroke, stroke_fill="#1c2324")
        picture.alpha_composite(mark, (43, 560))
        mask = Image.new("L", (4 * 324, 4 * 324))
        ImageDraw.Draw(mask).ellipse((0, 0, 1295, 1295), fill=255)
        picture.paste(guest, (880, 288), mask.resize((324, 324), Image.Resampling.LANCZOS))
        return picture

    return float(median_ms(draw))


def headline_ms() -> float:
    """A headline of about 60 letters fitted to its box, nothing cached but the open typeface."""
    from fitzle.core.geometry.rect import Rect
    from fitzle.core.type import shaping
    from fitzle.core.type.library import family_named
    from fitzle.core.type.setting import Setting, set_words

    setting, taken = Setting(family_named("Work Sans").face(800)), []
    for _ in range(30):
        shaping.shaped.cache_clear()
        started = time.perf_counter()
        set_words(HEADLINE, setting, Rect(0, 0, 700, 380))
        taken.append((time.perf_counter() - started) * 1000)
    return statistics.median(taken)


def twelve_places_ms(median_ms: Any) -> float:
    """One piece in the sample's twelve placements: planned, looked at, judged and drawn at the size of the wall."""
    from demo.sheets import shelves

    from benchmarks.fits import decided
    from fitzle.core.fit.proofs import proof_of
    from fitzle.core.geometry.scale import shelf_scale
    from fitzle.core.piece.document import Piece

    facts, sources, _ = artworks()
    document = Piece.model_validate(piece())

    def all_places() -> None:
        for sheets in shelves().values():
            fits = [decided(document, sheet, facts, sources, HOUSE) for sheet in sheets]
            scale = shelf_scale([fit.plan.size for fit in fits], 592)
            for fit in fits:
                proof_of(fit, sources, max(1, round(2 * fit.plan.size.width / scale)))

    return float(median_ms(all_places, 7))


def change_ms(median_ms: Any) -> float:
    """What the core does for a change at the bench: plan, colours, findings and a proof 900 px wide."""
    from fitzle.core.fit.proofs import proof_of

    sources, count = artworks()[1], iter(range(10_000))

    def change() -> None:
        fit = looked(WIDTH, HEIGHT, piece(text=f"True a wheel {next(count)}"))
        proof_of(fit, sources, 900)

    return float(median_ms(change))


def eye_ms(median_ms: Any) -> float:
    """All figures for the rules of the eye of the composed piece."""
    from fitzle.core.fit.making import look_at

    fit, sources = looked(WIDTH, HEIGHT), artworks()[1]
    return float(median_ms(lambda: look_at(fit, sources)))


def icon_eye_ms(median_ms: Any) -> float:
    """The same of the sample's badge as an icon of 32 px, judged again as while a piece is worked on."""
    from demo.marks import MARKS

    from benchmarks.fits import decided, sheet_of
    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.artwork.remembering import CachedSource, PixelCache
    from fitzle.core.fit.making import look_at
    from fitzle.core.piece.editing import new_piece

    art = read_artwork(MARKS["wheel-badge.svg"].encode(), "badge.svg")
    sources = {"badge": CachedSource("badge", art.source, PixelCache())}
    fit = decided(new_piece("x", "badge", "mark"), sheet_of(32, 32, formats=["png"]), {"badge": art.facts}, sources)
    return float(median_ms(lambda: look_at(fit, sources)))


def patch_ms(running: OwnWorkspace) -> float:
    """The same over HTTP: PATCH to the answer with plan, findings and proof, on a running Fitzle."""
    from http.cookiejar import CookieJar

    jar = CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

    def call(method: str, path: str, body: Any = None) -> Any:
        token = next((cookie.value for cookie in jar if cookie.name == "fitzle_csrf"), "") or ""
        request = urllib.request.Request(
            running.address + path, json.dumps(body).encode() if body is not None else None, method=method,
            headers={"Content-Type": "application/json", "X-CSRFToken": token, "Referer": running.address},
        )  # fmt: skip
        text = opener.open(request, timeout=30).read()
        return json.loads(text) if text and text[:1] in b"{[" else None

    opener.open(running.address, timeout=30).read()
    call("POST", "/api/account/browser/v1/auth/login", {"email": running.email, "password": running.password})
    space = f"/api/workspaces/{running.slug}"
    wall = call("GET", f"{space}/wall")
    place = next(entry for shelf in wall["shelves"] for entry in shelf["placements"] if entry["name"] == "Course card")
    fit = call("POST", f"{space}/placements/{place['id']}/pieces", {"starting_point": 2})
    taken = []
    for number in range(25):
        headline = {"act": "set", "part": "headline", "field": "text", "value": f"True a wheel {number}"}
        body = {"revision": fit["piece"]["revision"], "step": "bench", "changes": [headline], "proof_width": 900}
        started = time.perf_counter()
        fit = call("PATCH", f"{space}/fits/{fit['id']}", body)
        taken.append((time.perf_counter() - started) * 1000)
        time.sleep(PAUSE_S)
    call("DELETE", f"{space}/fits/{fit['id']}")
    return statistics.median(taken[5:])


def memory_mb() -> float:
    """Memory of a process that has loaded the web application, after 500 different renders."""
    settings = dict(entry.split("=") for entry in os.environ.get("LEAN_MEMORY", "").split())  # as ./start sets them
    command = [sys.executable, "-m", "benchmarks.composing"]
    environment = {**os.environ, "FITZLE_EAGER": "1", **settings}
    answer = subprocess.run(command, check=True, capture_output=True, env=environment)
    return float(json.loads(answer.stdout)["mb"])


def _many_renders() -> None:
    """Loads what a web process loads and draws 500 pieces that differ in words, typeface and width."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")
    import django

    django.setup()
    import fitzle.apps.api.root  # noqa: F401
    from fitzle.core.fit.proofs import proof_of
    from fitzle.core.type.library import offered_families

    names, sources = [family.name for family in offered_families()], artworks()[1]
    for number in range(RENDERS):
        fit = looked(WIDTH, HEIGHT, piece(names[number % len(names)], f"Lesson {number}: true a wheel"))
        proof_of(fit, sources, 400 + number)
    status = Path("/proc/self/status").read_text()
    peak = int(next(line for line in status.splitlines() if line.startswith("VmRSS")).split()[1])
    print(json.dumps({"mb": peak / 1000}))


if __name__ == "__main__":
    _many_renders()
