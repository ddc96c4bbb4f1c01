"""`inspect`, `still` and `cutout`: what is done with an artwork alone."""

from __future__ import annotations

import argparse
from contextlib import nullcontext
from pathlib import Path
from typing import Any

from fitzle.cli.files import begin_of, bytes_of, check_file, written
from fitzle.cli.reading import allowance_for, read
from fitzle.cli.telling import ACCEPTED, Answer
from fitzle.core.errors import FitzleError, NoSubjectFound, ValueOutOfRange


def inspect(args: argparse.Namespace) -> Answer:
    """What an artwork really is."""
    from fitzle.core.artwork.inspecting import inspected

    check_file(args.artwork)
    with args.artwork.open("rb") as file, allowance_for(begin_of(args.artwork)) or nullcontext():
        facts = inspected(file, args.artwork.name)
    return {"file": str(args.artwork), **_whole_px(facts.model_dump(mode="json"))}, ACCEPTED


def _whole_px(value: Any) -> Any:
    """Sizes are fractions for drawings' sake; px of bitmaps are whole and printed so."""
    if isinstance(value, dict):
        return {key: _whole_px(inner) for key, inner in value.items()}
    if isinstance(value, list):
        return [_whole_px(inner) for inner in value]
    return int(value) if isinstance(value, float) and value.is_integer() else value


def still(args: argparse.Namespace) -> Answer:
    """One frame of a clip, saved as a picture."""
    from fitzle.core.artwork.clips.frames import frame_at, still_of
    from fitzle.core.artwork.clips.opening import opened_clip
    from fitzle.core.encode.saving import format_of, picture_file

    format_of(args.out.suffix)
    if not 0 <= args.at < float("inf"):
        raise ValueOutOfRange("this is not a moment", expected="seconds from the beginning", actual=str(args.at))
    check_file(args.clip)
    try:
        with args.clip.open("rb") as file, opened_clip(file) as clip:
            still = still_of(clip, frame_at(clip, args.at))
    except FitzleError as error:
        raise error.about(args.clip.name) from error
    return _saved(args.out, picture_file(still.pixels, args.out.suffix), still.pixels, seconds=still.seconds)


def cutout(args: argparse.Namespace) -> Answer:
    """A picture with its background made transparent."""
    from fitzle.core.artwork.steps.cutting_alone import cut_alone
    from fitzle.core.encode.saving import format_of, picture_file
    from fitzle.core.formats import format_of_extension

    name = args.picture.name
    if format_of_extension(args.out.suffix) == "jpeg":
        raise ValueOutOfRange("this ending has no transparency", expected=".png or .webp", actual=repr(args.out.suffix))
    format_of(args.out.suffix)
    source = read(bytes_of(args.picture), name).source
    wishes = {name: getattr(args, name) for name in ("method", "tolerance", "softness", "holes")}
    width, height = source.width, source.height
    try:
        cut = cut_alone(source, wishes, _box(args.box))
    except NoSubjectFound as error:
        if error.box:
            error.advice = f"Try --box {_box_px(error.box, width, height)}, or --method flat."
        raise error.about(name) from error
    except FitzleError as error:
        raise error.about(name) from error
    data = picture_file(cut.pixels, args.out.suffix)
    more = {"wider_box": _box_px(cut.wider, width, height)} if cut.wider else {}
    return _saved(args.out, data, cut.pixels, method=cut.method, confidence=cut.confidence, **more)


def _box_px(box: tuple[float, float, float, float], width: float, height: float) -> str:
    x, y, across, down = box
    return f"{x * width:.0f},{y * height:.0f},{across * width:.0f},{down * height:.0f}"


def _saved(out: Path, data: bytes, pixels: Any, **more: Any) -> Answer:
    path = written(out.parent, out.name, data)
    height, width = pixels.shape[:2]
    return {"file": str(path), **more, "width": width, "height": height, "bytes": len(data)}, ACCEPTED


def _box(text: str | None) -> tuple[float, float, float, float] | None:
    if text is None:
        return None
    try:
        x, y, width, height = (float(part) for part in text.split(","))
    except ValueError as error:
        raise ValueOutOfRange("this is not a box", expected="x,y,width,height in px", actual=repr(text)) from error
    return x, y, width, height
