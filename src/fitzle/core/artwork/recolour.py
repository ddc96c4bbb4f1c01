"""Colour to colour: a flat artwork's own colours replaced by others, its antialiased pixels mixed anew."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.errors import ArtworkError

_STEP = 8  # of 255: colours this near are looked up together
Floats = NDArray[np.float32]


def recoloured(pixels: Pixels, palette: Sequence[str], mapping: Sequence[tuple[str, str]]) -> Pixels:
    """Premultiplied pixels (h, w, 4) with the colours of `palette` replaced as `mapping` (from, to) says.

    Each pixel is taken as a mixture of the two palette colours nearest to explaining it, and mixed anew from what
    those become, so that smooth outlines stay smooth.
    """
    wanted = dict(mapping)
    known = list(dict.fromkeys([*palette, *wanted]))
    own = np.array([parse_hex(entry) for entry in known], dtype=np.float32)
    new = np.array([parse_hex(wanted.get(entry, entry)) for entry in known], dtype=np.float32)
    alpha = pixels[..., 3].astype(np.float32)
    straight = pixels[..., :3] * (255.0 / np.maximum(alpha, 1.0))[..., None]
    codes = (np.clip(straight, 0, 255).astype(np.uint32) // _STEP) @ np.array([1 << 12, 1 << 6, 1], dtype=np.uint32)
    distinct, first, inverse = np.unique(codes, return_index=True, return_inverse=True)
    table = _remixed(straight.reshape(-1, 3)[first].astype(np.float32), own, new)
    assert len(table) == len(distinct)
    changed = table[inverse].reshape(straight.shape) * (alpha / 255.0)[..., None]
    return with_alpha(np.rint(np.clip(changed, 0, alpha[..., None])).astype(np.uint8), pixels[..., 3])


def one_colour(pixels: Pixels, colour: str) -> Pixels:
    """Straight pixels (h, w, 4) in one colour, their coverage kept; raises ArtworkError for opaque ones."""
    if pixels[..., 3].min() == 255:
        raise ArtworkError(
            "it is opaque: in one colour nothing of it would be seen", advice="Cut it out first, or trade colours."
        )
    out = pixels.copy()
    out[..., :3] = parse_hex(colour)
    return out


def _remixed(colours: Floats, own: Floats, new: Floats) -> Floats:
    """Each colour (n, 3) as the best mixture of two of `own`, mixed of `new` instead; what is left over is kept."""
    best = np.full(len(colours), np.inf, dtype=np.float32)
    result = colours.copy()
    for one in range(len(own)):
        for two in range(one, len(own)):
            line = own[two] - own[one]
            length = float(line @ line)
            share = np.clip((colours - own[one]) @ line / length, 0, 1) if length else np.zeros(len(colours))
            share = share.astype(np.float32)[:, None]
            rest = colours - (own[one] + share * line)
            distance = (rest**2).sum(axis=1)
            nearer = distance < best - 1e-3
            best[nearer] = distance[nearer]
            mixed = new[one] + share * (new[two] - new[one]) + rest
            result[nearer] = mixed[nearer]
    return np.asarray(np.clip(result, 0, 255), dtype=np.float32)
