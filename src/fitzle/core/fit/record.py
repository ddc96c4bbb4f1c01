"""What is kept of a file that was made: its files by content, what was tried, and how it came out."""

from __future__ import annotations

import hashlib
from typing import Literal

from fitzle.core.encode.result import Candidate, Choice, Encoded, MovingLooks, MovingReading, Problem, Remedy, SideFile
from fitzle.core.encode.settings import Settings
from fitzle.core.findings import Finding, Frozen, Where
from fitzle.core.formats import Format
from fitzle.core.units import Size


class FileRecord(Frozen):
    """One file of a rendition, kept under its SHA-256; sizes in px and bytes. The first one is the file itself."""

    sha256: str
    bytes: int
    format: Format
    width: int
    height: int
    settings: Settings
    score: float

    @property
    def size(self) -> Size:
        """Width and height in px."""
        return Size(self.width, self.height)


class SideRecord(Frozen):
    """A file of a set beside the first one, kept under its SHA-256; see `SideFile`."""

    name: str
    media_type: str
    sha256: str
    bytes: int
    width: int = 0
    height: int = 0
    use: Literal["file", "proof"] = "file"


class CandidateRecord(Frozen):
    """One file that was tried."""

    format: Format
    settings: Settings
    bytes: int
    score: float | None = None
    seconds: float | None = None


class Outcome(Frozen):
    """How making the file came out.

    `made`: there is a file, or `problem` says why no file can be; `failed`: something went wrong on our side, and
    `message` says what.
    """

    kind: Literal["made", "failed"] = "made"
    problem: Problem = ""
    message: str = ""
    ended_early: bool = False
    budget_seconds: float = 0.0
    remedies: tuple[Remedy, ...] = ()
    worst: Where | None = None
    found: tuple[Finding, ...] = ()
    moving: MovingReading | None = None
    looks: MovingLooks | None = None


class RenditionRecord(Frozen):
    """A rendition: what one file key stands for. `beside` are the other files of a set."""

    files: tuple[FileRecord, ...] = ()
    beside: tuple[SideRecord, ...] = ()
    candidates: tuple[CandidateRecord, ...] = ()
    outcome: Outcome = Outcome()

    @property
    def contents(self) -> frozenset[str]:
        """The hashes of all files that are handed over."""
        return frozenset([*(one.sha256 for one in self.files[:1]), *(one.sha256 for one in self.in_the_set)])

    @property
    def in_the_set(self) -> tuple[SideRecord, ...]:
        """The files beside the first one that are handed over with it."""
        return tuple(one for one in self.beside if one.use == "file")


def record_of(choice: Choice, size: Size) -> RenditionRecord:
    """What is kept of a choice."""
    files = (_file(choice.best, size),) if choice.best else ()
    candidates = tuple(CandidateRecord(**entry._asdict()) for entry in choice.candidates)
    outcome = Outcome(
        problem=choice.problem,
        ended_early=choice.ended_early,
        budget_seconds=choice.budget_seconds,
        remedies=choice.remedies,
        worst=choice.worst,
        found=choice.found,
        moving=choice.moving,
        looks=choice.looks,
    )
    beside = tuple(_beside(one) for one in choice.beside)
    return RenditionRecord(files=files, beside=beside, candidates=candidates, outcome=outcome)


def choice_of(record: RenditionRecord, data: bytes = b"") -> Choice:
    """The choice that a record was made of, with the bytes of its file where somebody read them."""
    best = None
    if record.files:
        first = record.files[0]
        best = Encoded(data, first.format, first.settings, first.score)
    candidates = [Candidate(**dict(entry)) for entry in record.candidates]
    outcome = record.outcome
    early, seconds = outcome.ended_early, outcome.budget_seconds
    return Choice(
        best, candidates, outcome.problem, early, seconds, outcome.remedies, outcome.worst, found=outcome.found,
        moving=outcome.moving, looks=outcome.looks,
    )  # fmt: skip


def failed(message: str) -> RenditionRecord:
    """What is kept where making the file went wrong on our side."""
    return RenditionRecord(outcome=Outcome(kind="failed", message=message))


def _file(found: Encoded, size: Size) -> FileRecord:
    size = found.size(size)
    return FileRecord(
        sha256=hashlib.sha256(found.data).hexdigest(), bytes=len(found.data), format=found.format, width=size.width,
        height=size.height, settings=found.settings, score=found.score,
    )  # fmt: skip


def _beside(one: SideFile) -> SideRecord:
    return SideRecord(
        name=one.name, media_type=one.media_type, sha256=hashlib.sha256(one.data).hexdigest(), bytes=len(one.data),
        width=one.width, height=one.height, use=one.use,
    )  # fmt: skip
