"""Three illustrated "photos" with depth and grain, drawn with skia: nearer things are darker and sharper."""

from __future__ import annotations

import io
import math
from collections.abc import Callable

import numpy as np
import skia
from PIL import Image, ImageFilter

WIDTH, HEIGHT = 2400, 1600
GRAIN = 5.0  # standard deviation in 1/255


def _sky(canvas: skia.Canvas, top: str, middle: str, bottom: str) -> None:
    shader = skia.GradientShader.MakeLinear(
        points=[(0, 0), (0, HEIGHT)], colors=[_colour(top), _colour(middle), _colour(bottom)], positions=[0, 0.55, 1]
    )
    canvas.drawPaint(skia.Paint(Shader=shader))


def _colour(code: str, alpha: int = 255) -> int:
    red, green, blue = (int(code[at : at + 2], 16) for at in (1, 3, 5))
    return skia.Color(red, green, blue, alpha)


def _blurred(code: str, sigma: float, alpha: int = 255) -> skia.Paint:
    paint = skia.Paint(AntiAlias=True, Color=_colour(code, alpha))
    if sigma:
        paint.setMaskFilter(skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, sigma))
    return paint


def _hills(canvas: skia.Canvas, base: float, rise: float, phase: float, paint: skia.Paint) -> None:
    path = skia.Path()
    path.moveTo(-50, HEIGHT + 50)
    for x in range(-50, WIDTH + 100, 25):
        wave = math.sin(x / 310 + phase) + 0.45 * math.sin(x / 127 + phase * 2.3)
        path.lineTo(x, base - rise * wave)
    path.lineTo(WIDTH + 50, HEIGHT + 50)
    path.close()
    canvas.drawPath(path, paint)


def _wheel(canvas: skia.Canvas, cx: float, cy: float, radius: float, code: str, sigma: float = 0.0) -> None:
    paint = _blurred(code, sigma)
    paint.setStyle(skia.Paint.kStroke_Style)
    paint.setStrokeWidth(radius * 0.1)
    canvas.drawCircle(cx, cy, radius, paint)
    paint.setStrokeWidth(max(2.0, radius * 0.015))
    for index in range(32):
        out, side = 2 * math.pi * index / 32, 1.1 if index % 2 else -1.1
        canvas.drawLine(
            cx + radius * 0.1 * math.cos(out + side), cy + radius * 0.1 * math.sin(out + side),
            cx + radius * math.cos(out), cy + radius * math.sin(out), paint,
        )  # fmt: skip
    canvas.drawCircle(cx, cy, radius * 0.09, _blurred(code, sigma))


def _bicycle(canvas: skia.Canvas, x: float, ground: float, radius: float, code: str, sigma: float = 0.0) -> None:
    rear, front = (x, ground - radius), (x + radius * 3.05, ground - radius)
    _wheel(canvas, *rear, radius, code, sigma)
    _wheel(canvas, *front, radius, code, sigma)
    crank, seat, head = (x + radius * 1.25, rear[1]), (x + radius * 0.95, rear[1] - radius * 1.5), (
        x + radius * 2.6, rear[1] - radius * 1.45)  # fmt: skip
    paint = _blurred(code, sigma)
    paint.setStyle(skia.Paint.kStroke_Style)
    paint.setStrokeCap(skia.Paint.kRound_Cap)
    paint.setStrokeWidth(radius * 0.09)
    for start, end in ((rear, crank), (crank, seat), (seat, head), (crank, head), (rear, seat), (head, front)):
        canvas.drawLine(*start, *end, paint)
    canvas.drawLine(
        seat[0] - radius * 0.28, seat[1] - radius * 0.1, seat[0] + radius * 0.25, seat[1] - radius * 0.1, paint
    )
    canvas.drawLine(head[0], head[1], head[0] + radius * 0.05, head[1] - radius * 0.32, paint)
    canvas.drawLine(
        head[0] + radius * 0.05, head[1] - radius * 0.32, head[0] + radius * 0.4, head[1] - radius * 0.22, paint
    )
    canvas.drawCircle(*crank, radius * 0.2, paint)


