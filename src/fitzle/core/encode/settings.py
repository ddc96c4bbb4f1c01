"""What an encoder was told, as values; `words` puts it for people."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fitzle.core.findings import Frozen

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


class JpegSettings(Frozen):
    """The colour's resolution and the quality; `smallest` spends time for the smallest file."""

    kind: Literal["jpeg"] = "jpeg"
    chroma: Literal["4:4:4", "4:2:0"]
    quality: Quality
    smallest: bool = False

    @property
    def words(self) -> str:
        """For people."""
        return f"{self.chroma}{' smallest' if self.smallest else ''}, quality {self.quality}"


class LossySettings(Frozen):
    """A quality alone."""

    kind: Literal["lossy"] = "lossy"
    quality: Quality

    @property
    def words(self) -> str:
        """For people."""
        return f"quality {self.quality}"


class PaletteSettings(Frozen):
    """At most 256 colours, chosen at a quality; `dither` mixes them in dots, `smoothed` calms the picture before."""

    kind: Literal["palette"] = "palette"
    quality: Quality
    dither: Annotated[float, Field(ge=0, le=1)] = 0
    smoothed: bool = False

    @property
    def words(self) -> str:
        """For people."""
        what = "palette of the smoothed picture" if self.smoothed else "palette"
        return f"{what}, quality {self.quality}, dither {self.dither:g}"


class IconEntry(Frozen):
    """How the picture lies in an icon file."""

    kind: Literal["icon entry"] = "icon entry"
    packed: Literal["png", "uncompressed"]

    @property
    def words(self) -> str:
        """For people."""
        return "PNG entry" if self.packed == "png" else "uncompressed entry"


Settings = Annotated[
    Lossless | Uncompressed | Outlines | JpegSettings | LossySettings | PaletteSettings | IconEntry,
    Field(discriminator="kind"),
]
