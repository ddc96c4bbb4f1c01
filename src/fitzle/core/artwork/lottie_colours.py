"""The colours of a Lottie animation replaced by others: plain fills and strokes, gradients, solids and words."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Any

import numpy as np

from fitzle.core.artwork.lottie import nodes_of
from fitzle.core.colour.oklab import oklab
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex
from fitzle.core.errors import ArtworkError

FILLS, GRADIENTS, SOLID, WORDS = ("fl", "st"), ("gf", "gs"), 1, 5
NEUTRAL = 0.03  # chroma in Oklab below which a colour is a grey, white or black
FAR = 0.12  # in Oklab: a grey is kept where no house colour is nearer
Channels = list[Any]
Visit = Callable[[Channels, int], None]


def colours_in(data: bytes) -> list[str]:
    """All colours of a checked animation as hex, those used most first; key frames and stops of gradients count."""
    counted: dict[str, int] = {}

    def note(channels: Channels, at: int) -> None:
        code = _hex(channels[at : at + 3])
        counted[code] = counted.get(code, 0) + 1

    document = json.loads(data.decode("utf-8-sig"))
    _visit(document, note)
    for node in nodes_of(document):
        if solid := _solid_colour(node):
            counted[solid] = counted.get(solid, 0) + 1
    return sorted(counted, key=lambda code: -counted[code])


def recoloured(data: bytes, colours: Mapping[str, str]) -> bytes:
    """The animation with colours replaced, hex by hex; all else stays. Raises ArtworkError where none is in it."""
    wanted = {code.lower(): parse_hex(other) for code, other in colours.items() if code.lower() != other.lower()}
    changed = 0

    def replace(channels: Channels, at: int) -> None:
        nonlocal changed
        other = wanted.get(_hex(channels[at : at + 3]))
        if other is not None:
            channels[at : at + 3] = [round(value / 255, 4) for value in other]
            changed += 1

    document = json.loads(data.decode("utf-8-sig"))
    _visit(document, replace)
    for node in nodes_of(document):
        other = wanted.get(_solid_colour(node) or "")
        if other is not None:
            node["sc"] = to_hex(other)
            changed += 1
    if not changed:
        raise ArtworkError("none of these colours is in the animation", advice="Choose another one.")
    return json.dumps(document, separators=(",", ":"), ensure_ascii=False).encode()


def in_house_colours(colours: Sequence[str], house: Sequence[str]) -> dict[str, str]:
    """For each colour the house colour that looks most like it (nearest in Oklab).

    Greys, white and black stay as they are where the house has nothing near.
    """
    if not house:
        return {}
    theirs = oklab(np.array([parse_hex(code) for code in house], dtype=np.uint8))
    found = {}
    for code in colours:
        own = oklab(np.array([parse_hex(code)], dtype=np.uint8))[0]
        distances = np.linalg.norm(theirs - own, axis=1)
        nearest = int(np.argmin(distances))
        if np.hypot(own[1], own[2]) < NEUTRAL and distances[nearest] > FAR:
            continue
        found[code] = house[nearest]
    return found


def _visit(document: Any, visit: Visit) -> None:
    """Calls with each list of numbers that holds a colour, and where its three channels (0 to 1) begin."""
    for node in nodes_of(document):
        if node.get("ty") in FILLS:
            for values in _values(node.get("c")):
                visit(values, 0)
        elif node.get("ty") in GRADIENTS and isinstance(node.get("g"), dict):
            stops = node["g"].get("p")
            for values in _values(node["g"].get("k")):
                for stop in range(stops if isinstance(stops, int) else 0):
                    if len(values) >= 4 * stop + 4:
                        visit(values, 4 * stop + 1)
        elif node.get("ty") == WORDS:
            for style in _styles(node):
                for key in ("fc", "sc"):
                    if _is_colour(style.get(key)):
                        visit(style[key], 0)


def _values(animated: Any) -> Iterator[Channels]:
    """The numbers of a property, of each of its key frames where it has some."""
    known: Any = animated.get("k") if isinstance(animated, dict) else None
    if _is_colour(known):
        yield known
    for frame in known if isinstance(known, list) else ():
        if isinstance(frame, dict):
            yield from (frame[key] for key in ("s", "e") if _is_colour(frame.get(key, ())))


def _is_colour(values: Any) -> bool:
    return isinstance(values, list) and len(values) >= 3 and all(isinstance(one, int | float) for one in values)


def _styles(node: dict[str, Any]) -> Iterator[dict[str, Any]]:
    """The looks of the words of a layer, key frame by key frame."""
    words = node.get("t")
    frames = (words.get("d") or {}).get("k") if isinstance(words, dict) and isinstance(words.get("d"), dict) else None
    for frame in frames if isinstance(frames, list) else ():
        if isinstance(frame, dict) and isinstance(frame.get("s"), dict):
            yield frame["s"]


def _solid_colour(node: dict[str, Any]) -> str | None:
    """The colour of a layer that is one colour, which is written as hex."""
    try:
        return to_hex(parse_hex(node["sc"])) if node.get("ty") == SOLID and isinstance(node.get("sc"), str) else None
    except ValueError:
        return None


def _hex(channels: Sequence[Any]) -> str:
    red, green, blue = (round(min(1.0, max(0.0, float(value))) * 255) for value in channels)
    return to_hex(Rgb(red, green, blue))
