"""Proofs: a plan drawn for the screen, whole or in part."""

from __future__ import annotations

import io
from collections.abc import Collection, Mapping

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.fit.deciding import Decided
from fitzle.core.plan.placed import PlacedArtwork, Plan
from fitzle.core.render.painting import paint

PREVIEW_JPEG_QUALITY = 88


def proof_of(decided: Decided, sources: Mapping[str, Source], width_px: int) -> tuple[bytes, str]:
    """A decided fit at this width and its media type: JPEG where opaque, else PNG; `sources` are by all ids."""
    return proof_bytes(decided.plan, decided.planned.sources(sources), width_px)


def proof_bytes(plan: Plan, sources: Mapping[str, Source], width_px: int) -> tuple[bytes, str]:
    """As `proof_of`, of a plan; `sources` are by the ids in it."""
    return preview_bytes(paint(plan, sources, width_px))


def preview_bytes(pixels: Pixels) -> tuple[bytes, str]:
    """Pixels (h, w, 4) for the screen: quick to make, larger than a delivered file."""
    from PIL import Image

    out = io.BytesIO()
    if pixels[..., 3].min() == 255:
        Image.fromarray(pixels[..., :3]).save(out, "JPEG", quality=PREVIEW_JPEG_QUALITY, subsampling=0)
        return out.getvalue(), "image/jpeg"
    Image.fromarray(pixels).save(out, "PNG", compress_level=1)
    return out.getvalue(), "image/png"


def parts_alone(plan: Plan, parts: Collection[str]) -> Plan:
    """The plan with nothing in it but some parts, on a clear ground: what moves while they are dragged."""
    return plan._replace(under=None, fill=None, edge=None, parts=tuple(own for own in plan.parts if own.part in parts))


def without_parts(plan: Plan, parts: Collection[str]) -> Plan:
    """The plan without some parts: what stays while they are dragged."""
    return plan._replace(parts=tuple(own for own in plan.parts if own.part not in parts))


def off_the_grid(plan: Plan) -> Plan:
    """The plan with nothing fitted to the pixel grid, to be seen beside the one that is."""
    loose = (own._replace(grid=False) if isinstance(own, PlacedArtwork) else own for own in plan.parts)
    return plan._replace(parts=tuple(loose))
