"""The frames of a loop, kept on disk: encoders and rules go through them several times, memory holds one."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable, Iterable, Iterator, Sequence

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError
from fitzle.core.units import Size

_CHANNELS = 4


class Reel(Sequence[Pixels]):
    """Frames (h, w, 4), straight alpha, each shown for an equal part of `period` seconds.

    `frames` are taken one after the other. Raises ArtworkError where the disk has no room for them. The file that
    holds them has no name and is gone with the reel.
    """

    def __init__(self, frames: Iterable[Pixels], period: float) -> None:
        self._file = tempfile.TemporaryFile(prefix="fitzle-frames-")  # noqa: SIM115 - lives as long as the reel
        self.period, self._count, self.size = period, 0, Size(1, 1)
        try:
            for pixels in frames:
                self.size = Size(pixels.shape[1], pixels.shape[0])
                self._file.write(np.ascontiguousarray(pixels).data)
                self._count += 1
            self._file.flush()
        except OSError as error:
            self._file.close()
            raise ArtworkError(
                "the disk has no room for the frames", advice="Free some space and try again; nothing was changed."
            ) from error
        if not self._count:
            raise ArtworkError("there is no frame to be shown", advice="Choose a longer part.")

    def __len__(self) -> int:
        return self._count

    def __getitem__(self, number: int) -> Pixels:  # type: ignore[override]  # no slices: nobody holds many
        if not 0 <= number < self._count:
            raise IndexError(number)
        length = self.size.width * self.size.height * _CHANNELS
        data = os.pread(self._file.fileno(), length, number * length)
        return np.frombuffer(data, np.uint8).reshape(self.size.height, self.size.width, _CHANNELS)

    def __iter__(self) -> Iterator[Pixels]:
        return (self[number] for number in range(self._count))

    @property
    def fps(self) -> float:
        """Frames a second."""
        return self._count / self.period

    @property
    def pixels(self) -> int:
        """Of all frames together."""
        return self._count * self.size.width * self.size.height

    def mapped(self, change: Callable[[Pixels], Pixels]) -> Reel:
        """The same loop with each frame changed."""
        return Reel((change(pixels) for pixels in self), self.period)

    def spread(self, most: int) -> list[int]:
        """The numbers of at most so many frames, evenly spread, the first among them."""
        count = min(most, self._count)
        return [self._count * step // count for step in range(count)]
