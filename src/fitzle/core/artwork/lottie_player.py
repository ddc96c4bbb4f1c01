"""The pictures of a Lottie animation, drawn by ThorVG; only of files that `read_lottie` has checked."""

from __future__ import annotations

import json
from threading import Lock
from typing import Any

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.written import png_of
from fitzle.core.artwork.straight import straight
from fitzle.core.artwork.working import LONG_SIDE_PX
from fitzle.core.errors import ArtworkError
from fitzle.core.units import Size

_drawing = Lock()  # the engine draws one picture at a time
_engine: list[Any] = []  # of ThorVG, begun once
MOST_LARGER = 4.0  # times its own size that a small animation is drawn for lists
BEFORE_THE_END = 1e-3  # frames: what is asked for at the very end is the last picture


def drawn_copy(data: bytes) -> bytes:
    """The picture in the middle of an animation as a PNG, at most LONG_SIDE_PX long: what lists show of it."""
    natural = LottiePlayer(data).natural
    factor = min(LONG_SIDE_PX / max(natural), MOST_LARGER)
    size = Size(*(max(1, round(side * factor)) for side in natural))
    player = LottiePlayer(data, size)
    return png_of(player.at(player.seconds / 2))


class LottiePlayer:
    """One animation at one size in px; `fps`, `frames` and `seconds` are its own."""

    def __init__(self, data: bytes, size: Size | None = None) -> None:
        document = json.loads(data.decode("utf-8-sig"))
        self.fps = float(document["fr"])
        self.frames = float(document["op"]) - float(document["ip"])
        self.natural = Size(max(1, round(document["w"])), max(1, round(document["h"])))
        self._data, self._size = data, size or self.natural

    @property
    def seconds(self) -> float:
        """How long one round lasts."""
        return self.frames / self.fps

    def at(self, seconds: float) -> Pixels:
        """The picture of a moment: (h, w, 4), straight alpha. Raises ArtworkError where it cannot be drawn."""
        frame = min(max(0.0, seconds * self.fps), self.frames - BEFORE_THE_END)
        with _drawing:
            return self._drawn(frame)

    def _drawn(self, frame: float) -> Pixels:
        import thorvg_python as thorvg

        if not _engine:
            _engine.append(thorvg.Engine(threads=0))
        canvas = thorvg.SwCanvas(_engine[0])
        width, height = self._size
        # The colour space that skia and Pillow call RGBA, premultiplied.
        canvas.set_target(width, height, cs=thorvg.Colorspace.ABGR8888)
        animation = thorvg.LottieAnimation(_engine[0])
        picture = animation.get_picture()
        if picture.load_data(self._data, "lottie+json", None, copy=True) != thorvg.Result.SUCCESS:
            raise ArtworkError("this Lottie animation cannot be drawn", advice="Export it again.")
        picture.set_size(width, height)
        canvas.add(picture)
        animation.set_frame(frame)
        canvas.update()
        canvas.draw(True)
        canvas.sync()
        pixels = np.frombuffer(bytes(canvas.buffer_arr), np.uint8).reshape(height, width, 4)
        canvas.destroy()
        animation._del()  # the only way to give its memory back
        return straight(np.minimum(pixels, pixels[..., 3:]))
