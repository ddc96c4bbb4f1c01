"""The small trained models that ship with Fitzle: where they lie and how they are run.

The build copies them out of registry packages (scripts/models.py); docs/decisions/0015 has their sources.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import local
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from fitzle.core.errors import FitzleError

ModelName = Literal["face_detection_back", "iris_landmark", "selfie_segmentation", "selfie_segmentation_landscape"]
Floats = NDArray[np.float32]
_own = local()  # one interpreter for each thread: they keep what they work on


def models_folder() -> Path:
    """Where the build keeps the models; FITZLE_MODELS names another folder."""
    given = os.environ.get("FITZLE_MODELS")
    return Path(given) if given else Path(__file__).resolve().parents[4] / "var" / "models"


def run_model(name: ModelName, picture: Floats) -> list[Floats]:
    """The outputs of a model for one picture (h, w, 3); raises FitzleError where the build has not made it."""
    interpreter = _interpreter(name)
    interpreter.set_tensor(interpreter.get_input_details()[0]["index"], picture[None].astype(np.float32))
    interpreter.invoke()
    return [np.array(interpreter.get_tensor(entry["index"]))[0] for entry in interpreter.get_output_details()]


def _interpreter(name: ModelName) -> Any:
    known: dict[str, Any] = _own.__dict__.setdefault("interpreters", {})
    if name not in known:
        from ai_edge_litert.interpreter import Interpreter

        path = models_folder() / f"{name}.tflite"
        if not path.exists():
            raise FitzleError("the models are not there yet", advice="Run ./start --setup once.")
        with _nothing_said():
            interpreter = Interpreter(model_path=str(path), num_threads=1)
            interpreter.allocate_tensors()
        known[name] = interpreter
    return known[name]


@contextmanager
def _nothing_said() -> Iterator[None]:
    """Nothing on standard error meanwhile: LiteRT greets there and offers no way to ask it not to."""
    kept, nowhere = os.dup(2), os.open(os.devnull, os.O_WRONLY)
    try:
        os.dup2(nowhere, 2)
        yield
    finally:
        os.dup2(kept, 2)
        os.close(kept)
        os.close(nowhere)
