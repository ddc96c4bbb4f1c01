"""What workspace.json in an export holds: docs/workspace-export.md has it in words."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fitzle.apps.artwork.portable import PortableArtwork
from fitzle.apps.deliveries.portable import PortableDelivery
from fitzle.apps.destinations.portable import PortableDestination
from fitzle.apps.pieces.portable import PortablePiece, PortableShared
from fitzle.core.colour.srgb import HexColour

NAME = "workspace.json"
VERSION = 1


class PortableColour(BaseModel):
    """A colour of the house."""

    name: Annotated[str, Field(max_length=60)] = ""
    hex: HexColour


class PortableHouse(BaseModel):
    """The house style."""

    colours: Annotated[list[PortableColour], Field(max_length=16)] = []
    heading: Annotated[str, Field(max_length=80)] = ""
    text: Annotated[str, Field(max_length=80)] = ""
    naming: Annotated[str, Field(max_length=200)] = ""


class PortableWorkspace(BaseModel):
    """Everything but the bytes: originals/HASH are the artwork's files, record/… what was handed over."""

    fitzle_workspace: Literal[1]
    name: Annotated[str, Field(min_length=1, max_length=120)]
    house: PortableHouse = PortableHouse()
    destinations: Annotated[list[PortableDestination], Field(max_length=1000)] = []
    artwork: Annotated[list[PortableArtwork], Field(max_length=100_000)] = []
    pieces: Annotated[list[PortablePiece], Field(max_length=100_000)] = []
    shared_files: Annotated[list[PortableShared], Field(max_length=1000)] = []
    deliveries: Annotated[list[PortableDelivery], Field(max_length=100_000)] = []
