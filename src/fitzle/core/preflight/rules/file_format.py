"""The format by content; the extension is not looked at."""

from __future__ import annotations

from fitzle.core.encode.registry import writable
from fitzle.core.findings import Finding
from fitzle.core.formats import DRAWN, MOVING, format_named, holds_size, label_of
from fitzle.core.preflight.demand_words import format_words
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.rule import Demand, Evidence, demand_rule, demanded, refused
from fitzle.core.spec.sheet import SpecSheet


def format_demand(file: FileFacts, sheet: SpecSheet) -> Demand:
    """The demanded formats beside the file's."""
    asked, measured = format_words(sheet), label_of(file.format)
    finding = None
    if file.format not in sheet.formats:
        finding = refused("format", f"It is really a {measured}; this place takes {asked}.", file.format, asked)
    return demanded("format", asked, measured, finding)


def _not_written(evidence: Evidence) -> list[Finding]:
    """No file, because no format of the sheet can hold this picture, or none of them can be written."""
    if evidence.choice.problem != "no format":
        return []
    asked = ", ".join(evidence.sheet.formats)
    return [refused("format", _why(evidence, asked), None, asked)]


def _why(evidence: Evidence, asked: str) -> str:
    written = [fmt for fmt in evidence.sheet.formats if writable(fmt)]
    size = evidence.plan.size
    if any(not holds_size(fmt, *size) for fmt in evidence.sheet.formats):
        return f"A video has an even number of px on each side; this is {size.width} × {size.height}."
    if set(evidence.sheet.formats) <= {*MOVING, *DRAWN} and not written:
        return f"This place takes only {asked}, and nothing moves here. Let its parts move."
    if not written:
        return f"This place takes only {asked}, which Fitzle cannot write yet."
    if not any(format_named(fmt).alpha for fmt in written):
        return f"This place takes only {asked}, which cannot be transparent. Choose a ground."
    side = max(format_named(fmt).longest_side_px or 0 for fmt in written)
    return (
        f"This place takes only {asked}, which holds at most {side} × {side} px; this is {size.width} × {size.height}."
    )


RULE = demand_rule("format", format_demand, "wrong format", _not_written)
