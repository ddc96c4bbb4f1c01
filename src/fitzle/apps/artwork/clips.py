"""Clips: read without being held in memory, looked at frame by frame, stills proposed and taken."""

from __future__ import annotations

import json
from collections.abc import Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING, Any, BinaryIO, NamedTuple, cast
from uuid import UUID

import cv2
import numpy as np
from django.http import Http404

from fitzle.apps.artwork.models import Artwork, State
from fitzle.apps.files.keeping import keep, open_checked, read
from fitzle.apps.files.shelves import Shelf
from fitzle.core.artwork.clips.filmstrip import filmstrip
from fitzle.core.artwork.clips.frames import Still, frame_at, frame_before, next_frame, still_of
from fitzle.core.artwork.clips.opening import OpenClip, opened_clip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.artwork.clips.proposing import proposed_stills
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.inspecting import clip_facts
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.shrinking import at_most
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.written import png_of
from fitzle.core.artwork.working import JPEG_QUALITY, LONG_SIDE_PX
from fitzle.core.errors import ArtworkError
from fitzle.core.formats import CLIPS
from fitzle.core.motion.footage import Cut
from fitzle.core.motion.looped import check_loop, loop_of_clip, loop_of_drawing
from fitzle.core.motion.looping import better_loop

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace


class Proposal(NamedTuple):
    """A still that is proposed; `eyes` is None where no face tells whether they are open."""

    seconds: float
    score: float
    eyes: bool | None


MOST_STILLS = 40  # taken at a time


@contextmanager
def clip_of(artwork: Artwork) -> Iterator[OpenClip]:
    """The clip of an artwork, opened from the storage; Http404 for what is no clip."""
    if not usable(artwork):
        raise Http404("This is no clip.")
    with _opened(artwork) as clip:
        yield clip


@contextmanager
def _opened(artwork: Artwork, limits: Limits = DEFAULT_LIMITS) -> Iterator[OpenClip]:
    kept = open_checked(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256)
    with kept as file, opened_clip(cast("BinaryIO", file), limits) as clip:
        yield clip


def read_clip(artwork: Artwork, fmt: str, limits: Limits) -> tuple[ArtworkFacts, str]:
    """The facts of a clip and the format of its working copy, a frame from its beginning; keeps its filmstrip."""
    with _opened(artwork, limits) as clip:
        found = probe(clip, limits)
        strip = filmstrip(clip, found.seconds)
    keep(Shelf.WORKING, artwork.workspace_id, artwork.sha256, jpeg_of(at_most(found.poster.pixels, LONG_SIDE_PX)))
    keep(
        Shelf.STRIPS,
        artwork.workspace_id,
        f"{artwork.sha256}.jpg",
        jpeg_of(np.hstack([still.pixels for still in strip])),
    )
    keep(
        Shelf.STRIPS,
        artwork.workspace_id,
        f"{artwork.sha256}.json",
        json.dumps([one.seconds for one in strip]).encode(),
    )
    return clip_facts(found, fmt, artwork.bytes), "jpeg"


def propose_stills(artwork: Artwork) -> None:
    """Keeps the stills that are proposed, in the order of time."""
    with clip_of(artwork) as clip:
        found = proposed_stills(clip, artwork.known_facts["seconds"])
    entries = [{"seconds": one.seconds, "score": round(one.score, 3), "eyes": one.eyes} for one in found]
    keep(Shelf.STRIPS, artwork.workspace_id, f"{artwork.sha256}.stills.json", json.dumps(entries).encode())


def end_unproposed(artwork_id: UUID | str) -> None:
    """Ends the search for stills of a clip whose worker was ended: none is proposed, and no place waits any longer."""
    for clip in Artwork.objects.filter(pk=artwork_id):
        if proposals_of(clip) is None:
            keep(Shelf.STRIPS, clip.workspace_id, f"{clip.sha256}.stills.json", b"[]")
        Artwork.objects.filter(pk=clip.pk).update(targets=[])


def strip_seconds(artwork: Artwork) -> list[float]:
    """When the frames of the filmstrip are shown."""
    return list(json.loads(read(Shelf.STRIPS, artwork.workspace_id, f"{artwork.sha256}.json") or b"[]"))


def strip_picture(artwork: Artwork) -> bytes:
    """The frames of the filmstrip beside one another, as a JPEG."""
    data = read(Shelf.STRIPS, artwork.workspace_id, f"{artwork.sha256}.jpg")
    if data is None:
        raise Http404("There is no filmstrip of this.")
    return data


def proposals_of(artwork: Artwork) -> list[Proposal] | None:
    """The stills that are proposed; None while a worker still looks for them."""
    data = read(Shelf.STRIPS, artwork.workspace_id, f"{artwork.sha256}.stills.json")
    return None if data is None else [Proposal(**entry) for entry in json.loads(data)]


def best_moment(artwork: Artwork) -> float:
    """The moment of the still with the highest score; the beginning where none is proposed."""
    found = proposals_of(artwork) or []
    return max(found, key=lambda one: one.score).seconds if found else 0.0


