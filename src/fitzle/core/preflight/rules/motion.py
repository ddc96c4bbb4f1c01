"""Still or moving, and for how long."""

from __future__ import annotations

from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.preflight.rule import Demand, demand_rule, demanded, refused
from fitzle.core.spec.sheet import SpecSheet

SECONDS_SLACK = 0.005  # half a step of the coarsest delays, and what summing them loses
FPS_SLACK = 0.01  # a file's delays are whole milliseconds, so that 30 a second come out a hair more


def motion_demand(file: FileFacts, sheet: SpecSheet) -> Demand:
    """What is asked of motion beside what the file does."""
    motion, moves = sheet.motion, file.frames > 1
    asked = "moving picture" if motion.required else "still or moving" if motion.allowed else "still picture"
    if motion.allowed and motion.max_seconds:
        asked += f", at most {motion.max_seconds:g} s"
    measured = f"{file.frames} frames, {file.seconds:.1f} s" if moves else "still"
    message = _problem(file, sheet, measured)
    return demanded("motion", asked, measured, refused("motion", message, measured, asked) if message else None)


def _problem(file: FileFacts, sheet: SpecSheet, measured: str) -> str | None:
    motion, moves = sheet.motion, file.frames > 1
    if moves and not motion.allowed:
        return f"It moves ({measured}); this place takes a still picture."
    if not moves:
        return "It stands still; this place takes a moving picture." if motion.required else None
    if motion.max_seconds and file.seconds > motion.max_seconds + SECONDS_SLACK:
        return f"It runs for {file.seconds:.1f} s; at most {motion.max_seconds:g} s are taken."
    if motion.max_fps and file.seconds and file.frames / file.seconds > motion.max_fps + FPS_SLACK:
        return f"It has {file.frames / file.seconds:.0f} frames a second; at most {motion.max_fps:g} are taken."
    return None


RULE = demand_rule("motion", motion_demand, "wrong motion")
