"""What the search for a file tried and found."""

from __future__ import annotations

from typing import Literal, NamedTuple

from fitzle.core.encode.settings import MovingSettings, Settings
from fitzle.core.findings import Finding, Frozen, Where
from fitzle.core.formats import Format
from fitzle.core.units import Size

Problem = Literal["", "no format", "over limit", "useless"]


class Candidate(NamedTuple):
    """One file that was tried: format, settings, bytes, its SSIMULACRA2 score where it was compared, and the seconds
    that encoding it took.
    """

    format: Format
    settings: Settings
    bytes: int
    score: float | None = None
    seconds: float | None = None


class Encoded(NamedTuple):
    """A file: its bytes, format, settings and SSIMULACRA2 score (100: nothing was lost)."""

    data: bytes
    format: Format
    settings: Settings
    score: float

    def size(self, drawn: Size) -> Size:
        """In px, of a picture that was drawn in a size: a moving one may have been made smaller."""
        return (isinstance(self.settings, MovingSettings) and self.settings.size) or drawn

    @property
    def candidate(self) -> Candidate:
        """As one line of what was tried."""
        return Candidate(self.format, self.settings, len(self.data), self.score)


class SideFile(NamedTuple):
    """A file that comes with the one that was asked for; width and height in px, 0 for text.

    `use`: a `file` is handed over under its name, a `proof` only shows what people will see.
    """

    name: str
    media_type: str
    data: bytes
    width: int = 0
    height: int = 0
    use: Literal["file", "proof"] = "file"


class Remedy(Frozen):
    """A change that was tried: the repair that makes it (none: nobody can click it), what it is and its score then."""

    name: str
    words: str
    score: float


class ReadingTime(Frozen):
    """Words of a moving picture: for how many seconds they are wholly in, and how many reading them takes."""

    part: str
    words: str
    there: float
    needed: float


class MovingLooks(Frozen):
    """SSIMULACRA2 over sampled frames: `mean`, and of the `worst` tenth; `smoothness` of 0 to 100."""

    mean: float
    worst: float
    smoothness: float


class MovingReading(Frozen):
    """The figures of a loop: flashes a second (general and of saturated red), how much the first frame shows of what
    the fullest one does (0 to 1), and the largest step from frame to frame in shares of the diagonal. `unsaid` is what
    the file leaves out, `bitmaps` which parts are bitmaps inside of it, both of a Lottie animation.
    """

    seconds: float
    frames: int
    flashes: float
    red_flashes: float
    first_frame: float
    step: float
    reading: tuple[ReadingTime, ...] = ()
    unsaid: tuple[str, ...] = ()
    bitmaps: tuple[str, ...] = ()

    @property
    def fps(self) -> float:
        """Frames a second."""
        return self.frames / self.seconds


class Choice(NamedTuple):
    """The file, or None with the problem, and everything that was tried.

    `ended_early` says that the search had `budget_seconds` and used them up. Of a file that looks bad `worst` is where
    it lost most, and `remedies` are what would help, the best first. `beside` are the other files of a set, `found`
    what there is to say of them. `moving` are the figures of a file that moves.
    """

    best: Encoded | None
    candidates: list[Candidate]
    problem: Problem = ""
    ended_early: bool = False
    budget_seconds: float = 0.0
    remedies: tuple[Remedy, ...] = ()
    worst: Where | None = None
    beside: tuple[SideFile, ...] = ()
    found: tuple[Finding, ...] = ()
    moving: MovingReading | None = None
    looks: MovingLooks | None = None


def best_score(choice: Choice, limit: int) -> float:
    """The score of the best file under a limit, delivered or not; 0 where none was scored."""
    if choice.best:
        return choice.best.score
    return max((one.score for one in choice.candidates if one.score is not None and one.bytes <= limit), default=0.0)


NOTHING_TRIED = Choice(None, [])


def best_of(found: list[Encoded]) -> Encoded | None:
    """The highest score; of equals the smaller file."""
    return max(found, key=lambda entry: (entry.score, -len(entry.data)), default=None)