def moment(artwork: Artwork, seconds: float, step: int) -> float:
    """When the frame is shown that is seen at a moment, or the one after (step 1) or before (-1) it."""
    with clip_of(artwork) as clip:
        frame = frame_at(clip, seconds)
        if step > 0:
            frame = next_frame(clip, seconds) or frame
        elif step < 0:
            frame = frame_before(clip, seconds) or frame
        return round(clip.seconds(frame.pts), 6)


def frame_picture(artwork: Artwork, seconds: float, width: int) -> Pixels:
    """The frame at a moment, at most `width` px wide: (h, w, 4), straight alpha."""
    still = _still(artwork, seconds)
    height, own = still.pixels.shape[:2]
    if own <= width:
        return still.pixels
    size = (width, max(1, round(height * width / own)))
    return np.asarray(cv2.resize(still.pixels, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)


def note_stills(
    clip: Artwork, user: User | None, moments: list[float], targets: list[str] | None = None
) -> list[Artwork]:
    """New artwork for frames of a clip, queued; a worker takes them out of it at full resolution."""
    stem = clip.name.rpartition(".")[0] or clip.name
    return [
        Artwork.objects.create(
            workspace=clip.workspace,
            name=f"{stem[:200]} at {clock(seconds)}.png",
            bytes=0,
            parent=clip,
            origin={"still": seconds},
            targets=targets or [],
            created_by=user,
        )
        for seconds in moments[:MOST_STILLS]
    ]


def best_near(clip: Artwork, begin: float, end: float) -> tuple[float, float]:
    """The ends of the part near this one, and as long, that closes best. Raises ValueOutOfRange."""
    with clip_of(clip) as opened:
        found = better_loop(opened, clip.name, begin, end, clip.known_facts["seconds"])
    return found.begin, found.end or end


def note_loop(parent: Artwork, user: User | None, cut: Cut) -> Artwork:
    """New artwork for a part of a clip or a drawn animation that plays as a loop, queued; a worker makes it.

    Raises ValueOutOfRange for a part that is not there, or that is too long.
    """
    check_loop(cut, parent.known_facts["seconds"])
    stem = parent.name.rpartition(".")[0] or parent.name
    end = parent.known_facts["seconds"] if cut.end is None else cut.end
    return Artwork.objects.create(
        workspace=parent.workspace,
        name=f"{stem[:180]} {clock(cut.begin)} to {clock(end)}.webp",
        bytes=0,
        parent=parent,
        origin={"loop": cut._replace(end=end)._asdict()},
        created_by=user,
    )


def loop_bytes(parent: Artwork, cut: dict[str, Any]) -> bytes:
    """A loop that was noted, as an animated WebP."""
    if is_drawn(parent):
        data = read(Shelf.ORIGINALS, parent.workspace_id, parent.sha256) or b""
        return loop_of_drawing(data, parent.name, Cut(**cut))
    with clip_of(parent) as clip:
        return loop_of_clip(clip, Cut(**cut))


def animation_bytes(artwork: Artwork) -> bytes:
    """The file of a Lottie animation that was read; Http404 for anything else."""
    data = read(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256) if is_drawn(artwork) else None
    if data is None:
        raise Http404("This is no animation of drawings.")
    return data


def is_drawn(artwork: Artwork) -> bool:
    """Whether it is a Lottie animation that was read."""
    return artwork.state == State.READY and bool(artwork.known_facts["format"] == "lottie")


def still_bytes(clip: Artwork, seconds: float) -> bytes:
    """The frame at a moment at full resolution, as a PNG."""
    return png_of(_still(clip, seconds).pixels)


def usable(artwork: Artwork) -> bool:
    """Whether it is a clip that was read and has frames; an animation of drawings (Lottie) has none yet."""
    return artwork.state == State.READY and artwork.known_facts["format"] in CLIPS


def usable_clip(workspace: Workspace, artwork_id: UUID | str) -> Artwork:
    """A clip of the workspace that was read; Http404 for anything else, ArtworkError while it is being read."""
    found = Artwork.objects.filter(workspace=workspace, pk=artwork_id).first()
    if found is not None and found.state in (State.QUEUED, State.READING):
        raise ArtworkError("this clip is not ready yet", advice="Wait until it is read.")
    if found is None or not usable(found):
        raise Http404("This is no clip.")
    return found


def playable(workspace: Workspace, artwork_id: UUID | str) -> Artwork:
    """A clip or a drawn animation of the workspace that was read; Http404 for anything else."""
    found = Artwork.objects.filter(workspace=workspace, pk=artwork_id).first()
    return found if found is not None and is_drawn(found) else usable_clip(workspace, artwork_id)


def clock(seconds: float) -> str:
    """Seconds as people read a clip's time: 1:02.40."""
    minutes, rest = divmod(round(seconds, 2), 60)
    return f"{int(minutes)}:{rest:05.2f}"


def _still(artwork: Artwork, seconds: float) -> Still:
    with clip_of(artwork) as clip:
        return still_of(clip, frame_at(clip, seconds))


def jpeg_of(pixels: Pixels) -> bytes:
    """Pixels (h, w, 4) as a JPEG; what is clear is black."""
    shown = pixels[..., :3] * (pixels[..., 3:] / 255)
    _, data = cv2.imencode(".jpg", shown[..., ::-1].astype(np.uint8), [cv2.IMWRITE_JPEG_QUALITY, JPEG_QUALITY])
    return data.tobytes()
