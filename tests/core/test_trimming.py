"""What a part of a clip weighs in a place: what is foreseen from its moments is near the file that is made."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterator
from fractions import Fraction
from typing import Any

import av
import numpy as np
import pytest
from demo.people import Looks, person, room, together

from fitzle.core.artwork.clips.opening import OpenClip, opened_clip
from fitzle.core.motion.footage import Cut
from fitzle.core.motion.foreseeing import (
    MOST_PIXELS,
    SPAN_S,
    Growth,
    foreseen,
    growth_of,
    light_loop,
    packed,
    part_of,
    span_frames,
    spans_of,
    turned_out,
    unpacked,
)
from fitzle.core.motion.trimming import Trimmed, measured, parts_of, trimmed_for
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size
from tests.make import photo

NATURAL = Size(320, 180)
WIDE = np.asarray(photo(700, 180).convert("RGB"))
NEAR, STOPS = 0.25, 0.35  # what the screen may be off while somebody drags; where all movement stops inside of a part
CUTS = [Cut(0.5, 2.5), Cut(3.2, 5.2), Cut(0.1, 0.9)]


def panning_then_still(seconds: float) -> np.ndarray:
    x = round(180 + 150 * np.sin(1.2 * min(seconds, 3.5)))
    return np.ascontiguousarray(WIDE[:, x : x + 320])


def somebody(seconds: float) -> np.ndarray:
    shown = together(person(*NATURAL, Looks(), 0.5 + 0.2 * np.sin(seconds), 0.8), room(*NATURAL))
    return np.ascontiguousarray(shown[..., :3])


def filmed(frame: Callable[[float], np.ndarray], seconds: float = 6.0) -> bytes:
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as container:
        stream: Any = container.add_stream("libx264", rate=25)
        stream.width, stream.height, stream.pix_fmt = *NATURAL, "yuv420p"
        stream.codec_context.time_base = Fraction(1, 25)
        stream.codec_context.thread_count = 1  # the same bytes each time
        for number in range(round(25 * seconds)):
            container.mux(stream.encode(av.VideoFrame.from_ndarray(frame(number / 25), format="rgb24")))
        container.mux(stream.encode(None))
    return out.getvalue()


@pytest.fixture(scope="module", params=[panning_then_still, somebody])
def filming(request: pytest.FixtureRequest) -> Callable[[float], np.ndarray]:
    frame: Callable[[float], np.ndarray] = request.param
    return frame


@pytest.fixture(scope="module")
def clip(filming: Callable[[float], np.ndarray]) -> Iterator[OpenClip]:
    with opened_clip(io.BytesIO(filmed(filming))) as opened:
        yield opened


@pytest.mark.parametrize(
    ("fmt", "size"),
    [("gif", (300, 110)), ("webp", (400, 110)), ("apng", (190, 190)), ("avif", (400, 110)), ("mp4", (400, 110))],
)
def test_what_is_foreseen_is_near_what_is_made(clip: OpenClip, filming: Any, fmt: Any, size: tuple[int, int]) -> None:
    """From one measured part to the others, as on the screen, whatever closes the loop."""
    near = STOPS if filming is panning_then_still else NEAR
    made = Trimmed(NATURAL, fmt, Size(*size), 12.5)
    wrong_by, grown, frames = 1.0, dict[Any, Growth](), spans(clip, made)
    for cut in [one._replace(closing=closing) for closing in ("cut", "smooth", "back") for one in CUTS]:
        part = part_of(frames, 0.0, cut, made)
        light = light_loop(part, cut, made)
        assert light.size.width < size[0], "encoded small"
        if light.kind not in grown:
            grown[light.kind] = growth_of(clip, part, cut, made, light.size)
        growth = grown[light.kind]
        weighs = measured(clip, cut, made)
        ratio = foreseen(light, growth, made, wrong_by) / weighs
        assert 1 - near <= ratio <= 1 / (1 - near), (cut, ratio)
        if cut.begin == CUTS[0].begin:
            wrong_by = turned_out(light, growth, weighs)


def spans(clip: OpenClip, made: Trimmed) -> list[np.ndarray]:
    return [frame for begin in (0.0, SPAN_S) for frame in unpacked(packed(span_frames(clip, begin, 6.0, made)))]


@pytest.mark.parametrize("fmt", ["gif", "webp", "avif", "mp4", "webm"])
def test_a_small_loop_is_foreseen_exactly(clip: OpenClip, fmt: Any) -> None:
    """Where its frames are as small as those that are kept, the file itself is made."""
    made, cut = Trimmed(NATURAL, fmt, Size(160, 60), 12.5), Cut(0.8, 2.4)
    light = light_loop(part_of(spans(clip, made), 0.0, cut, made), cut, made)
    assert light.size == made.size
    found = foreseen(light, Growth(1.0, 1.0), made, wrong_by=3.0)
    assert found == pytest.approx(measured(clip, cut, made), rel=0.01)


def test_frames_come_back_as_they_were_kept_what_is_clear_in_them_too() -> None:
    frames = [np.random.default_rng(seed).integers(0, 256, (12, 20, 4), dtype=np.uint8) for seed in range(3)]
    assert all(np.array_equal(one, other) for one, other in zip(unpacked(packed(frames)), frames, strict=True))


def test_a_longer_part_weighs_more(clip: OpenClip) -> None:
    made = Trimmed(NATURAL, "gif", Size(400, 120), 12.5)
    frames = spans(clip, made)
    weights = []
    for end in (1.5, 2.0, 3.0, 5.0):
        light = light_loop(part_of(frames, 0.0, Cut(1.0, end), made), Cut(1.0, end), made)
        weights.append(foreseen(light, Growth(2.0, 2.0), made))
    assert weights == sorted(weights) and weights[-1] > weights[0]


def test_the_longer_a_loop_the_smaller_it_is_encoded(clip: OpenClip) -> None:
    """So that a drawing has an end while somebody drags."""
    made = Trimmed(NATURAL, "gif", Size(800, 200), 12.5)
    frame = spans(clip, made)[0]
    cuts = (50, Cut(0, 4.0)), (200, Cut(0, 16.0)), (400, Cut(0, 16.0, closing="back"))
    sizes = [light_loop([frame] * min(count, 200), cut, made).size for count, cut in cuts]
    assert sizes[0].width > sizes[1].width > sizes[2].width
    for size, (count, _) in zip(sizes, cuts, strict=True):
        assert size.width * size.height * count < 1.1 * MOST_PIXELS


@pytest.mark.parametrize("fmt", ["gif", "webp"])
def test_a_large_part_is_made_in_parts_that_add_up(clip: OpenClip, fmt: Any) -> None:
    """A drawing has some seconds: what is encoded together is bounded, the sum is that of one file."""
    made, cut = Trimmed(NATURAL, fmt, Size(320, 180), 12.5), Cut(0.4, 2.4, closing="smooth")
    whole = measured(clip, cut, made)
    assert sum(measured(clip, cut, made, part, 3) for part in range(3)) == pytest.approx(whole, rel=0.05)
    assert parts_of(cut, 6.0, made) == 1 and parts_of(cut, 6.0, made._replace(size=Size(1280, 320))) > 1


@pytest.mark.parametrize(
    ("cut", "begins"),
    [(Cut(0, 3.9), [0.0]), (Cut(3.9, 4.1), [0.0, 4.0]), (Cut(4.0, 8.0), [4.0]), (Cut(7000.5, 7001), [7000.0])],
)
def test_spans_are_looked_at_not_hours(cut: Cut, begins: list[float]) -> None:
    assert spans_of(cut) == begins


@pytest.mark.parametrize(
    ("formats", "size", "motion", "says"),
    [
        (["gif"], (300, 90), {"allowed": True}, ("gif", 12.5)),
        (["png", "webp"], (300, 90), {"allowed": True, "max_fps": 8}, ("webp", 8)),
        (["gif"], (300, 90), {"allowed": False}, None),
        (["png", "jpeg"], (300, 90), {"allowed": True}, None),
        (["mp4", "gif"], (301, 90), {"allowed": True}, ("gif", 12.5)),  # a video has even sides
    ],
)
def test_a_place_says_what_is_made(formats: list[str], size: tuple[int, int], motion: Any, says: Any) -> None:
    document = {
        "fitzle_spec": 1, "name": "Header", "size": {"width": size[0], "height": size[1]}, "formats": formats,
        "motion": motion,
    }  # fmt: skip
    made = trimmed_for(SpecSheet.model_validate(document), NATURAL, 25)
    assert (made and (made.format, made.fps)) == says
    assert made is None or made.size == size
