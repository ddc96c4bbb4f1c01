"""A piece arranged for a place that it was not composed for: a layer of differences below those made by hand.

It is worked out whenever a fit is resolved, and kept by what it follows from: nothing of it is stored with the piece,
so that a change of the piece arranges all its places anew.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable, Mapping
from functools import lru_cache
from typing import Literal, Protocol

from fitzle.core.engine import ENGINE
from fitzle.core.errors import DocumentError
from fitzle.core.fit.request import FitRequest
from fitzle.core.piece.document import Composed, Differences, parts_in
from fitzle.core.piece.parts import WHERE_IT_STANDS, AnyPart, GroundPart
from fitzle.core.spec.sheet import ExactSize, SpecSheet
from fitzle.core.units import Size

PLACED = WHERE_IT_STANDS | {"hidden"}
ARRANGED_BY = PLACED | {"line_breaks"}  # what somebody made different in a place and the others are arranged by
Stance = Literal["as composed", "arranged", "by hand"]


class Arrangements(Protocol):
    """Where arrangements are kept by their keys."""

    def get(self, key: str) -> Differences | None:
        """What is kept; None where nothing is."""
        ...

    def keep(self, key: str, found: Differences) -> None:
        """Keeps one."""
        ...


def arrangement_of(request: FitRequest, known: Arrangements | None = None) -> Differences:
    """How the parts of a request differ in its place from the shape that they were composed in, by calculation.

    Nothing where the piece does not say for which shape it was composed, in the place where it was (there parts stand
    where somebody put them, whatever comes of it), or where it cannot be arranged.
    """
    piece = request.piece
    if piece.composed is None or piece.composed.is_here(request.placement):
        return {}
    hand = by_hand(request)
    other = {part: {name: value for name, value in fields.items() if _means(name)} for part, fields in hand.items()}
    try:
        base = parts_in(piece, None, request.take, request.row, other)
        key = _key(base, hand, request)
        if known is not None and (found := known.get(key)) is not None:
            return found
        found = _worked_out(request, base, hand, piece.composed)
    except DocumentError:
        return {}
    if known is not None:
        known.keep(key, found)
    return found


def by_hand(request: FitRequest) -> Differences:
    """What somebody made different in the place of a request."""
    return request.piece.hand_made(request.placement, request.take, request.row)


def stance_of(layer: Differences, hand: Mapping[str, Iterable[str]], parts: Iterable[AnyPart]) -> dict[str, Stance]:
    """For each part whether somebody put it where it stands, the calculation did, or it stands as it was composed."""
    found: dict[str, Stance] = {}
    for part in parts:
        if isinstance(part, GroundPart):
            continue
        placed = bool(PLACED & set(hand.get(part.id, ())))
        found[part.id] = "by hand" if placed else "arranged" if part.id in layer else "as composed"
    return found


def stance_of_all(parts: Mapping[str, Stance]) -> Stance:
    """The same for a whole fit: by hand where any part is."""
    stances = set(parts.values())
    return "by hand" if "by hand" in stances else "arranged" if "arranged" in stances else "as composed"


def is_arranged(composed: Composed | None, placement: str | None, layer: Differences, size: Size) -> bool:
    """Whether a place of a size has an arrangement of its own, so that parts that are moved there move there alone."""
    if composed is None or composed.is_here(placement):
        return False
    return bool(layer) or not composed.is_shape_of(size)


def _means(field: str) -> bool:
    """Whether a field that differs changes what a part is, and not only where it stands."""
    return field not in PLACED or field == "hidden"


def _worked_out(request: FitRequest, base: tuple[AnyPart, ...], hand: Differences, composed: Composed) -> Differences:
    from fitzle.core.arrange.arranging import arranged  # loads what most fits do not need
    from fitzle.core.arrange.intent import intent_of

    facts = {name: artwork.facts for name, artwork in request.artworks.items()}
    return arranged(base, intent_of(base, _sheet(composed), facts), request.sheet, facts, hand)


@lru_cache(maxsize=256)
def _sheet(composed: Composed) -> SpecSheet:
    size = ExactSize(width=composed.width, height=composed.height)
    return SpecSheet(fitzle_spec=1, name="composed", size=size, formats=("png",))


def _key(base: tuple[AnyPart, ...], hand: Differences, request: FitRequest) -> str:
    composed = request.piece.composed
    assert composed
    told = [
        ENGINE,
        [part.model_dump(mode="json", exclude_defaults=True) for part in base],
        {part: {name: value for name, value in fields.items() if name in ARRANGED_BY} for part, fields in hand.items()},
        request.sheet.model_dump(mode="json", include={"size", "covered", "windows", "mask", "seen"}),
        sorted((name, artwork.sha256) for name, artwork in request.artworks.items()),
        [composed.width, composed.height],
    ]
    return hashlib.sha256(json.dumps(told, sort_keys=True, default=str).encode()).hexdigest()
