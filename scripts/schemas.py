"""Writes the JSON Schemas of the documents into docs/; tests check that they are the code's own."""

from __future__ import annotations

import json
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT / "src"))

from fitzle.core.build.document import build_schema  # noqa: E402
from fitzle.core.handover.document import delivery_schema  # noqa: E402
from fitzle.core.piece.editing import piece_schema  # noqa: E402
from fitzle.core.spec.reading import spec_sheet_schema  # noqa: E402

SCHEMAS = {
    "spec-sheet": spec_sheet_schema(),
    "piece": piece_schema(),
    "delivery": delivery_schema(),
    "fitzle-toml": build_schema(),
}
for name, schema in SCHEMAS.items():
    (ROOT / "docs" / f"{name}.schema.json").write_text(json.dumps(schema, indent=2, ensure_ascii=False) + "\n")
