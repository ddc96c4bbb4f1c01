"""Artwork for the set: backgrounds that are calm or busy, marks that hold or fade, all drawn here."""

from __future__ import annotations

import math

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

from tests.make import saved

WIDE = (640, 360)


def _png(picture: Image.Image) -> bytes:
    return saved(picture, "PNG", compress_level=1)


def _grainy(picture: Image.Image) -> bytes:
    """With the grain of a photo: flat drawings are taken for marks, and those are not put behind words."""
    grain = np.random.default_rng(0).normal(0, 9, (picture.height, picture.width, 1))
    return _png(Image.fromarray(np.clip(np.asarray(picture, dtype=float) + grain, 0, 255).astype(np.uint8)))


def foliage(seed: int, dark: str, light: str, size: int = 22, blur: float = 0.6) -> bytes:
    """Leaves of two tones over each other."""
    rng = np.random.default_rng(seed)
    picture = Image.new("RGB", WIDE, dark)
    pen = ImageDraw.Draw(picture)
    for _ in range(40_000 // (size * size) * 8):
        x, y = rng.uniform(-20, WIDE[0]), rng.uniform(-20, WIDE[1])
        wide, tall = rng.uniform(0.4, 1.2, 2) * size
        pen.ellipse((x, y, x + wide, y + tall), fill=light if rng.random() < 0.5 else dark)
    return _grainy(picture.filter(ImageFilter.GaussianBlur(blur)))


def shelf(seed: int, tones: tuple[str, ...], width: int = 26) -> bytes:
    """Backs of books, side by side."""
    rng = np.random.default_rng(seed)
    picture = Image.new("RGB", WIDE, tones[0])
    pen, x = ImageDraw.Draw(picture), 0.0
    while x < WIDE[0]:
        wide = rng.uniform(0.5, 1.3) * width
        pen.rectangle((x, 0, x + wide, WIDE[1]), fill=tones[rng.integers(len(tones))])
        x += wide
    return _grainy(picture)


def checker(one: str, other: str, side: int) -> bytes:
    picture = Image.new("RGB", WIDE, one)
    pen = ImageDraw.Draw(picture)
    for row in range(0, WIDE[1], side):
        for column in range((row // side % 2) * side, WIDE[0], 2 * side):
            pen.rectangle((column, row, column + side - 1, row + side - 1), fill=other)
    return _grainy(picture)


def rings(ground: str, line: str, x: float, y: float, radius: float, width: float, spokes: int = 0) -> bytes:
    """A wheel on a calm ground; places and lengths in px of a picture 640 px wide."""
    fine = 3
    picture = Image.new("RGB", (WIDE[0] * fine, WIDE[1] * fine), ground)
    pen = ImageDraw.Draw(picture)
    box = tuple(fine * value for value in (x - radius, y - radius, x + radius, y + radius))
    pen.ellipse(box, outline=line, width=max(1, round(width * fine)))
    for number in range(spokes):
        angle = 2 * math.pi * number / spokes
        end = (x + radius * math.cos(angle), y + radius * math.sin(angle))
        pen.line([(x * fine, y * fine), (end[0] * fine, end[1] * fine)], fill=line, width=round(1.2 * fine))
    return _grainy(picture.resize(WIDE, Image.Resampling.BOX))


def bars(ground: str, line: str, across: list[float], width: float) -> bytes:
    """Level lines through the picture at shares of its height."""
    picture = Image.new("RGB", WIDE, ground)
    pen = ImageDraw.Draw(picture)
    for share in across:
        pen.rectangle((0, share * WIDE[1] - width / 2, WIDE[0], share * WIDE[1] + width / 2), fill=line)
    return _grainy(picture)


def halves(left: str, right: str, at: float) -> bytes:
    picture = Image.new("RGB", WIDE, left)
    ImageDraw.Draw(picture).rectangle((at * WIDE[0], 0, *WIDE), fill=right)
    return _grainy(picture)


def soft(seed: int, low: int, high: int, grain: float = 3.0, cells: int = 5) -> bytes:
    """A calm picture between two levels of light: mist, a wall, water."""
    rng = np.random.default_rng(seed)
    coarse = Image.fromarray(rng.integers(low, high, (cells, 2 * cells, 3), dtype=np.uint8))
    wide = np.asarray(coarse.resize(WIDE, Image.Resampling.BICUBIC), dtype=float)
    return _png(Image.fromarray(np.clip(wide + rng.normal(0, grain, (*wide.shape[:2], 1)), 0, 255).astype(np.uint8)))


def ramp(left: str, right: str) -> bytes:
    one, other = (np.array(Image.new("RGB", (1, 1), code))[0, 0].astype(float) for code in (left, right))
    share = np.linspace(0, 1, WIDE[0])[None, :, None]
    row = one * (1 - share) + other * share
    return _png(Image.fromarray(np.repeat(row, WIDE[1], axis=0).astype(np.uint8)))


def svg(body: str, view: str = "0 0 100 100") -> str:
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{view}">{body}</svg>'


def disc(colour: str) -> str:
    return svg(f'<circle cx="50" cy="50" r="46" fill="{colour}"/>')


def two_bars(colour: str) -> str:
    return svg(
        f'<rect x="8" y="8" width="32" height="84" fill="{colour}"/><rect x="60" y="8" width="32" height="84" fill="{colour}"/>'
    )


def star(colour: str, points: int = 5, inner: float = 0.45) -> str:
    corners = []
    for number in range(2 * points):
        reach = 46 if number % 2 == 0 else 46 * inner
        angle = math.pi * number / points - math.pi / 2
        corners.append(f"{50 + reach * math.cos(angle):.2f},{50 + reach * math.sin(angle):.2f}")
    return svg(f'<polygon points="{" ".join(corners)}" fill="{colour}"/>')


def ring(colour: str, width: float) -> str:
    return svg(f'<circle cx="50" cy="50" r="{46 - width / 2}" fill="none" stroke="{colour}" stroke-width="{width}"/>')


def lattice(colour: str, width: float, count: int) -> str:
    """Upright and level lines."""
    step = 92 / (count - 1)
    lines = "".join(
        f'<path d="M{4 + step * n} 4V96M4 {4 + step * n}H96" stroke="{colour}" stroke-width="{width}" fill="none"/>'
        for n in range(count)
    )
    return svg(lines)


def comb(colour: str, tooth: float, gap: float) -> str:
    """Teeth with narrow gaps between them."""
    count = int(92 / (tooth + gap))
    return svg(
        "".join(
            f'<rect x="{4 + n * (tooth + gap)}" y="4" width="{tooth}" height="92" fill="{colour}"/>'
            for n in range(count)
        )
    )


def target(colour: str, count: int, gap: float) -> str:
    """Rings inside of each other, equally far apart."""
    wide = 46 / count - gap
    circles = "".join(
        f'<circle cx="50" cy="50" r="{46 - n * (wide + gap) - wide / 2}" fill="none" stroke="{colour}" stroke-width="{wide}"/>'
        for n in range(count)
    )
    return svg(circles)


def cut_blocks(colour: str, count: int, gap: float) -> str:
    """A block cut into pieces by level and upright lines."""
    side = (92 - (count - 1) * gap) / count
    return svg(
        "".join(
            f'<rect x="{4 + (side + gap) * (n % count):.2f}" y="{4 + (side + gap) * (n // count):.2f}" width="{side:.2f}" height="{side:.2f}" fill="{colour}"/>'
            for n in range(count * count)
        )
    )


def squeezed(drawing: str, across: float) -> bytes:
    """A drawing as a bitmap that somebody made narrower."""
    import pyvips

    picture = pyvips.Image.svgload_buffer(drawing.encode(), scale=6)
    return bytes(picture.resize(across, vscale=1.0).write_to_buffer(".png"))


def wheel(colour: str, spokes: int, width: float) -> str:
    lines = "".join(
        f'<path d="M50 50L{50 + 40 * math.cos(math.tau * n / spokes):.2f} {50 + 40 * math.sin(math.tau * n / spokes):.2f}" stroke="{colour}" stroke-width="{width}"/>'
        for n in range(spokes)
    )
    return svg(f'<circle cx="50" cy="50" r="41" fill="none" stroke="{colour}" stroke-width="9"/>{lines}')


def crest(seed: int, ink: str, gold: str) -> str:
    """A shield full of small things."""
    rng = np.random.default_rng(seed)
    dots = "".join(
        f'<circle cx="{10 + 6.2 * (n % 14)}" cy="{14 + 7 * (n // 14)}" r="{rng.uniform(1.2, 2.2):.1f}" fill="{gold if rng.random() < 0.6 else "#b4541a"}"/>'
        for n in range(126)
    )
    return svg(f'<path d="M4 4H96V62Q96 92 50 98Q4 92 4 62Z" fill="{ink}"/>{dots}')


def gear(colour: str, teeth: int) -> str:
    spans = []
    for number in range(teeth * 2):
        reach = 46 if number % 2 == 0 else 34
        for edge in (0, 1):
            angle = math.pi * (number + edge) / teeth
            spans.append(f"{50 + reach * math.cos(angle):.2f},{50 + reach * math.sin(angle):.2f}")
    return svg(f'<path d="M{" ".join(spans)}Z M50 30a20 20 0 1 0 .1 0Z" fill-rule="evenodd" fill="{colour}"/>')


def ellipse(colour: str, ratio: float) -> str:
    return svg(f'<ellipse cx="50" cy="50" rx="46" ry="{46 / ratio}" fill="{colour}"/>')


def drop(colour: str) -> str:
    """Heavy below, a tip above."""
    return svg(f'<path d="M50 4C54 40 84 50 84 70A34 28 0 0 1 16 70C16 50 46 40 50 4Z" fill="{colour}"/>')


def cut_out(rim: str, inner: str, width: float, shape: str = "disc") -> bytes:
    """A bitmap whose outermost px are half clear in a colour of their own."""
    from scipy.ndimage import distance_transform_edt

    y, x = np.mgrid[0:400, 0:400] - 199.5
    inside = np.hypot(x, y) < 190 if shape == "disc" else (np.abs(x) < 150) & (np.abs(y) < 180)
    depth = distance_transform_edt(inside)
    rim_rgb, inner_rgb = (np.array(Image.new("RGB", (1, 1), code))[0, 0] for code in (rim, inner))
    colours = np.where((depth <= width)[..., None], rim_rgb, inner_rgb)
    alpha = np.where(depth <= 0, 0, np.where(depth <= width, 150, 255))
    return _png(Image.fromarray(np.dstack([colours, alpha]).astype(np.uint8)))


def boxed(ground: str, colour: str) -> bytes:
    """A mark with its own opaque backdrop."""
    picture = Image.new("RGB", (1200, 900), ground)
    ImageDraw.Draw(picture).ellipse((360, 210, 840, 690), fill=colour)
    return _png(picture)


def small_photo(width: int, seed: int) -> bytes:
    """A grainy photo with edges, of few px."""
    rng = np.random.default_rng(seed)
    fine = Image.fromarray(rng.integers(20, 235, (12, 20, 3), dtype=np.uint8)).resize(
        (width, width * 9 // 16), Image.Resampling.NEAREST
    )
    return _png(fine)
