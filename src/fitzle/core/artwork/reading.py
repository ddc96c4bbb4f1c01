"""One entrance for every file that is brought in: bytes to an Artwork with its facts, or an error in plain words."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import NamedTuple

import numpy as np

from fitzle.core.artwork import measuring
from fitzle.core.artwork.decoding import Ahead, decoded
from fitzle.core.artwork.facts import FEW_COLOURS, FLAT_COLOURS_SHARE, AlphaKind, ArtworkFacts, Kind, Trimmed, Weight
from fitzle.core.artwork.judging import faces_of, with_detail
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.opening import check_weight, known_format, open_bitmap
from fitzle.core.artwork.own_colours import own_colours
from fitzle.core.artwork.pages import PageSource, page_count, page_of
from fitzle.core.artwork.sniff import READABLE
from fitzle.core.artwork.sources import BitmapSource, Pixels, Source, VectorSource
from fitzle.core.artwork.straight import straight
from fitzle.core.artwork.svg_packed import unpacked_svg
from fitzle.core.artwork.svg_size import svg_frame
from fitzle.core.artwork.unreadable import unreadable
from fitzle.core.colour.main_colours import ColourShare, main_colours
from fitzle.core.colour.srgb import Rgb
from fitzle.core.errors import FitzleError
from fitzle.core.formats import format_of_extension, label_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.libvips import libvips
from fitzle.core.units import Size

SURVEY_LONG_SIDE_PX = 512  # colours and outlines are surveyed at this size
VECTOR_SURVEY_PX = 1024
COLOUR_STEP = 2  # every second px in both directions is enough to count colours


class Artwork(NamedTuple):
    """A file that was read: its facts and the source of its pixels."""

    name: str
    facts: ArtworkFacts
    source: Source


def _nothing(_source: Source) -> None:
    """What is done with a source as soon as it is open, where nobody waits for it."""


def read_artwork(
    data: bytes,
    name: str,
    limits: Limits = DEFAULT_LIMITS,
    opened: Callable[[Source], None] = _nothing,
    ahead: Ahead | None = None,
) -> Artwork:
    """Reads and surveys a file; `opened` is called with its source as soon as it can be drawn.

    `ahead` is the overview of a bitmap that is being decoded already.

    Raises ArtworkError (unreadable, cut off, unknown format), LimitError (too large; found before decoding) or
    HostileFileError, each about `name`.
    """
    try:
        check_weight(data, limits)
        unpacked = unpacked_svg(data, limits)
        fmt = known_format(unpacked, limits)
        warnings = _naming_warnings(name, fmt)
        if fmt == "svg":
            return _read_svg(unpacked, len(data), name, limits, warnings)
        if fmt == "pdf":
            return _read_page(data, name, limits, warnings)
        source = open_bitmap(data, fmt, limits, ahead)
        opened(source)
        return _read_bitmap(source, name, limits, warnings)
    except FitzleError as error:
        raise error.about(name) from error


def read_and_judge(
    data: bytes, name: str, limits: Limits = DEFAULT_LIMITS, opened: Callable[[Source], None] = _nothing
) -> Artwork:
    """As `read_artwork`, with the figures that take a longer look: the detail it carries, what JPEG did, its faces.

    Detail and faces are looked at side by side, on two cores: decoders, OpenCV and the network let go of the lock.
    """
    artwork = read_artwork(data, name, limits, opened)
    source, facts = artwork.source, artwork.facts
    if not isinstance(source, BitmapSource) and not (isinstance(source, PageSource) and not source.vector):
        return artwork
    try:
        with ThreadPoolExecutor(1) as beside:
            faces = beside.submit(faces_of, source) if facts.kind == "picture" else None
            judged = with_detail(facts, data, source)
            return artwork._replace(facts=judged.model_copy(update={"faces": faces.result()}) if faces else judged)
    except FitzleError as error:
        raise error.about(name) from error


def _naming_warnings(name: str, fmt: str) -> list[str]:
    extension = name.rpartition(".")[2].lower() if "." in name else ""
    stated = {"apng": "png", "svgz": "svg"}.get(extension) or format_of_extension(extension)
    if stated in READABLE and stated != fmt:
        return [f"It is called .{extension} but is really a {label_of(fmt)}."]
    return []


def _read_bitmap(source: BitmapSource, name: str, limits: Limits, warnings: list[str]) -> Artwork:
    fmt, frames = source.format, source.frames
    if frames > 1:
        warnings.append(f"It has {frames} frames; the first one stands where nothing may move.")
    survey = straight(source.pixels(Rect(0, 0, source.width, source.height), _survey_size(source)))
    opaque = bool(survey[..., 3].min() == 255)
    backdrop = measuring.backdrop_colour(survey) if opaque else None
    extent = _bitmap_extent(source, backdrop if opaque else None, opaque)
    facts = _facts(fmt, len(source.data), source, survey, backdrop, extent, warnings, frames)
    return Artwork(name, facts, source)


def _bitmap_extent(source: BitmapSource, backdrop: Rgb | None, opaque: bool) -> measuring.Extent | None:
    pyvips = libvips()
    step = measuring.backdrop_step(source.format)
    if opaque and backdrop is None:
        return measuring.Extent(Rect(0, 0, source.width, source.height), 0.5, 0.5)
    try:
        return measuring.extent_of_image(decoded(source.data, source.format, source.upright), backdrop, step)
    except pyvips.Error as error:
        raise unreadable(error) from error


def _read_svg(data: bytes, count: int, name: str, limits: Limits, warnings: list[str]) -> Artwork:
    from fitzle.core.artwork.svg_cost import check_cost
    from fitzle.core.artwork.svg_sanitise import sanitised_svg  # loads lxml
    from fitzle.core.artwork.svg_wrapped import wrapped_bitmap_px

    root = sanitised_svg(data, limits, warnings)
    frame = svg_frame(root)
    check_cost(root, frame.view.width, limits)
    wrapped = wrapped_bitmap_px(root)
    if wrapped:
        warnings.append(f"It is called a vector but only wraps a bitmap that is {wrapped} px long.")
    found = _read_drawn(VectorSource(root, frame), "svg", count, name, warnings)
    if not wrapped:
        return found
    crisp = {"vector": False, "detail_px": wrapped, "crisp_px": wrapped, "crisp_dense_px": wrapped / 2}
    return found._replace(facts=found.facts.model_copy(update=crisp))


def _read_page(data: bytes, name: str, limits: Limits, warnings: list[str]) -> Artwork:
    pages = page_count(data, limits)
    if pages > 1:
        warnings.append(f"It has {pages} pages; the first one is used.")
    found = _read_drawn(page_of(data, 0, limits), "pdf", len(data), name, warnings)
    return found._replace(facts=found.facts.model_copy(update={"pages": pages}))


def _read_drawn(source: VectorSource | PageSource, fmt: str, count: int, name: str, warnings: list[str]) -> Artwork:
    """What is drawn anew at each size: surveyed larger, since nothing is lost by it."""
    size = _survey_size(source, VECTOR_SURVEY_PX)
    survey = straight(source.pixels(Rect(0, 0, source.width, source.height), size))
    opaque = bool(survey[..., 3].min() == 255)
    backdrop = measuring.backdrop_colour(survey) if opaque else None
    extent = measuring.extent_of_pixels(_without_backdrop(survey, backdrop))
    if extent:
        extent = extent._replace(box=extent.box.scaled(source.width / size.width))
    return Artwork(name, _facts(fmt, count, source, survey, backdrop, extent, warnings, 1), source)


def _without_backdrop(pixels: Pixels, backdrop: Rgb | None) -> Pixels:
    if backdrop is None:
        return pixels
    shown = pixels.copy()
    shown[..., 3] = np.where(measuring.shown_mask(pixels, backdrop), 255, 0)
    return shown


def _facts(
    fmt: str,
    count: int,
    source: Source,
    survey: Pixels,
    backdrop: Rgb | None,
    extent: measuring.Extent | None,
    warnings: list[str],
    frames: int,
) -> ArtworkFacts:
    if extent is None:
        warnings.append("It is empty: nothing in it shows.")
        extent = measuring.Extent(Rect(0, 0, source.width, source.height), 0.5, 0.5)
    vector = isinstance(source, VectorSource) or (isinstance(source, PageSource) and source.vector)
    mask = measuring.shown_mask(survey, backdrop, measuring.backdrop_step(fmt))
    outline = survey[measuring.outline_mask(mask)][:, :3]
    sample = survey[::COLOUR_STEP, ::COLOUR_STEP]
    colours = main_colours(sample[sample[..., 3] >= 128][:, :3])
    transparency: AlphaKind = measuring.alpha_kind(survey[..., 3])  # type: ignore[assignment]
    kind = _kind(vector, transparency, backdrop, colours)
    x, y, width, height = (round(figure, 3) for figure in extent.box)
    return ArtworkFacts(
        kind=kind,
        format=fmt,
        bytes=count,
        width=round(source.width, 3),
        height=round(source.height, 3),
        vector=vector,
        trimmed=Trimmed(x=x, y=y, width=width, height=height),
        transparency=transparency,
        colours=own_colours(survey) if kind == "mark" else colours,
        edge_colours=main_colours(outline),
        backdrop_colour=measuring.hex_or_none(backdrop),
        weight=Weight(x=round(extent.weight_x, 4), y=round(extent.weight_y, 4)),
        reach=measuring.reach(mask),
        frames=frames,
        has_alpha=transparency != "none",
        warnings=tuple(warnings),
    )


def _kind(vector: bool, transparency: AlphaKind, backdrop: Rgb | None, colours: tuple[ColourShare, ...]) -> Kind:
    flat = sum(entry.share for entry in colours[:FEW_COLOURS]) >= FLAT_COLOURS_SHARE
    if vector and (transparency != "none" or flat):
        return "mark"
    if transparency != "none" or (backdrop is not None and flat):
        return "mark"
    return "picture"


def _survey_size(source: Source, long_side_px: int = SURVEY_LONG_SIDE_PX) -> Size:
    drawn = isinstance(source, VectorSource | PageSource)
    scale = long_side_px / max(source.width, source.height)
    scale = scale if drawn else min(1.0, scale)
    return Size(max(1, round(source.width * scale)), max(1, round(source.height * scale)))
