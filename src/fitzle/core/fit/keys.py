"""What is made, judged and drawn anew: hashes of exactly what a file, a judgement and a proof depend on.

Names, locks, the order in lists, naming rules, upload fields and capacity are in none of them. A field that has its
default value counts as not there, so that a field that a later version adds makes nothing anew. Artwork counts by its
bytes and not by its id: a workspace that is brought in elsewhere has the same keys.
"""

from __future__ import annotations

import hashlib
import json
from typing import Any, NamedTuple

from fitzle.core.engine import ENGINE, RULES_VERSION
from fitzle.core.fit.request import Resolved
from fitzle.core.icons.kind import is_icon_set
from fitzle.core.piece.parts import AnyPart, ArtworkPart, WordsPart, artwork_of_part
from fitzle.core.plan.grounds import takes_alpha
from fitzle.core.plan.padding import follows_mask
from fitzle.core.plan.planning import planned_size
from fitzle.core.preflight.legibility import AUTO

_UNDRAWN = {
    "name",
    "locked",
    "hidden",
    "motion",
}  # fields of a part that change no pixel; hidden parts are left out whole
_JUDGED = (
    "size formats max_bytes transparency motion covered veil mask windows seen grounds".split()
)  # what of a sheet a rule looks at


class FitKeys(NamedTuple):
    """The three keys of a fit."""

    file: str
    proof: str
    judgement: str


def fit_keys(resolved: Resolved) -> FitKeys:
    """All of them at once: what is drawn is worked out once for the three."""
    sheet, drawn = resolved.sheet, _drawn(resolved)
    wish = resolved.request.wish.model_dump(mode="json", exclude_defaults=True)
    named = ["icon set", resolved.request.piece.subject] if is_icon_set(sheet) else []
    moving = _moving(resolved)
    given = [*([wish] if wish else []), *named, *([moving] if moving else [])]
    file = _hash("file", drawn, list(sheet.formats), sheet.max_bytes, *given)
    judged = resolved.own_sheet.model_dump(mode="json", include=set(_JUDGED))
    return FitKeys(
        file=file,
        proof=_hash("proof", drawn),
        judgement=_hash("judgement", file, judged, RULES_VERSION, list(resolved.house)),
    )


def file_key(resolved: Resolved) -> str:
    """Changes when a byte of the file would: what is drawn, the formats, the limit."""
    return fit_keys(resolved).file


def proof_key(resolved: Resolved) -> str:
    """Changes when a pixel of the proof would: what is drawn."""
    return fit_keys(resolved).proof


def judgement_key(resolved: Resolved) -> str:
    """Changes when a finding could: the file, how and where it is seen, the rules, the colours that repairs offer."""
    return fit_keys(resolved).judgement


def _moving(resolved: Resolved) -> dict[str, Any] | None:
    """What the frames of a moving file follow from besides; None where it stands still."""
    motion = resolved.motion
    if motion is None and not resolved.playing:
        return None
    asked = resolved.sheet.motion.model_dump(mode="json", exclude_defaults=True)
    return {"motion": motion.model_dump(mode="json", exclude_defaults=True) if motion else None, "asked": asked}


def _drawn(resolved: Resolved) -> dict[str, Any]:
    """Everything that a pixel follows from, and nothing of the sheet that this very piece does not ask for."""
    sheet, facts, versions = resolved.sheet, resolved.facts, resolved.versions
    shown = [part for part in resolved.parts if not part.hidden]
    artworks = {artwork for part in shown if (artwork := artwork_of_part(part))}
    contents = {name: _content(resolved, name) for name in artworks}
    others = {name: versions[name] for name in artworks if name in versions}
    coloured = any(isinstance(part, WordsPart) and part.colour == AUTO for part in shown)
    alpha = takes_alpha(sheet)
    masked = any(isinstance(part, ArtworkPart) and follows_mask(part, facts[part.artwork]) for part in shown)
    return {
        "size": list(planned_size(resolved.parts, sheet, facts)),
        "parts": [_by_content(_part(part), contents) for part in shown],
        "versions": {contents[name]: [_content(resolved, one) for one in all_] for name, all_ in others.items()},
        "alpha": alpha,
        "mask": sheet.mask.model_dump(mode="json") if sheet.mask and masked else None,
        "grounds": list(sheet.grounds) if coloured or others or not alpha else None,
        "veil": sheet.veil.model_dump(mode="json") if sheet.veil and (coloured or others) else None,
        "house": list(resolved.house) if coloured else None,
        **({"plays": True} if resolved.plays else {}),
    }


def _part(part: AnyPart) -> dict[str, Any]:
    return part.model_dump(mode="json", exclude=_UNDRAWN, exclude_defaults=True)


def _by_content(value: Any, contents: dict[str, str]) -> Any:
    """A part with the hash of an artwork's bytes wherever its id stands."""
    if isinstance(value, dict):
        return {key: _by_content(entry, contents) for key, entry in value.items()}
    if isinstance(value, list):
        return [_by_content(entry, contents) for entry in value]
    return contents.get(value, value) if isinstance(value, str) else value


def _content(resolved: Resolved, name: str) -> str:
    return resolved.request.artworks[name].sha256


def _hash(kind: str, *values: Any) -> str:
    text = json.dumps([kind, ENGINE, *values], sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()[:32]
