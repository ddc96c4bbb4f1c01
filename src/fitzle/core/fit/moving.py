"""The moving file of a decided fit: its parts at each moment, its clips playing, and a still of it."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from functools import partial

from fitzle.core.artwork.sources import BitmapSource, Source
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import best_file
from fitzle.core.encode.png import plain_png
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Choice, Encoded
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.encode.wish import NO_WISH
from fitzle.core.fit.deciding import Decided
from fitzle.core.fit.loop import Loop, Telling
from fitzle.core.fit.moving_choice import drawn_first_frame, moving_choice
from fitzle.core.formats import DRAWN, PLAYED, Format, holds_size
from fitzle.core.kept import Kept
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.following import FocusPath, path_of
from fitzle.core.motion.footage import Cut, Footage, footage_of
from fitzle.core.motion.looking import resized
from fitzle.core.motion.played import frames_at
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.search import Asked
from fitzle.core.motion.timing import best_moment
from fitzle.core.plan.placed import PlacedArtwork, Plan
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import smaller_sizes
from fitzle.core.units import Size

WHITE = (255, 255, 255)
ROOM = 1.25  # times the size at which a clip is shown: pictures may zoom
STILL_FORMATS = ("png", "jpeg")
STILL_SECONDS = 4.0
KEPT_PIXELS = 120_000_000  # of frames that are kept on disk, 480 MB

_KEPT: Kept[Footage] = Kept(KEPT_PIXELS, lambda footage: footage.pixels)


def loop_of(decided: Decided, sources: Mapping[str, Source], footage: Mapping[str, Footage] | None = None) -> Loop:
    """The loop of a decided fit; `sources` are by all ids, `footage` is what plays in place of an artwork.

    A loop whose parts come in begins where all of them are in: many places show the first frame alone.
    """
    plan, own, motion = decided.plan, decided.planned.sources(sources), decided.resolved.motion
    playing = dict(footage or {}) or _playing(plan, own, decided.resolved.sheet)
    longest = max((one.period for one in playing.values()), default=0.0)
    period = motion.period if motion else longest
    if motion:
        begin = best_moment(plan, motion) if any(one.come for one in motion.parts.values()) else 0.0
    else:
        begin = max((one.begin for one in playing.values()), default=0.0)
    return Loop(plan, own, motion, playing, period, begin, _paths(plan, playing, own))


def _paths(plan: Plan, playing: Mapping[str, Footage], sources: Mapping[str, Source]) -> dict[str, FocusPath]:
    """The ways of the focus of parts that follow something."""
    found: dict[str, FocusPath] = {}
    for part in plan.parts:
        if isinstance(part, PlacedArtwork) and part.artwork in playing and part.mode == "fill":
            source = sources.get(part.artwork)
            data = source.data if isinstance(source, BitmapSource) else b""
            if path := path_of(playing[part.artwork], part.follow, part.focal_point, data):
                found[part.part] = path
    return found


def make_moving_file(
    decided: Decided,
    sources: Mapping[str, Source],
    budget: Budget | None = None,
    footage: Mapping[str, Footage] | None = None,
    tell: Telling | None = None,
) -> Choice:
    """The best moving file.

    Where no moving file meets the limit and the place takes stills too, the file is a still; what was tried is told.
    """
    sheet, size = decided.resolved.sheet, decided.plan.size
    loop = loop_of(decided, sources, footage)
    wish = decided.resolved.request.wish
    if not loop.moves:
        return best_file(_still(loop), sheet, size, Budget(STILL_SECONDS), wish)
    asked = Asked(decided.resolved.moving_formats, sheet.max_bytes, _most_fps(sheet, loop), _playing_of(sheet))
    if wish.format and wish.format in asked.formats:
        asked = asked._replace(formats=[wish.format])
    asked = asked._replace(formats=[fmt for fmt in asked.formats if holds_size(fmt, *size)])
    asked = asked._replace(smaller=_smaller(asked, decided))
    choice = moving_choice(loop, asked, budget, tell)
    if choice.best is None and not sheet.motion.required:
        still = best_file(_still(loop), sheet, size, Budget(STILL_SECONDS), wish)
        return still._replace(candidates=[*choice.candidates, *still.candidates])
    return choice


def _smaller(asked: Asked, decided: Decided) -> list[Size]:
    """Sizes that the place and all formats take too."""
    sizes = smaller_sizes(decided.resolved.sheet.size, decided.plan.size)
    return [size for size in sizes if all(holds_size(fmt, *size) for fmt in asked.formats)]


def first_frame(decided: Decided, sources: Mapping[str, Source]) -> Rendered:
    """The first frame, drawn when somebody asks for it."""
    return _still(loop_of(decided, sources))


def first_frame_as(decided: Decided, sources: Mapping[str, Source], fmt: Format, settings: MovingSettings) -> bytes:
    """The first frame as it looks in a file of these settings, as a PNG: a file of two frames tells."""
    loop = loop_of(decided, sources)
    if fmt in DRAWN:
        return plain_png(drawn_first_frame(loop, settings.fps))
    step = 1 / settings.fps
    reel = Reel((loop.picture(0.0), loop.picture(step)), 2 * step)
    if settings.size:
        reel = reel.mapped(partial(resized, size=settings.size))
    data = moving_file(fmt, reel, settings, _playing_of(decided.resolved.sheet))
    return plain_png(next(frames_at(data, [step / 2])))


def still_file(
    decided: Decided, sources: Mapping[str, Source], footage: Mapping[str, Footage] | None, size: Size
) -> Encoded | None:
    """A still of the first frame, of the size of the file, for pages that show one where motion is not wanted."""
    loop = loop_of(decided, sources, footage)
    plain = decided.resolved.sheet.model_copy(update={"formats": STILL_FORMATS})
    still = Rendered(lambda: resized(loop.picture(0.0), size), lambda: b"")
    return best_file(still, plain, size, Budget(STILL_SECONDS), NO_WISH).best


def _still(loop: Loop) -> Rendered:
    return Rendered(lambda: loop.picture(0.0), lambda: b"")


def _playing(plan: Plan, sources: Mapping[str, Source], sheet: SpecSheet) -> dict[str, Footage]:
    """Moving pictures among the artwork of a plan, each no larger than it is shown."""
    found: dict[str, Footage] = {}
    for part in plan.parts:
        source = sources.get(part.artwork) if isinstance(part, PlacedArtwork) else None
        if isinstance(part, PlacedArtwork) and isinstance(source, BitmapSource) and _plays(source):
            wanted = wanted_for(part, Size(round(source.width), round(source.height)))
            found[part.artwork] = _footage(source.data, Cut(longest=sheet.motion.max_seconds), wanted)
    return found


def _footage(data: bytes, cut: Cut, wanted: Size) -> Footage:
    """Read once: a bench asks for many moments of one loop."""
    return _KEPT.of((hashlib.sha256(data).hexdigest(), cut, wanted), lambda: footage_of(data, "", cut, wanted))


def _plays(source: BitmapSource) -> bool:
    return source.frames > 1 and source.format in PLAYED


def wanted_for(part: PlacedArtwork, natural: Size) -> Size:
    """How large frames are needed for a part that shows them."""
    return Size(max(1, round(natural.width * part.scale * ROOM)), max(1, round(natural.height * part.scale * ROOM)))


def _most_fps(sheet: SpecSheet, loop: Loop) -> float | None:
    """What the place takes; where clips alone move no more than they have."""
    most = [sheet.motion.max_fps] if sheet.motion.max_fps else []
    if loop.motion is None:
        most.append(max(one.fps for one in loop.footage.values()))
    return min(most, default=None)


def _playing_of(sheet: SpecSheet) -> Playing:
    return Playing(1 if sheet.motion.loop is False else 0, parse_hex(sheet.grounds[0]) if sheet.grounds else WHITE)
