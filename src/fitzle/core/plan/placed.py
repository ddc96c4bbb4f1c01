"""What a plan consists of: parts with boxes in px of the delivered file, everything decided that needs no pixels."""

from __future__ import annotations

from typing import Literal, NamedTuple

from fitzle.core.geometry.path import Path
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.piece.effects import Blend, Glow, Outline, Shadow
from fitzle.core.piece.fills import Fill, PaintFill, Solid
from fitzle.core.piece.parts import Follow, Mode
from fitzle.core.type.setting import Layout
from fitzle.core.units import Size


class Line(NamedTuple):
    """A border or an edge: its width in px and its colour."""

    width_px: float
    colour: str


class Look(NamedTuple):
    """How a part is laid over what is behind it; `rotation` in degrees clockwise about the middle of its box.

    Of a moving part `shift` (px) and `scale` (a factor, about the same middle) say where it is at this moment,
    `shown` how much of it is uncovered from the left, `drawn` how far its outline is drawn (both 1: all of it).
    """

    rotation: float = 0.0
    opacity: float = 1.0
    blend: Blend = "normal"
    edge: Line | None = None
    shift: tuple[float, float] = (0.0, 0.0)
    scale: float = 1.0
    shown: float = 1.0
    drawn: float = 1.0

    @property
    def plain(self) -> bool:
        """Whether it is simply laid on top."""
        return self == Look()


class PlacedDie(NamedTuple):
    """The outline that a picture is cut to."""

    path: Path
    border: Line | None
    fill: str | None


class PlacedArtwork(NamedTuple):
    """A picture or mark with its box.

    `window` is what shows of the artwork, in its own px; `frame` the room it was fitted into; `stands` the room it was
    given. `recolour` maps hex to hex, `palette` are the artwork's own colours.
    """

    part: str
    role: str
    artwork: str
    box: Rect
    window: Rect
    frame: Rect
    stands: Rect
    mode: Mode
    padding_px: float
    tint: str | None
    vector: bool
    look: Look = Look()
    die: PlacedDie | None = None
    recolour: tuple[tuple[str, str], ...] = ()
    palette: tuple[str, ...] = ()
    grid: bool = False
    focal_point: Point = Point(0.5, 0.5)
    follow: Follow = "nothing"

    @property
    def scale(self) -> float:
        """Px of the file for each px of the artwork; above 1 a bitmap is enlarged."""
        return max(self.box.width / self.window.width, self.box.height / self.window.height)


class PlacedPlate(NamedTuple):
    """The surface behind words."""

    path: Path
    colour: str
    opacity: float


class PlacedWords(NamedTuple):
    """Words, set. `colour` is `auto` until somebody has looked at what is behind them."""

    part: str
    role: str
    stands: Rect
    layout: Layout
    colour: str
    outline_only: bool
    outline: Outline | None
    glow: Glow | None
    shadow: Shadow | None
    plate: PlacedPlate | None
    look: Look
    family: str

    @property
    def box(self) -> Rect:
        """The box that the letters take up."""
        return self.layout.block


class PlacedShape(NamedTuple):
    """A shape."""

    part: str
    role: str
    stands: Rect
    path: Path
    fill: PaintFill | None
    border: Line | None
    look: Look

    @property
    def box(self) -> Rect:
        """The box that the shape fills."""
        return self.stands


Placed = PlacedArtwork | PlacedWords | PlacedShape


class Plan(NamedTuple):
    """A fit, decided: its size, what lies behind and the parts, back to front.

    `under` is a colour laid below everything because the placement takes no transparency (None: clear).
    """

    size: Size
    under: str | None
    fill: Fill | None
    edge: Line | None
    parts: tuple[Placed, ...]

    @property
    def artworks(self) -> tuple[PlacedArtwork, ...]:
        """The pictures and marks."""
        return tuple(part for part in self.parts if isinstance(part, PlacedArtwork))

    @property
    def words(self) -> tuple[PlacedWords, ...]:
        """All words."""
        return tuple(part for part in self.parts if isinstance(part, PlacedWords))

    @property
    def ground(self) -> str | None:
        """The one colour that lies behind everything; None where nothing or more than one colour does."""
        if self.fill is None:
            return self.under
        return self.fill.colour if isinstance(self.fill, Solid) else None

    @property
    def ground_given(self) -> bool:
        """Whether a colour was chosen here because the placement takes no transparency."""
        return self.under is not None

    @property
    def ground_kind(self) -> Literal["clear", "solid", "mixed"]:
        """What lies behind everything."""
        if self.ground:
            return "solid"
        return "clear" if self.fill is None else "mixed"


EMPTY_PLAN = Plan(Size(1, 1), None, None, None, ())  # of a finished file that nobody planned here
