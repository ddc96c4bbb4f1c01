"""Exact, or least and most, size."""

from __future__ import annotations

from fitzle.core.preflight.demand_words import size_words
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.rule import Demand, demand_rule, demanded, refused
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import size_allowed


def size_demand(file: FileFacts, sheet: SpecSheet) -> Demand:
    """The demanded size beside the file's."""
    asked, measured = size_words(sheet), f"{file.width} × {file.height}"
    finding = None
    if not size_allowed(sheet.size, file.width, file.height):
        finding = refused("size", f"It is {measured} px; this place takes {asked}.", str(file.size), asked)
    return demanded("size", asked, measured, finding)


RULE = demand_rule("size", size_demand, "wrong size")