def dusk(canvas: skia.Canvas) -> None:
    """A bicycle on a hill at dusk; the subject stands right of the middle."""
    _sky(canvas, "#e9a04e", "#f3cf86", "#f8e3b4")
    canvas.drawCircle(1790, 520, 190, _blurred("#fff3cf", 60, 200))
    canvas.drawCircle(1790, 520, 150, _blurred("#fff6dc", 4))
    _hills(canvas, 830, 70, 0.4, _blurred("#dba35f", 14))
    _hills(canvas, 980, 90, 2.1, _blurred("#c9783c", 7))
    _hills(canvas, 1180, 60, 3.6, _blurred("#9a4f2b", 3))
    _hills(canvas, 1420, 34, 5.2, _blurred("#4f2c22", 0))
    _bicycle(canvas, 1290, 1395, 215, "#1d2021")


def workbench(canvas: skia.Canvas) -> None:
    """A wheel under a lamp in the workshop; the subject is left of the middle."""
    _sky(canvas, "#1c3835", "#24504a", "#16302d")
    for row in range(8):
        for column in range(17):
            canvas.drawCircle(90 + column * 140, 80 + row * 130, 8, _blurred("#14302c", 2))
    for index, length in enumerate((260, 330, 220, 300, 250)):
        canvas.drawRoundRect(skia.Rect.MakeXYWH(1560 + index * 150, 170, 46, length), 20, 20, _blurred("#0f2422", 9))
    canvas.drawCircle(880, 260, 620, _blurred("#ffdf94", 210, 110))
    canvas.drawRect(skia.Rect.MakeXYWH(0, 1330, WIDTH, 300), _blurred("#8a5a34", 3))
    canvas.drawRect(skia.Rect.MakeXYWH(0, 1330, WIDTH, 26), _blurred("#b98450", 2))
    _wheel(canvas, 880, 800, 500, "#f2c869")
    canvas.drawRoundRect(skia.Rect.MakeXYWH(850, 780, 60, 560), 24, 24, _blurred("#2b3233", 0))
    canvas.drawRoundRect(skia.Rect.MakeXYWH(700, 1310, 360, 50), 20, 20, _blurred("#2b3233", 0))
    for index, code in enumerate(("#c65b2a", "#e8b34b", "#7fa39b")):
        canvas.drawRoundRect(skia.Rect.MakeXYWH(1560 + index * 190, 1180 - index * 40, 130, 170 + index * 40), 26, 26,
                             _blurred(code, 6))  # fmt: skip


def morning(canvas: skia.Canvas) -> None:
    """Bicycles in the mist of a morning street."""
    _sky(canvas, "#a9cbc6", "#cfe2dc", "#e6eee6")
    for index in range(9):
        height = 420 + 160 * math.sin(index * 1.7)
        house = skia.Rect.MakeXYWH(index * 290 - 60, 1080 - height, 250, height)
        canvas.drawRect(house, _blurred("#8fb3ae", 22))
    _hills(canvas, 1130, 12, 1.0, _blurred("#6f9993", 10))
    for index, x in enumerate((250, 1010, 1760)):
        _bicycle(canvas, x, 1250, 120, "#4e7672", 6 - index)
    _hills(canvas, 1300, 14, 2.2, _blurred("#3f6b64", 2))
    _bicycle(canvas, 520, 1470, 190, "#14302c")
    canvas.drawCircle(2060, 300, 110, _blurred("#fffdf2", 16))


def photo(draw: Callable[[skia.Canvas], None], seed: int) -> bytes:
    """A scene with vignette and grain as JPEG."""
    surface = skia.Surface(WIDTH, HEIGHT)
    draw(surface.getCanvas())
    pixels = surface.toarray(colorType=skia.kRGBA_8888_ColorType)[..., :3].astype(np.float32)
    across, down = np.meshgrid(np.linspace(-1, 1, WIDTH), np.linspace(-1, 1, HEIGHT))
    pixels *= (1 - 0.16 * (across**2 + down**2) / 2)[..., None]
    noise = np.random.default_rng(seed).normal(0, GRAIN, (HEIGHT, WIDTH, 1)).astype(np.float32)
    picture = Image.fromarray(np.clip(pixels + noise, 0, 255).astype(np.uint8)).filter(ImageFilter.GaussianBlur(0.6))
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=90)
    return out.getvalue()


PHOTOS: dict[str, Callable[[skia.Canvas], None]] = {
    "dusk-ride.jpg": dusk,
    "workbench.jpg": workbench,
    "misty-street.jpg": morning,
}


def all_photos() -> dict[str, bytes]:
    """All photos by file name."""
    return {name: photo(draw, seed) for seed, (name, draw) in enumerate(PHOTOS.items())}
