"""The steps made one after another: a pure function from an artwork and its preparation to what is shown."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import Any, NamedTuple

from fitzle.core.artwork.own_colours import own_colours
from fitzle.core.artwork.recolour import one_colour, recoloured
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps import drawing as drawn
from fitzle.core.artwork.steps.adjusting import adjusted
from fitzle.core.artwork.steps.applying_cut import with_cut
from fitzle.core.artwork.steps.clean_edge import with_clean_edge
from fitzle.core.artwork.steps.costly import Shelf, costly_key, failure_of, is_costly, packed_failure, unpacked_cut
from fitzle.core.artwork.steps.cropping import contents_window, cropped
from fitzle.core.artwork.steps.document import (
    Adjust,
    AnyStep,
    CleanEdge,
    Crop,
    CutOut,
    Mirror,
    Recolour,
    RedEyes,
    Straighten,
    Trace,
    Trim,
    Turn,
)
from fitzle.core.artwork.steps.making_costly import made_costly, traced_drawing
from fitzle.core.artwork.steps.material import Drawing, Material, as_bitmap
from fitzle.core.artwork.steps.red_eyes import without_red_eyes
from fitzle.core.artwork.steps.turning import mirrored, straightened, turned
from fitzle.core.artwork.straight import premultiplied, straight
from fitzle.core.errors import FitzleError, NoSubjectFound


class Problem(NamedTuple):
    """A step that could not be made; the picture goes on without it."""

    step: str
    message: str


class Stage(NamedTuple):
    """The picture after one step. `problem` says why the step could not be made, `waiting` that nobody has made it yet.

    `kept` are the bytes of a costly step.
    """

    step: AnyStep
    material: Material
    problem: str = ""
    waiting: bool = False
    kept: bytes | None = None


class Prepared(NamedTuple):
    """What the steps made, what could not be made, and the costly steps that nobody has made yet."""

    material: Material
    problems: tuple[Problem, ...] = ()
    waiting: tuple[str, ...] = ()


def prepared(material: Material, steps: Sequence[AnyStep], original: str, shelf: Shelf, *, make: bool) -> Prepared:
    """Makes the steps in their order; see `stages`."""
    found = list(stages(material, steps, original, shelf, make=make))
    problems = tuple(Problem(stage.step.id, stage.problem) for stage in found if stage.problem)
    waiting = tuple(stage.step.id for stage in found if stage.waiting)
    return Prepared(found[-1].material if found else material, problems, waiting)


def stages(
    material: Material, steps: Sequence[AnyStep], original: str, shelf: Shelf, *, make: bool, done: int = 0
) -> Iterator[Stage]:
    """The picture after each step but the first `done`, which `material` has behind it already.

    `original` is the hash of the file. Costly results are taken from the shelf. With `make` those that are missing are
    made and put there; without, such a step waits and the picture goes on without it.
    """
    for index in range(done, len(steps)):
        step = steps[index]
        try:
            stage = _costly(material, steps[: index + 1], original, shelf, make) if is_costly(step) else None
            stage = stage or Stage(step, stepped(material, step))
        except FitzleError as error:
            stage = Stage(step, material, problem=error.message)
        material = stage.material
        yield stage


def _costly(material: Material, steps: Sequence[AnyStep], original: str, shelf: Shelf, make: bool) -> Stage | None:
    """The stage after the last of these steps; None where it is none that is kept."""
    step = steps[-1]
    if not isinstance(step, CutOut | Trace):
        return None
    key = costly_key(original, steps[:-1], step)
    kept = shelf.get(key)
    if kept is None:
        if isinstance(step, Trace) and isinstance(material, Drawing) and not drawn.has_pixels(material):
            return Stage(step, material, problem=_NO_PIXELS)
        if not make:
            return Stage(step, material, waiting=True)
        kept = _made(material, step)
        shelf.put(key, kept)
    failed = failure_of(kept)
    if failed:
        return Stage(step, material, problem=failed, kept=kept)
    if isinstance(step, Trace):
        return Stage(step, traced_drawing(kept, material), kept=kept)
    bitmap = as_bitmap(material)
    return Stage(step, bitmap.with_pixels(with_cut(bitmap.pixels, unpacked_cut(kept).pixels, step)), kept=kept)


_NO_PIXELS = "It is a drawing already and stays sharp at any size. Take this step away."


def _made(material: Material, step: CutOut | Trace) -> bytes:
    try:
        return made_costly(material, step)
    except NoSubjectFound as error:
        return packed_failure(error.message, error.box)
    except FitzleError as error:
        return packed_failure(error.message)


def stepped(material: Material, step: AnyStep) -> Material:
    """The material after one step that costs little; raises ArtworkError where it cannot be made."""
    if isinstance(material, Drawing) and type(step) in _ON_DRAWINGS:
        return _ON_DRAWINGS[type(step)](material, step)
    bitmap = as_bitmap(material)
    on_its_side = isinstance(step, Turn) and step.quarters % 2 == 1
    return bitmap.with_pixels(_ON_PIXELS[type(step)](bitmap.pixels, step), on_its_side=on_its_side)


def _trimmed_drawing(drawing: Drawing, step: Trim) -> Drawing:
    window = contents_window(as_bitmap(drawing).pixels, step.tolerance)
    return drawn.cropped_drawing(drawing, window) if window else drawing


def _trimmed(pixels: Pixels, step: Trim) -> Pixels:
    window = contents_window(pixels, step.tolerance)
    return cropped(pixels, window) if window else pixels


def _recoloured(pixels: Pixels, step: Recolour) -> Pixels:
    if step.one:
        return one_colour(pixels, step.one)
    palette = [entry.hex for entry in own_colours(pixels)]
    return straight(recoloured(premultiplied(pixels), palette, step.colours))


_ON_DRAWINGS: dict[type, Callable[[Drawing, Any], Drawing]] = {
    Turn: lambda drawing, step: drawn.turned_drawing(drawing, step.quarters),
    Mirror: lambda drawing, step: drawn.mirrored_drawing(drawing, step.across),
    Straighten: lambda drawing, step: drawn.straightened_drawing(drawing, step.degrees),
    Crop: lambda drawing, step: drawn.cropped_drawing(drawing, step.window),
    Trim: _trimmed_drawing,
    Recolour: lambda drawing, step: drawn.recoloured_drawing(drawing, step.one, step.colours),
}
_ON_PIXELS: dict[type, Callable[[Pixels, Any], Pixels]] = {
    Turn: lambda pixels, step: turned(pixels, step.quarters),
    Mirror: lambda pixels, step: mirrored(pixels, step.across),
    Straighten: lambda pixels, step: straightened(pixels, step.degrees),
    Crop: lambda pixels, step: cropped(pixels, step.window),
    Trim: _trimmed,
    Adjust: adjusted,
    RedEyes: lambda pixels, step: without_red_eyes(pixels, step.eyes),
    CleanEdge: lambda pixels, step: with_clean_edge(pixels, step.width),
    Recolour: _recoloured,
}
