"""fitzle.toml, version 1, and the record of what was made of it. The format is described in docs/fitzle-toml.md."""

from __future__ import annotations

import tomllib
from pathlib import PurePosixPath
from typing import Annotated, Any, Literal, Self

from pydantic import AfterValidator, Field, model_validator

from fitzle.core.colour.srgb import HexColour
from fitzle.core.documents import read_document, validated
from fitzle.core.errors import DocumentError
from fitzle.core.findings import Frozen
from fitzle.core.formats import Format

VERSION = 1
NAME, RECORD = "fitzle.toml", "fitzle-build.json"
MOST_TARGETS = 5000
Name = Annotated[str, Field(min_length=1, max_length=200)]


def _inside(text: str) -> str:
    """A path below the folder, written with slashes."""
    parts = PurePosixPath(text).parts
    if PurePosixPath(text).is_absolute() or ".." in parts or "\\" in text or not text.isprintable():
        raise ValueError("should be a path below the folder of fitzle.toml, with slashes")
    return text


FilePath = Annotated[str, Field(min_length=1, max_length=400), AfterValidator(_inside)]


class Picture(Frozen):
    """One picture: an artwork or a piece, for a place. `file` is its path in the output folder without the ending.

    `place` names an entry of `places`, the file of a sheet, or says it in words. `accept` are rules whose findings are
    right as they are here.
    """

    artwork: Name | None = None
    piece: FilePath | None = None
    place: Name
    file: FilePath | None = None
    mode: Literal["fill", "whole"] | None = None
    focus: Annotated[tuple[float, float], Field()] | None = None
    padding: str | None = None
    centring: Literal["box", "weight"] = "box"
    ground: HexColour | Literal["none"] | None = None
    tint: HexColour | None = None
    subject: Annotated[str, Field(max_length=120)] = ""
    take: str = ""
    row: dict[str, Any] = {}
    format: Format | None = None
    chroma: Literal["4:4:4", "4:2:0"] | None = None
    quality: Annotated[int, Field(ge=1, le=100)] | None = None
    colours: Annotated[int, Field(ge=2, le=256)] | None = None
    accept: tuple[str, ...] = ()

    @model_validator(mode="after")
    def _of_one_thing(self) -> Self:
        if (self.artwork is None) == (self.piece is None):
            raise ValueError("a picture is made of an artwork or of a piece: name one of them")
        return self


class Icons(Frozen):
    """A site's icon set, written into a folder of the output."""

    mark: Name
    dark: Name | None = None
    ground: HexColour | None = None
    path: str = "/"
    title: Annotated[str, Field(max_length=120)] = ""
    folder: FilePath = "icons"
    accept: tuple[str, ...] = ()


class RunOf(Frozen):
    """A piece for every row of a table, in each of some places. `pictures` is the folder of the files that cells name,
    beside or below the piece; `name` what files are called, below `folder` of the output.
    """

    piece: FilePath
    table: FilePath
    places: Annotated[tuple[Name, ...], Field(min_length=1, max_length=100)]
    pictures: FilePath | None = None
    name: Annotated[str, Field(min_length=1, max_length=200)] = "{subject}-{row}_{width}x{height}"
    folder: Annotated[str, Field(max_length=400), AfterValidator(_inside)] = ""
    accept: tuple[str, ...] = ()


class Build(Frozen):
    """Everything that is to be made. `artwork` and `places` give names to files and to words."""

    fitzle: Literal[1]
    out: FilePath = "pictures"
    house: Annotated[tuple[HexColour, ...], Field(max_length=24)] = ()
    artwork: dict[Name, FilePath] = {}
    places: dict[Name, Name] = {}
    picture: Annotated[tuple[Picture, ...], Field(max_length=MOST_TARGETS)] = ()
    run: Annotated[tuple[RunOf, ...], Field(max_length=100)] = ()
    icons: Annotated[tuple[Icons, ...], Field(max_length=100)] = ()


class BuiltTarget(Frozen):
    """What was made of one target: what it followed from, what the rules said, its files with their SHA-256."""

    key: str
    verdict: Literal["fits", "note", "risky", "refused"]
    findings: tuple[str, ...] = ()
    files: dict[str, str] = {}


class Record(Frozen):
    """What was made, by target: kept beside the files, so that what did not change is left alone."""

    fitzle_build: Literal[1] = 1
    targets: dict[str, BuiltTarget] = {}


def read_build(text: bytes, subject: str = NAME) -> Build:
    """A fitzle.toml; raises DocumentError in plain words."""
    try:
        data = tomllib.loads(text.decode())
    except (tomllib.TOMLDecodeError, UnicodeDecodeError) as error:
        raise DocumentError(f"this is no valid TOML: {error}", subject=subject) from error
    stated = data.get("fitzle")
    if stated is None:
        raise DocumentError("this is no list of pictures", subject=subject, advice="It needs the line: fitzle = 1")
    if isinstance(stated, int) and stated > VERSION:
        raise DocumentError(
            f"this list is of version {stated}; this Fitzle reads up to version {VERSION}", subject=subject,
            advice="Update Fitzle.",
        )  # fmt: skip
    return validated(Build, data, subject=subject, noun="list of pictures")


def read_record(text: bytes) -> Record:
    """A record of what was made; an empty one where it cannot be read, so that all is made anew."""
    try:
        return read_document(Record, text, key="fitzle_build", version=1, subject=RECORD, noun="record")
    except DocumentError:
        return Record()


def build_schema() -> dict[str, Any]:
    """The JSON Schema of fitzle.toml."""
    return Build.model_json_schema()
