"""What any file that can be brought in really is: pictures, marks, clips, documents."""

from __future__ import annotations

import io
from typing import BinaryIO

import numpy as np

from fitzle.core.artwork import measuring
from fitzle.core.artwork.clips.opening import opened_clip
from fitzle.core.artwork.clips.probing import ClipFacts, probe
from fitzle.core.artwork.detail import detail_share
from fitzle.core.artwork.facts import AlphaKind, ArtworkFacts, Trimmed, Weight
from fitzle.core.artwork.judging import brightness
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.lottie import read_lottie
from fitzle.core.artwork.reading import read_and_judge
from fitzle.core.artwork.sniff import SNIFFED_BYTES, sniff_format
from fitzle.core.colour.main_colours import main_colours
from fitzle.core.errors import FitzleError
from fitzle.core.formats import CLIPS

COLOUR_STEP = 4  # every fourth px in both directions is enough to count colours


def inspected(file: BinaryIO, name: str, limits: Limits = DEFAULT_LIMITS) -> ArtworkFacts:
    """The facts of a seekable file. Raises ArtworkError, LimitError or HostileFileError, each about `name`."""
    fmt = sniff_format(file.read(SNIFFED_BYTES))
    file.seek(0)
    if fmt == "lottie":
        return read_lottie(file.read(limits.max_lottie_bytes + 1), name, limits)
    if fmt not in CLIPS:
        facts = read_and_judge(file.read(limits.max_bytes + 1), name, limits).facts
        return facts.model_copy(update={"kind": "document"}) if fmt == "pdf" else facts
    try:
        with opened_clip(file, limits) as clip:
            found = probe(clip, limits)
        return clip_facts(found, fmt, file.seek(0, io.SEEK_END))
    except FitzleError as error:
        raise error.about(name) from error


def clip_facts(clip: ClipFacts, fmt: str, count: int) -> ArtworkFacts:
    """A clip's facts; what depends on pixels is that of one frame from its beginning."""
    pixels = clip.poster.pixels
    sample = pixels[::COLOUR_STEP, ::COLOUR_STEP]
    opaque = sample[sample[..., 3] >= 128][:, :3]
    transparency: AlphaKind = measuring.alpha_kind(pixels[..., 3])  # type: ignore[assignment]
    everything = np.ones(pixels.shape[:2], dtype=bool)
    detail = round(max(clip.width, clip.height) * detail_share(brightness(pixels)))
    return ArtworkFacts(
        kind="clip",
        format=fmt,
        bytes=count,
        width=clip.width,
        height=clip.height,
        vector=False,
        trimmed=Trimmed(x=0, y=0, width=clip.width, height=clip.height),
        transparency=transparency,
        colours=main_colours(opaque),
        edge_colours=main_colours(pixels[measuring.outline_mask(everything)][:, :3]),
        backdrop_colour=None,
        weight=Weight(x=0.5, y=0.5),
        reach=1.0,
        frames=max(1, round(clip.seconds * clip.fps)),
        detail_px=detail,
        crisp_px=detail,
        crisp_dense_px=detail / 2,
        seconds=clip.seconds,
        fps=clip.fps,
        rotation=clip.rotation,
        has_alpha=clip.has_alpha,
        warnings=_clip_warnings(clip),
    )


def _clip_warnings(clip: ClipFacts) -> tuple[str, ...]:
    found = []
    if not clip.whole:
        found.append("Its end is missing: the file was cut off. What is there can be used.")
    if clip.rotation:
        found.append(f"It is kept turned by {clip.rotation}°; Fitzle shows it upright.")
    return tuple(found)
