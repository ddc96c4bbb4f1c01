"""What the drawing service is asked about scenes: the picture as it is shown, a scene as a picture, proof sheets."""

from __future__ import annotations

import io
from uuid import UUID

import numpy as np
from django.utils import formats, timezone
from PIL import Image

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.api.fit_scenes import icon_in, scene_of, scenes_of, shot_pixels
from fitzle.apps.api.scene_views import ScenesOut, scenes_view
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.making import made_bytes
from fitzle.apps.pieces.opening import OpenFit, decided, open_fit
from fitzle.core.artwork.sources import Pixels
from fitzle.core.fit.proofs import preview_bytes
from fitzle.core.plan.screen import screen_width
from fitzle.core.preflight.seeing import finished_pixels
from fitzle.core.render.painting import paint
from fitzle.core.scenes.drawing import scene_pixels
from fitzle.core.scenes.items import DrawnScene
from fitzle.core.scenes.proof_sheet import FORMATS, SheetOf
from fitzle.core.scenes.sight import Sight, as_seen

SHOWN_PX = 2400  # of the long side: no scene is wider
LIVE_FORMATS = {"png": "image/png", "jpeg": "image/jpeg", "webp": "image/webp", "gif": "image/gif"}


@drawable
def list_scenes(workspace: int, fit: UUID) -> ScenesOut:
    """All scenes of a fit, worked out."""
    space = workspace_numbered(workspace)
    return scenes_view(open_fit(space, fit_of(space, fit)))


@drawable
def draw_shown(workspace: int, fit: UUID, scene: str = "") -> Picture:
    """What the destination shows: the very file where it is made and a browser can show it, else the fit drawn.

    Of an icon set that is another icon in each scene.
    """
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    icon = icon_in(opened, scene_of(opened, scene)[0]) if scene else None
    if icon:
        return Picture(made_bytes(space, icon.sha256), icon.media_type)
    file = opened.record.files[0] if opened.record and opened.record.files else None
    if file and file.format in LIVE_FORMATS:
        return Picture(made_bytes(space, file.sha256), LIVE_FORMATS[file.format])
    return Picture(*preview_bytes(_shown(opened)))


@drawable
def draw_scene_picture(workspace: int, fit: UUID, scene: str, sight: Sight, scale: float) -> Picture:
    """A scene as a picture, at a number of px for each px of the screen, as somebody sees it."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    drawn, shot = scene_of(opened, scene)
    out = io.BytesIO()
    pixels = as_seen(scene_pixels(drawn, _shown_in(opened, drawn), scale, shot), sight)
    Image.fromarray(np.ascontiguousarray(pixels[..., :3])).save(out, "PNG", compress_level=1)
    return Picture(out.getvalue(), "image/png")


@drawable
def draw_proof_sheet(workspace: int, fit: UUID, scenes: list[str], kind: str) -> Picture:
    """A proof sheet of some scenes, or of all, as PDF or PNG."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    there, shot = scenes_of(opened)
    wanted = [scene for scene in there if scene.id in scenes] or there
    draw, media_type = FORMATS[kind]
    return Picture(
        draw(_about(opened, space.name)._replace(shot=shot_pixels(shot)), wanted, _pictures(opened, wanted)), media_type
    )


def _pictures(opened: OpenFit, scenes: list[DrawnScene]) -> dict[str, Pixels]:
    """What stands in each scene, by its id."""
    whole = _shown(opened)
    return {scene.id: _icon_pixels(opened, scene, whole) for scene in scenes}


def _shown_in(opened: OpenFit, scene: DrawnScene) -> Pixels:
    return _icon_pixels(opened, scene, None)


def _icon_pixels(opened: OpenFit, scene: DrawnScene, whole: Pixels | None) -> Pixels:
    icon = icon_in(opened, scene)
    pixels = finished_pixels(made_bytes(opened.fit.piece.workspace, icon.sha256), SHOWN_PX) if icon else None
    if pixels is not None:
        return pixels
    return _shown(opened) if whole is None else whole


def _about(opened: OpenFit, business: str) -> SheetOf:
    return SheetOf(
        title=opened.document.subject,
        place=f"{opened.sheet.name}, {opened.size.width} × {opened.size.height} px",
        business=business,
        date=formats.date_format(timezone.localdate(), "j F Y"),
        figures=[(one.asked, one.measured) for one in opened.demands or ()],
        findings=opened.muting(opened.findings or ()),
    )


def _shown(opened: OpenFit) -> Pixels:
    """The pixels of the made file, else of the plan."""
    space = opened.fit.piece.workspace
    file = opened.record.files[0] if opened.record and opened.record.files else None
    pixels = finished_pixels(made_bytes(space, file.sha256), SHOWN_PX) if file else None
    if pixels is not None:
        return pixels
    plan = decided(space, opened).plan
    width = screen_width(*plan.size, min(plan.size.width, SHOWN_PX))
    return paint(plan, opened.planned.sources(opened.sources(preview=True)), width)
