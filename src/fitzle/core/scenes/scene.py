"""What a scene is: a made-up page with a place for the picture. Lengths are in px of the viewer's screen."""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import Annotated, Literal

from pydantic import Field, TypeAdapter

from fitzle.core.findings import Frozen

# Colours of a scene are hex codes or names of its tone, so that one scene is drawn light, dark and coloured.
ToneColour = Literal["page", "panel", "line", "soft", "ink", "accent"]
SceneColour = Annotated[str, Field(pattern=r"^(page|panel|line|soft|ink|accent|#[0-9a-f]{6})$")]
MaskName = Literal["none", "circle", "rounded", "squircle", "sheet"]
Align = Literal["left", "centre", "right"]


class _Layer(Frozen):
    x: float
    y: float


class BoxLayer(_Layer):
    """A plain area; `radius` rounds its corners."""

    kind: Literal["box"] = "box"
    width: float
    height: float
    fill: SceneColour
    radius: float = 0
    opacity: float = 1


class WordsLayer(_Layer):
    """A line of words; (x, y) is where its base line begins, is in the middle, or ends."""

    kind: Literal["words"] = "words"
    text: str
    size: float
    fill: SceneColour = "ink"
    weight: Literal[400, 600, 700] = 400
    align: Align = "left"


class PictureLayer(_Layer):
    """The place of the picture.

    `fit` is what the destination does: fills the place and cuts, shows the whole, or takes its width and lets the
    height follow. `window` is the number of the sheet's window that shows.
    `corners` puts it into perspective: the places (x, y) of its corners from the left top one clockwise.
    """

    kind: Literal["picture"] = "picture"
    width: float
    height: float
    fit: Literal["fill", "whole", "width"] = "fill"
    align: Align = "centre"
    mask: MaskName = "sheet"
    window: int | None = None
    opacity: float = 1
    zones: bool = True
    corners: tuple[tuple[float, float], ...] = ()


class NeighbourLayer(_Layer):
    """A made-up picture of somebody else; `seed` chooses what it looks like."""

    kind: Literal["neighbour"] = "neighbour"
    width: float
    height: float
    seed: int
    mask: MaskName = "none"


class RepeatLayer(Frozen):
    """Layers drawn several times, each time moved on."""

    kind: Literal["repeat"] = "repeat"
    count: int
    dx: float = 0
    dy: float = 0
    layers: tuple[Layer, ...]


Layer = Annotated[BoxLayer | WordsLayer | PictureLayer | NeighbourLayer | RepeatLayer, Field(discriminator="kind")]


class Variant(Frozen):
    """A scene in one tone, at one density."""

    id: str
    name: str
    tone: Literal["light", "dark", "coloured"] = "light"
    density: float = 1


class Scene(Frozen):
    """One scene. `kinds` are the sheets' kinds it is shown for; without any it suits every picture."""

    id: str
    name: str
    kinds: tuple[str, ...] = ()
    width: float
    height: float
    ground: SceneColour = "page"
    variants: tuple[Variant, ...] = (Variant(id="", name=""),)
    layers: tuple[Layer, ...]


RepeatLayer.model_rebuild()

TONES: dict[str, dict[str, str]] = {
    "light": {
        "page": "#ffffff", "panel": "#eef0f1", "line": "#d8dcde", "soft": "#5c656a", "ink": "#1f2427",
        "accent": "#3d6a8a",
    },
    "dark": {
        "page": "#17191b", "panel": "#26292c", "line": "#3a3f43", "soft": "#9aa3a8", "ink": "#eceeef",
        "accent": "#8fb6d1",
    },
    "coloured": {
        "page": "#2f5f6e", "panel": "#3b7283", "line": "#548796", "soft": "#c4dae1", "ink": "#ffffff",
        "accent": "#f2d9a0",
    },
}  # fmt: skip


@cache
def all_scenes() -> tuple[Scene, ...]:
    """Every scene, in the order in which they are shown."""
    text = Path(__file__).with_name("scenes.json").read_text(encoding="utf-8")
    return tuple(TypeAdapter(list[Scene]).validate_json(text))
