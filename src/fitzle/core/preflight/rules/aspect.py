"""The shape, where a range fixes one; exact to half a pixel, or as far as it is written."""

from __future__ import annotations

from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.rule import Demand, demand_rule, demanded, refused
from fitzle.core.spec.sheet import RangedSize, SpecSheet
from fitzle.core.spec.sizing import aspect_allowed


def aspect_demand(file: FileFacts, sheet: SpecSheet) -> Demand | None:
    """The demanded shape beside the file's; None where none is demanded or the exact size says it already."""
    if not isinstance(sheet.size, RangedSize) or not sheet.size.aspect:
        return None
    asked, measured = f"shape {sheet.size.aspect}", f"{file.size.ratio:.3g}:1"
    finding = None
    if not aspect_allowed(sheet.size.aspect, file.width, file.height):
        message = (
            f"Its shape is {measured}; this place takes {sheet.size.aspect}. It would be stretched or cropped there."
        )
        finding = refused("aspect", message, round(file.size.ratio, 4), sheet.size.aspect)
    return demanded("aspect", asked, sheet.size.aspect if not finding else measured, finding)


RULE = demand_rule("aspect", aspect_demand, "wrong shape")
