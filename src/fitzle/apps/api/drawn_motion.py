"""What the drawing service is asked about motion."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import TYPE_CHECKING
from uuid import UUID

from ninja import Schema

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.api.views import part_names
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import decided, open_fit
from fitzle.core.encode.png import plain_png
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.errors import DocumentError
from fitzle.core.fit.loop import Loop
from fitzle.core.fit.moving import loop_of
from fitzle.core.fit.played import PLAYED_FPS, played_frames, played_strip
from fitzle.core.fit.proofs import preview_bytes
from fitzle.core.motion.choices import Choices, choices_for, ground_choices
from fitzle.core.motion.choreography import read_share
from fitzle.core.motion.document import Motion
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.reel import Reel
from fitzle.core.piece.motion import PartMotion
from fitzle.core.piece.parts import AnyPart, GroundPart
from fitzle.core.plan.placed import Plan

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

STILL, LET_MOVE = "nothing moves here", "Let its parts move first."
PLAYED_QUALITY = 70
MOST_PLAYED_PX = 20_000_000  # of all frames: what a preview may take to draw
LEAST_FPS = 4.0


class TrackOut(Schema):
    """What one part does, and what it may do; `ground` for what lies behind all, which only keeps moving."""

    part: str
    name: str
    ground: bool
    motion: PartMotion
    choices: Choices


class MotionOut(Schema):
    """The loop of a fit. `allowed`: its place takes moving pictures; `moves`: its file will be one.

    It is watched as so many `frames`.
    `period` is in seconds; `begin` is the second at which the file begins, `read` the share of the period in which all
    words are in. Where parts move, `tracks` has all parts, the front one first.
    """

    allowed: bool
    moves: bool
    frames: int
    period: float
    begin: float
    read: float
    tracks: list[TrackOut]


@drawable
def look_at_motion(workspace: int, fit: UUID) -> MotionOut:
    """What moves in a fit."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    resolved, motion = opened.resolved, opened.resolved.motion
    allowed = bool(resolved.moving_formats)
    if not resolved.moves:
        return _still(allowed)
    looked = decided(space, opened)
    loop = loop_of(looked, opened.sources(preview=not resolved.playing))
    if not loop.moves:
        return _still(allowed)
    names = part_names(opened)
    tracks = [
        TrackOut(
            part=part.part,
            name=names.get(part.part, part.part),
            ground=False,
            motion=motion.parts.get(part.part) or PartMotion(),
            choices=choices_for(part, motion.period),
        )
        for part in reversed(looked.plan.parts)
        if motion
    ]
    if motion:
        tracks += _ground_tracks(resolved.parts, looked.plan, motion, names)
    read = read_share(looked.plan, motion) if motion else 1.0
    return MotionOut(
        allowed=True, moves=True, frames=played_frames(loop.period), period=loop.period, begin=round(loop.begin, 3),
        read=round(read, 3), tracks=tracks,
    )  # fmt: skip


def _still(allowed: bool) -> MotionOut:
    return MotionOut(allowed=allowed, moves=False, frames=1, period=0, begin=0, read=1, tracks=[])


def _ground_tracks(
    parts: Iterable[AnyPart], plan: Plan, motion: Motion, names: Mapping[str, str]
) -> Iterator[TrackOut]:
    choices = ground_choices(plan.fill, motion.period)
    for part in parts:
        if choices and isinstance(part, GroundPart):
            name = names.get(part.id, part.id)
            keeping = PartMotion(keep=motion.ground)
            yield TrackOut(part=part.id, name=name, ground=True, motion=keeping, choices=choices)


@drawable
def draw_moment(workspace: int, fit: UUID, seconds: float, width: int) -> Picture:
    """The picture of a moment of the loop, as the ruler counts it."""
    loop = _moving(workspace_numbered(workspace), fit)
    pixels = loop._replace(begin=0.0).picture(seconds % loop.period, min(width, loop.plan.size.width))
    return Picture(plain_png(pixels), "image/png")


@drawable
def draw_frames(workspace: int, fit: UUID, width: int, first: int, count: int) -> Picture:
    """Some of the frames of the loop, one below the other."""
    space = workspace_numbered(workspace)
    return Picture(*preview_bytes(played_strip(_moving(space, fit), width, first, count)))


@drawable
def draw_playing(workspace: int, fit: UUID, width: int) -> Picture:
    """The loop, small enough to be drawn at once."""
    loop = _moving(workspace_numbered(workspace), fit)
    width = min(width, loop.plan.size.width)
    area = width * width * loop.plan.size.height / loop.plan.size.width
    fps = max(LEAST_FPS, min(PLAYED_FPS, MOST_PLAYED_PX / area / max(loop.period, 0.1)))
    count = max(2, round(loop.period * fps))
    reel = Reel((loop.picture(loop.period * number / count, width) for number in range(count)), loop.period)
    data = moving_file("webp", reel, MovingSettings(fps=fps, quality=PLAYED_QUALITY), Playing())
    return Picture(data, "image/webp")


def _moving(space: Workspace, fit: UUID) -> Loop:
    """The loop of a fit that moves."""
    opened = open_fit(space, fit_of(space, fit))
    loop = loop_of(decided(space, opened), opened.sources(preview=not opened.resolved.playing))
    if not loop.moves:
        raise DocumentError(STILL, advice=LET_MOVE)
    return loop
