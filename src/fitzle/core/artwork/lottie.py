"""Lottie animations (Lottie Animation Community, specification 1.0): checked before anything renders them.

Renderers accept invalid files without a word and players run what is written in expressions, so a file is read against
the required keys, and what it would load or run is refused with its name.
"""

from __future__ import annotations

import json
import math
from collections import Counter
from collections.abc import Iterator
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, FiniteFloat, ValidationError

from fitzle.core.artwork.facts import ArtworkFacts, Trimmed, Weight
from fitzle.core.artwork.limits import Limits
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.srgb import Rgb, to_hex
from fitzle.core.errors import ArtworkError, FitzleError, HostileFileError, LimitError
from fitzle.core.units import words_for_bytes

MOST_COLOURS = 12
# Layer types of the specification and of the usual writers; audio, cameras, data and effects layers draw nothing.
DRAWN_LAYERS = {0: "composition", 1: "solid", 2: "picture", 4: "shape", 5: "words"}
SILENT_LAYERS = {3: "null", 6: "sound", 7: "placeholder", 13: "camera", 15: "data"}
DEEPEST = 100


class _Loose(BaseModel):
    model_config = ConfigDict(extra="allow")


class _Layer(_Loose):
    ty: int


class _Asset(_Loose):
    id: str = ""
    u: str = ""
    p: str = ""
    layers: list[_Layer] = []


class _Animation(_Loose):
    """The keys that every animation has."""

    fr: Annotated[FiniteFloat, Field(gt=0, le=240)]
    ip: FiniteFloat
    op: FiniteFloat
    w: Annotated[float, Field(ge=1)]
    h: Annotated[float, Field(ge=1)]
    layers: Annotated[list[_Layer], Field(min_length=1)]
    assets: list[_Asset] = []


def read_lottie(data: bytes, name: str, limits: Limits) -> ArtworkFacts:
    """The facts of an animation. Raises ArtworkError, LimitError or HostileFileError, each about `name`."""
    try:
        document = _parsed(data, limits)
        animation = _checked(document, limits)
        _check_safe(document, animation)
        return _facts(document, animation, len(data))
    except FitzleError as error:
        raise error.about(name) from error


def _parsed(data: bytes, limits: Limits) -> dict[str, Any]:
    if len(data) > limits.max_lottie_bytes:
        raise LimitError(
            "this animation is too heavy", advice=f"At most {words_for_bytes(limits.max_lottie_bytes)} are taken."
        )
    try:
        document = json.loads(data.decode("utf-8-sig"))
    except (ValueError, RecursionError) as error:
        raise ArtworkError(
            "this Lottie animation cannot be read: it is cut off or no JSON", advice="Export it again."
        ) from error
    if not isinstance(document, dict):
        raise ArtworkError("this JSON is no Lottie animation", advice="Export it again.")
    return document


def _checked(document: dict[str, Any], limits: Limits) -> _Animation:
    try:
        animation = _Animation.model_validate(document)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(step) for step in first["loc"])
        raise ArtworkError(
            f"this Lottie animation is not valid: {where}: {first['msg'].lower()}", advice="Export it again."
        ) from error
    if animation.op <= animation.ip:
        raise ArtworkError("this Lottie animation ends before it begins", advice="Export it again.")
    frames, layers = animation.op - animation.ip, _layers(animation)
    if frames > limits.max_frames or frames / animation.fr > limits.max_seconds:
        raise LimitError(f"the animation has {frames:.0f} frames", advice=f"At most {limits.max_frames} are taken.")
    if len(layers) > limits.max_lottie_layers:
        raise LimitError(
            f"the animation has {len(layers)} layers", advice=f"At most {limits.max_lottie_layers} are taken."
        )
    if max(animation.w, animation.h) > limits.max_side_px or animation.w * animation.h > limits.max_pixels:
        raise LimitError(
            f"the animation is too large: {animation.w:.0f} x {animation.h:.0f} px", advice="Export it smaller."
        )
    unknown = next((layer.ty for layer in layers if layer.ty not in DRAWN_LAYERS | SILENT_LAYERS), None)
    if unknown is not None:
        raise ArtworkError(f"the animation has a layer of an unknown kind ({unknown})", advice="Export it again.")
    return animation


def _layers(animation: _Animation) -> list[_Layer]:
    return [*animation.layers, *(layer for asset in animation.assets for layer in asset.layers)]


def _check_safe(document: dict[str, Any], animation: _Animation) -> None:
    for asset in animation.assets:
        if asset.p and not asset.p.startswith("data:"):
            raise HostileFileError(
                f"the animation loads a file from outside ({(asset.u + asset.p)[:60]})",
                advice="Export it with its pictures embedded.",
            )
    for node in nodes_of(document):
        if isinstance(node.get("x"), str):
            raise HostileFileError(
                "the animation contains expressions, which are small programs",
                advice="Export it with expressions turned into key frames.",
            )


def nodes_of(document: Any) -> Iterator[dict[str, Any]]:
    """All objects of an animation, at any depth; raises LimitError for one that is nested without end."""
    stack = [(document, 0)]
    while stack:
        node, depth = stack.pop()
        if depth > DEEPEST:
            raise LimitError("the animation has too many levels of nesting", advice="Export it simpler.")
        if isinstance(node, dict):
            yield node
        children = node.values() if isinstance(node, dict) else node if isinstance(node, list) else ()
        stack.extend((child, depth + 1) for child in children if isinstance(child, dict | list))


def _facts(document: dict[str, Any], animation: _Animation, count: int) -> ArtworkFacts:
    seconds = (animation.op - animation.ip) / animation.fr
    colours, kinds = _colours(document), Counter(layer.ty for layer in _layers(animation))
    return ArtworkFacts(
        kind="clip",
        format="lottie",
        bytes=count,
        width=round(animation.w, 3),
        height=round(animation.h, 3),
        vector=2 not in kinds,
        trimmed=Trimmed(x=0, y=0, width=animation.w, height=animation.h),
        transparency="edges",
        colours=colours,
        edge_colours=colours,
        backdrop_colour=None,
        weight=Weight(x=0.5, y=0.5),
        reach=1.0,
        frames=math.ceil(animation.op - animation.ip),
        seconds=round(seconds, 3),
        fps=round(animation.fr, 3),
        rotation=0,
        has_alpha=True,
        warnings=_warnings(kinds),
    )


def _warnings(kinds: Counter[int]) -> tuple[str, ...]:
    found = ["It is a Lottie animation, drawn anew at any size. Make a moving picture of it to show it in places."]
    if kinds[5]:
        found.append("It has words that are not outlines; they may look different. Convert them to outlines.")
    silent = [SILENT_LAYERS[kind] for kind in kinds if kind in (6, 13, 15)]
    if silent:
        found.append(f"It has layers that show nothing here: {', '.join(sorted(silent))}.")
    return tuple(found)


def _colours(document: dict[str, Any]) -> tuple[ColourShare, ...]:
    """The plain colours of fills and strokes that do not change, by how often they are used."""
    counted: Counter[str] = Counter()
    for node in nodes_of(document):
        colour = node.get("c")
        values = colour.get("k") if isinstance(colour, dict) and node.get("ty") in ("fl", "st") else None
        if isinstance(values, list) and len(values) >= 3 and all(isinstance(v, int | float) for v in values[:3]):
            red, green, blue = (round(min(1.0, max(0.0, float(v))) * 255) for v in values[:3])
            counted[to_hex(Rgb(red, green, blue))] += 1
    whole = sum(counted.values())
    return tuple(ColourShare(hex=code, share=round(n / whole, 4)) for code, n in counted.most_common(MOST_COLOURS))
