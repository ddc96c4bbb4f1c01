"""What an encoder was told, as values; `words` puts it for people."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fitzle.core.findings import Frozen
from fitzle.core.units import Size

Quality = Annotated[int, Field(ge=0, le=100)]


class Lossless(Frozen):
    """Every pixel as it was drawn."""

    kind: Literal["lossless"] = "lossless"

    @property
    def words(self) -> str:
        """For people."""
        return "lossless"


class Uncompressed(Frozen):
    """Every pixel as it was drawn, and nothing packed."""

    kind: Literal["uncompressed"] = "uncompressed"

    @property
    def words(self) -> str:
        """For people."""
        return "uncompressed"


class Outlines(Frozen):
    """Drawn anew at any size."""

    kind: Literal["outlines"] = "outlines"

    @property
    def words(self) -> str:
        """For people."""
        return "outlines"


Chroma = Literal["4:4:4", "4:2:0"]
JpegEncoder = Literal["jpegli", "mozjpeg", "libjpeg"]


class JpegSettings(Frozen):
    """The encoder, the colour's resolution and the quality; `smallest` spends time for the smallest file."""

    kind: Literal["jpeg"] = "jpeg"
    encoder: JpegEncoder = "mozjpeg"
    chroma: Chroma
    quality: Quality
    smallest: bool = False

    @property
    def words(self) -> str:
        """For people."""
        return f"{self.chroma}{' smallest' if self.smallest else ''}, quality {self.quality}, {self.encoder}"


class LossySettings(Frozen):
    """A quality alone."""

    kind: Literal["lossy"] = "lossy"
    quality: Quality

    @property
    def words(self) -> str:
        """For people."""
        return f"quality {self.quality}"


class AvifSettings(Frozen):
    """The colour's resolution and the quality."""

    kind: Literal["avif"] = "avif"
    chroma: Chroma
    quality: Quality

    @property
    def words(self) -> str:
        """For people."""
        return f"{self.chroma}, quality {self.quality}"


class PaletteSettings(Frozen):
    """At most so many colours; `dither` mixes them in dots, `smoothed` calms the picture before.

    `quality` is what files were told that were kept before colours were counted.
    """

    kind: Literal["palette"] = "palette"
    quality: Quality | None = None
    colours: Annotated[int, Field(ge=2, le=256)] = 256
    dither: Annotated[float, Field(ge=0, le=1)] = 0
    smoothed: bool = False

    @property
    def words(self) -> str:
        """For people."""
        of = " of the smoothed picture" if self.smoothed else ""
        dots = f", dither {self.dither:g}" if self.dither else ""
        return f"{self.colours} colours{of}{dots}"


class IconEntry(Frozen):
    """How the picture lies in an icon file."""

    kind: Literal["icon entry"] = "icon entry"
    packed: Literal["png", "uncompressed"]

    @property
    def words(self) -> str:
        """For people."""
        return "PNG entry" if self.packed == "png" else "uncompressed entry"


class MovingSettings(Frozen):
    """Frames a second, and of what each frame was told only what its format knows.

    `colours` of a palette (None: all), `quality` of lossy formats; of a GIF `tolerance` is how far a colour may differ
    from the frame before to stay as it is (1/255), `lossiness` how freely it is packed. `width` and `height` are those
    of frames that were made smaller.
    """

    kind: Literal["moving"] = "moving"
    fps: Annotated[float, Field(gt=0, le=120)]
    colours: Annotated[int, Field(ge=2, le=256)] | None = None
    quality: Quality | None = None
    tolerance: Annotated[float, Field(ge=0, le=32)] = 0
    lossiness: Annotated[int, Field(ge=0, le=200)] = 0
    width: Annotated[int, Field(ge=1)] | None = None
    height: Annotated[int, Field(ge=1)] | None = None

    @property
    def size(self) -> Size | None:
        """The size of its frames where they are smaller than they were drawn."""
        return Size(self.width, self.height) if self.width and self.height else None

    @property
    def words(self) -> str:
        """For people."""
        told = [f"{self.fps:.3g} frames a second"]
        told += [f"{self.width} × {self.height} px"] if self.size else []
        told += [f"{self.colours} colours"] if self.colours else []
        told += [f"quality {self.quality}"] if self.quality is not None else []
        told += [f"tolerance {self.tolerance:g}"] if self.tolerance else []
        told += [f"packed freely ({self.lossiness})"] if self.lossiness else []
        return ", ".join(told)


Settings = Annotated[
    Lossless
    | Uncompressed
    | Outlines
    | JpegSettings
    | LossySettings
    | AvifSettings
    | PaletteSettings
    | IconEntry
    | MovingSettings,
    Field(discriminator="kind"),
]
