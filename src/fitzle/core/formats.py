"""File formats: one table of what each is called, how it is stored and what it can hold.

Formats that are recognised but can neither be read nor written are in it too, so that they can be named to a person.
"""

from __future__ import annotations

from typing import Literal, NamedTuple

from fitzle.core.errors import ValueOutOfRange

Format = Literal[  # a sheet may ask for
    "png", "jpeg", "webp", "avif", "gif", "apng", "bmp", "ico", "svg", "lottie", "mp4", "webm"
]


class FileFormat(NamedTuple):
    """One format.

    `alpha` says whether a file can be transparent, `frames` whether it can move, `vector` whether it is drawn anew at
    any size; `longest_side_px` is the format's own limit; `pillow` what the library Pillow calls it.
    """

    name: str
    label: str
    extension: str
    media_type: str
    kind: Literal["picture", "clip", "document", "animation", "archive"]
    alpha: bool = False
    frames: bool = False
    vector: bool = False
    longest_side_px: int | None = None
    pillow: str | None = None
    other_extensions: tuple[str, ...] = ()


_TABLE = (
    FileFormat("png", "PNG", "png", "image/png", "picture", alpha=True, pillow="PNG"),
    FileFormat("apng", "animated PNG", "png", "image/apng", "picture", alpha=True, frames=True, pillow="PNG"),
    FileFormat("jpeg", "JPEG", "jpg", "image/jpeg", "picture", longest_side_px=65_535, pillow="JPEG",
               other_extensions=("jpeg", "jpe", "jfif")),
    FileFormat("webp", "WebP", "webp", "image/webp", "picture", alpha=True, frames=True, longest_side_px=16_383,
               pillow="WEBP"),
    FileFormat("gif", "GIF", "gif", "image/gif", "picture", alpha=True, frames=True, longest_side_px=65_535,
               pillow="GIF"),
    FileFormat("bmp", "BMP", "bmp", "image/bmp", "picture", pillow="BMP", other_extensions=("dib",)),
    FileFormat("svg", "SVG", "svg", "image/svg+xml", "picture", alpha=True, vector=True),
    FileFormat("ico", "ICO", "ico", "image/x-icon", "picture", alpha=True, longest_side_px=256, pillow="ICO"),
    FileFormat("avif", "AVIF", "avif", "image/avif", "picture", alpha=True, frames=True, longest_side_px=65_536,
               pillow="AVIF"),
    FileFormat("heic", "HEIC", "heic", "image/heic", "picture", other_extensions=("heif",)),
    FileFormat("tiff", "TIFF", "tiff", "image/tiff", "picture", alpha=True, other_extensions=("tif",)),
    FileFormat("pdf", "PDF", "pdf", "application/pdf", "document", vector=True),
    FileFormat("mp4", "MP4 video", "mp4", "video/mp4", "clip", frames=True, other_extensions=("m4v",)),
    FileFormat("mov", "MOV video", "mov", "video/mp4", "clip", frames=True, other_extensions=("qt",)),
    FileFormat("webm", "WebM video", "webm", "video/webm", "clip", frames=True),
    FileFormat("mkv", "Matroska video", "mkv", "video/webm", "clip", frames=True),
    FileFormat("lottie", "Lottie animation", "json", "application/json", "animation", alpha=True, frames=True,
               vector=True),
    FileFormat("zip", "ZIP archive", "zip", "application/zip", "archive"),
    FileFormat("gzip", "gzip archive", "gz", "application/gzip", "archive"),
)  # fmt: skip

FORMATS: dict[str, FileFormat] = {entry.name: entry for entry in _TABLE}
_TEXTS = {"webmanifest": "application/manifest+json", "html": "text/html"}
VIDEOS: tuple[Format, ...] = ("mp4", "webm")  # without sound
MOVING: tuple[Format, ...] = ("gif", "apng", "webp", "avif", *VIDEOS)  # in which moving files are made of frames
DRAWN: tuple[Format, ...] = ("lottie",)  # in which they are made of parts
ALWAYS_MOVING = (*VIDEOS, *DRAWN)
PLAYED = ("gif", "apng", "webp", "avif", "png")  # as artwork; an animated PNG that was brought in is called a PNG
CLIPS = tuple(entry.name for entry in _TABLE if entry.kind == "clip")


def holds_size(name: str, width: int, height: int) -> bool:
    """Whether a format can have this size in px: videos keep colours for every second px."""
    return name not in VIDEOS or (width % 2 == 0 and height % 2 == 0)


def format_named(name: str) -> FileFormat:
    """One format; raises ValueOutOfRange when there is none of this name."""
    found = FORMATS.get(name)
    if found is None:
        raise ValueOutOfRange("there is no such format", expected=", ".join(FORMATS), actual=repr(name))
    return found


def media_type_of(name: str) -> str:
    """The media type of a format, or of one of the texts that come with an icon set."""
    return _TEXTS.get(name) or format_named(name).media_type


def label_of(name: str) -> str:
    """What people call a format."""
    return format_named(name).label


def format_of_extension(extension: str) -> str | None:
    """The format that a file's ending (with or without its dot) stands for, or None; `.png` is a still PNG."""
    plain = extension.lower().removeprefix(".")
    return next((entry.name for entry in _TABLE if plain in (entry.extension, *entry.other_extensions)), None)
