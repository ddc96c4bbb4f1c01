"""What the proofs screen is given."""

from __future__ import annotations

from hashlib import sha256

from ninja import Schema

from fitzle.apps.api.fit_scenes import scenes_of
from fitzle.apps.pieces.opening import OpenFit
from fitzle.core.eye.neighbours import SEEN_AS
from fitzle.core.fit.icon_files import icon_files
from fitzle.core.scenes.items import DrawnScene, NeighbourItem
from fitzle.core.scenes.neighbours import neighbour_svg


class ScenesOut(Schema):
    """Scenes with what they are drawn of.

    `shown` changes with the picture, `shot` with the screenshot of a scene that has one; each belongs to its address.
    `each` says that every scene has a picture of its own.
    `neighbours` are SVG by number, `vision` the matrices (row by row, 3 x 3, on linear light) by kind of
    vision.
    """

    shot: str
    shown: str
    each: bool
    made: bool
    width: int
    height: int
    scenes: list[DrawnScene]
    neighbours: dict[int, str]
    vision: dict[str, list[float]]


def scenes_view(opened: OpenFit) -> ScenesOut:
    """The scenes of a fit."""
    scenes, shot = scenes_of(opened)
    seeds = {item.seed for scene in scenes for item in scene.items if isinstance(item, NeighbourItem)}
    return ScenesOut(
        shot=sha256(shot).hexdigest()[:16] if shot else "",
        shown=shown_key(opened),
        each=bool(icon_files(opened.record)),
        made=bool(opened.record and opened.record.files),
        width=opened.size.width,
        height=opened.size.height,
        scenes=scenes,
        neighbours={seed: neighbour_svg(seed) for seed in seeds},
        vision={name: [value for row in matrix for value in row] for name, matrix in SEEN_AS.items()},
    )


def shown_key(opened: OpenFit) -> str:
    """What the address of its picture changes with: its file where that is made."""
    file = opened.record.files[0] if opened.record and opened.record.files else None
    return file.sha256[:16] if file else opened.proof_key[:16]
