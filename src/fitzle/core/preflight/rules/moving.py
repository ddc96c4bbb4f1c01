"""What moves so that it hurts, is not read, or is missing where only the first frame is shown."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from fitzle.core.encode.result import MovingReading
from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule

MOST_FLASHES = 3  # in a second: WCAG 2.2, success criterion 2.3.1
LEAST_SHOWN = 0.3  # of the contours of the fullest frame: below that the first one looks empty
LONGEST_STEP, CHOPPY_FPS = 0.04, 12.0
LONGEST_QUOTED = 40


def _of(evidence: Evidence) -> Iterator[MovingReading]:
    if evidence.choice.moving:
        yield evidence.choice.moving


def _flashing(evidence: Evidence) -> list[Finding]:
    found = []
    for one in _of(evidence):
        for count, what in ((one.flashes, "It flashes"), (one.red_flashes, "Saturated red flashes")):
            if count > MOST_FLASHES:
                message = f"{what} {count:g} times in a second; more than {MOST_FLASHES} can cause seizures."
                found.append(
                    Finding(
                        rule="flash", severity="risky", message=message, measured=f"{count:g} a second",
                        limit=f"{MOST_FLASHES} a second",
                    )
                )  # fmt: skip
    return found[:1]


def _too_short_to_read(evidence: Evidence) -> list[Finding]:
    return [
        Finding(
            rule="reading-time", severity="risky", measured=f"{words.there:g} s", limit=f"{words.needed:g} s",
            message=f"“{_quoted(words.words)}” is in for {words.there:g} s; reading it takes {words.needed:g} s.",
            part=words.part, where=evidence.where(words.part),
        )
        for one in _of(evidence)
        for words in one.reading
        if words.there < words.needed - 0.005
    ]  # fmt: skip


def _quoted(words: str) -> str:
    return words if len(words) <= LONGEST_QUOTED else f"{words[: LONGEST_QUOTED - 1].rstrip()}…"


def _empty_first_frame(evidence: Evidence) -> list[Finding]:
    return [
        Finding(
            rule="first-frame", severity="risky", measured=f"{one.first_frame:.0%}", limit=f"{LEAST_SHOWN:.0%}",
            message="The first frame is nearly empty, and many places show only that one.",
        )
        for one in _of(evidence)
        if one.first_frame < LEAST_SHOWN
    ]  # fmt: skip


def _strobing(evidence: Evidence) -> list[Finding]:
    return [
        Finding(
            rule="strobing", severity="note", measured=f"{one.fps:.3g} frames a second",
            limit=f"{CHOPPY_FPS:g} frames a second",
            message=f"It jumps by {one.step:.0%} of its diagonal from frame to frame: slower movement looks smoother.",
        )
        for one in _of(evidence)
        if one.fps < CHOPPY_FPS and one.step > LONGEST_STEP
    ]  # fmt: skip


def _left_out(evidence: Evidence) -> list[Finding]:
    """What an animation cannot say; parts that are bitmaps inside look right but are not sharp at every size."""
    found = []
    for one in _of(evidence):
        told = [f"It leaves out {_listed(one.unsaid)}."] if one.unsaid else []
        if one.bitmaps:
            ids = [f"“{name}”" for name in one.bitmaps]
            told.append(f"{_listed(ids)} {'is a bitmap' if len(ids) == 1 else 'are bitmaps'} inside.")
        found += [Finding(rule="left-out", severity="note", message=" ".join(told))] if told else []
    return found


def _listed(words: Sequence[str]) -> str:
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


RULES = (
    Rule("left-out", "file", _left_out, lambda _one: "cannot say all of it"),
    Rule("flash", "file", _flashing, lambda one: f"flashes, {one.measured}"),
    Rule("reading-time", "file", _too_short_to_read, lambda one: f"too short to read, {one.measured}"),
    Rule("first-frame", "file", _empty_first_frame, lambda _one: "empty first frame"),
    Rule("strobing", "file", _strobing, lambda _one: "jumps"),
)
