"""The catalogue: common kinds of place with figures of our own, and what usually goes wrong there."""

from __future__ import annotations

import json
from datetime import date
from functools import cache
from pathlib import Path
from typing import NamedTuple

from fitzle.core.spec.sheet import SpecSheet


class CataloguePlace(NamedTuple):
    """One kind of place; its sheet has the kind as a key."""

    kind: str
    group: str
    name: str
    goes_wrong: str
    checked: date
    sheet: SpecSheet


@cache
def catalogue() -> tuple[CataloguePlace, ...]:
    """All kinds, group by group."""
    entries = json.loads(Path(__file__).with_suffix(".json").read_text(encoding="utf-8"))
    return tuple(
        CataloguePlace(
            kind=entry["kind"],
            group=entry["group"],
            name=entry["name"],
            goes_wrong=entry["goes_wrong"],
            checked=date.fromisoformat(entry["checked"]),
            sheet=SpecSheet.model_validate(
                {"fitzle_spec": 1, "name": entry["name"], "kind": entry["kind"], **entry["sheet"]}
            ),
        )
        for entry in entries
    )
