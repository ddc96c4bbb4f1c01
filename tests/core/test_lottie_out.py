"""Lottie files of moving pieces, drawn again by two readers, beside the pictures that they are made of."""

from __future__ import annotations

import json
from typing import Any

import numpy as np
import pytest

from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.lottie import read_lottie
from fitzle.core.artwork.lottie_player import LottiePlayer
from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.straight import premultiplied
from fitzle.core.fit.deciding import Decided, decide, plan_fit
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.motion.document import Motion
from fitzle.core.motion.lottie.keys import keyed
from fitzle.core.motion.lottie.saying import sayable
from fitzle.core.motion.lottie.writing import Written, difference, lottie_file
from fitzle.core.motion.timing import at
from fitzle.core.piece.document import Piece
from fitzle.core.piece.motion import PartMotion
from fitzle.core.render.painting import paint
from tests.make import photo, saved, sheet, svg

MARK = svg(
    '<defs><linearGradient id="g" x1="0" y1="0" x2="1" y2="0"><stop offset="0" stop-color="#17443c"/>'
    '<stop offset="1" stop-color="#f4d06f"/></linearGradient></defs>'
    '<circle cx="50" cy="25" r="22" fill="url(#g)"/><path d="M30 10h12v30h-12z" fill="#b4541a" opacity=".7"/>'
    '<path d="M60 5l20 40" stroke="#20242c" stroke-width="4" fill="none" stroke-linecap="round"/>'
)
MOST_OFF = 2.0  # of 255 on average
MOST_OFF_BITMAPS = 4.0  # players scale turned bitmaps more roughly than we do, and this one is all edges


def placed(parts: list[dict[str, Any]], size: tuple[int, int] = (320, 320)) -> tuple[Decided, dict[str, Artwork]]:
    artworks = {"mark": read_artwork(MARK, "mark.svg"), "photo": read_artwork(saved(photo(200, 160), "PNG"), "p.png")}
    place = sheet(size={"width": size[0], "height": size[1]}, formats=["png"])
    piece = Piece.model_validate({"subject": "A wheel turns", "parts": parts})
    known = {name: FitArtwork(one.facts, name) for name, one in artworks.items()}
    request = FitRequest(piece, place, place.placement, known)
    return decide(plan_fit(request), {name: one.source for name, one in artworks.items()}), artworks


GROUND = {"id": "ground", "role": "ground", "fill": {"kind": "solid", "colour": "#f6f2e8"}}
THE_MARK = {"id": "mark", "role": "mark", "artwork": "mark"}
WORDS = {"id": "words", "role": "headline", "text": "Hello wheels"}


def written(
    parts: list[dict[str, Any]], motion: dict[str, Any], period: float = 2.0, **more: Any
) -> tuple[Written, Decided, Motion, dict[str, Any]]:
    decided, artworks = placed(parts)
    own = Motion(period=period, parts={name: PartMotion.model_validate(one) for name, one in motion.items()})
    sources = decided.planned.sources({name: one.source for name, one in artworks.items()})
    return lottie_file(decided.plan, own, sources, **more), decided, own, sources


def by_rlottie(data: bytes, frame: int, width: int, height: int) -> Pixels:
    """The second reader; its pixels are BGRA, premultiplied."""
    import rlottie_python

    animation = rlottie_python.LottieAnimation.from_data(data.decode())
    raw = animation.lottie_animation_render(frame_num=frame, width=width, height=height)
    return np.frombuffer(raw, np.uint8).reshape(height, width, 4)[..., [2, 1, 0, 3]]


