"""What somebody fixed of a file; all else is still looked for."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fitzle.core.encode.line import Exact, Line
from fitzle.core.encode.settings import Chroma, PaletteSettings
from fitzle.core.findings import Frozen
from fitzle.core.formats import Format


class Wish(Frozen):
    """A format, the resolution of colour (JPEG, AVIF), a quality of 1 to 100, or a number of colours (PNG, GIF).

    Of an icon set `path` is where its files stand on the site, `title` what the site is called (empty: as the piece).
    """

    format: Format | None = None
    chroma: Chroma | None = None
    quality: Annotated[int, Field(ge=1, le=100)] | None = None
    colours: Annotated[int, Field(ge=2, le=256)] | None = None
    path: Annotated[str, Field(max_length=200)] = "/"
    title: Annotated[str, Field(max_length=120)] = ""

    @property
    def words(self) -> str:
        """For people."""
        said: list[str] = [self.format or "", self.chroma or ""]
        said += [f"quality {self.quality}"] if self.quality else []
        said += [f"{self.colours} colours"] if self.colours else []
        return ", ".join(one for one in said if one)


NO_WISH = Wish()


def wished(exact: list[Exact], lines: tuple[Line, ...], wish: Wish) -> tuple[list[Exact], tuple[Line, ...]]:
    """What a wish leaves of the files and lines of one format."""
    if wish.colours:
        lines = tuple(_of_colours(line, wish.colours) for line in lines if _has_palette(line))
    if wish.chroma:
        kept = [line for line in lines if getattr(line.settings(line.high), "chroma", wish.chroma) == wish.chroma]
        lines = tuple(kept)
    if wish.quality:
        lines = tuple(line.fixed(wish.quality) for line in lines if not _has_palette(line))
    fixed = wish.colours or wish.quality
    return ([] if fixed and lines else exact), lines


def _has_palette(line: Line) -> bool:
    return isinstance(line.settings(line.high), PaletteSettings)


def _of_colours(line: Line, colours: int) -> Line:
    """The line of a palette with its knob left alone, and so many colours."""
    settings = line.settings(line.high).model_copy(update={"colours": colours})
    return line._replace(low=line.high, settings=lambda _step: settings)
