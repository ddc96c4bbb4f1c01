"""Cuts and tracings: what takes too long to be made at every look, and where it is kept in between."""

from __future__ import annotations

import hashlib
import io
import json
from collections.abc import Sequence
from typing import Any, NamedTuple, Protocol

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.document import AnyStep, CutOut, Trace

ENGINE = 4  # raise it when a cut or a tracing comes out otherwise, so that kept ones are made anew
Box = tuple[float, float, float, float]  # x, y, width, height in fractions of the picture
PAINTED = ("erase", "restore")


class Shelf(Protocol):
    """Keeps bytes under a key."""

    def get(self, key: str) -> bytes | None:
        """What is kept, or None."""
        ...

    def put(self, key: str, data: bytes) -> None:
        """Keeps it."""
        ...


class KeptInMemory(dict[str, bytes]):
    """A shelf for one call, as the command line and tests need it."""

    def put(self, key: str, data: bytes) -> None:
        """See Shelf."""
        self[key] = data


class KeptCut(NamedTuple):
    """A cut, (h, w, 4) straight alpha, with the engine that made it and how sure it was, 0 to 1.

    `wider` is a box to take instead, as the one that was drawn cuts the subject.
    """

    pixels: Pixels
    method: str
    confidence: float
    wider: Box | None = None


def is_costly(step: AnyStep) -> bool:
    """Whether a step's result is kept."""
    return isinstance(step, CutOut | Trace)


def costly_keys(original: str, steps: Sequence[AnyStep]) -> set[str]:
    """The keys of everything costly that these steps keep."""
    return {costly_key(original, steps[:at], step) for at, step in enumerate(steps) if is_costly(step)}


def costly_key(original: str, before: Sequence[AnyStep], step: AnyStep) -> str:
    """The hash of all that a costly result depends on; brush strokes and the fill are applied to it afterwards."""
    own = step.model_dump(mode="json", exclude={"id", "on", "fill"})
    if isinstance(step, CutOut):
        own["strokes"] = [stroke for stroke in own["strokes"] if stroke["act"] not in PAINTED]
    earlier = [entry.model_dump(mode="json", exclude={"id", "on"}) for entry in before]
    text = json.dumps([ENGINE, original, earlier, own], sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()[:40]


def packed_cut(cut: KeptCut) -> bytes:
    """A cut as bytes: a line of JSON and a PNG."""
    from PIL import Image

    out = io.BytesIO()
    head: dict[str, Any] = {"method": cut.method, "confidence": cut.confidence, "wider": cut.wider}
    out.write(json.dumps(head).encode() + b"\n")
    Image.fromarray(cut.pixels).save(out, "PNG", compress_level=1)
    return out.getvalue()


def unpacked_cut(data: bytes) -> KeptCut:
    """A cut from its bytes."""
    from PIL import Image

    head, _, picture = data.partition(b"\n")
    said = json.loads(head)
    with Image.open(io.BytesIO(picture), formats=["PNG"]) as opened:
        return KeptCut(np.array(opened.convert("RGBA")), said["method"], said["confidence"], _box(said.get("wider")))


def packed_failure(message: str, box: Box | None = None) -> bytes:
    """What is kept where a costly step cannot be made, so that it is not tried at every look; `box` is proposed."""
    return json.dumps({"failed": message, "box": box}).encode() + b"\n"


def failure_of(data: bytes) -> str | None:
    """The message of a kept failure; None for anything else."""
    if not data.startswith(b'{"failed"'):
        return None
    return str(json.loads(data)["failed"])


def offered_box(data: bytes) -> Box | None:
    """The box to take instead that a kept cut or failure offers."""
    if failure_of(data) is not None:
        return _box(json.loads(data).get("box"))
    said = json.loads(data.partition(b"\n")[0])
    return _box(said.get("wider"))


def _box(values: list[float] | None) -> Box | None:
    return (values[0], values[1], values[2], values[3]) if values else None
