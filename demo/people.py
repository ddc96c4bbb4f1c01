"""People who do not exist: drawn heads and shoulders, lit well enough to be prepared and tested like photos."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
import skia
from numpy.typing import NDArray

Pixels = NDArray[np.uint8]

EYES_AT, EYE_HALF = 0.32, 0.19  # in heads: from the middle of the face, and half a width


class Looks(NamedTuple):
    """What a person looks like; colours are 0xAARRGGBB, light first."""

    skin: tuple[int, int, int] = (0xFFE8B899, 0xFFD9A283, 0xFFA87054)
    hair: tuple[int, int] = (0xFF6A4529, 0xFF2A1A10)
    clothes: tuple[int, int] = (0xFF3B5F78, 0xFF1E3345)
    iris: int = 0xFF5A4030
    pupil: int = 0xFF100C0A
    eyes_open: bool = True


GUEST = Looks(
    skin=(0xFFC99270, 0xFFB57E5C, 0xFF86563C), hair=(0xFF3A2A26, 0xFF17100E), clothes=(0xFFB4541A, 0xFF7A3810)
)


def person(width: int, height: int, looks: Looks | None = None, x: float = 0.5, scale: float = 1.0) -> Pixels:
    """A person before nothing: (height, width, 4), straight alpha; `x` is the middle in fractions of the width."""
    surface = skia.Surface(width, height)
    drawn = _Person(surface.getCanvas(), width * x, height * 0.42, height * 0.2 * scale, looks or Looks())
    drawn.body(height)
    drawn.head()
    drawn.eyes()
    drawn.nose_and_mouth()
    picture = surface.toarray(colorType=skia.kRGBA_8888_ColorType)
    return np.array(picture, dtype=np.uint8)


def room(width: int, height: int, seed: int = 1) -> Pixels:
    """What stands out of focus behind a person: (height, width, 4), opaque."""
    rng = np.random.default_rng(seed)
    surface = skia.Surface(width, height)
    canvas = surface.getCanvas()
    wall = skia.GradientShader.MakeLinear([(0, 0), (width, height)], [0xFFB9B8A6, 0xFF6D7A70])
    canvas.drawPaint(skia.Paint(Shader=wall))
    for _ in range(30):
        colour = skia.Color(*(int(value) for value in rng.integers(70, 190, 3)))
        blurred = skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, height / 60)
        x, y, across, down = rng.uniform(0, 1, 4) * [width, height, width * 0.16, height * 0.28]
        canvas.drawRect(skia.Rect.MakeXYWH(x, y, across + 20, down + 20), skia.Paint(Color=colour, MaskFilter=blurred))
    return np.array(surface.toarray(colorType=skia.kRGBA_8888_ColorType), dtype=np.uint8)


def together(subject: Pixels, behind: Pixels, grain: float = 3.0, seed: int = 2) -> Pixels:
    """A subject in front of a background, with the grain of a photo: (h, w, 4), opaque."""
    rng = np.random.default_rng(seed)
    alpha = subject[..., 3:].astype(np.float32) / 255
    colour = subject[..., :3] * alpha + behind[..., :3] * (1 - alpha)
    colour = np.clip(colour + rng.normal(0, grain, (*colour.shape[:2], 1)), 0, 255)
    return np.dstack([colour.astype(np.uint8), np.full(colour.shape[:2], 255, np.uint8)])


class _Person:
    """Draws one person; lengths are heads (`unit` px), from the middle of the face."""

    def __init__(self, canvas: Any, x: float, y: float, unit: float, looks: Looks) -> None:
        self.canvas, self.x, self.y, self.unit, self.looks = canvas, x, y, unit, looks

    def body(self, bottom: int) -> None:
        """Shoulders and neck."""
        path = self._moved(-2.1, (bottom - self.y) / self.unit + 0.2)
        self._curve(path, -2.1, 1.6, -1.2, 1.45, -0.55, 1.25)
        path.lineTo(*self._at(0.55, 1.25))
        self._curve(path, 1.2, 1.45, 2.1, 1.6, 2.1, (bottom - self.y) / self.unit + 0.2)
        path.close()
        self.canvas.drawPath(path, self._lit(-0.5, 1.6, 3, self.looks.clothes))
        dark, light = self.looks.skin[2], self.looks.skin[1]
        neck = self._oblong(-0.4, 0.6, 0.8, 0.85)
        self.canvas.drawRoundRect(neck, 0.2 * self.unit, 0.2 * self.unit, self._lit(0, 0.7, 1, (dark, light)))

    def head(self) -> None:
        """Hair, ears and face."""
        self.canvas.drawOval(self._oblong(-0.92, -1.32, 1.84, 2.0), self._lit(-0.3, -1, 1.6, self.looks.hair))
        for side in (-1, 1):
            self.canvas.drawOval(self._oblong(side * 0.78 - 0.12, -0.2, 0.24, 0.45), self._flat(self.looks.skin[2]))
        face = self._moved(-0.78, -0.4)
        self._curve(face, -0.8, 0.5, -0.45, 1.05, 0, 1.08)
        self._curve(face, 0.45, 1.05, 0.8, 0.5, 0.78, -0.4)
        self._curve(face, 0.7, -1.15, -0.7, -1.15, -0.78, -0.4)
        self.canvas.drawPath(face, self._lit(-0.25, -0.1, 1.25, self.looks.skin))
        fringe = self._moved(-0.85, -0.3)
        self._curve(fringe, -0.9, -1.5, 0.9, -1.5, 0.85, -0.3)
        self._curve(fringe, 0.6, -0.75, 0.1, -0.85, -0.3, -0.8)
        self._curve(fringe, -0.6, -0.75, -0.75, -0.6, -0.85, -0.3)
        self.canvas.drawPath(fringe, self._lit(-0.3, -1, 1.5, self.looks.hair))

    def eyes(self) -> None:
        """Both eyes with their brows."""
        for x in (-EYES_AT, EYES_AT):
            self.canvas.drawOval(self._oblong(x - 0.25, -0.22, 0.5, 0.36), self._flat(0x60804A30, blur=0.05))
            if self.looks.eyes_open:
                self._open_eye(x)
            else:
                self._line(0xFF2A1810, 0.04, x - EYE_HALF, -0.01, x, 0.06, x + EYE_HALF, -0.01)
            self._line(self.looks.hair[0], 0.07, x - 0.24, -0.24, x, -0.36, x + 0.24, -0.26)

    def nose_and_mouth(self) -> None:
        """The rest of a face."""
        self._line(0xA0804A32, 0.05, -0.04, 0, -0.2, 0.4, -0.1, 0.4, blur=0.02)
        self._line(0xA0804A32, 0.05, -0.1, 0.4, 0, 0.46, 0.12, 0.4, blur=0.02)
        self.canvas.drawOval(self._oblong(-0.08, 0.1, 0.16, 0.28), self._flat(0x50FFF0E0, blur=0.05))
        lips = self._moved(-0.3, 0.66)
        lips.quadTo(*self._at(0, 0.6), *self._at(0.3, 0.66))
        lips.quadTo(*self._at(0, 0.86), *self._at(-0.3, 0.66))
        self.canvas.drawPath(lips, self._flat(0xFFB0584E))
        self._line(0xFF70302C, 0.03, -0.3, 0.66, 0, 0.73, 0.3, 0.66)

    def _open_eye(self, x: float) -> None:
        lids = self._moved(x - EYE_HALF, -0.02)
        lids.quadTo(*self._at(x, -0.19), *self._at(x + EYE_HALF, -0.02))
        lids.quadTo(*self._at(x, 0.11), *self._at(x - EYE_HALF, -0.02))
        lids.close()
        self.canvas.drawPath(lids, self._flat(0xFFF6F2EE))
        self.canvas.save()
        self.canvas.clipPath(lids, True)
        for radius, colour in ((0.095, self.looks.iris), (0.06, self.looks.pupil)):
            self.canvas.drawCircle(*self._at(x, -0.03), radius * self.unit, self._flat(colour))
        self.canvas.drawCircle(*self._at(x + 0.03, -0.07), 0.02 * self.unit, self._flat(0xFFFFFFFF))
        self.canvas.restore()
        self._line(0xFF2A1810, 0.035, x - EYE_HALF, -0.02, x, -0.2, x + EYE_HALF, -0.02)

    def _at(self, x: float, y: float) -> tuple[float, float]:
        return self.x + x * self.unit, self.y + y * self.unit

    def _moved(self, x: float, y: float) -> Any:
        path = skia.Path()
        path.moveTo(*self._at(x, y))
        return path

    def _curve(self, path: Any, *figures: float) -> None:
        path.cubicTo(*self._at(*figures[:2]), *self._at(*figures[2:4]), *self._at(*figures[4:]))

    def _oblong(self, x: float, y: float, width: float, height: float) -> Any:
        return skia.Rect.MakeXYWH(*self._at(x, y), width * self.unit, height * self.unit)

    def _flat(self, colour: int, blur: float = 0.0) -> Any:
        soft = skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, blur * self.unit) if blur else None
        return skia.Paint(Color=colour, AntiAlias=True, MaskFilter=soft)

    def _lit(self, x: float, y: float, reach: float, colours: tuple[int, ...]) -> Any:
        shader = skia.GradientShader.MakeRadial(self._at(x, y), reach * self.unit, list(colours))
        return skia.Paint(AntiAlias=True, Shader=shader)

    def _line(self, colour: int, thick: float, *figures: float, blur: float = 0.0) -> None:
        path = self._moved(*figures[:2])
        path.quadTo(*self._at(*figures[2:4]), *self._at(*figures[4:]))
        paint = self._flat(colour, blur)
        paint.setStyle(skia.Paint.kStroke_Style)
        paint.setStrokeWidth(thick * self.unit)
        self.canvas.drawPath(path, paint)
