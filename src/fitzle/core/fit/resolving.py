"""A request for a fit resolved: its layers of differences put together, the one by calculation among them."""

from __future__ import annotations

from fitzle.core.fit.arrangement import Arrangements, arrangement_of
from fitzle.core.fit.request import FitRequest, Resolved
from fitzle.core.piece.document import parts_in


def resolve(request: FitRequest, known: Arrangements | None = None) -> Resolved:
    """Piece ← take ← row ← arranged for the place ← placement: of two layers that change the same field the later wins.

    Arrangements that are `known` are not worked out again. Raises DocumentError for a take or a field of the row that
    the piece does not have.
    """
    layer = arrangement_of(request, known)
    return Resolved(request, parts_in(request.piece, request.placement, request.take, request.row, layer), layer)
