"""Whether any pixel is transparent, where that is forbidden or required."""

from __future__ import annotations

from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.rule import Demand, demand_rule, demanded, refused
from fitzle.core.spec.sheet import SpecSheet

ASKED = {"forbidden": "no transparency", "allowed": "transparency allowed", "required": "transparency required"}


def transparency_demand(file: FileFacts, sheet: SpecSheet) -> Demand:
    """What is asked of transparency beside what the file is."""
    measured = "transparent" if file.transparent else "opaque"
    finding = None
    if sheet.transparency == "forbidden" and file.transparent:
        message = "Parts of it are transparent; here they would turn black or white. Choose a ground."
        finding = refused("transparency", message, measured, "opaque")
    if sheet.transparency == "required" and not file.transparent:
        finding = refused(
            "transparency", "Nothing in it is transparent; this place wants a clear ground.", measured, "transparent"
        )
    return demanded("transparency", ASKED[sheet.transparency], measured, finding)


RULE = demand_rule("transparency", transparency_demand, "wrong transparency")
