"""The scenes of a fit: those of its kind, each page, and the screenshot that its place was shown by."""

from __future__ import annotations

import io
from typing import TYPE_CHECKING

import numpy as np
from django.http import Http404, HttpResponse
from PIL import Image

from fitzle.apps.api.pictures import keyed_picture
from fitzle.apps.destinations.learning import scene_shown_for
from fitzle.apps.drawing.calls import Picture
from fitzle.apps.pieces.opening import OpenFit
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import DocumentError
from fitzle.core.fit.record import SideRecord
from fitzle.core.geometry.rect import Rect
from fitzle.core.icons.kind import is_icon_set
from fitzle.core.icons.seen import icon_seen
from fitzle.core.scenes.items import DrawnScene
from fitzle.core.scenes.working_out import SHOT, scenes_for, shot_scene
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.apps.pieces.models import Fit


def scenes_of(opened: OpenFit) -> tuple[list[DrawnScene], bytes | None]:
    """All scenes, worked out, the screenshot first; and its picture (PNG), None without one."""
    scenes = scenes_for(opened.sheet, opened.size)
    shown = scene_shown_for(opened.fit.placement)
    if shown is None:
        return scenes, None
    shot, data = shown
    with Image.open(io.BytesIO(data)) as picture:
        page = Size(round(picture.width / shot.density), round(picture.height / shot.density))
    box = Rect(shot.box.x, shot.box.y, shot.box.width, shot.box.height)
    return [shot_scene(opened.sheet, opened.size, page, box, shot.density), *scenes], data


def scene_of(opened: OpenFit, name: str) -> tuple[DrawnScene, Pixels | None]:
    """One scene by its id with its screenshot; raises DocumentError where there is none of this id."""
    scenes, shot = scenes_of(opened)
    found = next((scene for scene in scenes if scene.id == name), None)
    if found is None:
        raise DocumentError(f"there is no scene called {name!r} for this place")
    return found, shot_pixels(shot) if name == SHOT else None


def icon_in(opened: OpenFit, scene: DrawnScene) -> SideRecord | None:
    """The icon of a set that stands in a scene; None for one picture, and where the icon of 512 px stands."""
    wanted = icon_seen(scene.id, scene.density) if is_icon_set(opened.sheet) else None
    there = opened.record.beside if opened.record else ()
    return next((one for one in there if one.name == wanted), None)


def shot_answer(fit: Fit, key: str) -> HttpResponse:
    """The screenshot that the place of a fit was shown by; Http404 where it was said in words."""
    shown = scene_shown_for(fit.placement)
    if shown is None:
        raise Http404("This place was not shown by a screenshot.")
    return keyed_picture(Picture(shown[1], "image/png"), key)


def shot_pixels(shot: bytes | None) -> Pixels | None:
    """A screenshot as (h, w, 4)."""
    if shot is None:
        return None
    with Image.open(io.BytesIO(shot)) as picture:
        return np.asarray(picture.convert("RGBA"))
