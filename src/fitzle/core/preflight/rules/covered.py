"""Words and marks that the place covers, or does not show in one of its windows."""

from __future__ import annotations

import math

from fitzle.core.artwork.facts import ArtworkFacts, Face
from fitzle.core.findings import Finding, Repair
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords
from fitzle.core.plan.standing import standing_at
from fitzle.core.preflight.free_area import hidden_share, nearest_free
from fitzle.core.preflight.places import quoted, where_in
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence, Rule
from fitzle.core.spec.sheet import SpecSheet

MOST_HIDDEN = 0.03  # of the box: a serif under a rounded badge is no harm
CROPS = 16  # of each direction that are tried
MOST_FACE_HIDDEN = 0.1  # a chin or some hair may go


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each words, mark and face of which something is hidden."""
    hidden = [found for part in _important(evidence) if (found := _hidden(part, evidence))]
    return hidden + [found for own in evidence.artworks() if (found := _hidden_face(own))]


def _important(evidence: Evidence) -> list[Placed]:
    marks = [own.part for own in evidence.artworks() if own.facts.kind == "mark"]
    return [*marks, *evidence.plan.words]


def _hidden(part: Placed, evidence: Evidence) -> Finding | None:
    share = hidden_share(part.box, evidence.sheet, evidence.plan.size)
    if share <= MOST_HIDDEN:
        return None
    what = quoted(part) if isinstance(part, PlacedWords) else "the mark"
    free = nearest_free(part.box, evidence.sheet, evidence.plan.size)
    return Finding(
        rule="covered",
        severity="risky",
        message=f"{share:.0%} of {what} cannot be seen: {_by(evidence.sheet)}.",
        measured=round(share, 3),
        limit=MOST_HIDDEN,
        where=where_in(evidence.plan, part.box),
        repair=Repair(name="move-free", label="Move it into the free area") if free else None,
        part=part.part,
    )


def _hidden_face(own: ArtworkInPlan) -> Finding | None:
    """The face of a picture of which most is hidden."""
    size = own.plan.size
    boxes = [box for face in own.facts.faces if (box := _placed_face(face, own.part))]
    share, box = max(((hidden_share(box, own.sheet, size), box) for box in boxes), default=(0.0, None))
    if box is None or share <= MOST_FACE_HIDDEN:
        return None
    return Finding(
        rule="covered",
        severity="risky",
        message=f"{share:.0%} of a face cannot be seen: {_by(own.sheet)}. Another crop would show it.",
        measured=round(share, 3),
        limit=MOST_FACE_HIDDEN,
        where=where_in(own.plan, box),
        repair=Repair(name="show-face", label="Move the crop to show it") if _better_window(own) else None,
        part=own.part.part,
    )


def _better_window(own: ArtworkInPlan) -> Rect | None:
    """The window of the artwork moved as little as possible until all faces show; None where that cannot be."""
    window, facts, size = own.part.window, own.facts, own.plan.size
    places = [
        window._replace(x=x, y=y)
        for x in _steps(facts.width - window.width, window.x)
        for y in _steps(facts.height - window.height, window.y)
    ]
    for place in sorted(places, key=lambda one: math.hypot(one.x - window.x, one.y - window.y)):
        moved = own.part._replace(window=place)
        boxes = [_placed_face(face, moved) for face in facts.faces]
        if all(box and hidden_share(box, own.sheet, size) <= MOST_FACE_HIDDEN / 2 for box in boxes):
            return place
    return None


def _steps(room: float, own: float) -> list[float]:
    return [own] if room <= 0 else [room * step / CROPS for step in range(CROPS + 1)]


def show_face(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The crop moved until all faces show."""
    return [
        SetField(part=own.part.part, field="focal_point", value=_focus(place, own.facts), placement=placement)
        for own in evidence.artworks()
        if part in (None, own.part.part) and own.facts.faces and (place := _better_window(own))
    ]


def _focus(window: Rect, facts: ArtworkFacts) -> dict[str, float]:
    middle = window.centre
    return {"x": round(middle.x / facts.width, 4), "y": round(middle.y / facts.height, 4)}


def _placed_face(face: Face, part: PlacedArtwork) -> Rect | None:
    """Where a face comes to stand; None where less than half of it is in the crop: nobody takes that for a face."""
    window, box = part.window, part.box
    scale = box.width / window.width, box.height / window.height
    placed = Rect(
        box.x + (face.x - window.x) * scale[0],
        box.y + (face.y - window.y) * scale[1],
        face.width * scale[0],
        face.height * scale[1],
    )
    across = min(placed.right, box.right) - max(placed.x, box.x)
    down = min(placed.bottom, box.bottom) - max(placed.y, box.y)
    shown = max(across, 0) * max(down, 0) / max(placed.width * placed.height, 1e-9)
    return placed if shown >= 0.5 else None


def _by(sheet: SpecSheet) -> str:
    zones = [zone.label for zone in sheet.covered]
    return f"it lies under {' or '.join(zones[:3])}" if zones else "it lies outside of what a window shows"


def move_free(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """Each part moved by the smallest shift after which nothing of it is hidden."""
    changes: list[Change] = []
    for own in _important(evidence):
        free = nearest_free(own.box, evidence.sheet, evidence.plan.size)
        hidden = hidden_share(own.box, evidence.sheet, evidence.plan.size) > MOST_HIDDEN
        if part not in (None, own.part) or free is None or not hidden:
            continue
        moved = own.stands.moved(free.x - own.box.x, free.y - own.box.y)
        stands, beyond = standing_at(moved, evidence.plan.size)
        changes.append(SetField(part=own.part, field="stands", value=stands.model_dump(), placement=placement))
        changes.append(SetField(part=own.part, field="beyond", value=beyond, placement=placement))
    return changes


def label(finding: Finding) -> str:
    """For example `34% hidden`."""
    return f"{finding.measured:.0%} hidden"


RULE = Rule("covered", "plan", judge, label, {"move-free": move_free, "show-face": show_face})
