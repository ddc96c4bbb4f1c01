"""A scene worked out for one picture: plain things at places (px of the screen), drawn alike by canvas and browser."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fitzle.core.findings import Frozen
from fitzle.core.scenes.scene import Align


class Frame(Frozen):
    """A box and how it is cut; `radius` is that of rounded corners.

    `outline` is what shows of it as an SVG path about its left top corner, empty for all of it.
    """

    x: float
    y: float
    width: float
    height: float
    mask: Literal["none", "circle", "rounded", "squircle"] = "none"
    radius: float = 0
    outline: str = ""


class BoxItem(Frozen):
    """A plain area."""

    kind: Literal["box"] = "box"
    x: float
    y: float
    width: float
    height: float
    fill: str
    radius: float = 0
    opacity: float = 1


class WordsItem(Frozen):
    """A line of words; (x, y) is on its base line."""

    kind: Literal["words"] = "words"
    x: float
    y: float
    text: str
    size: float
    weight: int
    fill: str
    align: Align


class PictureItem(Frozen):
    """The picture: (x, y, width, height) is all of it, `clip` what of it shows, `veil` what is laid over.

    `perspective` is the matrix (row by row, 3 x 3) that puts the clip's box into its corners, empty where it is flat.
    """

    kind: Literal["picture"] = "picture"
    x: float
    y: float
    width: float
    height: float
    clip: Frame
    opacity: float = 1
    veil: str = ""
    veil_opacity: float = 0
    perspective: tuple[float, ...] = ()


class NeighbourItem(Frozen):
    """A made-up picture of somebody else."""

    kind: Literal["neighbour"] = "neighbour"
    clip: Frame
    seed: int


class ShotItem(Frozen):
    """A screenshot over the whole scene."""

    kind: Literal["shot"] = "shot"


Item = Annotated[BoxItem | WordsItem | PictureItem | NeighbourItem | ShotItem, Field(discriminator="kind")]


class DrawnScene(Frozen):
    """A scene with everything where it stands. `id` is that of the scene and its variant, `name` says both."""

    id: str
    name: str
    width: float
    height: float
    ground: str
    density: float
    items: tuple[Item, ...]

    @property
    def picture(self) -> PictureItem:
        """The first place of the picture."""
        return next(item for item in self.items if isinstance(item, PictureItem))
