"""What the drawing service is asked about motion."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
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
from fitzle.core.fit.moving import loop_of
from fitzle.core.motion.choices import Choices, choices_for, ground_choices
from fitzle.core.motion.choreography import read_share
from fitzle.core.motion.document import Motion
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.reel import Reel
from fitzle.core.piece.motion import PartMotion
from fitzle.core.piece.parts import AnyPart, GroundPart
from fitzle.core.plan.placed import Plan

STILL, LET_MOVE = "nothing moves here", "Let its parts move first."
PLAYED_FPS, PLAYED_QUALITY = 12.5, 70
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

    `period` is in seconds; `begin` is the second at which the file begins, `read` the share of the period in which all
    words are in. Where parts move, `tracks` has all parts, the front one first.
    """

    allowed: bool
    moves: bool
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
        return MotionOut(allowed=allowed, moves=False, period=0, begin=0, read=1, tracks=[])
    looked = decided(space, opened)
    loop = loop_of(looked, opened.sources(preview=not resolved.playing))
    if not loop.moves:
        return MotionOut(allowed=allowed, moves=False, period=0, begin=0, read=1, tracks=[])
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
        allowed=True, moves=True, period=loop.period, begin=round(loop.begin, 3), read=round(read, 3), tracks=tracks
    )


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
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    loop = loop_of(decided(space, opened), opened.sources(preview=not opened.resolved.playing))
    if not loop.moves:
        raise DocumentError(STILL, advice=LET_MOVE)
    pixels = loop._replace(begin=0.0).picture(seconds % loop.period, min(width, opened.size.width))
    return Picture(plain_png(pixels), "image/png")


@drawable
def draw_playing(workspace: int, fit: UUID, width: int) -> Picture:
    """The loop, small enough to be drawn at once."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    loop = loop_of(decided(space, opened), opened.sources(preview=not opened.resolved.playing))
    if not loop.moves:
        raise DocumentError(STILL, advice=LET_MOVE)
    width = min(width, opened.size.width)
    area = width * width * opened.size.height / opened.size.width
    fps = max(LEAST_FPS, min(PLAYED_FPS, MOST_PLAYED_PX / area / max(loop.period, 0.1)))
    count = max(2, round(loop.period * fps))
    reel = Reel((loop.picture(loop.period * number / count, width) for number in range(count)), loop.period)
    data = moving_file("webp", reel, MovingSettings(fps=fps, quality=PLAYED_QUALITY), Playing())
    return Picture(data, "image/webp")