def worst_of_both(found: Written, decided: Decided, motion: Motion, sources: dict[str, Any], begin: float = 0) -> float:
    worst = 0.0
    player = LottiePlayer(found.data)
    for frame in range(0, found.frames, max(1, found.frames // 9)):
        plan = at(decided.plan, sayable(motion), begin + frame / found.fps)
        ours = paint(plan, sources)
        other = by_rlottie(found.data, frame, *decided.plan.size)
        second = float(np.abs(other.astype(np.int16) - premultiplied(ours)).mean())
        worst = max(worst, difference(player.at(frame / found.fps), ours), second)
    return worst


MOVEMENTS: list[tuple[str, dict[str, Any]]] = [
    *((how, {"come": {"how": how, "start": 0.2, "length": 0.8}, "go": {"how": "fade", "start": 1.6, "length": 0.3}})
      for how in ("at once", "fade", "from left", "from bottom", "grow", "wiped", "letter by letter", "word by word")),
    *((how, {"keep": {"how": how, "every": 1.0, "strength": 0.6}})
      for how in ("sway", "bob", "pulse", "spin", "drift", "flicker", "wave")),
]  # fmt: skip


@pytest.mark.parametrize(("how", "motion"), MOVEMENTS, ids=[how for how, _ in MOVEMENTS])
def test_two_readers_draw_what_we_draw(how: str, motion: dict[str, Any]) -> None:
    found = written([GROUND, THE_MARK, WORDS], {"mark": motion, "words": motion})
    read_lottie(found[0].data, "a.json", DEFAULT_LIMITS)
    assert found[0].bitmaps == () and found[0].unsaid == ()
    assert found[0].off <= MOST_OFF
    assert worst_of_both(*found) <= MOST_OFF


def test_a_file_without_ground_is_clear_and_loops() -> None:
    found, *_ = written([THE_MARK], {"mark": {"keep": {"how": "spin", "every": 2.0, "strength": 1}}})
    player = LottiePlayer(found.data)
    assert player.at(0)[0, 0, 3] == 0
    assert player.seconds == pytest.approx(2.0, abs=1e-3)
    turns = json.loads(found.data)["layers"][0]["ks"]["r"]["k"]
    assert turns[-1]["s"][0] - turns[0]["s"][0] == pytest.approx(360 * (found.frames - 1) / found.frames, abs=0.1)


def test_what_outlines_cannot_say_is_a_bitmap_inside_and_named() -> None:
    shadowed = {**WORDS, "shadow": {"colour": "#000000", "dx": 0.1, "dy": 0.1, "softness": 0.4, "opacity": 0.6}}
    picture = {"id": "picture", "role": "picture", "artwork": "photo"}
    swaying = {"keep": {"how": "sway", "every": 1.0, "strength": 0.6}}
    found = written([GROUND, picture, shadowed], {"words": swaying, "picture": swaying})
    assert set(found[0].bitmaps) == {"words", "picture"}
    assert worst_of_both(*found) <= MOST_OFF_BITMAPS


def test_what_a_file_cannot_say_is_named() -> None:
    motion = {"words": {"come": {"how": "drawn"}}, "picture": {"keep": {"how": "pan", "every": 2.0}}}
    picture = {"id": "picture", "role": "picture", "artwork": "photo"}
    found, *_ = written([GROUND, picture, WORDS], motion)
    assert found.unsaid == (
        "the slow pan of “picture”", "the drawing of the outline of “words”, which fades instead",
    )  # fmt: skip


def test_gradients_and_the_begin_of_a_loop() -> None:
    fill = {"kind": "gradient", "stops": [{"at": 0, "colour": "#17443c"}, {"at": 1, "colour": "#f4d06f"}], "angle": 30}
    coming = {"come": {"how": "from left", "start": 0.2, "length": 0.6}}
    found = written([{**GROUND, "fill": fill}, WORDS], {"words": coming}, begin=1.0)
    assert worst_of_both(*found, begin=1.0) <= MOST_OFF


def test_few_keys_say_a_straight_way() -> None:
    line = keyed([(float(one), 2.0 * one) for one in range(30)], 5, 0.01)
    assert [one["t"] for one in line["k"]] == [5, 34]
    assert keyed([(4.0,)] * 9, 0, 0.01) == {"a": 0, "k": 4.0}
    bent = keyed([(0.0,), (0.0,), (9.0,), (9.0,)], 0, 0.01)
    assert [(one["t"], one["s"]) for one in bent["k"]] == [(0, [0.0]), (1, [0.0]), (2, [9.0]), (3, [9.0])]
