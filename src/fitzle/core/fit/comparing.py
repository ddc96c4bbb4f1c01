"""What differs between two takes of a piece in one place, in words with figures, and nothing that is alike."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping

from fitzle.core.fit.deciding import Decided
from fitzle.core.piece.fills import Solid
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedShape, PlacedWords, Plan

LEAST_PX = 1.0
LEAST_MOVE, LEAST_SIZE, LEAST_CONTRAST = 0.02, 0.05, 0.15  # of the picture, of the size, of a ratio
_NAMES = {"headline": "Headline", "second line": "Second line", "byline": "Byline", "badge": "Badge"}


def differing(base: Decided, other: Decided) -> list[str]:
    """How `other` differs from `base`, the most telling first."""
    before, after = _by_id(base.plan), _by_id(other.plan)
    found = [*_ground(base.plan, other.plan)]
    found += _counted("without", [own for part, own in before.items() if part not in after])
    found += _counted("with", [own for part, own in after.items() if part not in before])
    for part, own in before.items():
        if part in after:
            found += _of_part(own, after[part], base.plan)
    return found + list(_contrasts(base, other, after))


def _counted(word: str, parts: list[Placed]) -> list[str]:
    roles = Counter(part.role for part in parts)
    return [f"{word} the {role}" if count == 1 else f"{word} {count} {role}s" for role, count in roles.items()]


def _by_id(plan: Plan) -> dict[str, Placed]:
    return {part.part: part for part in plan.parts}


def _called(part: Placed) -> str:
    return f"the {part.role}"


def _ground(base: Plan, other: Plan) -> Iterator[str]:
    if base.fill == other.fill and base.under == other.under:
        return
    yield f"ground {_fill(other)} instead of {_fill(base)}"


def _fill(plan: Plan) -> str:
    if plan.ground:
        return plan.ground
    return "clear" if plan.fill is None else f"a {plan.fill.kind}"


def _of_part(before: Placed, after: Placed, plan: Plan) -> Iterator[str]:
    if isinstance(before, PlacedWords) and isinstance(after, PlacedWords):
        yield from _of_words(before, after)
    elif isinstance(before, PlacedArtwork) and isinstance(after, PlacedArtwork):
        yield from _of_artwork(before, after)
    elif isinstance(before, PlacedShape) and isinstance(after, PlacedShape) and before.fill != after.fill:
        colour = after.fill.colour if isinstance(after.fill, Solid) else "another fill"
        yield f"shape in {colour}"
    yield from _moved(before, after, plan)


def _of_words(before: PlacedWords, after: PlacedWords) -> Iterator[str]:
    name = _NAMES.get(after.role, after.role.capitalize())
    if before.layout.lines != after.layout.lines and " ".join(before.layout.lines) != " ".join(after.layout.lines):
        yield f"{name} says “{' '.join(after.layout.lines)[:40]}”"
    taller = after.layout.cap_height_px - before.layout.cap_height_px
    if abs(taller) >= LEAST_PX:
        yield f"{name} {abs(taller):.0f} px {'taller' if taller > 0 else 'lower'}"
    if before.family != after.family:
        yield f"{name} in {after.family} instead of {before.family}"
    if before.colour != after.colour:
        yield f"{name} {after.colour} instead of {before.colour}"
    if (before.plate is None) != (after.plate is None):
        yield f"{name} on a plate of {after.plate.colour}" if after.plate else f"{name} without its plate"
    elif before.plate and after.plate and before.plate.colour != after.plate.colour:
        yield f"plate {after.plate.colour} instead of {before.plate.colour}"
    if (before.outline is None) != (after.outline is None):
        yield f"{name} {'with' if after.outline else 'without'} a line around it"


def _of_artwork(before: PlacedArtwork, after: PlacedArtwork) -> Iterator[str]:
    name = after.role.capitalize()
    if before.artwork != after.artwork:
        yield f"another {after.role}"
    larger = after.box.width / before.box.width - 1
    if abs(larger) >= LEAST_SIZE:
        yield f"{name} {abs(larger):.0%} {'larger' if larger > 0 else 'smaller'}"
    if before.tint != after.tint:
        yield f"{name} tinted {after.tint}" if after.tint else f"{name} in its own colours"


def _moved(before: Placed, after: Placed, plan: Plan) -> Iterator[str]:
    one, other = before.box.centre, after.box.centre
    across, down = (other.x - one.x) / plan.size.width, (other.y - one.y) / plan.size.height
    if max(abs(across), abs(down)) < LEAST_MOVE:
        return
    if abs(across) >= abs(down):
        yield f"{_called(after)} further {'right' if across > 0 else 'left'}"
    else:
        yield f"{_called(after)} further {'down' if down > 0 else 'up'}"


def _contrasts(base: Decided, other: Decided, after: Mapping[str, Placed]) -> Iterator[str]:
    before = {one.part: one.ratio for one in base.readings}
    for reading in other.readings:
        if reading.part not in before or reading.part not in after:
            continue
        was = before[reading.part]
        if abs(reading.ratio - was) >= LEAST_CONTRAST * was:
            yield f"contrast of {_called(after[reading.part])} {reading.ratio:.1f} instead of {was:.1f}"
